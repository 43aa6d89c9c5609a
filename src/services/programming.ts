import { randomInt } from 'node:crypto';
import type { BodyOf, ProgrammingAsked } from '../contract';
import {
  closedJob,
  cradleCrowded,
  cradleEmpty,
  idElsewhere,
  keyInUse,
  noFamilyKnown,
  noProgrammer,
  noSpare,
  notInCatalogue,
  otherSensorInCradle,
  partIsReady,
  partUnheard,
  sensorSpent,
  sensorUnheard,
  sensorWornOut,
  unknownJob,
  unknownWrite,
  writeUnderWay,
} from '../contract/refusals';
import type { Job, Tpms } from '../core/job';
import { toJobFile } from '../core/job/record';
import { formatFor, type Format } from '../core/sensor/part';
import { monitoredWheels } from '../core/job/placard';
import { success, type Result } from '../core/result';
import { canonicalId, groupedId } from '../core/names/sensor-id';
import { idIsAt, idsMet, newSensorId } from '../core/sensor/programming';
import { isRightType } from '../core/sensor/type';
import type { VisitView } from '../contract/views';
import type { Position } from '../core/names/wheel';
import { inTransaction, type Tx } from '../data/database';
import * as jobs from '../data/jobs';
import { findPart, idIsKnown } from '../data/parts';
import { jsonRpcProgrammer } from '../devices/programmer/json-rpc-programmer';
import type { InCradle, Programmer } from '../devices/programmer/port';
import { isUnderWay } from './car-write';
import { toolAddress } from './devices';
import { viewIn, viewJob } from './jobs';
import { refuseUnless, type Person } from './people';
import type { SensorWrite } from '../core/job/car-write';

const usualDigits = 8;

/** Problem: `no-programmer`. */
function cradle(): Result<Programmer> {
  const address = toolAddress();
  return address ? success(jsonRpcProgrammer(address)) : noProgrammer();
}

const carWords = ({ family, frequencyMHz }: Tpms): string =>
  [family, frequencyMHz && `${frequencyMHz} MHz`].filter(Boolean).join(' on ');

/**
 * Programs the sensor in the cradle and reads it back, in three facts, each stored before the next. The same key is sent
 * once. Problems: `not-allowed`, `unknown-job`, `handed-over`, `no-such-wheel`, `not-in-catalogue`, `wrong-part`,
 * `id-elsewhere`, `no-programmer`, `cradle-empty`, `cradle-crowded`, `sensor-spent`, `write-under-way`, and those of the device.
 */
export async function programSensor(
  id: string,
  asked: ProgrammingAsked,
  who: Person,
): Promise<Result<VisitView>> {
  const refusal = refuseUnless(who, 'change-a-car');
  if (refusal) return refusal;
  const there = await inTransaction((tx) => jobs.findWrite(tx, asked.key));
  if (there) return there.jobId === id ? viewJob(id) : keyInUse();
  const device = cradle();
  if (!device.ok) return device;
  const lying = await alone(device.value);
  if (!lying.ok) return lying;
  const begun = await inTransaction(async (tx): Promise<Result<{ write: SensorWrite; format: Format }>> => {
    const planned = await plan(tx, id, asked);
    if (!planned.ok) return planned;
    const { job, format } = planned.value;
    const unfit = refuseSensor(lying.value, format, job.vehicle.tpms);
    if (unfit) return unfit;
    if (job.carWrites?.some(isUnderWay)) return writeUnderWay();
    const write = sensorWrite(asked, planned.value, who, lying.value.serial);
    await jobs.addWrite(tx, id, who.name, write);
    return success({ write, format });
  });
  if (!begun.ok) return begun;
  const { write, format } = begun.value;
  const answer = await device.value.program({ id: write.asked.id, ...format });
  await noteOn(id, asked.key, (now) => ({ ...now, answeredAt: new Date().toISOString(), ...answer }));
  if (answer.answer !== 'no') await readSensorBack(id, { write: asked.key }, who);
  return viewJob(id);
}

/** One that was programmed with another tool, by what somebody says of it. Problems: those of `programSensor` but the device's. */
export function noteProgrammed(
  id: string,
  asked: BodyOf<'noteProgrammed'>,
  who: Person,
): Promise<Result<VisitView>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'change-a-car');
    if (refusal) return refusal;
    const there = await jobs.findWrite(tx, asked.key);
    if (there) return there.jobId === id ? viewIn(tx, id) : keyInUse();
    const planned = await planByHand(tx, id, asked);
    if (!planned.ok) return planned;
    const write = sensorWrite(asked, planned.value, who);
    const { askedAt } = write;
    await jobs.addWrite(tx, id, who.name, {
      ...write,
      answeredAt: askedAt,
      answer: 'yes',
      ...(asked.readBack !== undefined && { readBackAt: askedAt, readBack: { id: asked.readBack } }),
    });
    return viewIn(tx, id);
  });
}

/**
 * Reads back what a sensor is; typed, where another tool read it. May be repeated until it succeeds; once it has, it
 * stands. Problems: `unknown-write`, `write-under-way`, `cradle-empty`, `cradle-crowded`, `no-programmer`, and those of the device.
 */
export async function readSensorBack(
  id: string,
  { write: key, typed }: { write: string; typed?: string | null | undefined },
  who: Person,
): Promise<Result<VisitView>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const row = await inTransaction((tx) => jobs.findWrite(tx, key));
  if (row?.jobId !== id || row.body.kind !== 'sensor') return unknownWrite();
  if (row.body.readBackAt) return viewJob(id);
  if (isUnderWay(row.body)) return writeUnderWay();
  const { serial } = row.body;
  const readBack = typed === undefined ? await readFromCradle(serial) : success({ id: typed });
  if (!readBack.ok) return readBack;
  await noteOn(id, key, (now) => ({
    ...now,
    readBackAt: new Date().toISOString(),
    readBack: readBack.value,
  }));
  return viewJob(id);
}

