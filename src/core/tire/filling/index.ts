import { readingAt, readingThatCounts, tireCelsius } from '../gauge';
import { altitudeOf, type Job, type Seen } from '../../job';
import type { Ledger } from '../../job/ledger';
import { atmosphericKPa, kelvin, pressureToSet } from '../../measure/pressure';
import { isSpareAt } from '../../job/spare';
import { fittedOn, placardKPa, placardToleranceKPa, shownInStepsOfKPa, wheelsOf } from '../../job/placard';
import { measuredUncertaintyK } from '../temperature';
import type { Position } from '../../names/wheel';
import type { FillPolicy } from '../../names/kinds';

/** What a tire is to be set to, all in kPa. */
export interface Target {
  wheel: Position;
  coldKPa: number;
  /** Gauge pressure to set at the tire's temperature of now; missing when that is not known. */
  setNowKPa?: number;
  /** What to add (or, negative, to let out) against the last reading. */
  addKPa?: number;
  /** How far off `setNowKPa` may be for what is not known of the tire's temperature: expanded uncertainty (95 %). */
  uncertaintyKPa?: number;
  /** The sidewall's maximum, where it is what limits `setNowKPa`. */
  cappedAtKPa?: number;
  /** `let-cool`: too much air, but the tire is hot; it is never bled then. */
  advice?: 'add' | 'leave' | 'let-out' | 'let-cool';
}

export const fillPolicyQuestion = 'Tires shall stand at placard';
export const fillPolicyWords: Record<FillPolicy, string> = {
  ambient: 'at the temperature of now',
  morning: 'at the coldest hour to come',
};

/** The temperature at which the tire shall stand at placard: of now, or of the coldest hour to come. */
export function policyCelsius(job: Job): number | undefined {
  const { climate } = job;
  return climate?.fillPolicy === 'morning' ? (climate.overnightLowC ?? climate.nowC) : climate?.nowC;
}

/** A tire this much warmer than it will stand, K, is hot from driving: it is not bled. */
const hotK = 5;

/**
 * For each wheel with a placard figure, what to set now, never above the sidewall's maximum. The tire's
 * temperature is that of its last reading; without one, a tire is taken to stand at the outdoor temperature.
 */
export function targetsFor(job: Job, ledger: Ledger): Target[] {
  return wheelsOf(job).flatMap((wheel) => targetFor(job, wheel, readingAtWheel(ledger, wheel)) ?? []);
}

/** What a wheel was read at, by the gauge that counts. */
export const readingAtWheel = ({ gaugeHistory }: Ledger, wheel: Position): Seen<'gauge'> | undefined =>
  readingThatCounts(gaugeHistory[wheel] ?? [])?.seen;

/** Wheels whose pressure is not at its target, or not known to be. */
export const wheelsOffTarget = (job: Job, ledger: Ledger): Position[] =>
  wheelsOf(job).filter((wheel) => targetFor(job, wheel, readingAtWheel(ledger, wheel))?.advice !== 'leave');

/**
 * What to set at a tire temperature so that the wheel stands at `coldKPa` under the policy, never above the
 * sidewall's maximum; undefined where the temperature to aim at is not known.
 */
export function aimFor(
  job: Job,
  wheel: Position,
  coldKPa: number,
  tireC: number,
): { kPa: number; cappedAtKPa?: number } | undefined {
  const policyC = policyCelsius(job);
  return policyC === undefined
    ? undefined
    : underSidewall(job, wheel, pressureToSet(coldKPa, policyC, tireC, altitudeOf(job)));
}

function underSidewall(job: Job, wheel: Position, kPa: number): { kPa: number; cappedAtKPa?: number } {
  const most = fittedOn(job, wheel)?.maxKPa;
  return most !== undefined && kPa > most ? { kPa: most, cappedAtKPa: most } : { kPa };
}

/** The target of one wheel, by this reading of it; undefined without a placard figure. */
export function targetFor(job: Job, wheel: Position, reading: Seen<'gauge'> | undefined): Target | undefined {
  const coldKPa = placardKPa(job, wheel);
  if (coldKPa === undefined) return undefined;
  const tireC = reading ? tireCelsius(job, reading) : job.climate?.nowC;
  // A warm tire of which nobody knows how warm has no target: it could only be guessed.
  if (reading?.tire === 'warm' && tireC === undefined) return { wheel, coldKPa };
  const aim = tireC === undefined ? undefined : aimFor(job, wheel, coldKPa, tireC);
  // A cold tire, and nobody knows how cold: the placard figure is what "cold" means.
  const { kPa: setNowKPa, cappedAtKPa } = aim ?? underSidewall(job, wheel, coldKPa);
  const addKPa = reading && setNowKPa - reading.kPa;
  const wasMeasured = reading?.tireC !== undefined || (tireC !== undefined && tireC !== job.climate?.nowC);
  const doubtK = reading?.tireCUncertaintyK ?? (reading && wasMeasured ? measuredUncertaintyK : undefined);
  return {
    wheel,
    coldKPa,
    setNowKPa,
    ...(reading &&
      addKPa !== undefined && {
        addKPa,
        advice: adviceOn(job, wheel, reading, shortBy(job, coldKPa, reading, { addKPa, cappedAtKPa })),
      }),
    ...(aim &&
      tireC !== undefined &&
      doubtK !== undefined && {
        // One kelvin moves the target by its absolute pressure over its absolute temperature.
        uncertaintyKPa: ((setNowKPa + atmosphericKPa(altitudeOf(job))) / kelvin(tireC)) * doubtK,
      }),
    ...(cappedAtKPa !== undefined && { cappedAtKPa }),
  };
}

/** Warm from driving, not from the weather: the tire says so, or is that much warmer than the air. */
function isHot(job: Job, reading: Seen<'gauge'>): boolean {
  const nowC = job.climate?.nowC;
  const tireC = tireCelsius(job, reading);
  return reading.tire === 'warm' || (tireC !== undefined && nowC !== undefined && tireC > nowC + hotK);
}

/** How far short of its target it is at the temperature that target is for: what is over is less than nothing. */
function shortBy(
  job: Job,
  coldKPa: number,
  reading: Seen<'gauge'>,
  { addKPa, cappedAtKPa }: { addKPa: number; cappedAtKPa: number | undefined },
): number {
  const policyC = policyCelsius(job);
  const stands = policyC === undefined ? undefined : readingAt(job, reading, policyC);
  return stands === undefined || cappedAtKPa !== undefined ? addKPa : coldKPa - stands;
}

function adviceOn(
  job: Job,
  wheel: Position,
  reading: Seen<'gauge'>,
  shortKPa: number,
): NonNullable<Target['advice']> {
  if (Math.abs(shortKPa) < placardToleranceKPa + shownInStepsOfKPa / 2) return 'leave';
  if (shortKPa > 0) return 'add';
  // Nothing is let out of the small spare that stands in for a wheel.
  if (isSpareAt(job, wheel)) return 'leave';
  return isHot(job, reading) ? 'let-cool' : 'let-out';
}
