import type { CarWrite, Code, Job, Observation } from '../core/job';
import { toJobFile, type Entry } from '../core/job/record';
import { ledgerOf } from '../core/job/ledger';
import {
  closedJob,
  noReceiver,
  readFirst,
  runUnderWay,
  supplyLow,
  unknownJob,
  unknownWrite,
  writeUnderWay,
} from '../contract/refusals';
import { isWhollyRead } from '../core/car/registration';
import { success, type Result } from '../core/result';
import { writeVerdict } from '../core/job/car-write';
import { meaningOf } from '../core/car/trouble-code/meaning';
import { canonicalVin } from '../core/names/vin';
import { supplyIsLow, supportWords } from '../core/car/supply';
import type { LampThresholds, LiveEntry, Receiver, RegistryEntry } from '../core/car/uds/receiver';
import type { VisitView } from '../contract/views';
import { inTransaction, type Tx } from '../data/database';
import * as jobs from '../data/jobs';
import * as observations from '../data/observations';
import { takeCar } from '../data/leases';
import type { VehicleLead, WriteAnswer } from '../devices/vehicle/port';
import { isUnderWay } from './car-write';
import { withLead } from './devices';
import { deriveKey, recordIn, viewIn, viewJob } from './jobs';
import { openRunIn } from './runs/start';
import { receiverOf } from './vehicles';
import { refuseUnless, type Person } from './people';
import type { JobState } from '../core/names/kinds';

/** What is written through the lead; a sensor is programmed in the cradle. */
type CarWriteByLead = Exclude<CarWrite, { kind: 'sensor' }>;

interface Car {
  job: Job;
  receiver: Receiver;
}

/** The job and how to talk to its car. Problems: `unknown-job`, `no-receiver`. */
async function carOf(tx: Tx, id: string): Promise<Result<Car>> {
  const stored = await jobs.loadJob(tx, id);
  if (!stored) return unknownJob();
  const job = toJobFile(stored.record);
  const receiver = await receiverOf(tx, job);
  return receiver ? success({ job, receiver }) : noReceiver();
}

/** How fast the car goes, km/h. Problems: `unknown-job`, `no-receiver`, and those of the lead. */
export async function readSpeed(id: string): Promise<Result<number>> {
  const car = await inTransaction((tx) => carOf(tx, id));
  if (!car.ok) return car;
  return withLead(car.value.job.vehicle.vin, car.value.receiver, async (lead) => {
    const live = await lead.readLive();
    return live.ok ? success(live.value.speedKmh) : live;
  });
}

/** Everything one reading of the car gives. */
interface Reading {
  registry: RegistryEntry[];
  codes: Code[];
  live: { speedKmh: number; entries: LiveEntry[] };
  supply: { volts: number; engine: 'on' | 'off' };
  thresholds: LampThresholds | undefined;
}

async function readAll(lead: VehicleLead): Promise<Result<Reading>> {
  const supply = await lead.readSupply();
  if (!supply.ok) return supply;
  const registry = await lead.readRegistry();
  if (!registry.ok) return registry;
  const codes = await lead.readCodes();
  if (!codes.ok) return codes;
  const live = await lead.readLive();
  if (!live.ok) return live;
  const thresholds = await lead.readThresholds();
  if (!thresholds.ok) return thresholds;
  return success({
    registry: registry.value,
    codes: codes.value,
    live: live.value,
    supply: supply.value,
    thresholds: thresholds.value,
  });
}

/** Reads registered IDs, codes, live pressures and supply, and records them as one reading. */
export async function readCar(id: string, key: string, who: Person): Promise<Result<VisitView>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const there = await inTransaction((tx) => observations.find(tx, deriveKey(key, 'registry')));
  if (there) return there.jobId === id ? viewJob(id) : unknownJob();
  const car = await inTransaction((tx) => carOf(tx, id));
  if (!car.ok) return car;
  const reading = await alone(nameOf(car.value.job, id), () =>
    withLead(car.value.job.vehicle.vin, car.value.receiver, readAll),
  );
  if (!reading.ok) return reading;
  return inTransaction(async (tx) => {
    const added = await recordIn(tx, id, entriesOf(key, reading.value, car.value.receiver, new Date()), who);
    return added.ok ? viewIn(tx, id) : added;
  });
}

