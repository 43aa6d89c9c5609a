import type { Job } from '../../job';
import { placardKPa, placardToleranceKPa, shownInStepsOfKPa } from '../../job/placard';
import type { Position } from '../../names/wheel';
import { thresholdsFor } from '.';

/**
 * The figures a tire's pressure is held against, kPa at the outdoor temperature. Figures are compared as they are shown:
 * 175 is at 175, so each line lies half a step further.
 */
export interface Lines {
  /** At or under it the lamp lights. */
  low: number;
  /** A lit lamp goes out from here on. */
  off: number;
  /** At or under it the tire is short of its placard. */
  short: number;
  /** Over it there is too much. */
  over: number;
}

/** Infinite where a figure is not known. */
export function linesAt(job: Job, wheel: Position): Lines {
  const { lowOnKPa, lowOffKPa, highOnKPa } = thresholdsFor(job, wheel);
  const cold = placardKPa(job, wheel);
  const half = shownInStepsOfKPa / 2;
  const low = lowOnKPa === undefined ? Number.NEGATIVE_INFINITY : lowOnKPa + half;
  return {
    low,
    off: lowOffKPa === undefined ? low : Math.max(low, lowOffKPa - half),
    short: cold === undefined ? Number.NEGATIVE_INFINITY : cold - placardToleranceKPa - half,
    over: highOnKPa === undefined ? Number.POSITIVE_INFINITY : highOnKPa + half,
  };
}
