import { atWheel, trustedAt, type Job, type Placed } from '../../job';
import { once } from '../../job/once';
import { oneStopMs } from '../../job/together';
import { nearestTo, timelineOf } from '../../job/nearest';
import { normalDensity } from '../../measure/normal';
import { placardKPa, placardToleranceKPa } from '../../job/placard';
import { inWalkingOrder, roadWheels, type Position } from '../../names/wheel';

/**
 * An instrument that is off: it reads beside the sensors, or beside another trusted gauge, by as much at every wheel.
 * Four sensors are not wrong by one figure; the one gauge is. Nothing is judged by it, and no air let out for it.
 */
export interface GaugeOff {
  /** How likely it is the instrument, and not the tires or the sensors. */
  chance: number;
  /** By how much it reads too high, kPa; negative: too low. */
  offKPa: number;
  /** Where that was seen, in walking order. */
  wheels: Position[];
  /** Places among the observations of the readings made with it. */
  places: number[];
  /** What it was held against. */
  against: 'sensors' | 'another-gauge';
}

// Plain numbers, with their reasons in comments: a browser fetches this before it shows a job.
const numbers = {
  // A gauge that is trusted fell, or its hose leaks: once in a few hundred days of work (judgement).
  prior: 0.004,
  // Just wrong to far (judgement).
  offSdKPa: 25,
  // A good gauge beside a sound sensor: one standard deviation (judgement).
  agreesWithinKPa: 2.7,
  // One sensor that reads wrong and still moves, by any figure (judgement).
  sensorOff: 0.012,
  sensorOffSdKPa: 35,
  // A set that reads by another height, or in another scale: far rarer than a gauge (judgement).
  allSensorsOff: 0.0002,
};

/** Seen at so few wheels it may as well be them. */
const leastWheels = 2;

/** Less than this a gauge is not called off, kPa: what a sensor may differ from it by. */
const leastOffKPa = 7;

interface Pair {
  wheel: Position;
  reading: Placed<'gauge'>;
  /** By how much the gauge read more than what it is held against, kPa. */
  apartKPa: number;
}

/** The instrument that is off, where one is likely to be. */
export const gaugeOffIn = once((job: Job): GaugeOff | undefined => {
  const bySensors = judge(pairsWithSensors(job), 'sensors');
  return bySensors ?? judge(pairsOfGauges(job), 'another-gauge');
});

function judge(pairs: readonly Pair[], against: GaugeOff['against']): GaugeOff | undefined {
  const middle = median(
    pairs.map(({ apartKPa }) => apartKPa).filter((apart) => Math.abs(apart) > leastOffKPa),
  );
  if (middle === undefined) return undefined;
  const isAlike = ({ apartKPa }: Pair) => Math.abs(apartKPa - middle) <= 3 * numbers.agreesWithinKPa;
  const alike = pairs.filter(isAlike);
  const wheels = inWalkingOrder([...new Set(alike.map(({ wheel }) => wheel))]);
  const others = new Set(
    pairs.filter((pair) => !isAlike(pair) && !wheels.includes(pair.wheel)).map(({ wheel }) => wheel),
  );
  if (wheels.length < leastWheels || wheels.length <= 2 * others.size) return undefined;
  if (against === 'sensors' && areOfTwoGauges(alike)) return undefined;
  const offKPa = alike.reduce((sum, { apartKPa }) => sum + apartKPa, 0) / alike.length;
  return {
    chance: chanceOf(alike, offKPa),
    offKPa,
    wheels,
    places: alike.map(({ reading }) => reading.index),
    against,
  };
}

/** Two gauges say the same, or one that nobody named was read again at two wheels: then it is not the gauge. */
function areOfTwoGauges(pairs: readonly Pair[]): boolean {
  const named = new Set(pairs.flatMap(({ reading }) => reading.seen.gauge ?? []));
  const again = new Set(
    pairs
      .filter(({ wheel }, at) => pairs.findIndex((other) => other.wheel === wheel) < at)
      .map(({ wheel }) => wheel),
  );
  return named.size > 1 || (named.size === 0 && again.size >= leastWheels);
}

