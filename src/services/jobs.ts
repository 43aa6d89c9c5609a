import { v5 as derivedId, v7 as newId } from 'uuid';
import { tireCelsius } from '../core/gauge';
import {
  allOf,
  type Climate,
  type Fitted,
  type Header,
  type Job,
  type LoadCase,
  type Observation,
  type Placard,
  type Repairs,
  type Service,
  type Tpms,
} from '../core/job';
import type { Confirmed } from '../core/confirmed';
import { fromJobFile, toJobFile, type Entry } from '../core/job/record';
import { ledgerOf } from '../core/ledger';
import { failure, success, type Issue, type Outcome } from '../core/outcome';
import { scannedIds } from '../core/registration';
import type { Receiver } from '../core/uds/receiver';
import { canonicalVin } from '../core/vin';
import { notesOf, plateOf, profileOf, type VisitView, type YardLine } from '../core/visit/view';
import { wheelsOf } from '../core/placard';
import { inTransaction, type Tx } from '../data/database';
import { addConfirmation, findConfirmation } from '../data/confirmations';
import * as jobs from '../data/jobs';
import { loadGauges } from '../data/gauges';
import { announce } from '../data/notifications';
import { loadShop } from '../data/shop';
import * as vehicles from '../data/vehicles';
import { confirmIn, experienceBefore } from './confirmations';
import { refuseUnless, type Person } from './people';
import { viewOf, yardLineOf } from './visit-view';

/** Handed-over cars stay in sight of the Yard this long. */
const yardHours = 7 * 24;
/** Names keys that are derived from other keys or from a file's content. */
const keySpace = '6c1f0a5e-3b52-5c1d-9d53-0c8a9d0b7e21';
const yearMs = 365.25 * 86_400_000;

export const deriveKey = (key: string, part: string) => derivedId(`${key} ${part}`, keySpace);

export const unknownJob = () =>
  failure('unknown-job', 'There is no such job. Go back to the Yard and pick it there.');
const closedJob = () =>
  failure('handed-over', 'This job is handed over and closed. Book the car in again to go on.');

export interface Booking {
  /** Made by the client once per form: a repeat is harmless. */
  key: string;
  vehicle: {
    label: string;
    vin?: string;
    plate?: string;
    modelYear?: number;
    odometerKm?: number;
    profile?: string;
    tpms?: Tpms;
  };
  placard?: Placard;
  complaint?: string;
  service?: Service;
  climate?: Climate;
  observations?: Entry[];
}

/** A plate as it is compared: upper case, letters and digits. */
export const canonicalPlate = (plate: string) => plate.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');

/** Opens a job for a vehicle, known or new. Problem: `unknown-profile`. */
export function bookIn(booking: Booking, who: Person): Promise<Outcome<{ id: string; number: number }>> {
  return inTransaction(async (tx) => {
    const there = await jobs.findJobByKey(tx, booking.key);
    if (there) return success({ id: there.id, number: there.number });

    const asked = booking.vehicle;
    const vin = asked.vin ? canonicalVin(asked.vin) : undefined;
    const plate = asked.plate ? canonicalPlate(asked.plate) : undefined;
    const known = await vehicles.findVehicle(tx, { ...(vin && { vin }), ...(plate && { plate }) });
    const profileName = asked.profile ?? known?.profile ?? undefined;
    const profile = profileName ? await vehicles.findProfile(tx, profileName) : undefined;
    if (profileName && !profile) {
      return failure(
        'unknown-profile',
        `There is no vehicle profile "${profileName}". Choose one from the list.`,
      );
    }
    const tpms: Tpms =
      asked.tpms ??
      (profile && asked.profile ? profile.tpms : (known?.tpms ?? profile?.tpms ?? { kind: 'direct' }));
    const placard = booking.placard ?? (known?.placard.length ? known.placard : (profile?.placard ?? []));
    const vehicle = await vehicles.saveVehicle(tx, known?.id ?? newId(), {
      vin: vin ?? known?.vin ?? null,
      plate: plate ?? known?.plate ?? null,
      label: asked.label,
      modelYear: asked.modelYear ?? known?.modelYear ?? null,
      profile: profileName ?? null,
      tpms,
      placard,
    });
    const openedAt = new Date();
    const shop = await loadShop(tx);
    const header: Header = {
      format: 'hacienda.job/1',
      vehicle: {
        label: vehicle.label,
        ...(vehicle.vin && { vin: vehicle.vin }),
        ...(asked.plate ? { plate: asked.plate } : vehicle.plate && { plate: vehicle.plate }),
        ...(vehicle.modelYear && { modelYear: vehicle.modelYear }),
        ...(asked.odometerKm !== undefined && { odometerKm: asked.odometerKm }),
        ...(profileName && { profile: profileName }),
        tpms: { ...tpms, regulation: tpms.regulation ?? shop.regulation },
      },
      placard,
      ...(known?.fitted && { fitted: known.fitted }),
      service: booking.service ?? { kind: 'none' },
      climate: {
        ...(shop.altitudeM !== null && { altitudeM: shop.altitudeM }),
        fillPolicy: shop.fillPolicy,
        ...booking.climate,
      },
      ...(await setsOnFile(tx, vehicle.id, openedAt)),
      ...(await readingsOnFile(tx, vehicle.id)),
      visit: {
        key: booking.key,
        ...(booking.complaint && { complaint: booking.complaint }),
        openedAt: openedAt.toISOString(),
        openedBy: who.name,
      },
    };
    const job = await jobs.createJob(tx, {
      id: newId(),
      key: booking.key,
      vehicleId: vehicle.id,
      header,
      openedBy: who.name,
      openedAt,
    });
    for (const entry of booking.observations ?? []) await jobs.addObservation(tx, job.id, who.name, entry);
    await announce(tx, job.id);
    return success({ id: job.id, number: job.number });
  });
}

