import { canonicalId } from '../sensor-id';
import { fitWeibull, kaplanMeier, type Lifetime, type Step, type Weibull } from '../survival';
import { judged } from '../figure';
import type { LifeCurve } from '.';

/** From so many ends on a shop's own curve is taken instead of common practice. */
export const endsForOwnCurve = judged(
  10,
  'with ten ends the scale is known to about a tenth; with fewer the curve of common practice is the better guess',
);

/** What one visit says of one sensor whose age is on file. */
export interface SeenAtAge {
  sensorId: string;
  ageYears: number;
  /** It turned out to be silent, or its battery to be ending, once somebody had it in hand. */
  ended: boolean;
}

/** How long the sensors of a shop lasted. */
export interface SensorLives {
  sensors: number;
  ended: number;
  /** The share alive by age, years. */
  steps: Step[];
  /** The curve through it; null with too few ends to tell one. */
  fit: Weibull | null;
}

/**
 * One life a sensor: from the age it was first seen at to the age at which it ended, or was last seen to go on. One that was
 * seen at one age only tells nothing: had it ended before, nobody here would know.
 */
export function lifetimesOf(seen: readonly SeenAtAge[]): Lifetime[] {
  const lives = new Map<string, Required<Lifetime>>();
  for (const { sensorId, ageYears, ended } of seen) {
    const id = canonicalId(sensorId);
    const life = lives.get(id);
    lives.set(id, {
      from: Math.min(life?.from ?? ageYears, ageYears),
      to: Math.max(life?.to ?? ageYears, ageYears),
      ended: (life?.ended ?? false) || ended,
    });
  }
  return [...lives.values()].filter(({ from, to }) => to > from);
}

export function livesOf(seen: readonly SeenAtAge[]): SensorLives {
  const lives = lifetimesOf(seen);
  return {
    sensors: lives.length,
    ended: lives.filter(({ ended }) => ended).length,
    steps: kaplanMeier(lives),
    fit: fitWeibull(lives) ?? null,
  };
}

/** The shop's own curve, where enough of its sensors ended to tell one. */
export const ownCurve = ({ fit }: Pick<SensorLives, 'fit'>): LifeCurve | undefined =>
  fit && fit.ended >= endsForOwnCurve.value
    ? { shape: fit.shape, scaleYears: fit.scale, ended: fit.ended }
    : undefined;
