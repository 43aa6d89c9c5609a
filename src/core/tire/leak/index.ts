import { tireCelsius, usualUncertaintyKPa } from '../gauge';
import { altitudeOf, wasDone, type Job, type Seen } from '../../job';
import { once } from '../../job/once';
import { isLetOut } from '../../job/history/let-out';
import { normalFactor, regressionOf, type Regression } from '../../measure/regression';
import { thresholdsFor } from '../thresholds';
import { placardKPa, placardToleranceKPa } from '../../job/placard';
import { atmosphericKPa, atTemperature, kelvin } from '../../measure/pressure';
import { sdOf } from '../temperature';
import { seepagePerMonthKPa } from './seepage';
import type { Position } from '../../names/wheel';
import { dayMs } from '../../measure/calendar/spans';

/**
 * Leaks: what a tire lost, apart from temperature and from what seeps through sound rubber, with how well
 * that is known.
 */

const seepagePerDayKPa = seepagePerMonthKPa.most / 30;

/** A temperature read or felt at each reading of a series is good to this, K: what they share cancels (judgement). */
const betweenReadingsK = 1;
/** Where nobody said how warm it was: cold readings of one season are compared as they stand. */
const usualC = 20;

/** One reading of a tire, brought to the reference temperature. */
interface Level {
  at: string;
  /** Days since the first reading of its run. */
  days: number;
  /** As it was read. */
  readKPa: number;
  readC: number;
  /** At the reference temperature. */
  kPa: number;
  sdKPa: number;
  reading: Seen<'gauge'>;
}

export interface Loss {
  wheel: Position;
  referenceC: number;
  /** The readings between two fills that the verdict rests on, oldest first: from where the leak began, where it began late. */
  levels: Level[];
  /** Earlier runs of readings, each ended by a fill, a repair, or the beginning of a leak. */
  earlier: Level[][];
  /** At the reference temperature: loss is a negative slope. Undefined with fewer than two readings. */
  line: Regression | undefined;
  /** kPa a day lost, with its 95 % interval. */
  perDayKPa: { best: number; low: number; high: number } | undefined;
  /**
   * `leaks`: loses more than seepage, beyond doubt. `sound`: no more than seepage, beyond doubt.
   * `not-known`: the readings are too near one another to tell.
   */
  verdict: 'leaks' | 'sound' | 'not-known';
  /** For `not-known`: after so many days from the first reading one more would tell a leak of 2 kPa a day. */
  tellsAfterDays: number | undefined;
  /** Days from the last reading until this wheel lights the lamp, at the reference temperature; the soonest and the latest of the interval. */
  lampInDays: { best: number; soonest: number; latest: number } | undefined;
}

/** The loss rate that is worth telling from seepage: a slow puncture, kPa a day (judgement). */
const slowLeakPerDayKPa = 2;

