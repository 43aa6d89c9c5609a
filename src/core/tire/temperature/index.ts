import type { Drive } from '../../names/kinds';
import { normalBelow } from '../../measure/normal';
import { normalFactor } from '../../measure/regression';

/** A temperature in °C with its expanded uncertainty (95 %), K. */
interface Estimate {
  celsius: number;
  uncertaintyK: number;
}

/** How far a tire's air comes above the outdoor air once it is driven through, K (common practice). */
const fullRiseK: Record<Drive, number> = { town: 12, road: 20, motorway: 28 };
/** Load, sun and pressure make that rise larger or smaller by this share (judgement). */
const riseDoubt = 0.4;
/** What the outdoor figure, shade and wind leave open, K (judgement). */
const airDoubtK = 2;
/** A tire has come two thirds of the way up after so many minutes on the road (common practice: warm after half an hour). */
const warmingMinutes = 12;
/** A warm tire has come two thirds of the way down after so many minutes standing (common practice: cold after three hours). */
const coolingMinutes = 45;

/**
 * The temperature of a tire's air from how long and how it was driven and how long it has stood since,
 * where nobody measured it: an exponential approach to the full rise, then back to the outdoor air.
 * Minutes from 0; the uncertainty goes with the rise that is left.
 */
export function estimateTireTemperature(asked: {
  outdoorC: number;
  drive: Drive;
  minutesDriven: number;
  minutesStood: number;
}): Estimate {
  const warmed = 1 - Math.exp(-asked.minutesDriven / warmingMinutes);
  const left = Math.exp(-asked.minutesStood / coolingMinutes);
  const riseK = fullRiseK[asked.drive] * warmed * left;
  return { celsius: asked.outdoorC + riseK, uncertaintyK: Math.hypot(airDoubtK, riseDoubt * riseK) };
}

/** A tire's air hotter than this, °C, is too hot to drive on, where the car names no limit (common practice). */
const tooHotC = 98;

/** A temperature that was measured, with an infrared thermometer or by the sensor itself: expanded uncertainty, K (common practice). */
export const measuredUncertaintyK = 2;

/** The chance that a tire is too hot, by what its sensor says of it, °C; 0 where it says nothing. */
export const chanceTooHot = (...said: readonly (number | null | undefined)[]): number => {
  const celsius = Math.max(...said.map((value) => value ?? Number.NEGATIVE_INFINITY));
  return celsius === Number.NEGATIVE_INFINITY
    ? 0
    : normalBelow((celsius - tooHotC) / sdOf(measuredUncertaintyK));
};

/** The standard uncertainty (one standard deviation) behind an expanded one. */
export const sdOf = (expanded: number): number => expanded / normalFactor;
