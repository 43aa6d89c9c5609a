import { normalFactor } from '../regression';

/** One life: watched from an age on, to the age at which it ended or was last known to go on. Any unit of time. */
export interface Lifetime {
  /** The age at which it was first watched; 0 where it was from the beginning. */
  from?: number;
  to: number;
  ended: boolean;
}

/** The share that is still alive after an age at which some ended. */
export interface Step {
  at: number;
  /** Watched just before. */
  atRisk: number;
  ended: number;
  survival: number;
  /** Greenwood's standard error of `survival`. */
  error: number;
  /** 95 % band, kept between 0 and 1. */
  low: number;
  high: number;
}

/**
 * The share alive by age, of lives that did not all end [Kaplan and Meier 1958], with Greenwood's error (1926), from memory.
 * A life that was first watched at an age counts from that age on: it could not have been seen to end before.
 */
export function kaplanMeier(lives: readonly Lifetime[]): Step[] {
  const ends = [...new Set(lives.filter(({ ended }) => ended).map(({ to }) => to))].sort((a, b) => a - b);
  let survival = 1;
  let sum = 0;
  return ends.map((at) => {
    const atRisk = lives.filter(({ from = 0, to }) => from < at && to >= at).length;
    const ended = lives.filter((life) => life.ended && life.to === at).length;
    survival *= 1 - ended / atRisk;
    sum += ended / (atRisk * (atRisk - ended));
    // The last one that ended leaves nobody, and no error that could be told.
    const error = survival === 0 ? 0 : survival * Math.sqrt(sum);
    const half = normalFactor * error;
    return {
      at,
      atRisk,
      ended,
      survival,
      error,
      low: Math.max(0, survival - half),
      high: Math.min(1, survival + half),
    };
  });
}
