import { tireCelsius } from '../../../tire/gauge';
import { altitudeOf, allOf, atWheel, type Job, type Placed, type Seen } from '../../../job';
import { nearestTo, timelineOf, type Timeline } from '../../../job/nearest';
import { once } from '../../../job/once';
import { atTemperature, kelvin } from '../../../measure/pressure';
import { sdOf } from '../../../tire/temperature';
import type { Position } from '../../../names/wheel';
import { model } from '../model';
import type { Context, Measured } from '.';

/** Figures brought to the outdoor temperature of now, each with what it may be off. */

/** A figure with its instrument's own error, and with what the temperature of its moment leaves open: all figures of one stop share that. */
interface Brought extends Measured {
  doubtKPa: number;
}

/** All that it may be off. */
export const inAll = ({ kPa, sdKPa, doubtKPa }: Brought): Measured => ({
  kPa,
  sdKPa: Math.hypot(sdKPa, doubtKPa),
});

/** A gauge reading brought to the outdoor temperature of now; a warm one nobody measured, by what is usual. */
export function gaugeNow({ job, nowC, ambientKPa }: Context, { seen }: Placed<'gauge'>): Brought {
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
    sdKPa: gaugeSd,
    doubtKPa: perK * doubtK,
  };
}

/** Where the car was when it told a figure. */
export type Told = 'driving' | 'parked' | 'display';

/**
 * What the car itself has, or shows, of a tire, brought to now by the temperature of its own moment: that its sensor
 * tells with it, else that of a gauge reading or of a sensor of the same stop. Where there is none, it may be of
 * another stop, and is taken with the more doubt.
 */
export function shownNow(
  context: Context,
  seen: Seen<'live'> | Seen<'display'>,
  told: Told,
): Measured | undefined {
  const { job, nowC, ambientKPa } = context;
  const { noise } = model;
  const { kPa } = seen;
  if (!kPa) return undefined;
  const ownSd = told === 'display' ? noise.displayKPa : noise.liveParkedKPa;
  const byTemperature = (celsius: number, moreSd: number): Measured => {
    const perK = (kPa + ambientKPa) / kelvin(celsius);
    return {
      kPa: atTemperature({ kPa, celsius, altitudeM: altitudeOf(job) }, nowC ?? celsius),
      sdKPa: Math.hypot(ownSd, moreSd, perK * noise.temperatureK),
    };
  };
  if (seen.kind === 'live' && seen.tempC != null && nowC !== undefined) return byTemperature(seen.tempC, 0);
  const gauge = gaugeOfStop(job, seen.wheel, seen.at);
  if (gauge && (told !== 'driving' || gauge.seen.tire === 'warm')) {
    const there = gaugeNow(context, gauge);
    const shift = there.kPa - gauge.seen.kPa;
    // Beside the same wheel's gauge the doubt about its temperature is one and the same; beside another's it is not.
    const doubt =
      gauge.seen.wheel === seen.wheel ? 0 : Math.hypot(there.doubtKPa, shift * noise.warmthDiffers);
    const sd = told === 'driving' ? noise.liveDrivingKPa.sd / 2 : ownSd;
    return { kPa: kPa + shift, sdKPa: Math.hypot(sd, doubt) };
  }
  if (told === 'driving') return { kPa: kPa - noise.liveDrivingKPa.rise, sdKPa: noise.liveDrivingKPa.sd };
  const sensorC = sensorOfStop(job, seen.at);
  if (sensorC !== undefined && nowC !== undefined) return byTemperature(sensorC, noise.liveParkedKPa);
  const apart = allOf(job, 'gauge').length > 0 ? noise.otherStopKPa : 0;
  return { kPa, sdKPa: Math.hypot(ownSd, apart) };
}

/** Whether two moments, ms, belong to one stop: nobody drove in between. */
export const isOneStop = (oneMs: number, otherMs: number): boolean => Math.abs(oneMs - otherMs) <= oneStopMs;

/** The gauge reading of the same stop nearest in time: of this wheel, else of any. */
function gaugeOfStop(job: Job, wheel: Position, at: string): Placed<'gauge'> | undefined {
  return ownGaugeOfStop(job, wheel, at) ?? ofStop(gaugings(job, 'any'), at);
}

/** The gauge reading of this wheel at the same stop, nearest in time. */
export const ownGaugeOfStop = (job: Job, wheel: Position, at: string): Placed<'gauge'> | undefined =>
  ofStop(gaugings(job, wheel), at);

const gaugings = once((job: Job, wheel: Position | 'any') =>
  timelineOf(wheel === 'any' ? allOf(job, 'gauge') : atWheel(job, 'gauge', wheel)),
);

const oneStopMs = model.noise.oneStopMinutes * 60_000;
const ofStop = <Item>(seen: Timeline<Item>, at: string): Item | undefined =>
  nearestTo(seen, Date.parse(at), oneStopMs);

/** What a sensor said of its temperature nearest in time, at the same stop: any one, tires of one car are about as warm. */
function sensorOfStop(job: Job, at: string): number | undefined {
  return ofStop(warmth(job), at)?.celsius;
}

const warmth = once((job: Job) =>
  timelineOf(
    allOf(job, 'activation').flatMap(({ seen }) => {
      const celsius = seen.replies.find(({ tempC }) => tempC != null)?.tempC;
      return celsius == null ? [] : [{ seen, celsius }];
    }),
  ),
);
