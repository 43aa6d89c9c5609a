import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jobWith, placard } from '../../../tests/support/car';
import { assess } from '../diagnosis';
import type { Job, Seen } from '../job';
import { atTemperature } from '../pressure';
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
    const found = loss([read(0, 230, { plusMinusKPa: 4 })], [read(10, 210, { plusMinusKPa: 4 })]);
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
        read(n, 230 - 1.2 * n + (4 / 1.96) * (draws[i] ?? 0), { plusMinusKPa: 4, tireCPlusMinusK: 0 });
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
