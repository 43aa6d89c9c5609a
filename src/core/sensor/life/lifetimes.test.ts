import { describe, expect, it } from 'vitest';
import { yearsOf } from '../../../simulation/years';
import { aliveAfter, curve } from '.';
import { lifetimesOf, livesOf, ownCurve, type SeenAtAge } from './lifetimes';

const seen = (sensorId: string, ageYears: number, ended = false): SeenAtAge => ({
  sensorId,
  ageYears,
  ended,
});

describe('the lives of a shop’s sensors', () => {
  it('go from the age one was first seen at to the age it ended or was last seen', () => {
    expect(lifetimesOf([seen('4b07 c2d1', 2), seen('4B07C2D1', 5), seen('4B07C2D1', 7.5, true)])).toEqual([
      { from: 2, to: 7.5, ended: true },
    ]);
  });

  it('are none of one that was seen at one age only', () => {
    expect(lifetimesOf([seen('A1', 3), seen('A2', 8, true)])).toEqual([]);
  });

  it('are no curve of the shop’s own until enough of them ended', () => {
    const few = livesOf(
      Array.from({ length: 9 }, (_, n) => [seen(`A${n}`, 1), seen(`A${n}`, 6 + n / 3, true)]).flat(),
    );
    expect(few).toMatchObject({ sensors: 9, ended: 9 });
    expect(ownCurve(few)).toBeUndefined();
    expect(aliveAfter(9, ownCurve(few))).toBe(Math.exp(-1));
  });

  it('are told apart by part and carrier, once enough of each were seen', () => {
    const of = (part: string, n: number, end: number): SeenAtAge[] =>
      Array.from({ length: n }, (_, at) => [
        { ...seen(`${part}${at}`, 1), part },
        { ...seen(`${part}${at}`, end, true), part },
      ]).flat();
    const { groups } = livesOf([...of('AUR-1', 12, 5), ...of('AUR-2', 15, 9), ...of('AUR-3', 4, 2)]);
    const named = (n: number) => livesOf(of('AUR-9', n, 5)).groups.map(({ name }) => name);
    expect([named(9), named(10)]).toEqual([[], ['AUR-9']]);
    expect(groups.map(({ name, sensors }) => [name, sensors])).toEqual([
      ['AUR-2', 15],
      ['AUR-1', 12],
    ]);
    // All of the one are gone at six years, none of the other; beyond nine nobody looked.
    expect(groups[1]?.alive[1]).toBeNull();
    expect(groups[0]?.alive.map((at) => at?.survival)).toEqual([1, 1, 1, undefined]);
    expect(groups[1]?.alive[0]?.survival).toBe(1);
  });

  it('find the curve by which ten simulated years let sensors end, within what they say they know', () => {
    const all = [
      ...yearsOf({
        vehicles: 1500,
        seed: 5,
        from: new Date('2016-11-01'),
        to: new Date('2026-11-01'),
        people: ['Wilma'],
      }),
    ];
    const lives = livesOf(
      all.flatMap(({ visits }) =>
        visits.flatMap(({ header, turnedOut }) =>
          (header.sensors ?? []).map(({ id, wheel, ageYears = 0 }) => ({
            sensorId: id,
            ageYears,
            ended: turnedOut.some(({ was, wheel: at }) => was === 'sensor-silent' && at === wheel),
          })),
        ),
      ),
    );
    const own = ownCurve(lives);
    expect(own?.ended).toBeGreaterThan(100);
    // A lamp brings the car within days: what is told is little later than what was.
    expect(own?.scaleYears).toBeGreaterThan(curve.scaleYears.value * 0.95);
    expect(own?.scaleYears).toBeLessThan(curve.scaleYears.value * 1.08);
    expect(own?.shape).toBeGreaterThan(curve.shape.value * 0.85);
    expect(own?.shape).toBeLessThan(curve.shape.value * 1.15);
  });
});
