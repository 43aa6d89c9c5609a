import { v7 as newId, validate as isUuid } from 'uuid';
import { closedJob, keyInUse } from '../../contract/refusals';
import { markedByFile, type ByFile } from '../../core/job/by-file';
import { setRight } from '../../core/measure/clock';
import type { Header, Job } from '../../core/job';
import { fromJobFile } from '../../core/job/record';
import { unnamedVehicle } from '../../core/job/words';
import type { RunRecord } from '../../core/relearn/run';
import { success, type Result } from '../../core/result';
import { canonicalVin } from '../../core/names/vin';
import { proofOf } from '../../core/visit/proof';
import { notesOf, plateOf, profileOf } from '../../core/job/header';
import { addConfirmation, findConfirmation } from '../../data/confirmations';
import { inTransaction, type Tx } from '../../data/database';
import { setOwner } from '../../data/customers';
import * as jobs from '../../data/jobs';
import * as observations from '../../data/observations';
import * as runs from '../../data/runs';
import { addService, findService } from '../../data/sensor-services';
import * as vehicles from '../../data/vehicles';
import { refuseUnless, type Person } from '../people';
import { canonicalPlate } from '../../core/records/vehicle/plate';
import { deriveKey } from './common';
import { firstOfEachKey, refuseAmount } from './record';

/**
 * Takes in a job file, ours or another program's. The same file again finds the job it made, and adds only what that does
 * not have yet; nothing to one that is closed. What comes this way is marked for good, and proves nothing here. Problems:
 * `key-in-use`, `handed-over`, `cancelled`, `not-allowed`, `too-large`, `job-full`.
 */
export const importJob = (file: Job, who: Person): Promise<Result<{ id: string; already: boolean }>> =>
  takeIn(file, who, { at: new Date().toISOString(), by: who.name });

/** As `importJob`; without a mark for a scenario that stands for the shop's own work. */
export function takeIn(
  file: Job,
  who: Person,
  mark?: ByFile,
): Promise<Result<{ id: string; already: boolean }>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const theirKey = notesOf(file).key;
    const key = theirKey && isUuid(theirKey) ? theirKey : deriveKey('file', theirKey ?? JSON.stringify(file));
    // A key of another program is no UUID: ours is derived from it, so that the same file is the same job again.
    const keyFor = (theirs: string) => (isUuid(theirs) ? theirs : deriveKey(key, `key ${theirs}`));
    const facts = mark ? markedByFile(file, mark) : file;
    const { header, entries, writes, runs: imported, services, confirmations } = fromJobFile(facts, keyFor);
    const there = await jobs.findJobByKey(tx, key);
    const row = there ?? (await createFromFile(tx, key, withProof(header, facts), who));
    const closed = there && there.state !== 'open' ? closedJob(there.state) : undefined;
    const held = await observations.heldOf(
      tx,
      row.id,
      entries.map(({ key: entryKey }) => entryKey),
    );
    if ([...held.holders.values()].some((jobId) => jobId !== row.id)) return keyInUse();
    const fresh = firstOfEachKey(entries)
      .filter((entry) => !held.holders.has(entry.key))
      .map((entry) => ({ ...entry, observation: setRight(entry.observation, Date.now()) }));
    if (fresh.length > 0 && closed) return closed;
    const tooMuch = refuseAmount(held, fresh);
    if (tooMuch) return tooMuch;
    await observations.addAll(tx, row.id, who.name, fresh);
    for (const { key: entryKey, takenBack } of fresh) {
      if (!takenBack) continue;
      const { at, by, reason } = takenBack;
      await observations.addTakenBack(tx, row.id, entryKey, { at: new Date(at), by, reason });
    }
    for (const write of writes) {
      const known = await jobs.findWrite(tx, write.key);
      if (known && known.jobId !== row.id) return keyInUse();
      if (!known && closed) return closed;
      if (!known) await jobs.addWrite(tx, row.id, write.by ?? who.name, write);
    }
    for (const run of imported) {
      const known = await runs.findRun(tx, run.key);
      if (known && known.jobId !== row.id) return keyInUse();
      if (!known && closed) return closed;
      if (!known) await addRunFrom(tx, row, run, who);
    }
    for (const service of services) {
      const known = await findService(tx, service.key);
      if (known && known.jobId !== row.id) return keyInUse();
      if (!known && closed) return closed;
      if (!known) await addService(tx, row.id, service);
    }
    for (const confirmation of confirmations) {
      const known = await findConfirmation(tx, confirmation.key);
      if (known && known.jobId !== row.id) return keyInUse();
      if (!known && closed) return closed;
      if (!known) await addConfirmation(tx, row.id, confirmation);
    }
    return success({ id: row.id, already: there !== null });
  });
}

/** A run of a file is over: nobody goes on with it here. */
async function addRunFrom(tx: Tx, job: jobs.JobRow, run: RunRecord, who: Person): Promise<void> {
  const startedAt = new Date(run.startedAt);
  const row = await runs.addRun(tx, {
    key: run.key,
    jobId: job.id,
    vehicleId: job.vehicleId,
    procedure: run.procedure,
    startedAt,
    by: run.by ?? who.name,
    byFile: run.byFile,
    endedAt: new Date(startedAt.getTime() + (run.events.at(-1)?.t ?? 0) * 1000),
  });
  for (const [place, event] of run.events.entries())
    await runs.addEvent(tx, row, deriveKey(run.key, `event ${place}`), event);
}

/** A visit that a file says was handed over: what of it is proved here, and that not all is where nobody said why. */
function withProof(header: Header, file: Job): Header {
  const { visit } = header;
  if (visit?.handedOverAt === undefined) return header;
  const proof = proofOf(file);
  return {
    ...header,
    visit: { ...visit, proof, ...(!proof.proved && { unproved: visit.unproved ?? notSaid }) },
  };
}
const notSaid = 'Not said.';

async function createFromFile(tx: Tx, key: string, job: Header, who: Person) {
  const { label = unnamedVehicle, modelYear } = job.vehicle;
  const vin = job.vehicle.vin ? canonicalVin(job.vehicle.vin) : null;
  const plate = canonicalPlate(plateOf(job)) || null;
  const known = await vehicles.findVehicle(tx, { ...(vin && { vin }), ...(plate && { plate }) });
  const profile = profileOf(job);
  const vehicle =
    known ??
    (await vehicles.saveVehicle(tx, newId(), {
      vin,
      plate,
      label,
      modelYear: modelYear ?? null,
      profile: profile && (await vehicles.findProfile(tx, profile)) ? profile : null,
      tpms: job.vehicle.tpms,
      placard: job.placard ?? [],
    }));
  const notes = notesOf(job);
  if (!known?.customerId) await setOwner(tx, vehicle.id, notes.customer);
  return jobs.createJob(tx, {
    id: newId(),
    key,
    vehicleId: vehicle.id,
    header: job,
    openedBy: notes.openedBy ?? who.name,
    openedAt: new Date(notes.openedAt ?? Date.now()),
    ...(notes.handedOverAt && {
      state: 'handed-over' as const,
      handedOverAt: new Date(notes.handedOverAt),
      handedOverBy: notes.handedOverBy ?? who.name,
    }),
    ...(notes.cancelled && { state: 'cancelled' as const, cancelledAt: new Date(notes.cancelled.at) }),
  });
}
