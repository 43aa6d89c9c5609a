import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jobWith, placard } from '../../../../tests/support/car';
import { assess } from '../../judgement/diagnosis';
import type { Job, Seen } from '../../job';
import { atTemperature } from '../../measure/pressure';
import { lossOf } from '.';

const day = (n: number) => new Date(Date.parse('2026-01-01T08:00:00Z') + n * 86_400_000).toISOString();
const read = (n: number, kPa: number, more: object = {}): Seen<'gauge'> => ({
  kind: 'gauge',
  at: day(n),
  wheel: 'LF',
  kPa,
  tire: 'cold',
  tireC: 10,
  ...more,
});
const car = (history: Seen<'gauge'>[], today: Seen<'gauge'>[] = [], more: Partial<Job> = {}) =>
  jobWith(today, { climate: { nowC: 10, altitudeM: 0 }, history, ...more });
const loss = (...job: Parameters<typeof car>) => lossOf(car(...job), 'LF');

describe('a loss', () => {
  it('of two readings is their difference over the days, known as well as they are', () => {
    const found = loss([read(0, 230, { uncertaintyKPa: 4 })], [read(10, 210, { uncertaintyKPa: 4 })]);
    expect(found.perDayKPa?.best).toBeCloseTo(2, 6);
    // By hand: each reading ± 4 kPa with one kelvin of doubt (1.17 and 1.10 kPa), over ten days.
    const halfWidth = (1.96 * Math.hypot(4 / 1.96, 331.325 / 283.15, 4 / 1.96, 311.325 / 283.15)) / 10;
    expect(found.perDayKPa?.high).toBeCloseTo(2 + halfWidth, 6);
    expect(found.verdict).toBe('leaks');
  });

  it('does not take a fall in temperature for a leak', () => {
    const cold = atTemperature({ kPa: 230, celsius: 20, altitudeM: 0 }, -10);
    const found = loss([read(0, 230, { tireC: 20 })], [read(20, cold, { tireC: -10 })]);
    expect(found.perDayKPa?.best).toBeCloseTo(0, 9);
    expect(found.verdict).toBe('sound');
  });

  it('does not take what seeps through rubber for a leak: 7 to 14 kPa a month (common practice)', () => {
    expect(loss([read(0, 230)], [read(60, 230 - 20)]).verdict).not.toBe('leaks');
    expect(loss([read(0, 230)], [read(60, 230 - 50)]).verdict).toBe('leaks');
  });

  it('is not known from two readings that are too near, and says when it will be', () => {
    const found = loss([read(0, 230)], [read(1, 227)]);
    expect(found.verdict).toBe('not-known');
    expect(found.tellsAfterDays).toBeGreaterThan(2);
    expect(found.tellsAfterDays).toBeLessThan(7);
  });

  it('over three visits gives the days until the lamp', () => {
    const found = loss([read(0, 230), read(10, 216)], [read(20, 202)]);
    expect(found.perDayKPa?.best).toBeCloseTo(1.4, 6);
    expect(found.lampInDays?.best).toBeCloseTo((202 - 175) / 1.4, 6);
    expect(found.lampInDays?.soonest).toBeLessThan(found.lampInDays?.best ?? 0);
    expect(found.lampInDays?.latest).toBeGreaterThan(found.lampInDays?.best ?? 0);
  });

  it('begins anew with a fill, and the leak found before it stands', () => {
    const found = loss([read(0, 230)], [read(14, 196), read(14.02, 230)]);
    expect(found).toMatchObject({ verdict: 'leaks', earlier: [[{ kPa: 230 }]] });
    expect(found.levels.map(({ readKPa }) => readKPa)).toEqual([230, 196]);
    expect(loss([read(0, 230)], [read(14, 196), read(14.02, 230), read(40, 229)]).verdict).toBe('sound');
  });

  it('ends with a repair', () => {
    const repairs = [{ wheel: 'LF' as const, at: day(14.01) }];
    expect(loss([read(0, 230)], [read(14, 196), read(14.02, 230)], { repairs }).verdict).toBe('not-known');
  });

  it('is not a tire let down to placard by hand', () => {
    expect(loss([], [read(0, 262), read(0.01, 231)]).verdict).toBe('not-known');
    expect(loss([], [read(0, 262), read(0.01, 190)]).verdict).toBe('leaks');
  });

  it('takes nothing from wheels that changed place since, nor from a gauge that is not trusted', () => {
    expect(loss([read(0, 230)], [read(10, 190)], { service: { kind: 'rotation' } }).line).toBeUndefined();
    expect(loss([read(0, 250, { trusted: false }), read(1, 230)], [read(30, 229)]).verdict).toBe('sound');
  });

  it('has a confidence interval that holds the truth in about 95 of 100 series', () => {
    let held = 0;
    const series = 600;
    const noise = fc.sample(fc.tuple(...Array.from({ length: 36 }, () => fc.double({ min: 0, max: 1, noNaN: true }))), { seed: 7, numRuns: series }); // prettier-ignore
    for (const uniform of noise) {
      // Twelve uniforms less six: nearly normal, sd 1.
      const draws = [0, 12, 24].map((from) => uniform.slice(from, from + 12).reduce((a, b) => a + b, 0) - 6);
      const at = (n: number, i: number) =>
        read(n, 230 - 1.2 * n + (4 / 1.96) * (draws[i] ?? 0), { uncertaintyKPa: 4, tireCUncertaintyK: 0 });
      const found = loss([at(0, 0), at(9, 1)], [at(16, 2)]).perDayKPa;
      if (found && found.low <= 1.2 && found.high >= 1.2) held += 1;
    }
    expect(held / series).toBeGreaterThan(0.93);
    expect(held / series).toBeLessThanOrEqual(1);
  });
});