/** What the records say of the wheels: the set that should be on the car, and its others. */
async function setsOnFile(tx: Tx, vehicleId: string, now: Date): Promise<Pick<Job, 'sensors' | 'otherSets'>> {
  const sets = await vehicles.loadWheelSets(tx, vehicleId);
  const sensors = sets
    .filter(({ fitted }) => fitted)
    .flatMap((set) => set.sensors)
    .map(({ sensorId, wheel, newOn }) => ({
      id: sensorId,
      ...(wheel && { wheel }),
      ...(newOn && { ageYears: Math.round(((now.getTime() - Date.parse(newOn)) / yearMs) * 10) / 10 }),
    }));
  const otherSets = sets
    .filter(({ fitted }) => !fitted)
    .map(({ label, sensors }) => ({ label, ids: sensors.map(({ sensorId }) => sensorId) }));
  return { ...(sensors.length > 0 && { sensors }), ...(otherSets.length > 0 && { otherSets }) };
}

/** Wheels that changed place or tires leave their earlier readings behind. */
const movesWheels: readonly Service['kind'][] = ['tires-fitted', 'rotation', 'wheels-swapped'];
/** So many earlier visits are looked through for readings. */
const visitsLookedThrough = 20;

/** Gauge readings of the same wheels at earlier visits, oldest first, each with the temperature of its day. */
async function readingsOnFile(tx: Tx, vehicleId: string): Promise<Pick<Job, 'history'>> {
  const rows = (await jobs.jobsOfVehicle(tx, vehicleId)).slice(0, visitsLookedThrough);
  const visits = (await jobs.loadRecords(tx, rows)).map(({ record }) => toJobFile(record));
  const moved = visits.findIndex(({ service }) => service && movesWheels.includes(service.kind));
  const same = moved < 0 ? visits : visits.slice(0, moved + 1);
  const history = same.reverse().flatMap((visit) =>
    allOf(visit, 'gauge').map(({ seen }) => {
      const tireC = tireCelsius(visit, seen);
      return tireC === undefined ? seen : { ...seen, tireC };
    }),
  );
  return history.length > 0 ? { history } : {};
}

/** What the vehicle's profile knows of its receiver, so that a lead can talk to it. */
async function receiverOf(tx: Tx, job: { vehicle: Job['vehicle'] }): Promise<Receiver | undefined> {
  const profile = profileOf(job);
  return (profile && (await vehicles.findProfile(tx, profile))?.receiver) || undefined;
}

/** The job as a screen needs it. Problem: `unknown-job`. */
export const viewJob = (id: string): Promise<Outcome<VisitView>> => inTransaction((tx) => viewIn(tx, id));

export async function viewIn(tx: Tx, id: string): Promise<Outcome<VisitView>> {
  const stored = await jobs.loadJob(tx, id);
  if (!stored) return unknownJob();
  return success(
    viewOf(stored, {
      receiver: await receiverOf(tx, stored.record.header),
      instruments: await loadGauges(tx),
      experience: (await experienceBefore(tx))(stored.row.openedAt),
    }),
  );
}

