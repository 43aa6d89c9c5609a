import { normalFactor, regressionOf, studentFactor, type Regression } from '../../measure/regression';
import type { Job, Observation, Seen } from '../../job';
import { estimateTireTemperature } from '../temperature';
import type { CalibrationCheck, CheckPoint, Instrument } from '../../job/schemas/instrument';
import { dayMs } from '../../measure/calendar/spans';

/** The points of a check, up and then down, kPa: from a flat tire to a temporary spare (judgement). */
export const checkPlanKPa = [100, 180, 260, 340, 420] as const;

/** A tire gauge may be off by so much, kPa, up to each pressure: EN 12645 and Directive 86/217/EEC, from memory. */
const allowedKPa = [
  { upToKPa: 400, errorKPa: 8 },
  { upToKPa: 1000, errorKPa: 16 },
] as const;

/** The largest error a gauge may have at a pressure, kPa. */
export const allowedErrorKPa = (atKPa: number): number =>
  (allowedKPa.find(({ upToKPa }) => atKPa <= upToKPa) ?? allowedKPa[1]).errorKPa;

/** A gauge is due for its next check after so many days (common practice: each quarter). */
export const checkEveryDays = 90;

/** A good gauge nobody checked, in the hand of one who reads it: expanded uncertainty, kPa (common practice). */
export const usualUncertaintyKPa = 4;

/** What a check says about a gauge. */
export interface Calibration {
  /** The error, read less true, kPa, at a pressure: a straight line through the points. */
  errorAt: (kPa: number) => number;
  meanErrorKPa: number;
  /** Scatter of the points about that line, kPa. */
  spreadKPa: number;
  /** The largest error met, with its sign, and at which pressure. */
  worst: { errorKPa: number; atKPa: number };
  /** The largest difference between going up and coming down, kPa. */
  hysteresisKPa: number;
  /** Expanded uncertainty (95 %) of a reading with the error taken out, kPa. */
  uncertaintyKPa: number;
  /** Every point is within what a gauge may be off. */
  withinTolerance: boolean;
}

/** Undefined with fewer than three points or all at one pressure. */
export function calibrationOf(check: CalibrationCheck, resolutionKPa: number): Calibration | undefined {
  const errors = check.points.map(({ referenceKPa, readKPa }) => ({
    x: referenceKPa,
    y: readKPa - referenceKPa,
  }));
  const line = regressionOf(errors);
  const [first, ...rest] = errors;
  if (!first || !line || errors.length < 3) return undefined;
  const worst = rest.reduce((a, b) => (Math.abs(b.y) > Math.abs(a.y) ? b : a), first);
  return {
    errorAt: line.at,
    meanErrorKPa: errors.reduce((sum, { y }) => sum + y, 0) / errors.length,
    spreadKPa: line.residualSd,
    worst: { errorKPa: worst.y, atKPa: worst.x },
    hysteresisKPa: hysteresisOf(check.points),
    uncertaintyKPa: expandedUncertainty(line, errors.length, check.referenceUncertaintyKPa, resolutionKPa),
    withinTolerance: errors.every(({ x, y }) => Math.abs(y) <= allowedErrorKPa(x)),
  };
}

/** At 95 % (JCGM 100:2008, 6.2): spread of one reading, the reference, and the step of the scale (evenly spread over it: a third of √3 of a half step). */
function expandedUncertainty(
  line: Regression,
  points: number,
  referenceKPa: number,
  resolutionKPa: number,
): number {
  const reading = studentFactor(points - 2) * line.residualSd;
  const step = normalFactor * (resolutionKPa / Math.sqrt(12));
  return Math.hypot(reading, referenceKPa, step);
}

function hysteresisOf(points: readonly CheckPoint[]): number {
  const up = new Map(
    points.filter(({ way }) => way === 'up').map((point) => [point.referenceKPa, point.readKPa]),
  );
  return points
    .filter(({ way }) => way === 'down')
    .map(({ referenceKPa, readKPa }) => Math.abs(readKPa - (up.get(referenceKPa) ?? readKPa)))
    .reduce((most, difference) => Math.max(most, difference), 0);
}

export type CalibrationStatus =
  | { kind: 'good'; checkedAt: string; dueAt: string }
  | { kind: 'overdue'; checkedAt: string; dueAt: string }
  | { kind: 'out-of-tolerance'; checkedAt: string }
  | { kind: 'never-checked' }
  | { kind: 'retired' };

