import { tireCelsius } from '../../gauge';
import { altitudeOf, type Placed } from '../../job';
import { atTemperature, kelvin } from '../../pressure';
import { sdOf } from '../../tire-temperature';
import { model } from '../model';
import type { Context, Measured } from '.';

/** Figures brought to the outdoor temperature of now, each with what it may be off. */

/** A gauge reading brought to the outdoor temperature of now; a warm one nobody measured, by what is usual. */
export function gaugeNow({ job, nowC, ambientKPa }: Context, { seen }: Placed<'gauge'>): Measured {
  const { noise } = model;
  const own =
    seen.uncertaintyKPa === undefined
      ? noise.gaugeKPa
      : Math.max(noise.bestGaugeKPa, sdOf(seen.uncertaintyKPa));
  const gaugeSd = seen.trusted === false ? Math.max(own, noise.untrustedGaugeKPa) : own;
  const tireC = tireCelsius(job, seen);
  const now = nowC ?? tireC ?? model.usualNowC;
  const estimatedC = tireC ?? (seen.tire === 'warm' ? now + noise.unknownWarmK.rise : now);
  const doubtK =
    tireC === undefined
      ? seen.tire === 'warm'
        ? noise.unknownWarmK.sd
        : 0
      : estimatedC === now
        ? 0
        : seen.tireCUncertaintyK === undefined
          ? noise.temperatureK
          : sdOf(seen.tireCUncertaintyK);
  const perK = (seen.kPa + ambientKPa) / kelvin(estimatedC);
  return {
    kPa: atTemperature({ kPa: seen.kPa, celsius: estimatedC, altitudeM: altitudeOf(job) }, now),
    sdKPa: Math.hypot(gaugeSd, perK * doubtK),
  };
}

/** What the car itself has of a tire; while it is driven the air is warmer than outdoors. */
export function liveNow({ job, nowC }: Context, { seen }: Placed<'live'>, driving: boolean): Measured {
  const { noise } = model;
  const kPa = seen.kPa ?? 0;
  if (seen.tempC != null && nowC !== undefined) {
    const air = { kPa, celsius: seen.tempC, altitudeM: altitudeOf(job) };
    return { kPa: atTemperature(air, nowC), sdKPa: noise.liveParkedKPa };
  }
  return driving
    ? { kPa: kPa - noise.liveDrivingKPa.rise, sdKPa: noise.liveDrivingKPa.sd }
    : { kPa, sdKPa: noise.liveParkedKPa };
}
