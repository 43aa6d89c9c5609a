import type { HeaderChanges } from '../../contract';
import { v7 as newId } from 'uuid';
import { closedJob, unknownJob, unknownProfile } from '../../contract/refusals';
import { setRight } from '../../core/measure/clock';
import type { Header } from '../../core/job';
import type { PutOff } from '../../core/visit/put-off';
import { unnamedVehicle } from '../../core/job/words';
import { success, type Result } from '../../core/result';
import { canonicalVin } from '../../core/names/vin';
import { notesOf } from '../../core/job/header';
import type { VisitView } from '../../contract/views';
import { inJobTransaction, type Tx } from '../../data/database';
import { setOwner } from '../../data/customers';
import * as jobs from '../../data/jobs';
import * as vehicles from '../../data/vehicles';
import { refuseUnless, type Person } from '../people';
import { canonicalPlate } from '../../core/records/vehicle/plate';
import { stale } from './common';
import { viewIn } from './view';

/** Header fields that are changed as they stand. */
const plainFields = [
  'placard',
  'loadCase',
  'fitted',
  'repairs',
  'putOff',
  'replacement',
  'service',
  'climate',
] as const;

/**
 * Corrects what a person entered about the visit. Problems: `unknown-job`, `handed-over`, and `stale`,
 * with what others changed since, when the job is no longer at `version`.
 */
export function editJob(
  id: string,
  edit: { key: string; version: number; changes: HeaderChanges },
  who: Person,
): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if ((await jobs.findEdit(tx, edit.key))?.jobId === id) return viewIn(tx, id);
    if (row.state !== 'open') return closedJob(row.state);
    if (row.version !== edit.version) return stale(tx, id, edit.version);
    const refusal = edit.changes.repairs && refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const before = row.header;
    const {
      odometerKm,
      complaint,
      customer,
      orderNumber,
      replacement,
      putOff,
      vehicle,
      notesTakenBack,
      ...plain
    } = edit.changes;
    const car = await vehicleAfter(tx, before.vehicle, { ...vehicle, odometerKm });
    if (!car.ok) return car;
    const after: Header = {
      ...before,
      ...plain,
      ...(plain.repairs && { repairs: plain.repairs.map((repair) => setRight(repair, Date.now())) }),
      ...(putOff && { putOff: putOff.map((entry) => signed(entry, before, who)) }),
      ...(replacement && {
        replacement: { ...replacement, at: new Date().toISOString(), by: who.name },
      }),
      vehicle: car.value,
      visit: {
        ...notesOf(before),
        ...(complaint !== undefined && { complaint }),
        ...(customer !== undefined && { customer }),
        ...(orderNumber !== undefined && { orderNumber }),
        ...(notesTakenBack && {
          bench: notesOf(before).bench?.filter(({ at }) => !notesTakenBack.includes(at)),
        }),
      },
    };
    const changes = [
      ...plainFields.map((field) => ({
        field,
        from: before[field],
        to: after[field],
      })),
      ...vehicleFields.map((field) => ({
        field,
        from: before.vehicle[field],
        to: after.vehicle[field],
      })),
      { field: 'bench', from: notesOf(before).bench, to: notesOf(after).bench },
      ...noteFields.map((field) => ({ field, from: notesOf(before)[field], to: notesOf(after)[field] })),
    ].filter(({ from, to }) => JSON.stringify(from) !== JSON.stringify(to));
    if (changes.length > 0) {
      const vehicleId = vehicle ? await rememberVehicle(tx, row, after) : row.vehicleId;
      await jobs.saveEdit(tx, row, { key: edit.key, by: who.name, changes }, { header: after, vehicleId });
      await rememberTires(tx, vehicleId, after);
      await setOwner(tx, vehicleId, customer);
    }
    return viewIn(tx, id);
  });
}

/** What a car is, as a person may correct it. */
const vehicleFields = ['label', 'vin', 'plate', 'modelYear', 'odometerKm', 'profile', 'tpms'] as const;

/** What was said of the visit, likewise. */
const noteFields = ['complaint', 'customer', 'orderNumber'] as const;

type VehicleChanges = NonNullable<HeaderChanges['vehicle']> & { odometerKm: number | undefined };

/** The car of the job as it is after a correction. Another kind brings its own monitoring. Problem: `unknown-profile`. */
async function vehicleAfter(
  tx: Tx,
  before: Header['vehicle'],
  { label, vin, plate, modelYear, odometerKm, profile, tpms }: Partial<VehicleChanges>,
): Promise<Result<Header['vehicle']>> {
  const kind = profile ? await vehicles.findProfile(tx, profile) : undefined;
  if (profile && !kind) return unknownProfile(profile);
  const canonical = vin && canonicalVin(vin);
  return success({
    ...before,
    ...(label !== undefined && { label }),
    ...(vin !== undefined && { vin: canonical || undefined }),
    ...(plate !== undefined && { plate: plate || undefined }),
    ...(modelYear !== undefined && { modelYear: modelYear ?? undefined }),
    ...(odometerKm !== undefined && { odometerKm }),
    ...(profile !== undefined && { profile: profile || undefined }),
    ...(kind && { tpms: { ...kind.tpms, regulation: kind.tpms.regulation ?? before.tpms.regulation } }),
    ...(tpms && { tpms: { ...before.tpms, ...tpms } }),
  });
}

/**
 * The vehicle on file that this visit belongs to, after its VIN or plate was corrected: the one that is known by them;
 * else this one put right, or a new one where this one has visits of its own.
 */
async function rememberVehicle(tx: Tx, row: jobs.JobRow, { vehicle, placard = [] }: Header): Promise<string> {
  const vin = vehicle.vin ?? null;
  const plate = vehicle.plate ? canonicalPlate(vehicle.plate) || null : null;
  const known = await vehicles.findVehicle(tx, { ...(vin && { vin }), ...(plate && { plate }) });
  const own = await vehicles.findVehicleById(tx, row.vehicleId);
  const isOther = own && vin !== null && own.vin !== null && own.vin !== vin;
  const hasVisits = (await jobs.jobsOfVehicle(tx, row.vehicleId)).length > 1;
  const id = known?.id ?? (isOther && hasVisits ? newId() : row.vehicleId);
  const { label = unnamedVehicle, modelYear = null, profile = null, tpms } = vehicle;
  await vehicles.saveVehicle(tx, id, {
    vin: vin ?? known?.vin ?? null,
    plate: plate ?? known?.plate ?? null,
    label,
    modelYear,
    profile,
    tpms,
    placard,
  });
  return id;
}

/** What was put off before keeps the name of who did it. */
const signed = (entry: PutOff, { putOff = [] }: Header, who: Person): PutOff => ({
  ...entry,
  by: putOff.find(({ at, reason }) => at === entry.at && reason === entry.reason)?.by ?? who.name,
});

/** Placard and tires belong to the vehicle: what was read today is there next time. */
async function rememberTires(tx: Tx, vehicleId: string, { placard, fitted }: Header): Promise<void> {
  await vehicles.setTires(tx, vehicleId, { ...(placard && { placard }), ...(fitted && { fitted }) });
}
