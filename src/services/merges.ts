import { alreadyMerged, bothOpen, mergeItself, mergeNotLast, unknownVehicle } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { freeLabel } from '../core/records/wheel-set';
import { inTransaction } from '../data/database';
import * as jobs from '../data/jobs';
import * as merges from '../data/merges';
import { loadWheelSets, saveWheelSet } from '../data/wheel-sets';
import { refuseUnless, type Person } from './people';

/** Two records that turned out to be of one car: put together, and apart again. */

/** What was put together with a vehicle and can be undone, the last first. */
export const mergesOf = (vehicleId: string) => inTransaction((tx) => merges.mergesOf(tx, vehicleId));

/**
 * Moves the visits and the sets of a record to the one that stays. Problems: `not-allowed`, `unknown-vehicle`,
 * `already-merged`, `already-open` where both have a job open, `invalid-input` for one and the same.
 */
export function mergeVehicles(
  kept: string,
  asked: { key: string; gone: string },
  who: Person,
): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    if (await merges.findMerge(tx, asked.key)) return success(null);
    if (kept === asked.gone) return mergeItself();
    const [stays, goes] = await merges.lockVehicles(tx, kept, asked.gone);
    if (!stays || !goes) return unknownVehicle();
    if (stays.mergedInto || goes.mergedInto) return alreadyMerged();
    if ((await jobs.openJobOf(tx, kept)) && (await jobs.openJobOf(tx, asked.gone))) return bothOpen();
    const visits = await merges.jobIdsOf(tx, asked.gone);
    const sets = await loadWheelSets(tx, asked.gone);
    const here = await loadWheelSets(tx, kept);
    const isOn = here.some(({ place }) => place === 'car');
    for (const set of sets) {
      // One set is on a car at a time: the records of the one that stays hold.
      const place = set.place === 'car' && isOn ? 'customer' : set.place;
      await saveWheelSet(tx, { ...set, vehicleId: kept, place, label: freeLabel(set.label, here) });
      here.push({ ...set, label: freeLabel(set.label, here) });
    }
    await merges.moveJobs(tx, visits, kept);
    const { plate, vin } = goes;
    await goes.update({ plate: null, vin: null, mergedInto: kept }, { transaction: tx });
    await stays.update(
      { plate: stays.plate ?? plate, vin: stays.vin ?? vin, customerId: stays.customerId ?? goes.customerId },
      { transaction: tx },
    );
    await merges.addMerge(tx, {
      key: asked.key,
      kept,
      gone: asked.gone,
      jobs: visits,
      sets: sets.map(({ id }) => id),
      plate,
      vin,
      by: who.name,
    });
    return success(null);
  });
}

/**
 * Takes two records apart again: what came with the one goes back with it; what was done since stays where it is. Problems:
 * `not-allowed`, `unknown-vehicle`, `already-merged` where a later one has to be undone first.
 */
export function undoMerge(key: string, who: Person): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const merge = await merges.findMerge(tx, key);
    if (!merge) return unknownVehicle();
    if (merge.undoneAt) return success(null);
    const [last] = await merges.mergesOf(tx, merge.kept);
    if (last && last.key !== key) return mergeNotLast();
    const [stays, goes] = await merges.lockVehicles(tx, merge.kept, merge.gone);
    if (!stays || !goes) return unknownVehicle();
    await merges.moveJobs(tx, merge.jobs, merge.gone);
    for (const set of await loadWheelSets(tx, merge.kept))
      if (merge.sets.includes(set.id)) await saveWheelSet(tx, { ...set, vehicleId: merge.gone });
    const takesBack = (value: string | null, own: string | null) =>
      value !== null && value === own ? null : own;
    await stays.update(
      { plate: takesBack(merge.plate, stays.plate), vin: takesBack(merge.vin, stays.vin) },
      { transaction: tx },
    );
    await goes.update({ plate: merge.plate, vin: merge.vin, mergedInto: null }, { transaction: tx });
    await merge.update({ undoneAt: new Date(), undoneBy: who.name }, { transaction: tx });
    return success(null);
  });
}
