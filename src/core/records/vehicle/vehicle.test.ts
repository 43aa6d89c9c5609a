import { describe, expect, it } from 'vitest';
import { gauge, heard, ids, jobWith } from '../../../../tests/support/car';
import type { Job, Observation } from '../../job';
import {
  codesOf,
  comparedAtC,
  declinedOf,
  leaksOf,
  odometersOf,
  pressuresOf,
  sensorsOf,
  unprovedOf,
  type Visit,
} from '.';

const day = (n: number) => new Date(Date.parse('2024-03-01T09:00:00Z') + n * 86_400_000).toISOString();
const visit = (number: number, n: number, observations: Observation[], more: Partial<Job> = {}): Visit => ({
  id: `job ${number}`,
  number,
  state: 'handed-over',
  vehicleId: 'A',
  openedAt: day(n),
  version: 1,
  job: jobWith(
    observations.map((seen) => ({ ...seen, at: day(n) })),
    more,
  ),
});

describe('pressures over all visits', () => {
  it('are compared at one temperature: one tire gauged in winter and in summer is the same', () => {
    // Absolute pressure goes with absolute temperature (ideal gas): 230 kPa at 0 °C, 101.325 kPa outside.
    const summerKPa = (230 + 101.325) * (303.15 / 273.15) - 101.325;
    const [winter, summer] = pressuresOf([
      visit(2, 150, [gauge(0, 'LF', summerKPa)], { climate: { nowC: 30, altitudeM: 0 } }),
      visit(1, 0, [gauge(0, 'LF', 230)], { climate: { nowC: 0, altitudeM: 0 } }),
    ]);
    expect(winter).toMatchObject({ number: 1, readKPa: 230, wheel: 'LF', trusted: true });
    expect(winter?.kPa).toBeCloseTo(summer?.kPa ?? 0, 6);
    expect(winter?.kPa).toBeCloseTo((230 + 101.325) * ((comparedAtC + 273.15) / 273.15) - 101.325, 6);
  });

  it('of a warm tire nobody measured are not compared', () => {
    expect(pressuresOf([visit(1, 0, [gauge(0, 'LF', 250, { tire: 'warm' })])])[0]?.kPa).toBeUndefined();
  });
});

describe('sensors over all visits', () => {
  it('are told with the wheels they were at, the set that is on first', () => {
    const other = { id: '6C000001', battery: 'low' };
    const sensors = sensorsOf([
      visit(1, 0, [heard(0, 'LF'), heard(0, 'RR')]),
      visit(2, 90, [heard(0, 'LF', { id: ids.RR })]),
      visit(3, 180, [heard(0, 'LF', other)]),
    ]);
    expect(sensors.map(({ id }) => id)).toEqual(['6C000001', ids.RR, ids.LF]);
    expect(sensors[0]).toMatchObject({ battery: 'low', lastHeardAt: day(180) });
    expect(sensors[1]?.places.map(({ number, wheel }) => [number, wheel])).toEqual([
      [1, 'RR'],
      [2, 'LF'],
    ]);
  });
});

describe('what went wrong over all visits', () => {
  it('leaks are told with the visit that found them, and whether they were mended', () => {
    const history = [0, 4, 8].map((n) => ({ ...gauge(0, 'RF', 230 - n * 5), at: day(n) })) as Job['history'];
    const found = visit(2, 12, [gauge(0, 'RF', 170)], { ...(history && { history }) });
    const mended = visit(3, 13, [], { repairs: [{ wheel: 'RF', at: day(13) }] });
    expect(leaksOf([mended, found]).map(({ wheel, number, mended: was }) => [wheel, number, was])).toEqual([
      ['RF', 2, false],
      ['RF', 3, true],
    ]);
  });

  it('codes are told once for each visit that read them, the last first', () => {
    const code = (text: string): Observation => ({ kind: 'dtc', at: day(0), code: text, status: 'stored' });
    const registry: Observation = {
      kind: 'registry',
      at: day(0),
      entries: [],
      codes: [{ code: 'C1234', status: 'active' }],
    };
    const codes = codesOf([
      visit(1, 0, [code('C1234'), code('C1234')]),
      visit(2, 9, [registry, code('C0040')]),
    ]);
    expect(codes.map((one) => [one.code, one.visits.map(({ number }) => number)])).toEqual([
      ['C0040', [2]],
      ['C1234', [1, 2]],
    ]);
  });

  it('what was declined, what was not proved and the distance stand with their visit', () => {
    const visits = [
      visit(1, 0, [], { replacement: { at: day(0), wheels: [], declined: ['LF'] } }),
      visit(2, 9, [], { visit: { unproved: 'no time for the drive' } }),
    ];
    const first = visits[0];
    if (first) first.job.vehicle.odometerKm = 81_000;
    expect(declinedOf(visits)).toEqual([
      { number: 1, at: day(0), text: 'New sensors at LF: advised and declined.' },
    ]);
    expect(unprovedOf(visits)).toEqual([{ number: 2, at: day(9), why: 'no time for the drive' }]);
    expect(odometersOf(visits)).toEqual([{ number: 1, at: day(0), km: 81_000 }]);
  });
});
