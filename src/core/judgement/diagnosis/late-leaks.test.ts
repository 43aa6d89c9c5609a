import { describe, expect, it } from 'vitest';
import { jobWith, placard } from '../../../../tests/support/car';
import { lossOf } from '../../tire/leak';
import type { Observation, Seen } from '../../job';
import { roadWheels, type Position } from '../../names/wheel';
import { assess } from '.';

/** Figures are invented; that a leak mostly begins late, and that old good readings excuse nothing, is common practice. */

const now = Date.parse('2026-10-14T14:00:00Z');
const read = (daysAgo: number, wheel: Position, kPa: number): Seen<'gauge'> => ({
  kind: 'gauge',
  at: new Date(now - daysAgo * 86_400_000).toISOString(),
  wheel,
  kPa,
  tire: 'cold',
  trusted: true,
});
const round = (daysAgo: number, off: Partial<Record<Position, number>> = {}): Seen<'gauge'>[] =>
  roadWheels.map((wheel) => read(daysAgo, wheel, placard[wheel] - (off[wheel] ?? 0)));

const leakAt = (wheel: Position, seen: Observation[], history: Seen<'gauge'>[] = []): number =>
  assess(jobWith(seen, { history })).findings.find(
    ({ code, wheels }) => code === 'tire-leaking' && wheels.includes(wheel),
  )?.probability ?? 0;

const daysBefore = [20, 45, 120, 430];

describe('a leak that began lately', () => {
  it.each(daysBefore)('is one, though all was well %i days ago', (days) => {
    expect(leakAt('LR', round(0, { LR: 24 }), [...round(days), ...round(10)])).toBeGreaterThan(0.9);
    expect(leakAt('LR', [...round(days), ...round(10), ...round(0, { LR: 24 })])).toBeGreaterThan(0.9);
  });

  it('is one after years of visits at which all was well', () => {
    const visits = [700, 520, 365, 180, 90, 10].flatMap((days) => round(days));
    expect(leakAt('RF', round(0, { RF: 29 }), visits)).toBeGreaterThan(0.9);
  });

  it.each(daysBefore)(
    'is one where a nail is seen beside little air, whatever was read %i days ago',
    (days) => {
      const nail: Observation = {
        kind: 'visual',
        at: new Date(now).toISOString(),
        wheel: 'LF',
        sign: 'object',
      };
      const today = [...round(0, { LF: 81 }), nail];
      expect(leakAt('LF', today)).toBeGreaterThan(0.9);
      expect(leakAt('LF', today, round(days))).toBeGreaterThan(0.9);
    },
  );

  it('is told from its own readings: those before it stand apart', () => {
    const job = jobWith(round(0, { LR: 24 }), { history: [...round(300), ...round(10)] });
    const { verdict, levels, earlier } = lossOf(job, 'LR');
    expect(verdict).toBe('leaks');
    expect(levels.map(({ readKPa }) => readKPa)).toEqual([220, 196]);
    expect(earlier.map((run) => run.map(({ readKPa }) => readKPa))).toEqual([[220]]);
  });
});

describe('no leak', () => {
  it.each(daysBefore)('is made of what a gauge leaves open, %i days after the last round', (days) => {
    expect(leakAt('LR', round(0, { LR: 3 }), round(days))).toBeLessThan(0.2);
  });

  it.each(daysBefore)('is made of all four alike, %i days after the last round', (days) => {
    const down = { LF: 15, RF: 15, RR: 15, LR: 15 };
    for (const wheel of roadWheels) expect(leakAt(wheel, round(0, down), round(days))).toBeLessThan(0.2);
  });

  it('is made or excused by what was read long ago: a good reading of then moves it by no more than 0.05', () => {
    for (const off of [0, 3, 6, 10, 15, 22, 30, 45, 70, 110])
      for (const days of [60, 150, 430]) {
        // Twice what seeps through rubber, 14 kPa a month, is a loss however long it took.
        if (off > (days * 2 * 14) / 30) continue;
        const without = leakAt('RR', round(0, { RR: off }));
        const withIt = leakAt('RR', round(0, { RR: off }), round(days));
        expect(Math.abs(withIt - without), `${off} kPa after ${days} days`).toBeLessThan(0.05);
      }
  });
});
