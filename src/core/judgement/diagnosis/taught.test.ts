import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  minute,
  placard,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { columnsOf } from '../../visit/column';
import { findingsThatHold } from '../assessment';
import type { Job, Observation } from '../../job';
import { proofOf } from '../../visit/proof';
import { roadWheels, type Position } from '../../names/wheel';
import { assessBriefly } from '.';

/** What a car was taught, and what was done to teach it: none of it is a fault that it is not. */

const found = (job: Job): Record<string, Position[]> =>
  Object.fromEntries(findingsThatHold(assessBriefly(job)).map(({ code, wheels }) => [code, wheels]));
const chanceOf = (job: Job, code: string): number =>
  Math.max(0, ...assessBriefly(job).findings.flatMap((one) => (one.code === code ? [one.probability] : [])));

describe('a set on file that is worn in another order than the car holds it', () => {
  const winter = { label: 'winter', ids: roadWheels.map((wheel) => ids[wheel]) };
  const worn = (order: Partial<Record<Position, Position>>, rssiDbm = -45): Observation[] =>
    roadWheels.map((wheel, n) =>
      heard(2 + n, wheel, { id: ids[order[wheel] ?? wheel], rssiDbm, kPa: placard[wheel] }),
    );
  const job = (seen: Observation[], more: Partial<Job> = {}) =>
    jobWith([...gauges(1), ...seen, registry(8), lamp(9, 'off')], { otherSets: [winter], ...more });
  const orders: [string, Partial<Record<Position, Position>>][] = [
    ['front and rear changed', { LF: 'LR', LR: 'LF', RF: 'RR', RR: 'RF' }],
    ['two in front changed', { LF: 'RF', RF: 'LF' }],
    ['one round', { LF: 'RF', RF: 'RR', RR: 'LR', LR: 'LF' }],
    ['crosswise', { LF: 'RR', RR: 'LF', RF: 'LR', LR: 'RF' }],
  ];
  it.each(orders)('has its positions swapped, and nothing was heard across: %s', (_, order) => {
    for (const service of [{ kind: 'none' as const }, { kind: 'wheels-swapped' as const, hoursAgo: 3 }]) {
      const says = found(job(worn(order), { service }));
      expect(says['positions-swapped']).toEqual(roadWheels.filter((wheel) => order[wheel]));
      expect(Object.keys(says)).toEqual(['positions-swapped']);
    }
  });
  it('nearly so: in the order it is held there is nothing wrong', () => {
    expect(Object.keys(found(job(worn({}))))).toEqual(['no-fault']);
  });
  it('nearly so: one weak answer of a neighbour is a cross-read, and no wheel moved', () => {
    const seen = [...scans(2).slice(0, 3), heard(5, 'LR', { id: ids.RR, rssiDbm: -74, kPa: 220 })];
    expect(Object.keys(found(job(seen)))).toEqual(['cross-read']);
  });
  it('with a second fault: a low tire is low where it is', () => {
    const order = { LF: 'RF', RF: 'LF' } as const;
    const low = jobWith(
      [...gauges(1, { RR: 160 }), ...worn(order), heard(7, 'RR', { kPa: 160 }), registry(8)],
      {
        otherSets: [winter],
      },
    );
    expect(found(low)).toMatchObject({ 'positions-swapped': ['LF', 'RF'], 'tire-low': ['RR'] });
  });
});

