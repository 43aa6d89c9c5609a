import { damageAt, type FoundLow } from '../../../tire/damage';
import { allOf, atWheel, type Job } from '../../../job';
import { isLetOut } from '../../../job/history/let-out';
import { lossOf, recentLoss } from '../../../tire/leak';
import type { Ledger } from '../../../job/ledger';
import { normalDensity } from '../../../measure/normal';
import { placardKPa, placardToleranceKPa, wheelsOf } from '../../../job/placard';
import { normalFactor, regressionOf, type Regression } from '../../../measure/regression';
import type { Position } from '../../../names/wheel';
import { model } from '../model';
import type { Context, WheelEvidence } from '.';
import { courseOf, type Said } from './course';
import { gaugeNow, inAll, isOneStop } from './pressure';
import { daysBetween } from '../../../measure/calendar/spans';

/** How well a leak, and a sound tire, explain what was read of the wheel over time and seen by eye. */
export function leakLikelihood(
  context: Context,
  job: Job,
  ledger: Ledger,
  wheel: Position,
  course: readonly Said[],
): WheelEvidence['leak'] {
  const series = lossLikelihood(linesAt(context, job, ledger, wheel, course));
  const { signs, found } = damageAt(job, wheel);
  for (const sign of signs) {
    series.leaking *= model.signs[sign].leaking;
    series.sound *= model.signs[sign].sound;
  }
  if (found) {
    const apart = lowerThanOthers(found, context.placard[context.wheels.indexOf(wheel)]);
    series.leaking *= apart.leaking;
    series.sound *= apart.sound;
  }
  return series;
}

/** How likely a tire that leaks, and a sound one, is found by so much lower than the others; filling it changes nothing of that. */
function lowerThanOthers(
  { lowerByKPa }: FoundLow,
  placard: number = model.unknownPlacard.usualKPa,
): WheelEvidence['leak'] {
  const { togetherSdKPa, aloneShare, aloneSdKPa } = model.foundLow;
  const { kept, slack, leaking } = model.standing;
  const full = model.faults.tire.leakStillFull;
  const near = ({ offsetKPa, sdKPa }: { offsetKPa: number; sdKPa: number }) =>
    normalDensity(lowerByKPa + offsetKPa, sdKPa ** 2);
  const short = (1 - leaking.ofPlacard) * placard;
  return {
    leaking:
      (full * (near(kept) + near(slack))) / 2 +
      (1 - full) * normalDensity(lowerByKPa - short, (leaking.sdOfPlacard * placard) ** 2),
    sound:
      (1 - aloneShare) * normalDensity(lowerByKPa, togetherSdKPa ** 2) +
      // Lower, never higher: half a normal curve.
      2 * aloneShare * normalDensity(lowerByKPa, aloneSdKPa ** 2),
  };
}

/** What was lost over some time by one kind of reading, kPa a day. */
interface Line {
  rate: number;
  /** Variance of the rate. */
  error: number;
  days: number;
  /** The first reading was of a tire that is let down on purpose. */
  hadReason: boolean;
  /** What the other wheels lost by readings of that kind. */
  others: readonly number[];
  /** How likely this is for another reason than air lost: two instruments that do not agree. */
  atOdds: number;
}

/** By the gauge; by its own sensor; and, where each spoke once and at two stops, from one to the other. */
function linesAt(
  context: Context,
  job: Job,
  ledger: Ledger,
  wheel: Position,
  course: readonly Said[],
): Line[] {
  const lines = [byGauge(job, wheel), bySensor(context, job, ledger, wheel, course)].filter(
    (line) => line !== undefined,
  );
  const between = lines.length === 0 ? fromOneToTheOther(context, job, wheel, course) : undefined;
  return between ? [between] : lines;
}

function byGauge(job: Job, wheel: Position): Line | undefined {
  if (atWheel(job, 'gauge', wheel).length + (job.history?.length ?? 0) < 2) return undefined;
  const { line, levels } = recentLoss(lossOf(job, wheel)) ?? {};
  const first = levels?.[0];
  if (!line || !first || !(line.slopeError > 0)) return undefined;
  const days = (levels.at(-1)?.days ?? 0) - first.days;
  if (saysNothing(days, line)) return undefined;
  return {
    rate: -line.slope,
    error: line.slopeError ** 2,
    days,
    hadReason: isOver(job, wheel, first.readKPa) || watchedOnDisplay(job, levels),
    others: elsewhere(job, wheel, (other) => recentLoss(lossOf(job, other))?.line),
    atOdds: 0,
  };
}

function bySensor(
  context: Context,
  job: Job,
  ledger: Ledger,
  wheel: Position,
  course: readonly Said[],
): Line | undefined {
  const [first] = course;
  const line = slopeOf(course);
  if (!first || !line) return undefined;
  const days = daysBetween(first.ms, course.at(-1)?.ms ?? first.ms);
  if (saysNothing(days, line)) return undefined;
  return {
    rate: -line.slope,
    error: line.slopeError ** 2,
    days,
    hadReason: isOver(job, wheel, first.kPa),
    others: elsewhere(job, wheel, (other) => slopeOf(courseOf(context, job, ledger, other))),
    atOdds: 0,
  };
}

