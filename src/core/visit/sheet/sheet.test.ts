import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  ids,
  idsHeld,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  registryWrite,
  scans,
  type RegistryWrite,
} from '../../../../tests/support/car';
import type { CarWrite } from '../../job';
import { roadWheels } from '../../names/wheel';
import { sheetOf } from '.';

const write = (more: Partial<RegistryWrite> = {}) =>
  registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld(), ...more });
const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(3, { RR: '90FFE0A1' })];
const mended = [registry(12), ...lives(20, undefined, 62), lamp(25, 'off')];

describe('the sheet of a car whose ID was sent', () => {
  const sheet = sheetOf(jobWith([...seen, ...mended], { carWrites: [write()] }));

  it('says what was found before anything was changed, and what still stands', () => {
    expect(sheet.found.map(({ code }) => code)).toEqual(['id-not-registered']);
    expect(sheet.now.map(({ code }) => code)).toEqual(['no-fault']);
  });

  it('shows each wheel before and after, and what the tool heard', () => {
    expect(sheet.wheels.map(({ wheel }) => wheel)).toEqual([...roadWheels]);
    expect(sheet.wheels.find(({ wheel }) => wheel === 'RR')).toMatchObject({
      placardKPa: 220,
      before: { kPa: 220, id: '90FFE0A1' },
      after: { kPa: 220, id: ids.RR },
      heard: ids.RR,
    });
  });

  it('says what was done, at which wheels, and what became of it', () => {
    expect(sheet.done).toEqual([{ kind: 'wrote', wheels: ['RR'], verdict: 'worked' }]);
  });

  it('is silent about doubt where there is none, and about parts nobody had in hand', () => {
    expect(sheet.doubtful).toEqual([]);
    expect(sheet.turnedOut).toEqual([]);
  });
});

describe('what was done', () => {
  const doneOf = (...more: Parameters<typeof jobWith>) => sheetOf(jobWith(...more)).done;

  it('names a fill with both figures, and no second reading that is about the first', () => {
    expect(doneOf([gauge(1, 'RF', 166), gauge(9, 'RF', 230), gauge(12, 'RF', 231)])).toEqual([
      { kind: 'filled', wheel: 'RF', fromKPa: 166, toKPa: 230 },
    ]);
    expect(doneOf([gauge(1, 'RF', 260), gauge(9, 'RF', 230)])).toEqual([]);
  });

  it('names a mended leak and cleared codes', () => {
    const clear: CarWrite = {
      kind: 'clear-codes',
      key: '0190a000-0000-7000-8000-000000000002',
      askedAt: minute(5),
      before: [{ code: 'C1B31', status: 'active' }],
      readBackAt: minute(6),
      readBack: [],
    };
    expect(doneOf([], { repairs: [{ wheel: 'LR', at: minute(3) }], carWrites: [clear] })).toEqual([
      { kind: 'repaired', wheel: 'LR' },
      { kind: 'cleared', codes: ['C1B31'], verdict: 'worked' },
    ]);
  });

  it('names only the wheels at which a write asked for something else than was held', () => {
    const wheels = (asked: RegistryWrite['asked'], before: RegistryWrite['before']) =>
      doneOf([], { carWrites: [write({ asked, before })] });
    const wrote = (list: string[]) => [expect.objectContaining({ kind: 'wrote', wheels: list })];
    expect(wheels(idsHeld(), idsHeld(ids.RR.toLowerCase()))).toEqual(wrote([]));
    expect(wheels(idsHeld(null), idsHeld())).toEqual(wrote(['RR']));
    expect(wheels(idsHeld(), idsHeld(null))).toEqual(wrote(['RR']));
    expect(wheels(idsHeld(null), idsHeld(null))).toEqual(wrote([]));
    expect(wheels(idsHeld(), [])).toEqual(wrote(['LF', 'RF', 'RR', 'LR']));
  });
});

describe('doubt and parts', () => {
  it('are said once for each gauge that is not to be trusted, with its wheels in walking order', () => {
    const doubtful = (wheel: 'LR' | 'LF' | 'RF', more: object) => gauge(1, wheel, 230, more);
    const job = jobWith([
      doubtful('LR', { trusted: false, standing: 'never-checked' }),
      doubtful('LF', { trusted: false, standing: 'never-checked' }),
      doubtful('RF', { trusted: false }),
    ]);
    expect(sheetOf(job).doubtful).toEqual(['LF and LR: gauge never checked.', 'RF: gauge not trusted.']);
  });

  it('name what turned out to be at fault, not what was in order', () => {
    const confirmations = [
      {
        key: '0190a000-0000-7000-8000-000000000003',
        at: minute(50),
        by: 'Ines',
        parts: [
          { part: 'sensor' as const, wheel: 'RR' as const, was: 'sensor-silent' as const },
          { part: 'receiver' as const, was: 'in-order' as const },
        ],
      },
    ];
    expect(sheetOf(jobWith(seen, { confirmations })).turnedOut).toEqual([
      { part: 'sensor', wheel: 'RR', was: 'sensor-silent' },
    ]);
  });

  it('keep that sensors slept while the car stood to themselves: it is no finding for a customer', () => {
    const parked = jobWith([lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3), ...lives(4, null, 0)]);
    const sheet = sheetOf(parked);
    expect([...sheet.found, ...sheet.now].map(({ code }) => code)).not.toContain('sensors-asleep');
  });
});
