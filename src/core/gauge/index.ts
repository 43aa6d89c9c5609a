import { altitudeOf, type Job, type Seen } from '../job';
import { atTemperature } from '../pressure';

/** The temperature of the air in the tire at a gauge reading; unknown for a warm tire nobody measured. */
export function tireCelsius(job: Job, reading: Seen<'gauge'>): number | undefined {
  if (reading.tireC !== undefined) return reading.tireC;
  return reading.tire === 'cold' ? job.climate?.nowC : undefined;
}

/** A gauge reading in kPa brought to another temperature, where its own is known. */
export function readingAt(job: Job, reading: Seen<'gauge'>, celsius: number): number | undefined {
  const tireC = tireCelsius(job, reading);
  return tireC === undefined
    ? undefined
    : atTemperature({ kPa: reading.kPa, celsius: tireC, altitudeM: altitudeOf(job) }, celsius);
}