/** All readings of a wheel that are known, at earlier visits and at this one, oldest first. */
export function readingsOf(job: Job, wheel: Position): Seen<'gauge'>[] {
  const here = job.observations.flatMap((seen) =>
    seen.kind === 'gauge' && seen.wheel === wheel ? [seen] : [],
  );
  // Wheels that changed place or tires since take their history along.
  const moved = wasDone(job, 'tires-fitted', 'rotation', 'wheels-swapped');
  const before = moved ? [] : (job.history ?? []).filter((seen) => seen.wheel === wheel);
  return [...before, ...here].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

/**
 * The loss of one wheel, at the outdoor temperature of now. The verdict is that of the last run of
 * readings that tells: a leak that was found stands after a fill until a later run is sound or it is
 * repaired. A leak begins at some time, and mostly late: where a run as a whole tells none, its latest readings that do
 * are what counts, however long all was well before. Readings of gauges that are not trusted are left out.
 */
export const lossOf = once((job: Job, wheel: Position): Loss => {
  const referenceC = job.climate?.nowC ?? usualC;
  const levels = readingsOf(job, wheel)
    .filter(({ trusted }) => trusted !== false)
    .flatMap((reading) => levelOf(job, reading, referenceC) ?? []);
  const repairedAt = (job.repairs ?? [])
    .filter((repair) => repair.wheel === wheel)
    .map(({ at }) => Date.parse(at));
  const isHandled = (before: Level, after: Level) =>
    repairedBetween(repairedAt, before, after) ||
    isLetOut(job, wheel, Date.parse(before.at), Date.parse(after.at));
  const runs = runsOf(levels, isHandled, placardKPa(job, wheel));
  const lastRepair = Math.max(Number.NEGATIVE_INFINITY, ...repairedAt);
  const judged = runs.map(judgeFromItsBreak);
  const standing = judged.filter(({ levels: run }) => Date.parse(run.at(-1)?.at ?? '') >= lastRepair);
  const telling = standing.findLast(({ verdict }) => verdict !== 'not-known') ?? judged.at(-1);
  const line = telling?.line;
  const { lowOnKPa } = thresholdsFor(job, wheel);
  const run = telling?.levels ?? [];
  return {
    wheel,
    referenceC,
    levels: run,
    earlier: judged
      .flatMap((one) => (one === telling ? [one.before] : [[...one.before, ...one.levels]]))
      .filter(isAny),
    line,
    perDayKPa: line && {
      best: -line.slope,
      low: -line.slope - line.slopeUncertainty,
      high: -line.slope + line.slopeUncertainty,
    },
    verdict: telling?.verdict ?? 'not-known',
    tellsAfterDays: telling?.verdict === 'not-known' ? tellsAfter(run) : undefined,
    lampInDays: line && lowOnKPa !== undefined ? lampIn(levels.at(-1), line, lowOnKPa) : undefined,
  };
});

/** The reading at the reference temperature; nothing for a warm tire of unknown temperature. */
function levelOf(job: Job, reading: Seen<'gauge'>, referenceC: number): Level | undefined {
  const readC = tireCelsius(job, reading) ?? (reading.tire === 'cold' ? referenceC : undefined);
  if (readC === undefined) return undefined;
  const altitudeM = altitudeOf(job);
  const perK = (reading.kPa + atmosphericKPa(altitudeM)) / kelvin(readC);
  const doubtK = reading.tireCUncertaintyK === undefined ? betweenReadingsK : sdOf(reading.tireCUncertaintyK);
  return {
    at: reading.at,
    days: 0,
    readKPa: reading.kPa,
    readC,
    kPa: atTemperature({ kPa: reading.kPa, celsius: readC, altitudeM }, referenceC),
    sdKPa: Math.hypot(sdOf(reading.uncertaintyKPa ?? usualUncertaintyKPa), perK * doubtK),
    reading,
  };
}

/**
 * Runs of readings nobody's hand came between: one that stands clearly higher than the one before, a tire
 * let down to placard within the stop, a repair, or air let out to teach the car begins a new run.
 */
function runsOf(
  levels: readonly Level[],
  isHandled: (before: Level, after: Level) => boolean,
  placard: number | undefined,
): Level[][] {
  const runs: Level[][] = [];
  for (const level of levels) {
    const run = runs.at(-1);
    const before = run?.at(-1);
    const handled =
      before && (filled(before, level) || letDown(before, level, placard) || isHandled(before, level));
    if (run && !handled) run.push(level);
    else runs.push([level]);
  }
  return runs.map((run) => {
    const start = Date.parse(run[0]?.at ?? '');
    return run.map((level) => ({ ...level, days: (Date.parse(level.at) - start) / dayMs }));
  });
}

const repairedBetween = (repairedAt: readonly number[], before: Level, after: Level): boolean =>
  repairedAt.some((at) => at > Date.parse(before.at) && at <= Date.parse(after.at));

const filled = (before: Level, after: Level): boolean =>
  after.kPa - before.kPa > normalFactor * Math.hypot(after.sdKPa, before.sdKPa);

/** Within this a tire that went from above placard to placard was let down by hand, hours (judgement). */
const oneStopHours = 2;

function letDown(before: Level, after: Level, placard: number | undefined): boolean {
  if (placard === undefined) return false;
  const hours = (Date.parse(after.at) - Date.parse(before.at)) / 3_600_000;
  return (
    hours <= oneStopHours &&
    before.kPa > placard + placardToleranceKPa &&
    after.kPa >= placard - placardToleranceKPa
  );
}

const isAny = (levels: readonly Level[]): boolean => levels.length > 0;

type Judged = Pick<Loss, 'line' | 'verdict' | 'levels'> & {
  /** Readings of the run before the leak began. */
  before: Level[];
};

/** The run as a whole; where that tells no leak, the latest of its readings that do, from the shortest on. */
function judgeFromItsBreak(run: Level[]): Judged {
  const whole = judge(run);
  if (whole.verdict !== 'leaks') {
    for (let from = run.length - 2; from > 0; from -= 1) {
      const tail = judge(run.slice(from));
      if (tail.verdict === 'leaks') return { ...tail, levels: run.slice(from), before: run.slice(0, from) };
    }
  }
  return { ...whole, levels: run, before: [] };
}

/** What was read over so long says how the tire is now; beyond it somebody may have topped it up, days (judgement). */
const speaksOfNowDays = 30;

/**
 * The readings that speak for or against a leak now: those of the verdict where it leaks; else the latest of the run, since
 * older good ones excuse nothing. A leak told over longer has to lose twice what seeps: less, and it may be an old one, or
 * have begun late. Undefined with fewer than two.
 */
export function recentLoss({
  verdict,
  line,
  levels,
}: Loss): { line: Regression; levels: Level[] } | undefined {
  const last = levels.at(-1)?.days ?? 0;
  const isRecent = last - (levels[0]?.days ?? 0) <= speaksOfNowDays;
  if (line && verdict === 'leaks' && (isRecent || -line.slope > 2 * seepagePerDayKPa))
    return { line, levels };
  const recent = levels.filter(({ days }) => days >= last - speaksOfNowDays);
  const ofThem = judge(recent).line;
  return ofThem && { line: ofThem, levels: recent };
}

function judge(run: readonly Level[]): Pick<Loss, 'line' | 'verdict'> {
  const line = regressionOf(run.map(({ days, kPa, sdKPa }) => ({ x: days, y: kPa, sd: sdKPa })));
  if (!line) return { line: undefined, verdict: 'not-known' };
  const low = -line.slope - line.slopeUncertainty;
  const high = -line.slope + line.slopeUncertainty;
  const verdict = low > seepagePerDayKPa ? 'leaks' : high <= seepagePerDayKPa ? 'sound' : 'not-known';
  return { line, verdict };
}

/** When one more reading as good as the last would tell a slow leak from seepage. */
function tellsAfter(run: readonly Level[]): number | undefined {
  const [first] = run;
  if (!first) return undefined;
  const doubt = normalFactor * Math.hypot(first.sdKPa, first.sdKPa);
  return doubt / (slowLeakPerDayKPa - seepagePerDayKPa);
}

function lampIn(last: Level | undefined, line: Regression, lowOnKPa: number): Loss['lampInDays'] {
  if (!last) return undefined;
  const left = Math.max(0, last.kPa - lowOnKPa);
  const days = (perDay: number) => (perDay > 0 ? left / perDay : Number.POSITIVE_INFINITY);
  return {
    best: days(-line.slope),
    soonest: days(-line.slope + line.slopeUncertainty),
    latest: days(-line.slope - line.slopeUncertainty),
  };
}
