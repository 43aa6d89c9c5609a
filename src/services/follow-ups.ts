import { unknownFollowUp, unknownJob, unknownVehicle } from '../contract/refusals';
import { suggestedFor, type FollowUpAbout, type Suggested } from '../core/records/follow-up';
import { success, type Result } from '../core/result';
import { judgedJob } from '../contract/views';
import type { Position } from '../core/names/wheel';
import { inTransaction } from '../data/database';
import { findJob } from '../data/jobs';
import * as followUps from '../data/follow-ups';
import { findVehicleById } from '../data/vehicles';
import { briefAssessmentOf, viewJob } from './jobs';
import type { Person } from './people';
import { notationHere } from './notation';
import { shopSettings } from './shop';
import { dayThere } from '../core/measure/calendar';

/** What is to be looked at again. */

/** Those that are open, the longest due first. */
export const dueFollowUps = () => inTransaction(followUps.openFollowUps);

export const followUpsOf = (vehicleId: string) => inTransaction((tx) => followUps.followUpsOf(tx, vehicleId));

export interface NewFollowUp {
  key: string;
  vehicle: string;
  job?: string | undefined;
  about: FollowUpAbout;
  wheel?: Position | undefined;
  note: string;
  dueOn: string;
}

/** Sent twice it is there once. Problems: `unknown-vehicle`, `unknown-job` for one of another vehicle. */
export function addFollowUp(asked: NewFollowUp, who: Person): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    if (await followUps.findFollowUp(tx, asked.key)) return success(null);
    if (!(await findVehicleById(tx, asked.vehicle))) return unknownVehicle();
    const { key, vehicle, job, about, wheel, note, dueOn } = asked;
    if (job && (await findJob(tx, job))?.vehicleId !== vehicle) return unknownJob();
    await followUps.addFollowUp(tx, {
      key,
      vehicleId: vehicle,
      jobId: job ?? null,
      about,
      wheel: wheel ?? null,
      note,
      dueOn,
      by: who.name,
    });
    return success(null);
  });
}

/** Done, or dropped with a word why; the first that says so stands. Problem: `unknown-follow-up`. */
export function endFollowUp(
  key: string,
  asked: { outcome: 'done' | 'dropped'; word: string },
  who: Person,
): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    const row = await followUps.findFollowUp(tx, key);
    if (!row) return unknownFollowUp();
    if (!row.endedAt)
      await row.update({ ...asked, endedAt: new Date(), endedBy: who.name }, { transaction: tx });
    return success(null);
  });
}

/** What a visit should be followed by. Problem: `unknown-job`. */
export async function suggestFollowUps(jobId: string, now = new Date()): Promise<Result<Suggested[]>> {
  const view = await viewJob(jobId);
  if (!view.ok) return view;
  const today = dayThere(now, notationHere(await shopSettings()));
  return success(suggestedFor(judgedJob(view.value), await briefAssessmentOf(view.value), today));
}