/** How a gauge stands at a moment, by its last check until then. */
export function calibrationStatusOf(instrument: Instrument, moment: number): CalibrationStatus {
  if (instrument.retired) return { kind: 'retired' };
  const check = instrument.checks.findLast(({ at }) => Date.parse(at) <= moment);
  if (!check) return { kind: 'never-checked' };
  const checkedAt = check.at;
  if (!calibrationOf(check, instrument.resolutionKPa)?.withinTolerance)
    return { kind: 'out-of-tolerance', checkedAt };
  const due = Date.parse(checkedAt) + checkEveryDays * dayMs;
  return { kind: moment > due ? 'overdue' : 'good', checkedAt, dueAt: new Date(due).toISOString() };
}

/** A standing as it is said beside a figure; nothing beside a good one. */
export const calibrationStatusWords: Record<CalibrationStatus['kind'], string> = {
  good: '',
  overdue: 'gauge overdue for its check',
  'out-of-tolerance': 'gauge out of tolerance',
  'never-checked': 'gauge never checked',
  retired: 'gauge out of use',
};

/**
 * A reading with this gauge's own error taken out, and how far off it may still be: by the last check until that
 * moment, or by the first one after it where there was none before.
 */
export function corrected(
  instrument: Instrument,
  readKPa: number,
  moment: number,
): { kPa: number; uncertaintyKPa: number } {
  const check = instrument.checks.findLast(({ at }) => Date.parse(at) <= moment) ?? instrument.checks[0];
  const calibration = check && calibrationOf(check, instrument.resolutionKPa);
  if (!calibration) return { kPa: readKPa, uncertaintyKPa: usualUncertaintyKPa };
  return {
    kPa: Math.max(0, readKPa - calibration.errorAt(readKPa)),
    uncertaintyKPa: calibration.uncertaintyKPa,
  };
}

/**
 * How the gauge of a reading stands for that reading. One taken between a good check and a bad one is as
 * doubtful as the bad check: nobody knows when the gauge went off.
 */
function calibrationStatusFor(reading: Seen<'gauge'>, instrument: Instrument): CalibrationStatus['kind'] {
  const at = Date.parse(reading.at);
  const nextCheck = instrument.checks.find((check) => Date.parse(check.at) > at);
  const inUse = { ...instrument, retired: false };
  if (!nextCheck) return calibrationStatusOf(inUse, at).kind;
  // Found good afterwards, it was good.
  return calibrationStatusOf(inUse, Date.parse(nextCheck.at)).kind === 'out-of-tolerance'
    ? 'out-of-tolerance'
    : 'good';
}

/** Standings under which a reading settles nothing. */
const untrusted: readonly CalibrationStatus['kind'][] = ['out-of-tolerance', 'never-checked'];

/**
 * The job as it is judged: each reading with its gauge's error taken out, with what it may be off and whether it is
 * trusted, by what the register says now; and the temperature of a driven tire where nobody measured it. Readings of
 * gauges that are not on the register, or that have been worked out already, stay as they are.
 */
export function asJudged(job: Job, register: readonly Instrument[]): Job {
  const instruments = [...register, ...(job.gauges ?? [])];
  const judged = (seen: Seen<'gauge'>) => withTemperature(withCalibrationStatus(seen, instruments));
  return {
    ...job,
    observations: job.observations.map((seen): Observation => (seen.kind === 'gauge' ? judged(seen) : seen)),
    ...(job.history && { history: job.history.map(judged) }),
  };
}

function withCalibrationStatus(seen: Seen<'gauge'>, instruments: readonly Instrument[]): Seen<'gauge'> {
  const instrument = instruments.find(({ id }) => id === seen.gauge);
  if (!instrument || seen.readKPa !== undefined) return seen;
  const standing = calibrationStatusFor(seen, instrument);
  return {
    ...seen,
    ...corrected(instrument, seen.kPa, Date.parse(seen.at)),
    readKPa: seen.kPa,
    ...(standing !== 'good' && { standing }),
    ...(untrusted.includes(standing) && { trusted: false }),
  };
}

function withTemperature(seen: Seen<'gauge'>): Seen<'gauge'> {
  if (!seen.driven || seen.tireC !== undefined) return seen;
  const { drive, minutes, stoodMinutes, outdoorC } = seen.driven;
  const estimate = estimateTireTemperature({
    outdoorC,
    drive,
    minutesDriven: minutes,
    minutesStood: stoodMinutes,
  });
  return { ...seen, tireC: estimate.celsius, tireCUncertaintyK: estimate.uncertaintyK };
}

/** What is wrong with the gauge of a reading, in words, where something is. */
export function gaugeWarning(reading: Seen<'gauge'>): string | undefined {
  const words = reading.standing && calibrationStatusWords[reading.standing];
  if (words) return words;
  return reading.trusted === false ? 'gauge not trusted' : undefined;
}