describe('a leaking tire', () => {
  it('is a finding, from its history across visits', () => {
    const others = (n: number) =>
      (['RF', 'RR', 'LR'] as const).map((wheel) => read(n, placard[wheel], { wheel }));
    const job = car([read(0, 230), ...others(0)], [read(10, 205), ...others(10)]);
    const found = assess(job).findings.find(({ code }) => code === 'tire-leaking');
    expect(found).toMatchObject({ wheels: ['LF'], evidence: [{ observation: 0 }] });
  });

  it('is not claimed where its neighbours lost as much', () => {
    const all = (n: number, less: number) =>
      (['LF', 'RF', 'RR', 'LR'] as const).map((wheel) => read(n, placard[wheel] - less, { wheel }));
    expect(assess(car(all(0, 0), all(10, 30))).findings.map(({ code }) => code)).not.toContain(
      'tire-leaking',
    );
  });
});

describe('the runs of readings a loss is told from', () => {
  it('are of the one wheel, at this visit and before, by the clock', () => {
    const found = loss(
      [read(10, 216), read(0, 230), read(5, 100, { wheel: 'RF' })],
      [read(20, 202), read(15, 90, { wheel: 'RR' })],
    );
    expect(found.levels.map(({ readKPa, days }) => [readKPa, days])).toEqual([
      [230, 0],
      [216, 10],
      [202, 20],
    ]);
    expect(found.earlier).toEqual([]);
  });

  it('end only with a repair of this wheel, between the two readings', () => {
    const runs = (wheel: 'LF' | 'RF', at: number) =>
      loss([read(0, 230), read(10, 216)], [read(20, 202)], { repairs: [{ wheel, at: day(at) }] });
    expect(runs('RF', 15).levels).toHaveLength(3);
    const parted = runs('LF', 15);
    expect(parted.verdict).toBe('not-known');
    expect(parted.levels.map(({ readKPa }) => readKPa)).toEqual([202]);
    expect(parted.earlier.map((run) => run.map(({ readKPa }) => readKPa))).toEqual([[230, 216]]);
    expect(runs('LF', -5).verdict).toBe('leaks');
    expect(
      loss([read(0, 230)], [read(10, 200)], { repairs: [{ wheel: 'LF', at: day(10) }] }).levels,
    ).toHaveLength(1);
    expect(
      loss([read(0, 230)], [read(10, 200)], { repairs: [{ wheel: 'LF', at: day(0) }] }).levels,
    ).toHaveLength(2);
  });

  it('go on with a rise that two readings cannot tell from none', () => {
    // Two readings of ± 4 kPa and a kelvin each differ by less than 6.6 kPa by chance.
    expect(loss([read(0, 220)], [read(1, 226)]).levels).toHaveLength(2);
    expect(loss([read(0, 220)], [read(1, 227)]).levels).toHaveLength(1);
  });

  it('end with a tire let down to placard within two hours, from above it', () => {
    const hours = (n: number) => n / 24;
    const letDown = (from: number, to: number, after: number) =>
      loss([], [read(0, from), read(hours(after), to)]).levels.length;
    expect(letDown(262, 231, 2)).toBe(1);
    expect(letDown(262, 231, 2.1)).toBe(2);
    expect(letDown(237, 224, 1)).toBe(2);
    expect(letDown(238, 224, 1)).toBe(1);
    expect(letDown(262, 223, 1)).toBe(1);
    expect(letDown(262, 222.9, 1)).toBe(2);
    const noPlacard = car([], [read(0, 262), read(hours(1), 231)], { placard: [] });
    expect(lossOf(noPlacard, 'LF').levels).toHaveLength(2);
  });

  it('leave out a warm tire of which nobody knows how warm; a cold one stands at the air of now', () => {
    const bare = (n: number, kPa: number, tire: 'cold' | 'warm') => ({
      ...read(n, kPa),
      tireC: undefined,
      tire,
    });
    const seen = loss([], [bare(0, 230, 'cold'), bare(1, 260, 'warm'), bare(10, 210, 'cold')]);
    expect(seen.levels.map(({ readKPa, readC }) => [readKPa, readC])).toEqual([
      [230, 10],
      [210, 10],
    ]);
    const noWeather = jobWith([bare(0, 230, 'cold'), bare(10, 210, 'cold')], { climate: {} });
    expect(lossOf(noWeather, 'LF').referenceC).toBe(20);
    expect(lossOf(noWeather, 'LF').levels).toHaveLength(2);
  });

  it('tell nothing where there are none', () => {
    const none = loss([], []);
    expect(none).toMatchObject({ verdict: 'not-known', levels: [], earlier: [] });
    expect(none.tellsAfterDays).toBeUndefined();
    expect(none.lampInDays).toBeUndefined();
    expect(none.perDayKPa).toBeUndefined();
  });

  it('stay behind with wheels that moved, and only then', () => {
    const kept = (kind: 'none' | 'rotation' | 'tires-fitted' | 'wheels-swapped' | 'repair') =>
      loss([read(0, 230)], [read(10, 200)], { service: { kind } }).levels.length;
    expect(
      ['none', 'repair', 'rotation', 'tires-fitted', 'wheels-swapped'].map((kind) => kept(kind as 'none')),
    ).toEqual([2, 2, 1, 1, 1]);
    const { service, ...unserviced } = car([read(0, 230)], [read(10, 200)]);
    expect(service).toBeDefined();
    expect(lossOf(unserviced, 'LF').levels).toHaveLength(2);
  });
});

