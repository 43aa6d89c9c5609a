import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heard, ids, jobWith, minute, registry } from '../../../../tests/support/car';
import { changesOf, ofKind } from '../../job/history';
import type { Observation } from '../../job';
import { needOf } from '../../visit/teaching/choice';
import { canonicalId, isWellFormed } from '../../names/sensor-id';
import { idIsAt, idsMet, newSensorId, oldIdsAt } from '.';
import { programmingWords, teachWords } from './words';
import { programmedFor, programmingVerdict, type SensorWrite } from '../../job/car-write';

const write = (more: Partial<SensorWrite> = {}): SensorWrite => ({
  kind: 'sensor',
  key: 'one',
  askedAt: minute(5),
  mode: 'clone',
  wheel: 'RR',
  asked: { id: ids.RR, family: 'kestrel', frequencyMHz: 433.92 },
  answer: 'yes',
  readBackAt: minute(6),
  readBack: { id: ids.RR, family: 'kestrel', frequencyMHz: 433.92 },
  ...more,
});
const unread: Partial<SensorWrite> = { readBack: undefined, readBackAt: undefined };

describe('what a programmed sensor is', () => {
  it('is what it was read back as: nothing the programmer said', () => {
    expect(programmingVerdict(write())).toBe('worked');
    expect(programmingVerdict(write({ readBack: { id: '4b11 e0f6' } }))).toBe('worked');
    expect(programmingVerdict(write({ readBack: { id: '4B11E0F7' } }))).toBe('failed');
    expect(programmingVerdict(write({ readBack: { id: null } }))).toBe('failed');
    expect(programmingVerdict(write({ readBack: { id: ids.RR, family: 'plover' } }))).toBe('failed');
    expect(programmingVerdict(write({ readBack: { id: ids.RR, frequencyMHz: 315 } }))).toBe('failed');
    for (const answer of ['yes', 'lost', undefined] as const)
      expect(programmingVerdict(write({ ...unread, answer }))).toBe('unknown');
    expect(programmingVerdict(write({ ...unread, answer: 'no' }))).toBe('refused');
  });

  it('is told without claiming more', () => {
    expect(programmingWords(write())).toBe('It is 4B11 E0F6, read back.');
    expect(programmingWords(write(unread))).toMatch(/Nobody knows/);
    expect(programmingWords(write({ readBack: { id: null } }))).toMatch(/read back as nothing/);
    expect(teachWords(write())).toMatch(/no relearn/);
    expect(teachWords(write({ mode: 'new' }))).toMatch(/must be taught/);
  });
});

describe('the old ID', () => {
  it('is known from the wheel, from the car, from the record, each once', () => {
    const job = jobWith([heard(1, 'LF'), registry(2, { RR: '4B11E0F7' })], {
      sensors: [
        { id: ids.LF, wheel: 'LF' },
        { id: '4B11E0F6', wheel: 'RR' },
      ],
    });
    expect(oldIdsAt(job, 'LF')).toEqual([{ id: ids.LF, from: 'scan' }]);
    expect(oldIdsAt(job, 'RR').map(({ from }) => from)).toEqual(['car', 'record']);
    expect(oldIdsAt(jobWith([]), 'RR')).toEqual([]);
  });

  it('is refused where another wheel has it', () => {
    const job = jobWith([heard(1, 'LF'), registry(2)], {
      carWrites: [write({ asked: { id: '90FFE0A1' }, readBack: { id: '90FFE0A1' } })],
    });
    expect(idIsAt(job, ids.LF.toLowerCase(), 'RR')).toBe('LF');
    expect(idIsAt(job, ids.RF, 'RR')).toBe('RF');
    expect(idIsAt(job, ids.RR, 'RR')).toBeUndefined();
    expect(idIsAt(job, '90FFE0A1', 'LR')).toBe('RR');
    expect(idIsAt(job, 'FFFFFFFF', 'LR')).toBeUndefined();
  });
});

describe('a new ID', () => {
  it('has the digits of the car and never begins with a nought', () => {
    const random = fc.func(fc.nat()).map((number) => {
      let calls = 0;
      return (below: number) => number((calls += 1)) % below;
    });
    fc.assert(
      fc.property(random, fc.integer({ min: 7, max: 8 }), (number, digits) => {
        const id = newSensorId(digits, () => false, number);
        expect(isWellFormed(id, digits)).toBe(true);
        expect(id.startsWith('0')).toBe(false);
      }),
    );
  });

  it('is another where the first one is taken', () => {
    let calls = 0;
    const counting = () => ((calls += 1) > 8 ? 1 : 0);
    expect(newSensorId(8, (id) => id === '10000000', counting)).toBe('21111111');
  });

  it('is none of those heard, held, on file, of another set, or just made', () => {
    const job = jobWith([heard(1, 'LF'), registry(2, { LR: '51A0 0001' })], {
      sensors: [{ id: '51A00002' }],
      otherSets: [{ ids: ['51a00003'] }],
      carWrites: [write({ asked: { id: '51A00004' } })],
    });
    const met = idsMet(job);
    for (const id of [ids.LF, ids.RF, '51A00001', '51A00002', '51A00003', '51A00004'])
      expect(met.has(canonicalId(id)), id).toBe(true);
    expect(met.has('51A00005')).toBe(false);
  });
});

describe('what follows for the car', () => {
  const need = (more: Partial<SensorWrite>, seen: Observation[] = []) =>
    needOf(jobWith(seen, { service: { kind: 'sensor-replaced' }, carWrites: [write(more)] }));

  it('a clone needs no relearn, a new ID does; a sensor nobody read back changes nothing', () => {
    expect(need({})).toMatchObject({ action: 'none', reason: 'cloned', wheels: ['RR'], measured: false });
    const other = { asked: { id: '90FFE0A1' }, readBack: { id: '90FFE0A1' } };
    expect(need({ mode: 'new', ...other })).toMatchObject({
      action: 'relearn',
      reason: 'new-sensor',
      wheels: ['RR'],
    });
    expect(need(unread)).toMatchObject({ action: 'depends' });
    expect(programmedFor(jobWith([], { carWrites: [write(unread)] }), 'RR')).toBeUndefined();
  });

  it('a clone that answers with another ID is none', () => {
    expect(need({}, [heard(9, 'RR', { id: '90FFE0A1' })])).toMatchObject({ action: 'relearn' });
    expect(need({}, [heard(9, 'RR')])).toMatchObject({ reason: 'cloned' });
  });

  it('is another sensor from when it was read back on', () => {
    const changes = ofKind(
      changesOf(jobWith([], { carWrites: [write(), write({ wheel: 'LF', ...unread })] })),
      'sensor',
    );
    expect(changes).toEqual([{ kind: 'sensor', wheel: 'RR', atMs: Date.parse(minute(6)) }]);
    expect(ofKind(changesOf(jobWith([], { carWrites: [write()] })), 'write')).toEqual([]);
  });
});