async function readFromCradle(serial: unknown): Promise<Result<NonNullable<SensorWrite['readBack']>>> {
  const device = cradle();
  if (!device.ok) return device;
  const lying = await alone(device.value);
  if (!lying.ok) return lying;
  if (typeof serial === 'string' && lying.value.serial !== undefined && lying.value.serial !== serial)
    return otherSensorInCradle();
  const { id, family, frequencyMHz } = lying.value;
  return success({ id, family, frequencyMHz });
}

/** The one sensor in the cradle. */
async function alone(device: Programmer): Promise<Result<InCradle>> {
  const read = await device.read();
  if (!read.ok) return read;
  const [sensor, another] = read.value;
  if (!sensor) return cradleEmpty();
  return another ? cradleCrowded(read.value.length) : success(sensor);
}

interface Plan {
  job: Job;
  id: string;
  format: Format;
}

/** The open job, where the wheel has a sensor to look for. */
async function openJobWith(tx: Tx, jobId: string, wheel: Position): Promise<Result<Job>> {
  const row = await jobs.lockJob(tx, jobId);
  if (!row) return unknownJob();
  if (row.state !== 'open') return closedJob(row.state);
  const [stored] = await jobs.loadRecords(tx, [row]);
  if (!stored) return unknownJob();
  const job = toJobFile(stored.record);
  return monitoredWheels(job).includes(wheel) ? success(job) : noSpare();
}

/**
 * What was made of a sensor elsewhere: of a part in the catalogue it must be possible; of any other it is taken to be what
 * the car hears.
 */
async function planByHand(
  tx: Tx,
  jobId: string,
  asked: BodyOf<'noteProgrammed'>,
): Promise<Result<Omit<Plan, 'format'> & { format: Partial<Format> }>> {
  const { part } = asked;
  if (part !== undefined && (await findPart(tx, part))) return plan(tx, jobId, { ...asked, part });
  const job = await openJobWith(tx, jobId, asked.wheel);
  if (!job.ok) return job;
  const { family, frequencyMHz } = job.value.vehicle.tpms;
  const id = canonicalId(asked.id);
  const elsewhere = idIsAt(job.value, id, asked.wheel);
  if (elsewhere) return idElsewhere(groupedId(id), elsewhere);
  const format = {
    ...(family !== undefined && { family }),
    ...(frequencyMHz !== undefined && { frequencyMHz }),
  };
  return success({ job: job.value, id, format });
}

/** What is to be made of a sensor for a wheel, if that makes sense. */
async function plan(tx: Tx, jobId: string, asked: ProgrammingAsked): Promise<Result<Plan>> {
  const found = await openJobWith(tx, jobId, asked.wheel);
  if (!found.ok) return found;
  const job = found.value;
  const { tpms } = job.vehicle;
  const part = await findPart(tx, asked.part);
  if (!part) return notInCatalogue(asked.part);
  if (part.kind === 'ready') return partIsReady(part.title);
  if (tpms.family === undefined || tpms.frequencyMHz === undefined) return noFamilyKnown();
  const format = formatFor(part, tpms);
  if (!format) return partUnheard(part.title, carWords(tpms));
  const id = asked.id === undefined ? await newIdFor(tx, job) : canonicalId(asked.id);
  const elsewhere = idIsAt(job, id, asked.wheel);
  return elsewhere ? idElsewhere(groupedId(id), elsewhere) : success({ job, format, id });
}

async function newIdFor(tx: Tx, job: Job): Promise<string> {
  const met = idsMet(job);
  for (;;) {
    const id = newSensorId(
      job.vehicle.tpms.idDigits ?? usualDigits,
      (candidate) => met.has(candidate),
      (below) => randomInt(below),
    );
    if (!(await idIsKnown(tx, id))) return id;
  }
}

const sensorWrite = (
  { key, mode, part, wheel }: Omit<ProgrammingAsked, 'part'> & { part?: string | undefined },
  { id, format: { family, frequencyMHz } }: { id: string; format: Partial<Format> },
  who: Person,
  serial?: string,
): SensorWrite => ({
  kind: 'sensor',
  key,
  askedAt: new Date().toISOString(),
  by: who.name,
  mode,
  ...(part !== undefined && { part }),
  wheel,
  asked: { id, family, frequencyMHz },
  ...(serial !== undefined && { serial }),
});

function refuseSensor(
  { formats, battery, writesLeft }: InCradle,
  format: Format,
  tpms: Tpms,
): Result<never> | undefined {
  const fits = formats.some(
    (own) => isRightType(tpms, { id: '', ...own }) === true && own.family === format.family,
  );
  if (!fits) return sensorUnheard(carWords(tpms));
  if (writesLeft !== undefined && writesLeft < 1) return sensorSpent();
  return battery === 'low' ? sensorWornOut() : undefined;
}

async function noteOn(id: string, key: string, note: (write: SensorWrite) => SensorWrite): Promise<void> {
  await inTransaction(async (tx) => {
    await jobs.lockJob(tx, id);
    const row = await jobs.findWrite(tx, key);
    if (row?.body.kind !== 'sensor' || row.body.readBackAt) return;
    await jobs.updateWrite(tx, row, note(row.body));
  });
}