/** One reading as observations, each with a key that follows from the reading's. */
function entriesOf(
  key: string,
  { registry, codes, live, supply }: Reading,
  receiver: Receiver,
  now: Date,
): Entry[] {
  const at = now.toISOString();
  const entry = (part: string, observation: Observation): Entry => ({
    key: deriveKey(key, part),
    observation,
  });
  return [
    entry('voltage', { kind: 'voltage', at, ...supply }),
    entry('registry', { kind: 'registry', at, entries: registry, codes }),
    ...codes.map((code) =>
      entry(`dtc ${code.code}`, { kind: 'dtc', at, ...code, ...meaningOf(receiver.codes, code.code) }),
    ),
    ...live.entries.map(({ wheel, kPa, tempC }) =>
      entry(`live ${wheel}`, {
        kind: 'live',
        at,
        wheel,
        kPa,
        speedKmh: live.speedKmh,
        ...(tempC !== null && { tempC }),
      }),
    ),
  ];
}

/** Sends IDs to the car and reads them back: the read-back decides. `run`: the relearn it is part of. */
export function writeIds(
  id: string,
  asked: { key: string; entries: RegistryEntry[]; run?: string },
  who: Person,
): Promise<Result<VisitView>> {
  return write(id, asked.key, who, (before) => ({
    kind: 'registry',
    key: asked.key,
    askedAt: new Date().toISOString(),
    by: who.name,
    asked: asked.entries,
    before: before.registry,
    ...(asked.run && { run: asked.run }),
  }));
}

/** Sends the car other pressures for its lamp, for other tires, and reads them back. */
export function writeThresholds(
  id: string,
  asked: { key: string } & LampThresholds,
  who: Person,
): Promise<Result<VisitView>> {
  const { key, ...thresholds } = asked;
  return write(id, key, who, () => ({
    kind: 'thresholds',
    key,
    askedAt: new Date().toISOString(),
    by: who.name,
    asked: thresholds,
  }));
}

/** Clears the codes and reads them back: a code that is back stands again. */
export function clearCodes(id: string, key: string, who: Person): Promise<Result<VisitView>> {
  return write(id, key, who, (before) => ({
    kind: 'clear-codes',
    key,
    askedAt: new Date().toISOString(),
    by: who.name,
    before: before.codes,
  }));
}

/**
 * A write in three facts, each stored before the next step: asked, answered, read back. A server that
 * dies in between leaves a write that is unknown until it is read back. The same key is sent once.
 * Problems: `not-allowed`, `read-first`, `supply-voltage-low`, `write-under-way`, `run-under-way`, and those of the lead.
 */
async function write(
  id: string,
  key: string,
  who: Person,
  make: (before: { registry: RegistryEntry[]; codes: Code[] }) => CarWriteByLead,
): Promise<Result<VisitView>> {
  const refusal = refuseUnless(who, 'change-a-car');
  if (refusal) return refusal;
  const asked = await inTransaction((tx) => carOf(tx, id));
  if (!asked.ok) return asked;
  // The read-back that decides is taken before anybody else gets at the car.
  const lease = await takeCar(nameOf(asked.value.job, id), 'no');
  if (!lease) {
    // A double press: it is this very write that is under way.
    const there = await inTransaction((tx) => jobs.findWrite(tx, key));
    return there?.jobId === id ? viewJob(id) : writeUnderWay();
  }
  try {
    return await writeAlone(id, key, who, make);
  } finally {
    await lease.end();
  }
}

/** The car as all its jobs know it: by its VIN, or, that not known, this job's alone. */
const nameOf = ({ vehicle }: Job, id: string): string => (vehicle.vin ? canonicalVin(vehicle.vin) : id);

async function writeAlone(
  id: string,
  key: string,
  who: Person,
  make: (before: { registry: RegistryEntry[]; codes: Code[] }) => CarWriteByLead,
): Promise<Result<VisitView>> {
  const begun = await inTransaction(
    async (tx): Promise<Result<Car & { fresh: CarWriteByLead | undefined }>> => {
      const row = await jobs.lockJob(tx, id);
      if (!row) return unknownJob();
      const car = await carOf(tx, id);
      if (!car.ok) return car;
      const there = await jobs.findWrite(tx, key);
      if (there) return there.jobId === id ? success({ ...car.value, fresh: undefined }) : unknownJob();
      const problem = refuseWrite(row.state, car.value.job);
      if (problem) return problem;
      // What was read before somebody else wrote to this car is not what it holds.
      const since = await jobs.lastWriteElsewhere(tx, row);
      if (since && since.getTime() > readMs(car.value.job)) return readFirst();
      const ledger = ledgerOf(car.value.job);
      const fresh = make({
        registry: ledger.held,
        codes: ledger.codes.map(({ seen: { code, status } }) => ({ code, status })),
      });
      const run = await openRunIn(tx, row.vehicleId);
      if (run && fresh.kind === 'registry' && fresh.run !== run.key) return runUnderWay(run.by);
      await jobs.addWrite(tx, id, who.name, fresh);
      return success({ ...car.value, fresh });
    },
  );
  if (!begun.ok) return begun;
  const { job, receiver, fresh } = begun.value;
  if (!fresh) return viewJob(id);

  const answer = await withLead(job.vehicle.vin, receiver, async (lead) => success(await send(lead, fresh)));
  // Where the lead was not even reached, nothing was sent: that is a plain "no".
  await noteAnswer(id, key, answer.ok ? answer.value : { answer: 'no', reason: answer.problem.message });
  if (answer.ok && answer.value.answer !== 'no') await readBackAlone(id, key, who);
  return viewJob(id);
}

