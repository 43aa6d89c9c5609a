import { failure, type Result } from '../../result';
import { altitudeOf, atWheel, type Job, type Placed, type Seen } from '../../job';
import { nearestTo, timelineOf } from '../../job/nearest';
import { once } from '../../job/once';
import { oneStopMs } from '../../job/together';
import { strongest } from '../../job/ledger';
import { atmosphericKPa, atTemperature, kelvin } from '../../measure/pressure';
import { measuredUncertaintyK } from '../temperature';
import type { Position } from '../../names/wheel';
import { usualUncertaintyKPa } from './instrument';

export { asJudged, corrected, gaugeWarning, calibrationStatusOf, calibrationStatusWords } from './instrument';
export {
  allowedErrorKPa,
  calibrationOf,
  checkEveryDays,
  checkPlanKPa,
  usualUncertaintyKPa,
} from './instrument';
export type { Calibration, CalibrationStatus } from './instrument';
export { coldAfterHours, standOf, type Stand } from './stand';
export type { CalibrationCheck, CheckPoint, Instrument } from '../../job/schemas/instrument';

/**
 * The temperature of the air in the tire at a gauge reading: as it was measured beside it, else by its sensor at the same
 * stop where the tire was warm, or called cold and is not; unknown for a warm tire nobody measured.
 */
export function tireCelsius(job: Job, reading: Seen<'gauge'>): number | undefined {
  if (reading.tireC !== undefined) return reading.tireC;
  const sensorC = sensorCelsius(job, reading);
  const nowC = job.climate?.nowC;
  if (reading.tire !== 'cold') return sensorC;
  return sensorC !== undefined && nowC !== undefined && sensorC > nowC + sunK ? sensorC : nowC;
}

/** What the sensor of the wheel said of its temperature nearest to a gauge reading, within one stop. */
function sensorCelsius(job: Job, reading: Seen<'gauge'>): number | undefined {
  return nearestTo(warmth(job, reading.wheel), Date.parse(reading.at), oneStopMs)?.celsius;
}

/** Every temperature a wheel's own sensor told. */
const warmth = once((job: Job, wheel: Position) =>
  timelineOf(
    atWheel(job, 'activation', wheel).flatMap(({ seen }) => {
      const celsius = strongest(seen.replies)?.tempC;
      return celsius == null ? [] : [{ seen, celsius }];
    }),
  ),
);

/** A gauge reading in kPa brought to another temperature, where its own is known. */
export function readingAt(job: Job, reading: Seen<'gauge'>, celsius: number): number | undefined {
  const tireC = tireCelsius(job, reading);
  return tireC === undefined
    ? undefined
    : atTemperature({ kPa: reading.kPa, celsius: tireC, altitudeM: altitudeOf(job) }, celsius);
}

/**
 * The last reading: of a gauge that is trusted, where there is one. What another one read since counts only where it is
 * that much lower that air must have gone.
 */
export function readingThatCounts(gauges: readonly Placed<'gauge'>[]): Placed<'gauge'> | undefined {
  const last = gauges.at(-1);
  const trusted = gauges.findLast(({ seen }) => seen.trusted !== false);
  if (!last || !trusted || last === trusted) return last;
  const clearlyLower = trusted.seen.kPa - last.seen.kPa > 3 * untrustedGaugeKPa;
  return clearlyLower ? last : trusted;
}

/** What a public air line is off by, kPa (judgement). */
export const untrustedGaugeKPa = 14;

/** How far off a reading may be, gauge and temperature together: its expanded uncertainty (95 %), kPa. */
export function uncertaintyOf(job: Job, reading: Seen<'gauge'>): number {
  const gauge = reading.uncertaintyKPa ?? usualUncertaintyKPa;
  const tireC = tireCelsius(job, reading);
  if (tireC === undefined) return gauge;
  const perK = (reading.kPa + atmosphericKPa(altitudeOf(job))) / kelvin(tireC);
  return Math.hypot(gauge, perK * (reading.tireCUncertaintyK ?? measuredUncertaintyK));
}

/** A cold tire may stand in the sun, K: more than this above the air and it is not cold. */
const sunK = 8;

/** Problem: `warm-not-cold`, a tire called cold that is hotter than the air. */
export function refuseHotCold(
  tire: 'cold' | 'warm',
  tireC: number | undefined,
  nowC: number | undefined,
): Result<never> | undefined {
  if (tire !== 'cold' || tireC === undefined || nowC === undefined || tireC <= nowC + sunK) return undefined;
  return failure(
    'warm-not-cold',
    'A tire that much hotter than the air is not cold: choose warm, or measure its temperature again.',
  );
}
