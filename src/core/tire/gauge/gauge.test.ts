import fc from 'fast-check';
import { linearRegression, mean, standardDeviation } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { gauge, jobWith, minute } from '../../../../tests/support/car';
import type { Seen } from '../../job';
import {
  allowedErrorKPa,
  asJudged,
  calibrationOf,
  checkPlanKPa,
  corrected,
  gaugeWarning,
  uncertaintyOf,
  refuseHotCold,
  calibrationStatusOf,
  type CalibrationCheck,
  type Instrument,
} from '.';

const day = (n: number) => new Date(Date.parse('2026-01-01T08:00:00Z') + n * 86_400_000).toISOString();
const check = (n: number, errorAt: (kPa: number, way: 'up' | 'down') => number): CalibrationCheck => ({
  key: `check ${n}`,
  at: day(n),
  by: 'Ines',
  reference: 'dead-weight tester',
  referenceUncertaintyKPa: 0.5,
  points: (['up', 'down'] as const).flatMap((way) =>
    checkPlanKPa.map((kPa) => ({ way, referenceKPa: kPa, readKPa: kPa + errorAt(kPa, way) })),
  ),
});
const instrument = (checks: CalibrationCheck[], more: Partial<Instrument> = {}): Instrument => ({
  id: 'g1',
  name: 'Blue digital',
  kind: 'digital',
  resolutionKPa: 1,
  retired: false,
  checks,
  ...more,
});
const at = (n: number) => Date.parse(day(n));
const reading = (n: number, kPa: number) =>
  ({ kind: 'gauge', at: day(n), wheel: 'LF', kPa, tire: 'cold', gauge: 'g1' }) satisfies Seen<'gauge'>;

describe('a check of a gauge', () => {
  it('finds offset, scale error and hysteresis', () => {
    const found = calibrationOf(
      check(0, (kPa, way) => 2 + 0.01 * kPa + (way === 'down' ? 1 : 0)),
      1,
    );
    expect(found?.errorAt(300)).toBeCloseTo(2 + 3 + 0.5, 9);
    expect(found?.hysteresisKPa).toBeCloseTo(1, 9);
    expect(found?.worst).toMatchObject({ atKPa: 420 });
    expect(found?.withinTolerance).toBe(true);
  });

  it('has the mean, the line and the spread of simple-statistics', () => {
    const errors = fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 10, maxLength: 10 });
    fc.assert(
      fc.property(errors, (drawn) => {
        let i = 0;
        const made = check(0, () => drawn[i++] ?? 0);
        const found = calibrationOf(made, 1);
        const points = made.points.map(({ referenceKPa, readKPa }) => [referenceKPa, readKPa - referenceKPa]);
        const { m, b } = linearRegression(points);
        expect(found?.meanErrorKPa).toBeCloseTo(mean(drawn), 9);
        expect(found?.errorAt(230)).toBeCloseTo(m * 230 + b, 9);
        const residuals = points.map(([x = 0, y = 0]) => y - (m * x + b));
        expect(found?.spreadKPa).toBeCloseTo(standardDeviation(residuals) * Math.sqrt(10 / 8), 9);
      }),
    );
  });

  // EN 12645 / Directive 86/217/EEC, from memory.
  it.each([
    [230, 8],
    [400, 8],
    [420, 16],
  ])('a gauge may be off at %i kPa by %i', (kPa, error) => {
    expect(allowedErrorKPa(kPa)).toBe(error);
  });

  it('says nothing from two points', () => {
    const made = check(0, () => 0);
    expect(calibrationOf({ ...made, points: made.points.slice(0, 2) }, 1)).toBeUndefined();
  });
});

describe('a reading', () => {
  it('has the error of its gauge taken out: read and corrected, it is what the reference showed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 420 }), fc.integer({ min: -6, max: 6 }), (kPa, off) => {
        const gaugeOff = instrument([check(0, () => off)]);
        expect(corrected(gaugeOff, kPa + off, at(1)).kPa).toBeCloseTo(kPa, 9);
      }),
    );
  });

  it('with a gauge nobody checked stays as read, and is good to about 4 kPa (common practice)', () => {
    expect(corrected(instrument([]), 228, at(1))).toEqual({ kPa: 228, uncertaintyKPa: 4 });
  });

  it('carries the doubt of a temperature that was only estimated', () => {
    const job = jobWith([]);
    const at230 = { ...reading(0, 230), uncertaintyKPa: 3, tireC: 30 };
    // By hand: one kelvin is (230 + 101.325) / 303.15 = 1.093 kPa.
    expect(uncertaintyOf(job, { ...at230, tireCUncertaintyK: 8 })).toBeCloseTo(Math.hypot(3, 8 * 1.093), 2);
    expect(uncertaintyOf(job, { ...at230, tireCUncertaintyK: 0 })).toBeCloseTo(3, 9);
  });
});

describe('a gauge stands', () => {
  const good = check(0, () => 1);
  const bad = check(30, () => 12);

  it.each([
    ['never checked', instrument([]), 0, 'never-checked'],
    ['good for a quarter after its check', instrument([good]), 89, 'good'],
    ['overdue after that', instrument([good]), 91, 'overdue'],
    ['out of tolerance once a check finds it so', instrument([good, bad]), 31, 'out-of-tolerance'],
    ['good again after the next', instrument([good, bad, check(40, () => 0)]), 41, 'good'],
    ['out of use when it is retired', instrument([good], { retired: true }), 1, 'retired'],
  ] as const)('%s', (_, made, n, kind) => {
    expect(calibrationStatusOf(made, at(n)).kind).toBe(kind);
  });

  const flags = (made: Instrument) =>
    asJudged(jobWith([reading(-1, 230), reading(10, 230), reading(35, 230)]), [made]).observations.map(
      (seen) => (seen.kind === 'gauge' ? [gaugeWarning(seen), seen.trusted] : []),
    );

  it('so that what it read since its last good check is doubtful once it is found off', () => {
    expect(flags(instrument([good, bad]))).toEqual([
      [undefined, undefined],
      ['gauge out of tolerance', false],
      ['gauge out of tolerance', false],
    ]);
  });

  it('so that what it read is good where the next check found it good, and overdue is only said', () => {
    expect(flags(instrument([good, check(30, () => 0)]))[1]).toEqual([undefined, undefined]);
    const late = asJudged(jobWith([reading(120, 230)]), [instrument([good])]).observations[0];
    expect(late?.kind === 'gauge' && [gaugeWarning(late), late.trusted]).toEqual([
      'gauge overdue for its check',
      undefined,
    ]);
  });

  it('and a reading of no gauge on the register is left as it is', () => {
    const job = jobWith([gauge(1, 'LF', 230), { kind: 'lamp', at: minute(2), state: 'off' }]);
    expect(asJudged(job, [instrument([good, bad])])).toEqual(job);
  });
});

describe('a cold tire', () => {
  it('cannot be hotter than the air, sun allowed', () => {
    expect(refuseHotCold('cold', 35, 12)).toMatchObject({ ok: false, problem: { code: 'warm-not-cold' } });
    expect(refuseHotCold('cold', 18, 12)).toBeUndefined();
    expect(refuseHotCold('warm', 35, 12)).toBeUndefined();
    expect(refuseHotCold('cold', 35, undefined)).toBeUndefined();
  });
});