/** When what the car holds was last read, ms. */
const readMs = (job: Job): number => Date.parse(ledgerOf(job).registry?.seen.at ?? '') || 0;

function refuseWrite(state: JobState, job: Job): Result<never> | undefined {
  const ledger = ledgerOf(job);
  const { voltage } = ledger;
  const underWay = (job.carWrites ?? []).some(isUnderWay);
  if (state !== 'open') return closedJob(state);
  if (!isWhollyRead(job, ledger)) return readFirst();
  if (underWay) return writeUnderWay();
  if (voltage && supplyIsLow(ledger)) return supplyLow(voltage.seen.volts, supportWords(job.vehicle.tpms));
  return undefined;
}

function send(lead: VehicleLead, write: CarWriteByLead): Promise<WriteAnswer> {
  switch (write.kind) {
    case 'registry':
      return lead.writeRegistry(write.asked);
    case 'thresholds':
      return lead.writeThresholds(write.asked);
    case 'clear-codes':
      return lead.clearCodes();
  }
}

async function noteAnswer(id: string, key: string, answer: WriteAnswer): Promise<void> {
  await inTransaction(async (tx) => {
    await jobs.lockJob(tx, id);
    const row = await jobs.findWrite(tx, key);
    if (!row) return;
    await jobs.updateWrite(tx, row, { ...row.body, answeredAt: new Date().toISOString(), ...answer });
  });
}

/**
 * Reads back what the car holds after a write and stores it beside what was asked. May be repeated
 * until it succeeds; once it has, it stands. Problems: `unknown-write`, `write-under-way`, and those of the lead.
 */
export async function readBack(id: string, key: string, who: Person): Promise<Result<VisitView>> {
  const car = await inTransaction((tx) => carOf(tx, id));
  return car.ok ? alone(nameOf(car.value.job, id), () => readBackAlone(id, key, who)) : car;
}

/** With the car to oneself: who only reads waits for whoever is at it, and is told where that takes long. */
async function alone<Value>(car: string, work: () => Promise<Result<Value>>): Promise<Result<Value>> {
  const lease = await takeCar(car, 'for-it');
  if (!lease) return writeUnderWay();
  try {
    return await work();
  } finally {
    await lease.end();
  }
}

async function readBackAlone(id: string, key: string, who: Person): Promise<Result<VisitView>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const car = await inTransaction((tx) => carOf(tx, id));
  if (!car.ok) return car;
  const write = car.value.job.carWrites?.find((candidate) => candidate.key === key);
  if (!write || write.kind === 'sensor') return unknownWrite();
  if (write.readBackAt) return viewJob(id);
  if (isUnderWay(write)) return writeUnderWay();
  const reading = await withLead(car.value.job.vehicle.vin, car.value.receiver, readAll);
  if (!reading.ok) return reading;
  return inTransaction(async (tx) => {
    const entries = entriesOf(deriveKey(key, 'read-back'), reading.value, car.value.receiver, new Date());
    const added = await recordIn(tx, id, entries, who);
    if (!added.ok) return added;
    const row = await jobs.findWrite(tx, key);
    if (!row || row.body.readBackAt || row.body.kind === 'sensor') return viewIn(tx, id);
    const readBackAt = new Date().toISOString();
    const after = withReadBack(row.body, reading.value, readBackAt);
    await jobs.updateWrite(tx, row, after);
    // Within a relearn it is that which says in the end what came of it.
    if (after.kind === 'registry' && !after.run) {
      const outcome = writeVerdict(after) === 'worked' ? 'waiting-for-drive' : 'failed';
      const observation: Observation = { kind: 'relearn', at: readBackAt, method: 'write', outcome };
      await observations.add(tx, id, who.name, { key: deriveKey(key, 'relearn'), observation });
    }
    return viewIn(tx, id);
  });
}

function withReadBack(write: CarWriteByLead, reading: Reading, readBackAt: string): CarWrite {
  switch (write.kind) {
    case 'registry':
      return { ...write, readBackAt, readBack: reading.registry };
    case 'thresholds':
      return { ...write, readBackAt, ...(reading.thresholds && { readBack: reading.thresholds }) };
    case 'clear-codes':
      return { ...write, readBackAt, readBack: reading.codes };
  }
}