/** Within a visit only a fall says anything: an hour at full pressure is no evidence against a leak. */
const saysNothing = (
  days: number,
  { slope, slopeError }: Pick<Regression, 'slope' | 'slopeError'>,
): boolean => days < model.leakRates.visitDays && -slope < normalFactor * slopeError;

const slopeOf = (course: readonly Said[]): Regression | undefined => {
  const start = course[0]?.ms ?? 0;
  return course.length < 2
    ? undefined
    : regressionOf(course.map(({ ms, kPa, sdKPa }) => ({ x: daysBetween(start, ms), y: kPa, sd: sdKPa })));
};

/** The sensor spoke at another stop than the gauge: what lies between is lost, or one of them is off. */
function fromOneToTheOther(
  context: Context,
  job: Job,
  wheel: Position,
  course: readonly Said[],
): Line | undefined {
  const placed = atWheel(job, 'gauge', wheel).findLast(({ seen }) => seen.trusted !== false);
  const said = course.at(-1);
  const woken = atWheel(job, 'activation', wheel).some(({ seen }) => seen.trigger === 'deflation');
  if (!placed || !said || woken || isOneStop(Date.parse(placed.seen.at), said.ms)) return undefined;
  const read = { ...inAll(gaugeNow(context, placed)), ms: Date.parse(placed.seen.at) };
  const [before, after] = read.ms < said.ms ? [read, said] : [said, read];
  if (isLetOut(job, wheel, before.ms, after.ms)) return undefined;
  const days = daysBetween(before.ms, after.ms);
  const lost = before.kPa - after.kPa;
  const { inaccuracy, leakRates, noise } = model;
  const variance = before.sdKPa ** 2 + after.sdKPa ** 2 + noise.sensorKPa ** 2;
  // Filled in between: nothing is told.
  if (lost < -normalFactor * Math.sqrt(variance)) return undefined;
  if (saysNothing(days, { slope: -lost / days, slopeError: Math.sqrt(variance) / days })) return undefined;
  return {
    rate: lost / days,
    error: variance / days ** 2,
    days,
    hadReason: isOver(job, wheel, before.kPa),
    others: [],
    atOdds: leakRates.readsOff * days * normalDensity(lost, variance + inaccuracy.sdKPa ** 2),
  };
}

function isOver(job: Job, wheel: Position, kPa: number): boolean {
  const placard = placardKPa(job, wheel);
  return placard === undefined || kPa > placard + placardToleranceKPa;
}

/** The display was noted before the last reading and again after it: air is let out to see which figure moves. */
function watchedOnDisplay(job: Job, levels: readonly { at: string }[]): boolean {
  const [from, to] = [levels.at(-2), levels.at(-1)].map((level) => Date.parse(level?.at ?? ''));
  const noted = allOf(job, 'display').map(({ seen }) => Date.parse(seen.at));
  return noted.some((ms) => ms <= (from ?? ms)) && noted.some((ms) => ms >= (to ?? ms));
}

const elsewhere = (
  job: Job,
  wheel: Position,
  lineOf: (other: Position) => Regression | undefined,
): number[] =>
  wheelsOf(job).flatMap((other) => {
    const slope = other === wheel ? undefined : lineOf(other)?.slope;
    return slope === undefined ? [] : [-slope];
  });

function lossLikelihood(lines: readonly Line[]): WheelEvidence['leak'] {
  if (lines.length === 0) return { leaking: 1, sound: 1 };
  const { perDayKPa, relativeWidth, seepPerDayKPa, seepSdPerDayKPa, together, togetherKPaSquaredPerDay } =
    model.leakRates;
  const ofAll = (density: (line: Line) => number) =>
    lines.reduce((product, line) => product * density(line), 1);
  const leaking = perDayKPa.reduce(
    (sum, loss) =>
      sum + ofAll(({ rate, error }) => normalDensity(rate - loss, (relativeWidth * loss) ** 2 + error)),
    0,
  );
  const byHand = handledDensity(lines);
  // All wheels alike: another gauge, or another day's hand, and no leak in each of them.
  const alike = lines.every(({ others }) => others.length > 0)
    ? together *
      ofAll(({ rate, error, others }) =>
        normalDensity(
          rate - median(others),
          error * (1 + ofMedian(others.length)) + togetherKPaSquaredPerDay,
        ),
      )
    : 0;
  const seeping = ofAll(
    ({ rate, error, atOdds }) => normalDensity(rate - seepPerDayKPa, seepSdPerDayKPa ** 2 + error) + atOdds,
  );
  return { leaking: leaking / perDayKPa.length + byHand, sound: seeping + byHand + alike };
}

/** The variance of the median of so many, of the variance of one (the mean of two; beyond, as for many). */
const ofMedian = (count: number): number => (count < 3 ? 1 / count : Math.PI / 2 / count);

/** Somebody let air out between these readings: in one visit hardly of a tire that was not over placard, and then at once. */
function handledDensity(lines: readonly Line[]): number {
  const { handled, handledShort, visitDays, handledSdPerDayKPa, handledSdKPa } = model.leakRates;
  const likely = lines.every(({ hadReason, days }) => hadReason || days >= visitDays);
  return lines.reduce(
    (product, { rate, error, days }) =>
      product * normalDensity(rate, Math.max(handledSdPerDayKPa, handledSdKPa / days) ** 2 + error),
    likely ? handled : handledShort,
  );
}

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
