import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  scans,
  silent,
} from '../../../tests/support/car';
import { assess } from '../diagnosis';
import type { CarWrite, Job } from '../job';
import { proofOf, writeVerdict } from '../proof';
import { sheetOf } from '../sheet';
import { roadWheels } from '../wheel';
import { idsToWrite, nextMove } from '.';

const move = (job: Job, handedOver = false) =>
  nextMove(job, { assessment: assess(job), handedOver, hasLead: true, hasTool: true });

const held = (rr: string) => roadWheels.map((wheel) => ({ wheel, id: wheel === 'RR' ? rr : ids[wheel] }));
const write = (more: Partial<Extract<CarWrite, { kind: 'registry' }>> = {}): CarWrite => ({
  kind: 'registry',
  key: '0190a000-0000-7000-8000-000000000001',
  askedAt: minute(10),
  asked: held(ids.RR),
  before: held('90FFE0A1'),
  ...more,
});

describe('the next move', () => {
  it('walks round in order: gauge, then wake, then read the car', () => {
    expect(move(jobWith([lamp(0, 'steady')]))).toEqual({ kind: 'gauge', wheel: 'LF', again: false });
    expect(move(jobWith([lamp(0, 'steady'), gauge(1, 'LF', 230)]))).toMatchObject({
      kind: 'gauge',
      wheel: 'RF',
    });
    expect(move(jobWith([lamp(0, 'steady'), ...gauges(1)]))).toEqual({ kind: 'wake', wheel: 'LF', tries: 0 });
    expect(move(jobWith([lamp(0, 'steady'), ...gauges(1), ...scans(2)]))).toEqual({ kind: 'read-car' });
  });

  it('asks for the placard first where it is not known', () => {
    expect(move(jobWith([], { placard: [] }))).toEqual({ kind: 'placard' });
  });

  it('wakes a silent sensor with other triggers, then takes it for silent', () => {
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2, { RR: [silent(2, 'RR')] })];
    expect(move(jobWith(seen))).toEqual({ kind: 'wake', wheel: 'RR', tries: 1 });
    const twice = [...seen, silent(3, 'RR', 'continuous'), registry(4)];
    expect(move(jobWith(twice))).toEqual({ kind: 'wake', wheel: 'RR', tries: 2 });
    const thrice = jobWith([...twice, silent(5, 'RR', 'magnet')]);
    expect(move(thrice)).toMatchObject({ kind: 'act', finding: { code: 'sensor-silent', wheels: ['RR'] } });
  });

  it('writes what was heard, and reads back what is unknown, before anything else', () => {
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    expect(move(jobWith(seen))).toEqual({ kind: 'write-ids' });
    expect(move(jobWith(seen, { carWrites: [write({ answer: 'lost', answeredAt: minute(11) })] }))).toEqual({
      kind: 'read-back',
    });
  });

  it('does not write on a weak supply', () => {
    const seen = [...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    const weak = jobWith([...seen, { kind: 'voltage', at: minute(4), volts: 11.8, engine: 'off' }]);
    expect(move(weak)).toEqual({ kind: 'support-supply' });
  });

  it('keeps what the car holds where no sensor was heard: skipped, not forgotten', () => {
    const job = jobWith([heard(1, 'LF'), registry(2)]);
    expect(idsToWrite(job)).toContainEqual({ wheel: 'RR', id: ids.RR, from: 'car' });
    expect(idsToWrite(job)).toContainEqual({ wheel: 'LF', id: ids.LF, from: 'scan' });
  });
});

describe('a write', () => {
  it('worked only if the read-back is what was asked, whatever the car answered', () => {
    expect(writeVerdict(write({ answer: 'yes', readBackAt: minute(12), readBack: held(ids.RR) }))).toBe(
      'worked',
    );
    expect(writeVerdict(write({ answer: 'yes', readBackAt: minute(12), readBack: held('90FFE0A1') }))).toBe(
      'failed',
    );
    expect(writeVerdict(write({ answer: 'lost', readBackAt: minute(12), readBack: held(ids.RR) }))).toBe(
      'worked',
    );
    expect(writeVerdict(write({ answer: 'lost' }))).toBe('unknown');
    expect(writeVerdict(write({ answer: 'yes' }))).toBe('unknown');
    expect(writeVerdict(write())).toBe('unknown');
    expect(writeVerdict(write({ answer: 'no' }))).toBe('refused');
  });
});

describe('proof', () => {
  const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
  const done = write({
    answer: 'yes',
    answeredAt: minute(11),
    readBackAt: minute(12),
    readBack: held(ids.RR),
  });

  it('needs registered equal to scanned, every wheel on the road, no codes, and the lamp off after it', () => {
    const before = jobWith([...seen, registry(12), lamp(9, 'off')], { carWrites: [done] });
    expect(proofOf(before).proved).toBe(false);
    const after = jobWith([...before.observations, ...lives(20, undefined, 62), lamp(25, 'off')], {
      carWrites: [done],
    });
    expect(proofOf(after)).toMatchObject({ proved: true });
    expect(move(after)).toEqual({ kind: 'hand-over' });
  });

  it('is not given by what was seen before the last write', () => {
    const early = jobWith([...seen, ...lives(8, undefined, 62), lamp(9, 'off'), registry(12)], {
      carWrites: [done],
    });
    const states = Object.fromEntries(proofOf(early).checks.map(({ name, state }) => [name, state]));
    expect(states).toMatchObject({ registration: 'met', reports: 'open', lamp: 'open' });
  });

  it('is refused by a code that came back, and given once it is read away', () => {
    const code = { kind: 'dtc' as const, at: minute(21), code: 'C1B31', status: 'active' as const };
    const rest = [...seen, registry(12), ...lives(20, undefined, 62), lamp(25, 'off')];
    expect(proofOf(jobWith([...rest, code], { carWrites: [done] })).checks).toContainEqual(
      expect.objectContaining({ name: 'codes', state: 'unmet' }),
    );
    const clear: CarWrite = {
      kind: 'clear-codes',
      key: '0190a000-0000-7000-8000-000000000002',
      askedAt: minute(18),
      before: [],
      answer: 'yes',
      readBackAt: minute(22),
      readBack: [],
    };
    expect(proofOf(jobWith([...rest, code], { carWrites: [done, clear] })).proved).toBe(true);
  });
});

describe('the sheet', () => {
  it('shows before and after, what was found before anything changed, and what was done', () => {
    const job = jobWith([
      lamp(0, 'steady'),
      ...gauges(1, { RF: 166 }),
      ...scans(2),
      registry(3),
      gauge(30, 'RF', 230),
      ...lives(40, undefined, 62),
      lamp(45, 'off'),
    ]);
    const sheet = sheetOf(job);
    expect(sheet.wheels.find(({ wheel }) => wheel === 'RF')).toMatchObject({
      before: { kPa: 166 },
      after: { kPa: 230 },
    });
    expect(sheet.asFound.map(({ code }) => code)).toContain('tire-low');
    expect(sheet.now.map(({ code }) => code)).toEqual(['no-fault']);
    expect(sheet.done).toEqual([{ kind: 'filled', wheel: 'RF', fromKPa: 166, toKPa: 230 }]);
    expect(sheet.proof.proved).toBe(true);
    expect(sheet.cautions.join()).toMatch(/once a month/);
  });
});