/** Today's vehicles, the newest first. */
export const yard = (now = new Date()): Promise<YardLine[]> =>
  inTransaction(async (tx) => {
    const stored = await jobs.loadYard(tx, new Date(now.getTime() - yardHours * 3_600_000));
    const receivers = new Map(
      (await vehicles.listProfiles(tx)).map(({ name, receiver }) => [name, receiver ?? undefined]),
    );
    const instruments = await loadGauges(tx);
    const experienceAt = await experienceBefore(tx);
    return stored.map((item) => {
      const receiver = receivers.get(profileOf(item.record.header) ?? '');
      return yardLineOf(item, { receiver, instruments, experience: experienceAt(item.row.openedAt) });
    });
  });

export interface HeaderChanges {
  placard?: Placard;
  loadCase?: LoadCase;
  fitted?: Fitted;
  repairs?: Repairs;
  service?: Service;
  climate?: Climate;
  odometerKm?: number;
  complaint?: string;
}

/** Header fields that are changed as they stand. */
const plainFields = ['placard', 'loadCase', 'fitted', 'repairs', 'service', 'climate'] as const;

/**
 * Corrects what a person entered about the visit. Problems: `unknown-job`, `handed-over`, and `stale`,
 * with what others changed since, when the job is no longer at `version`.
 */
export function editJob(
  id: string,
  edit: { key: string; version: number; changes: HeaderChanges },
  who: Person,
): Promise<Outcome<VisitView>> {
  return inTransaction(async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if ((await jobs.findEdit(tx, edit.key))?.jobId === id) return viewIn(tx, id);
    if (row.state === 'handed-over') return closedJob();
    if (row.version !== edit.version) return stale(tx, id, edit.version);
    const before = row.header;
    const { odometerKm, complaint, ...plain } = edit.changes;
    const after = {
      ...before,
      ...plain,
      vehicle: { ...before.vehicle, ...(odometerKm !== undefined && { odometerKm }) },
      ...(complaint !== undefined && { visit: { ...notesOf(before), complaint } }),
    };
    const changes = [
      ...plainFields.map((field) => ({
        field,
        from: before[field],
        to: after[field],
      })),
      { field: 'odometerKm', from: before.vehicle.odometerKm, to: after.vehicle.odometerKm },
      { field: 'complaint', from: notesOf(before).complaint, to: notesOf(after).complaint },
    ].filter(({ from, to }) => JSON.stringify(from) !== JSON.stringify(to));
    if (changes.length > 0) {
      await jobs.saveEdit(tx, row, { key: edit.key, by: who.name, changes }, { header: after });
      await rememberTires(tx, row.vehicleId, after);
      await announce(tx, id);
    }
    return viewIn(tx, id);
  });
}

async function stale(tx: Tx, jobId: string, version: number): Promise<Outcome<never>> {
  const edits = await jobs.editsSince(tx, jobId, version);
  const changed: Issue[] = edits.flatMap(({ by, changes }) =>
    changes.map(({ field, from, to }) => ({
      path: field,
      message: `${by} changed it from ${JSON.stringify(from ?? null)} to ${JSON.stringify(to ?? null)}`,
    })),
  );
  return failure(
    'stale',
    'Somebody changed this job meanwhile; your change was not stored. Look at what is there now and enter it again.',
    changed,
  );
}

/** Placard and tires belong to the vehicle: what was read today is there next time. */
async function rememberTires(tx: Tx, vehicleId: string, { placard, fitted }: Header): Promise<void> {
  await vehicles.setTires(tx, vehicleId, { ...(placard && { placard }), ...(fitted && { fitted }) });
}

export interface BenchNote {
  key: string;
  /** What was worked out, as a sentence. */
  text: string;
  /** Where it can be worked out again: a path of this app. */
  link: string;
}

/** Takes something worked out on the bench into the job. The same key again changes nothing. Problems: `unknown-job`, `handed-over`. */
export function addNote(id: string, note: BenchNote, who: Person): Promise<Outcome<null>> {
  return inTransaction(async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if ((await jobs.findEdit(tx, note.key))?.jobId === id) return success(null);
    if (row.state === 'handed-over') return closedJob();
    const visit = notesOf(row.header);
    const { key, text, link } = note;
    const added = { text, link, at: new Date().toISOString(), by: who.name };
    const bench = [...(visit.bench ?? []), added];
    const changes = [{ field: 'bench', from: null, to: text }];
    await jobs.saveEdit(
      tx,
      row,
      { key, by: who.name, changes },
      { header: { ...row.header, visit: { ...visit, bench } } },
    );
    await announce(tx, id);
    return success(null);
  });
}