describe('what a loss says', () => {
  it('is an interval about the best figure, and says when to look again only where it is not known', () => {
    const known = loss([read(0, 230)], [read(10, 200)]);
    expect(known.perDayKPa?.low).toBeLessThan(known.perDayKPa?.best ?? 0);
    expect((known.perDayKPa?.high ?? 0) - (known.perDayKPa?.best ?? 0)).toBeCloseTo(
      (known.perDayKPa?.best ?? 0) - (known.perDayKPa?.low ?? 0),
      9,
    );
    expect(known.tellsAfterDays).toBeUndefined();
    // By hand: √2 readings of ± hypot(4, 1.96 · 1.17) kPa, over 2 less 14/30 kPa a day.
    const open = loss([read(0, 230)], [read(1, 229)]);
    const doubt = 1.96 * Math.hypot(4 / 1.96, 331.325 / 283.15) * Math.SQRT2;
    expect(open.tellsAfterDays).toBeCloseTo(doubt / (2 - 14 / 30), 6);
  });

  it('is endless until the lamp where nothing is lost, and now where it is low already', () => {
    const rises = loss([read(0, 228)], [read(30, 230)]);
    expect(rises.lampInDays?.best).toBe(Number.POSITIVE_INFINITY);
    expect(loss([read(0, 230)], [read(10, 160)]).lampInDays).toMatchObject({ best: 0, soonest: 0 });
    const noFigure = car([read(0, 230)], [read(10, 200)], { placard: [] });
    expect(lossOf({ ...noFigure, vehicle: { tpms: { kind: 'direct' } } }, 'LF').lampInDays).toBeUndefined();
  });
});
