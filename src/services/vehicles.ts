import type { Profile } from '../contract';
import type { Job } from '../core/job';
import type { Receiver } from '../core/car/uds/receiver';
import { canonicalVin } from '../core/names/vin';
import type { KnownVehicle, ProfileSummary } from '../contract/views';
import { success, type Result } from '../core/result';
import { profileOf } from '../core/job/header';
import { inTransaction, type Tx } from '../data/database';
import { jobsOfVehicle } from '../data/jobs';
import * as vehicles from '../data/vehicles';
import { canonicalPlate } from '../core/records/vehicle/plate';
import { refuseUnless, type Person } from './people';

/** The vehicle with this VIN or plate, with what the last visit left. */
export function lookUp(by: { vin?: string; plate?: string }): Promise<KnownVehicle | undefined> {
  return inTransaction(async (tx) => {
    const found = await vehicles.findVehicle(tx, {
      ...(by.vin && { vin: canonicalVin(by.vin) }),
      ...(by.plate && { plate: canonicalPlate(by.plate) }),
    });
    if (!found) return undefined;
    const visits = await jobsOfVehicle(tx, found.id);
    const odometer = visits.flatMap(({ header }) => header.vehicle.odometerKm ?? []).at(0);
    const open = visits.find(({ state }) => state === 'open');
    const { id, vin, plate, label, modelYear, profile } = found;
    return {
      id,
      vin,
      plate,
      label,
      modelYear,
      profile,
      visits: visits.length,
      lastOdometerKm: odometer ?? null,
      openJob: open ? { id: open.id, number: open.number } : null,
    };
  });
}

/** What the vehicle's profile knows of its receiver, so that a lead can talk to it. */
export async function receiverOf(tx: Tx, job: Pick<Job, 'vehicle'>): Promise<Receiver | undefined> {
  const profile = profileOf(job);
  return (profile && (await vehicles.findProfile(tx, profile))?.receiver) || undefined;
}

export const listProfiles = (): Promise<ProfileSummary[]> =>
  inTransaction(async (tx) =>
    (await vehicles.listProfiles(tx)).map(({ name, label, fromYear, toYear, tpms }) => ({
      name,
      label,
      fromYear,
      toYear,
      kind: tpms.kind,
    })),
  );

/** Adds profiles or brings them up to date by name; all or none. Problem: `not-allowed`. */
export function saveProfiles(profiles: readonly Profile[], who: Person): Promise<Result<number>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-people');
    if (refusal) return refusal;
    for (const profile of profiles) await vehicles.saveProfile(tx, profile);
    return success(profiles.length);
  });
}