/**
 * Adds what was seen. The same key again changes nothing. Problems: `unknown-job`, `handed-over`,
 * `not-allowed`, `no-such-wheel`, `key-in-use`, `nothing-to-correct`, `already-corrected`.
 */
export function record(id: string, entry: Entry, who: Person): Promise<Outcome<VisitView>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal && entry.observation.kind !== 'lamp') return refusal;
    const added = await recordIn(tx, id, [entry], who);
    return added.ok ? viewIn(tx, id) : added;
  });
}

/** As `record`, for several at once within a use case. */
export async function recordIn(tx: Tx, id: string, entries: Entry[], who: Person): Promise<Outcome<null>> {
  const row = await jobs.lockJob(tx, id);
  if (!row) return unknownJob();
  for (const entry of entries) {
    const there = await jobs.findObservation(tx, entry.key);
    if (there?.jobId === id) continue;
    if (there) return failure('key-in-use', 'This reading was recorded on another job. Take it again here.');
    if (row.state === 'handed-over') return closedJob();
    const refusal = (await refuseCorrection(tx, id, entry)) ?? refuseWheel(row.header, entry.observation);
    if (refusal) return refusal;
    await jobs.addObservation(tx, id, who.name, entry);
  }
  await announce(tx, id);
  return success(null);
}

async function refuseCorrection(tx: Tx, jobId: string, entry: Entry): Promise<Outcome<never> | undefined> {
  if (!entry.replaces) return undefined;
  const old = await jobs.findObservation(tx, entry.replaces);
  if (old?.jobId !== jobId || old.kind !== entry.observation.kind) {
    return failure('nothing-to-correct', 'The reading to correct is not on this job. Reload and try again.');
  }
  return (await jobs.findCorrectionOf(tx, entry.replaces))
    ? failure('already-corrected', 'Somebody corrected this reading already. Look at what is there now.')
    : undefined;
}

function refuseWheel(job: Header, observation: Observation): Outcome<never> | undefined {
  if (!('wheel' in observation) || !observation.wheel) return undefined;
  return observation.wheel === 'SP' && !wheelsOf(job).includes('SP')
    ? failure('no-such-wheel', 'This car has no spare on its placard. Add the spare to the placard first.')
    : undefined;
}

/**
 * Says what the parts of the car turned out to be, once somebody had them in hand; at any time, also after
 * it left. Nothing at all takes back what was said. Problems: `unknown-job` and those of `confirmIn`.
 */
export function confirm(
  id: string,
  asked: { key: string; parts: Confirmed[] },
  who: Person,
): Promise<Outcome<VisitView>> {
  return inTransaction(async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    const stored = await confirmIn(tx, row, asked, who);
    if (!stored.ok) return stored;
    await announce(tx, id);
    return viewIn(tx, id);
  });
}

/**
 * Hands the car over and closes the job; what the tool heard goes on file for the next visit, and what the
 * parts turned out to be, where somebody says so. A visit that is not proved is handed over only with a
 * reason. Problems: `unknown-job`, `stale`, `not-proved`, and those of `confirmIn`.
 */
export function handOver(
  id: string,
  asked: { key: string; version: number; unproved?: string; parts?: Confirmed[] },
  who: Person,
): Promise<Outcome<VisitView>> {
  return inTransaction(async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if (row.state === 'handed-over') return viewIn(tx, id);
    if (row.version !== asked.version) return stale(tx, id, asked.version);
    const view = await viewIn(tx, id);
    if (!view.ok) return view;
    const { proof, job } = view.value;
    if (!proof.proved && !asked.unproved) {
      const open = proof.checks
        .filter(({ state }) => state !== 'met')
        .map(({ name, text }) => ({ path: name, message: text }));
      return failure(
        'not-proved',
        'This visit is not proved yet. Prove it, or say why the car leaves as it is.',
        open,
      );
    }
    if (asked.parts) {
      const parts = { key: deriveKey(asked.key, 'parts'), parts: asked.parts };
      const confirmed = await confirmIn(tx, row, parts, who);
      if (!confirmed.ok) return confirmed;
    }
    const handedOverAt = new Date();
    const visit = {
      ...notesOf(job),
      handedOverAt: handedOverAt.toISOString(),
      handedOverBy: who.name,
      ...(!proof.proved && asked.unproved && { unproved: asked.unproved }),
    };
    await jobs.saveEdit(
      tx,
      row,
      { key: asked.key, by: who.name, changes: [{ field: 'state', from: 'open', to: 'handed-over' }] },
      { header: { ...row.header, visit }, state: 'handed-over', handedOverAt, handedOverBy: who.name },
    );
    await fileSensors(tx, row.vehicleId, job, handedOverAt);
    await announce(tx, id);
    return viewIn(tx, id);
  });
}

