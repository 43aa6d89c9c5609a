import type { CarWrite } from '../core/job';

/** A write without an answer for this long is not under way any more: its outcome is unknown. */
const writesInFlightMs = 10_000;

/** Asked a moment ago and not answered: the car may still be at it. */
export const isUnderWay = ({ answer, readBackAt, askedAt }: CarWrite): boolean =>
  !answer && !readBackAt && Date.now() - Date.parse(askedAt) < writesInFlightMs;
