import { partName, partsOf, samePart, type RepairOutcome } from '../core/job/repair-outcome';
import { faultsOf } from '../core/catalogue/finding';
import { addExperience, type Experience } from '../core/judgement/diagnosis';
import { experienceOf } from '../core/judgement/diagnosis/learning/counting';
import { model } from '../core/judgement/diagnosis/model';
import type { Header } from '../core/job';
import { unnamedVehicle } from '../core/job/words';
import { recordedElsewhere, unknownPart } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { plateOf } from '../core/job/header';
import type { ShopFigures } from '../contract/views';
import { inTransaction, type Tx } from '../data/database';
import * as confirmations from '../data/confirmations';
import { refuseUnless, type Person } from './people';
import { sensorLives } from './sensor-lives';

/** What a shop has seen by a moment: everything confirmed up to then. */
interface Learned {
  atMs: number;
  experience: Experience;
}

/** By the newest confirmation there is: it stays right as long as that is the newest. */
let learnedBy: { newest: string | undefined; steps: Learned[] } | undefined;

/** How the shop's experience grew, confirmation by confirmation, the oldest first. */
async function learned(tx: Tx): Promise<Learned[]> {
  const newest = await confirmations.newestConfirmation(tx);
  if (learnedBy && learnedBy.newest === newest) return learnedBy.steps;
  const visits = newest === undefined ? [] : await confirmations.loadConfirmed(tx, model.historyVisits);
  let experience: Experience = {};
  const steps = visits.reverse().map(({ header, confirmation: { at, parts } }) => {
    experience = addExperience(experience, experienceOf([{ job: { ...header, observations: [] }, parts }]));
    return { atMs: Date.parse(at), experience };
  });
  learnedBy = { newest, steps };
  return steps;
}

/**
 * What the shop had seen when a job was opened: a verdict does not change by what other cars turned out to
 * have while this one was in the bay, nor does its sheet afterwards.
 */
export async function experienceBefore(tx: Tx): Promise<(openedAt: Date) => Experience | undefined> {
  const steps = await learned(tx);
  return (openedAt) => steps.findLast(({ atMs }) => atMs < openedAt.getTime())?.experience;
}

/** Stores what the parts of a car turned out to be. Problems: `not-allowed`, `unknown-part`, `key-in-use`. */
export async function confirmIn(
  tx: Tx,
  job: { id: string; header: Header },
  asked: { key: string; parts: readonly RepairOutcome[] },
  who: Person,
): Promise<Result<null>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const there = await confirmations.findConfirmation(tx, asked.key);
  if (there) {
    return there.jobId === job.id ? success(null) : recordedElsewhere();
  }
  const known = partsOf({ ...job.header, observations: [] });
  for (const [index, { was, ...part }] of asked.parts.entries()) {
    const isThere = known.some((other) => samePart(other, part));
    const isTwice = asked.parts.findIndex((other) => samePart(other, part)) !== index;
    if (!isThere || isTwice || (was !== 'in-order' && !faultsOf(part.part).includes(was))) {
      return unknownPart(`${partName(part)}: ${was}`);
    }
  }
  await confirmations.addConfirmation(tx, job.id, {
    key: asked.key,
    at: new Date().toISOString(),
    by: who.name,
    parts: [...asked.parts],
  });
  return success(null);
}

/** So many of the visits behind the counts are listed. */
const listed = 50;

/** What the shop has seen by now, and the visits it comes from, the newest first. */
export const shopFigures = async (): Promise<ShopFigures> => {
  const lives = await sensorLives();
  return inTransaction(async (tx) => ({
    sensorLives: lives,
    experience: (await learned(tx)).at(-1)?.experience ?? {},
    visits: (await confirmations.loadConfirmed(tx, listed)).map(
      ({ jobId, number, header, confirmation }) => ({
        jobId,
        number,
        label: header.vehicle.label ?? unnamedVehicle,
        plate: plateOf(header),
        at: confirmation.at,
        by: confirmation.by,
        parts: confirmation.parts,
      }),
    ),
  }));
};