/** The sensors heard become the fitted set on file; one already known keeps its age. */
async function fileSensors(tx: Tx, vehicleId: string, job: Job, now: Date): Promise<void> {
  const heard = scannedIds(job, ledgerOf(job));
  if (heard.length === 0) return;
  const sets = await vehicles.loadWheelSets(tx, vehicleId);
  const knownSensors = sets.flatMap(({ sensors }) => sensors);
  const fitted = sets.find((set) => set.fitted) ?? { label: 'on the car', fitted: true, sensors: [] };
  const wheels = new Set(heard.map(({ wheel }) => wheel));
  await vehicles.saveWheelSet(tx, vehicleId, newId(), {
    ...fitted,
    sensors: [
      ...heard.map(({ wheel, id }) => ({
        sensorId: id,
        wheel,
        newOn: knownSensors.find(({ sensorId }) => sensorId === id)?.newOn ?? birthday(job, id, now),
      })),
      ...fitted.sensors.filter(({ wheel }) => wheel === null || !wheels.has(wheel)),
    ],
  });
}

/** When the sensor was new: by its age on the job, or today where one was just fitted; else not known. */
function birthday(job: Job, id: string, now: Date): string | null {
  const age = job.sensors?.find((sensor) => sensor.id === id)?.ageYears;
  const justFitted = job.service?.kind === 'sensor-replaced';
  if (age === undefined && !justFitted) return null;
  return new Date(now.getTime() - (age ?? 0) * yearMs).toISOString().slice(0, 10);
}

/** The job as an open job file, with nothing left out. Problem: `unknown-job`. */
export function exportJob(id: string): Promise<Outcome<Job>> {
  return inTransaction(async (tx) => {
    const stored = await jobs.loadJob(tx, id);
    return stored ? success(toJobFile(stored.record)) : unknownJob();
  });
}

/**
 * Takes in a job file, ours or another program's. The same file again finds the job it made, and adds
 * only what that does not have yet. Problems: `key-in-use`, `handed-over`, `not-allowed`.
 */
export function importJob(file: Job, who: Person): Promise<Outcome<{ id: string; already: boolean }>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const notes = notesOf(file);
    const key = notes.key ?? deriveKey('file', JSON.stringify(file));
    let entryCount = 0;
    const newKey = () => deriveKey(key, `entry ${(entryCount += 1)}`);
    const { header, entries, writes, confirmations } = fromJobFile(file, newKey);
    const there = await jobs.findJobByKey(tx, key);
    const row = there ?? (await createFromFile(tx, key, header, who));
    for (const entry of entries) {
      const known = await jobs.findObservation(tx, entry.key);
      if (known?.jobId === row.id) continue;
      if (known) return keyInUse();
      if (there?.state === 'handed-over') return closedJob();
      await jobs.addObservation(tx, row.id, who.name, entry);
    }
    for (const write of writes) {
      const known = await jobs.findWrite(tx, write.key);
      if (known && known.jobId !== row.id) return keyInUse();
      if (!known) await jobs.addWrite(tx, row.id, write.by ?? who.name, write);
    }
    for (const confirmation of confirmations) {
      const known = await findConfirmation(tx, confirmation.key);
      if (known && known.jobId !== row.id) return keyInUse();
      if (!known) await addConfirmation(tx, row.id, confirmation);
    }
    await announce(tx, row.id);
    return success({ id: row.id, already: there !== null });
  });
}

const keyInUse = () =>
  failure('key-in-use', 'Part of this file belongs to another job here. Nothing was taken in.');

async function createFromFile(tx: Tx, key: string, job: Header, who: Person) {
  const { label = 'Unnamed vehicle', modelYear } = job.vehicle;
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
  });
}