/** The odds that one instrument is off, against sensors each off for itself, all of them off alike, and nothing off at all. */
function chanceOf(pairs: readonly Pair[], offKPa: number): number {
  const { prior, offSdKPa, agreesWithinKPa, sensorOff, sensorOffSdKPa, allSensorsOff } = numbers;
  const variance = agreesWithinKPa ** 2;
  const together = pairs.reduce(
    (product, { apartKPa }) => product * normalDensity(apartKPa - offKPa, variance),
    1,
  );
  // What one figure for all leaves open of it.
  const width = Math.sqrt((2 * Math.PI * variance) / pairs.length);
  const common = normalDensity(offKPa, offSdKPa ** 2) * width * together;
  const apart = pairs.reduce(
    (product, { apartKPa }) =>
      product *
      ((1 - sensorOff) * normalDensity(apartKPa, variance) +
        sensorOff * normalDensity(apartKPa, variance + sensorOffSdKPa ** 2)),
    1,
  );
  const off = prior * common;
  return off / (off + allSensorsOff * common + (1 - prior - allSensorsOff) * apart);
}

/** Each trusted reading of a road wheel beside what its sensor said at the same stop, where no air was put in between. */
function pairsWithSensors(job: Job): Pair[] {
  return roadWheels.flatMap((wheel) => {
    const readings = trustedAt(job, wheel);
    const replies = timelineOf(
      atWheel(job, 'activation', wheel).flatMap((scan) =>
        scan.seen.replies.length === 1 && scan.seen.replies[0]?.kPa != null
          ? [{ seen: scan.seen, kPa: scan.seen.replies[0].kPa }]
          : [],
      ),
    );
    return readings.flatMap((reading): Pair[] => {
      const reply = nearestTo(replies, Date.parse(reading.seen.at), oneStopMs);
      if (!reply) return [];
      const scanMs = Date.parse(reply.seen.at);
      if (isHandledBetween(readings, reading, scanMs) || isFilledSince(job, reading, scanMs, reply.kPa))
        return [];
      return [{ wheel, reading, apartKPa: reading.seen.kPa - reply.kPa }];
    });
  });
}

/** Another reading between the two says that air was put in or let out. */
function isHandledBetween(
  readings: readonly Placed<'gauge'>[],
  reading: Placed<'gauge'>,
  scanMs: number,
): boolean {
  const ms = Date.parse(reading.seen.at);
  return readings.some((other) => {
    const otherMs = Date.parse(other.seen.at);
    const isBetween = Math.min(ms, scanMs) <= otherMs && otherMs <= Math.max(ms, scanMs);
    return isBetween && Math.abs(other.seen.kPa - reading.seen.kPa) > leastOffKPa;
  });
}

/** It was read after the scan, stands higher, and just where it should: somebody filled it and wrote down the end of it. */
function isFilledSince(job: Job, { seen }: Placed<'gauge'>, scanMs: number, replyKPa: number): boolean {
  const placard = placardKPa(job, seen.wheel);
  const isRight = placard !== undefined && Math.abs(seen.kPa - placard) <= placardToleranceKPa;
  return Date.parse(seen.at) > scanMs && seen.kPa > replyKPa && isRight;
}

/** Readings of one wheel at one stop by two gauges of the register. */
function pairsOfGauges(job: Job): Pair[] {
  return roadWheels.flatMap((wheel) => {
    const readings = trustedAt(job, wheel);
    return readings.flatMap((first, at): Pair[] => {
      const next = readings[at + 1];
      const isOther =
        next &&
        first.seen.gauge !== undefined &&
        next.seen.gauge !== undefined &&
        next.seen.gauge !== first.seen.gauge;
      if (!isOther || Date.parse(next.seen.at) - Date.parse(first.seen.at) > oneStopMs) return [];
      return [{ wheel, reading: first, apartKPa: first.seen.kPa - next.seen.kPa }];
    });
  });
}

function median(values: readonly number[]): number | undefined {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)];
}