describe('a clone one digit off', () => {
  const slipped = '4B11E0E6';
  const replaced = { kind: 'sensor-replaced' as const, hoursAgo: 1 };
  const cloned = (id: string, more: Partial<Job> = {}) =>
    jobWith(
      [
        ...gauges(1),
        ...scans(2, { RR: [heard(13, 'RR', { id })] }),
        registry(18),
        lamp(19, 'flash-then-steady'),
      ],
      {
        service: replaced,
        sensors: [{ id: ids.RR, wheel: 'RR', ageYears: 7 }],
        ...more,
      },
    );
  it.each([slipped, '4B11E0A6', '4B1E10F6', '4B1120F6'])('is a slip: %s', (id) => {
    expect(found(cloned(id))['id-mistyped']).toEqual(['RR']);
  });
  it('is one too where no record names the old sensor', () => {
    expect(found(cloned(slipped, { sensors: [] }))['id-mistyped']).toEqual(['RR']);
  });
  it('is one at the last digit too, where it is on record that the ID was to be cloned', () => {
    const write = {
      kind: 'sensor' as const,
      key: '0190a000-0000-7000-8000-000000000002',
      askedAt: minute(5),
      mode: 'clone' as const,
      wheel: 'RR' as const,
      asked: { id: ids.RR, family: 'kestrel', frequencyMHz: 433.92 },
    };
    expect(found(cloned('4B11E0F5', { carWrites: [write] }))['id-mistyped']).toEqual(['RR']);
  });
  it('nearly so: a new sensor with an ID of its own was never learned', () => {
    expect(found(cloned('90FFE0A1'))).toMatchObject({ 'id-not-registered': ['RR'] });
  });
  it('nearly so: the ID of the old one needs nothing', () => {
    expect(Object.keys(found(cloned(ids.RR)))).not.toContain('id-mistyped');
  });
  it('with a second fault: another sensor is silent all the same', () => {
    const seen = [
      ...gauges(1),
      ...scans(2, {
        LF: [silent(2, 'LF'), silent(3, 'LF', 'continuous'), silent(4, 'LF', 'magnet')],
        RR: [heard(13, 'RR', { id: slipped })],
      }),
      registry(18),
      lamp(19, 'flash-then-steady'),
    ];
    const says = found(
      jobWith(seen, { service: replaced, sensors: [{ id: ids.RR, wheel: 'RR', ageYears: 7 }] }),
    );
    expect(says['id-mistyped']).toEqual(['RR']);
    expect(says['sensor-silent']).toEqual(['LF']);
  });
});

describe('one of four that was not refilled after the relearn by air', () => {
  const relearn = (more: object = {}): Observation => ({
    kind: 'relearn',
    at: minute(20),
    method: 'air',
    outcome: 'done',
    source: 'hand',
    ...more,
  });
  const after = (kPa: number, wheel: Position = 'RR') =>
    roadWheels.map((at) => gauge(30, at, at === wheel ? kPa : placard[at]));
  const before = [...gauges(1), ...scans(2)];

  it.each([
    [195, 'RR'],
    [165, 'RR'],
    [180, 'LF'],
    [150, 'RF'],
    [200, 'LR'],
  ] as const)('is short, and no leak: %s kPa at %s', (kPa, wheel) => {
    const job = jobWith([...before, relearn(), ...after(kPa, wheel), registry(31)]);
    expect(chanceOf(job, 'tire-leaking')).toBeLessThan(0.5);
    const says = found(job);
    expect(says['tire-low'] ?? says['tire-underinflated']).toEqual([wheel]);
    expect(Object.keys(says)).not.toContain('sensor-inaccurate');
  });
  it('nor one where all were filled up before it, or where the relearn failed', () => {
    const up = roadWheels.map((wheel) => gauge(10, wheel, 260));
    for (const done of [relearn(), relearn({ outcome: 'failed', failedAt: 'RR' })])
      expect(chanceOf(jobWith([...before, ...up, done, ...after(195)]), 'tire-leaking')).toBeLessThan(0.5);
  });
  it('nor once it is filled: nobody asks for the leak', () => {
    const job = jobWith([...before, relearn(), ...after(165), gauge(33, 'RR', 220), registry(34)]);
    expect(chanceOf(job, 'tire-leaking')).toBeLessThan(0.1);
    expect(proofOf(job).checks.map(({ name }) => name)).not.toContain('damage');
  });
  it('asks for air and the gauge before anything was read since', () => {
    const job = jobWith([...before, relearn(), registry(31)]);
    expect(proofOf(job).checks.find(({ name }) => name === 'pressures')?.state).toBe('open');
    expect(columnsOf(job, assessBriefly(job)).map((column) => column.gauge?.state)).toEqual(
      roadWheels.map(() => 'let-out'),
    );
  });
  it('nearly so: by the tool nothing is let out, and what is gone in ten minutes leaks', () => {
    const job = jobWith([...before, relearn({ method: 'tool' }), ...after(165)]);
    expect(chanceOf(job, 'tire-leaking')).toBeGreaterThan(0.5);
  });
  it('with a second fault: what falls again after the refill leaks', () => {
    const job = jobWith([
      ...before,
      relearn(),
      ...after(195),
      gauge(33, 'RR', 220),
      gauge(33 + 26 * 60, 'RR', 190),
    ]);
    expect(chanceOf(job, 'tire-leaking')).toBeGreaterThan(0.5);
  });
});
