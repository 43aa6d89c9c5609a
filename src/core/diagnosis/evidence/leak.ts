import { damageAt } from '../../damage';
import type { Job } from '../../job';
import { lossOf, type Level } from '../../leak';
import { placardKPa, placardToleranceKPa, wheelsOf } from '../../placard';
import type { Position } from '../../wheel';
import { normalDensity } from '../../normal';
import { model } from '../model';
import type { WheelEvidence } from '.';

/** How well a leak, and a sound tire, explain what was read of the wheel over time and seen by eye. */
export function leakLikelihood(job: Job, wheel: Position, readings: number): WheelEvidence['leak'] {
  const series =
    readings + (job.history?.length ?? 0) > 1 ? lossLikelihood(job, wheel) : { leaking: 1, sound: 1 };
  const { signs, foundAtKPa } = damageAt(job, wheel);
  for (const sign of [...signs, ...(foundAtKPa === undefined ? [] : (['found-near-flat'] as const))]) {
    series.leaking *= model.signs[sign].leaking;
    series.sound *= model.signs[sign].sound;
  }
  return series;
}

function lossLikelihood(job: Job, wheel: Position): WheelEvidence['leak'] {
  const { line, levels } = lossOf(job, wheel);
  if (!line || !(line.slopeError > 0)) return { leaking: 1, sound: 1 };
  const { perDayKPa, relativeWidth, seepPerDayKPa, seepSdPerDayKPa, together, togetherKPaSquaredPerDay } =
    model.leakRates;
  const rate = -line.slope;
  const error = line.slopeError ** 2;
  const others = wheelsOf(job).flatMap((other) => {
    const slope = other === wheel ? undefined : lossOf(job, other).line?.slope;
    return slope === undefined ? [] : [-slope];
  });
  const byHand = handledDensity(job, wheel, levels, rate, error);
  // All wheels alike: another gauge, or another day's hand, and no leak in each of them.
  const alike =
    others.length === 0
      ? 0
      : together *
        normalDensity(
          rate - median(others),
          error * (1 + ofMedian(others.length)) + togetherKPaSquaredPerDay,
        );
  const leaking = perDayKPa.reduce(
    (sum, loss) => sum + normalDensity(rate - loss, (relativeWidth * loss) ** 2 + error),
    0,
  );
  return {
    leaking: leaking / perDayKPa.length + byHand,
    sound: normalDensity(rate - seepPerDayKPa, seepSdPerDayKPa ** 2 + error) + byHand + alike,
  };
}

/** The variance of the median of so many, of the variance of one (the mean of two; beyond, as for many). */
const ofMedian = (count: number): number => (count < 3 ? 1 / count : Math.PI / 2 / count);

/** Somebody let air out between these readings: in one visit hardly of a tire that was not over placard, and then at once. */
function handledDensity(
  job: Job,
  wheel: Position,
  levels: readonly Level[],
  rate: number,
  error: number,
): number {
  const { handled, handledShort, visitDays, handledSdPerDayKPa, handledSdKPa } = model.leakRates;
  const first = levels[0];
  const placard = placardKPa(job, wheel);
  const days = (levels.at(-1)?.days ?? 0) - (first?.days ?? 0);
  const hadReason = !first || placard === undefined || first.readKPa > placard + placardToleranceKPa;
  const sd = Math.max(handledSdPerDayKPa, handledSdKPa / days);
  return (hadReason || days >= visitDays ? handled : handledShort) * normalDensity(rate, sd ** 2 + error);
}

const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
