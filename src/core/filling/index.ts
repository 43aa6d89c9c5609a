import type { Target } from '../assessment';
import { tireCelsius } from '../gauge';
import { altitudeOf, type Job, type Seen } from '../job';
import type { Ledger } from '../ledger';
import { atmosphericKPa, kelvin, pressureToSet } from '../pressure';
import { isSpareAt } from '../spare';
import { fittedOn, placardKPa, placardToleranceKPa, wheelsOf } from '../placard';
import { measuredUncertaintyK } from '../tire-temperature';
import type { Position } from '../wheel';

/** The two ways to aim: at placard at the temperature of now, or at the coldest hour to come. */
export type FillPolicy = 'ambient' | 'morning';
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
  return wheelsOf(job).flatMap((wheel) => {
    const coldKPa = placardKPa(job, wheel);
    return coldKPa === undefined ? [] : [targetFor(job, wheel, coldKPa, ledger.gauge[wheel]?.seen)];
  });
}

/** Wheels whose pressure is not at its target, or not known to be. */
export function wheelsOffTarget(job: Job, ledger: Ledger): Position[] {
  const targets = targetsFor(job, ledger);
  return wheelsOf(job).filter((wheel) => {
    const add = targets.find((target) => target.wheel === wheel)?.addKPa;
    return add === undefined || Math.abs(add) > placardToleranceKPa;
  });
}

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

function targetFor(job: Job, wheel: Position, coldKPa: number, reading: Seen<'gauge'> | undefined): Target {
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
    ...(addKPa !== undefined && {
      addKPa,
      advice: isSpareAt(job, wheel) ? adviceOnSpare(addKPa) : adviceOn(addKPa, isHot(job, reading)),
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
function isHot(job: Job, reading: Seen<'gauge'> | undefined): boolean {
  const nowC = job.climate?.nowC;
  const tireC = reading && tireCelsius(job, reading);
  return reading?.tire === 'warm' || (tireC !== undefined && nowC !== undefined && tireC > nowC + hotK);
}

/** Nothing is let out of the small spare that stands in for a wheel. */
const adviceOnSpare = (addKPa: number): NonNullable<Target['advice']> =>
  addKPa > placardToleranceKPa ? 'add' : 'leave';

function adviceOn(addKPa: number, hot: boolean): NonNullable<Target['advice']> {
  if (Math.abs(addKPa) <= placardToleranceKPa) return 'leave';
  if (addKPa > 0) return 'add';
  return hot ? 'let-cool' : 'let-out';
}
