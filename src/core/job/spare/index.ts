import { allOf, atWheel, trustedAt, type Job } from '..';
import { once } from '../once';
import { normalDensity } from '../../measure/normal';
import { axleOf, roadWheels, type Position } from '../../names/wheel';

/**
 * The small spare, where it stands in for a road wheel: its own pressure counts, nothing is let out of it, and it has no
 * sensor to replace.
 */

// Plain numbers, with their reasons in comments: a browser fetches this before it shows a job.
/** What it is told by: what a wheel shows where it is the spare, against any other road wheel (all judgement, but as said). */
const numbers = {
  // One wheel in two hundred and fifty: mostly after a flat tire.
  prior: 0.004,
  // What a small spare is kept at, where no placard says (common practice).
  usualKPa: 420,
  // As it was put on, by what it seeped in the trunk; the others were forgotten there for years.
  kept: { share: 0.85, sdKPa: 30 },
  forgotten: { ofPlacard: 0.8, sdKPa: 45 },
  // A road tire, where no placard says (common practice), and as tires stand.
  road: { usualKPa: 235, sdKPa: 22 },
  // Filled hot, or by feel: half a step of a public air line, hardly ever by as much as a spare has.
  overfilled: { share: 0.07, byKPa: 24, sdKPa: 38 },
  // It is narrow, and mostly of a loud color; else it is another tire.
  oddSize: { spare: 0.8, other: 0.01 },
  // It has no sensor; else a sensor missed two triggers.
  silent: { spare: 1, other: 0.06 },
  // Its own pressure in the answer: there is a sensor.
  answered: { spare: 0.00001, other: 0.9 },
};

/** What of a job says whether the spare is on. */
export type SpareSeen = Partial<Pick<Job, 'observations' | 'placard'>>;

/** The road wheel for which the small spare stands in, and how likely that is; undefined where nothing speaks of it. */
export const spareOn = (job: SpareSeen): { wheel: Position; chance: number } | undefined =>
  job.observations ? spareIn(job as Job) : undefined;

/** Whether this wheel is taken for the small spare. */
export const isSpareAt = (job: SpareSeen, wheel: Position): boolean => {
  const spare = spareOn(job);
  return spare?.wheel === wheel && spare.chance >= taken;
};

/** From this chance on it is taken to be so (contract of the assessment). */
const taken = 0.5;

const spareIn = once((job: Job) => {
  const chances = roadWheels.flatMap((wheel) => {
    const chance = chanceAt(job, wheel);
    return chance > 0 ? [{ wheel, chance }] : [];
  });
  return chances.sort((a, b) => b.chance - a.chance)[0];
});

function chanceAt(job: Job, wheel: Position): number {
  const isOdd = atWheel(job, 'visual', wheel).some(({ seen }) => seen.sign === 'odd-size');
  const kPa = trustedAt(job, wheel).at(-1)?.seen.kPa;
  const placardedKPa = lineKPa(job, 'spare');
  const ownKPa = placardedKPa ?? numbers.usualKPa;
  const usualKPa = roadKPa(job, wheel);
  // A spare of the size and pressure of the others is a wheel like any other.
  const isSmall = ownKPa >= smallFrom * usualKPa;
  const isHigh = kPa !== undefined && kPa > usualKPa + highByKPa;
  if (!isSmall || !(isOdd || isHigh)) return 0;
  let odds = numbers.prior / (1 - numbers.prior);
  if (isOdd) odds *= numbers.oddSize.spare / numbers.oddSize.other;
  if (kPa !== undefined) odds *= asSpare(kPa, ownKPa) / asRoadTire(kPa, usualKPa);
  const heard = answersAt(job, wheel, kPa);
  if (heard !== 'not-woken') odds *= numbers[heard].spare / numbers[heard].other;
  const chance = odds / (1 + odds);
  // Its pressure alone tells it of a car that is known to carry one; of another it asks for a look.
  return placardedKPa === undefined && !isOdd && heard !== 'silent' ? Math.min(chance, asksForALook) : chance;
}

/** So far over a road tire, kPa, it may be a small spare that was forgotten in its trunk (judgement). */
const highByKPa = 45;

/** Too likely to be let out of, too unlikely to be taken to be so (judgement). */
const asksForALook = 0.4;

/** So much more than a road tire the small kind is kept at (common practice). */
const smallFrom = 1.5;

const lineKPa = ({ placard }: Pick<Job, 'placard'>, axle: string): number | undefined =>
  placard?.find(({ position }) => position === axle)?.coldKPa;

/** What a road tire is kept at on this wheel, kPa, whatever stands there now. */
export const roadKPa = (job: Pick<Job, 'placard'>, wheel: Position): number =>
  lineKPa(job, axleOf(wheel)) ?? numbers.road.usualKPa;

function asSpare(kPa: number, ownKPa: number): number {
  const { kept, forgotten } = numbers;
  return (
    kept.share * normalDensity(kPa - ownKPa, kept.sdKPa ** 2) +
    (1 - kept.share) * normalDensity(kPa - forgotten.ofPlacard * ownKPa, forgotten.sdKPa ** 2)
  );
}

function asRoadTire(kPa: number, roadKPa: number): number {
  const { road, overfilled } = numbers;
  return (
    (1 - overfilled.share) * normalDensity(kPa - roadKPa, road.sdKPa ** 2) +
    overfilled.share * normalDensity(kPa - roadKPa - overfilled.byKPa, overfilled.sdKPa ** 2)
  );
}

/** Whether a sensor in it answered: one that tells its pressure is its own; silent to two tries, there is none that works. */
function answersAt(job: Job, wheel: Position, kPa: number | undefined): 'silent' | 'answered' | 'not-woken' {
  const tries = atWheel(job, 'activation', wheel);
  const answered = tries.flatMap(({ seen }) => seen.replies);
  const isOwn = answered.some(
    (reply) => reply.kPa != null && kPa !== undefined && Math.abs(reply.kPa - kPa) < ownWithinKPa,
  );
  if (isOwn) return 'answered';
  // Where no other wheel was woken it may be the tool: a third try says as much.
  const isWoken =
    tries.length > 1 &&
    answered.length === 0 &&
    (tries.length > 2 || allOf(job, 'activation').length > tries.length);
  return isWoken ? 'silent' : 'not-woken';
}

/** A sensor and the gauge at one wheel differ by less, kPa (judgement). */
const ownWithinKPa = 30;
