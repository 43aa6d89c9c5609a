import { Op, QueryTypes } from 'sequelize';
import type { JobRecord } from '../core/job/record';
import { z } from 'zod';
import type { CarWrite, Observation } from '../core/job';
import { carWriteSchema, headerSchema, issuesOf, observationSchema } from '../core/job/schema';
import { confirmationOf } from './confirmations';
import { database, type Tx } from './database';
import {
  CarWriteRow,
  ConfirmationRow,
  JobEditRow,
  JobRow,
  ObservationRow,
  RunEventRow,
  RunRow,
  SensorServiceRow,
  TakenBackRow,
} from './models';
import { recordOf } from './runs';
import { serviceFrom } from './sensor-services';

export type { JobRow };

/** A job with all that was recorded on it. */
export interface StoredJob {
  row: JobRow;
  record: JobRecord;
}

export const findJobByKey = (tx: Tx, key: string) => JobRow.findOne({ where: { key }, transaction: tx });

export const findJob = (tx: Tx, id: string) => JobRow.findByPk(id, { transaction: tx });

/** The job, locked until the transaction ends, so that two changes to it come one after the other. */
export const lockJob = (tx: Tx, id: string) => JobRow.findByPk(id, { transaction: tx, lock: tx.LOCK.UPDATE });

export const createJob = (
  tx: Tx,
  values: Pick<JobRow, 'id' | 'key' | 'vehicleId' | 'header' | 'openedBy' | 'openedAt'> &
    Partial<Pick<JobRow, 'state' | 'handedOverAt' | 'handedOverBy' | 'cancelledAt'>>,
) =>
  JobRow.create(
    { state: 'open', version: 1, handedOverAt: null, handedOverBy: null, ...values },
    { transaction: tx },
  );

/** A record that is stored in a shape nobody knows: which it is, and where it does not fit. */
export class Unreadable extends Error {
  constructor(readonly what: string) {
    super(`${what} is stored in a shape nobody knows`);
  }
}

/** As `loadReadable`. Throws `Unreadable` where any of them cannot be read. */
export async function loadRecords(tx: Tx, rows: JobRow[]): Promise<StoredJob[]> {
  return (await loadReadable(tx, rows)).map((job) => {
    if (job.record instanceof Unreadable) throw job.record;
    return { row: job.row, record: job.record };
  });
}

/**
 * Everything recorded on some jobs, in a few queries however many they are. A job with a record that cannot be read is told
 * as that: half of what was seen may look like a sound car.
 */
export async function loadReadable(
  tx: Tx,
  rows: JobRow[],
): Promise<{ row: JobRow; record: JobRecord | Unreadable }[]> {
  const jobId = rows.map(({ id }) => id);
  const inOrder = {
    where: { jobId },
    order: [['seq', 'ASC']] as [string, string][],
    raw: true as const,
    transaction: tx,
  };
  const observations = await ObservationRow.findAll(inOrder);
  const takenBack = new Map(
    (await TakenBackRow.findAll({ where: { jobId }, transaction: tx })).map((one) => [
      one.observationKey,
      one,
    ]),
  );
  const writes = await CarWriteRow.findAll(inOrder);
  const confirmations = await ConfirmationRow.findAll(inOrder);
  const runs = await RunRow.findAll(inOrder);
  const events = runs.length > 0 ? await RunEventRow.findAll(inOrder) : [];
  const services = await SensorServiceRow.findAll({ ...inOrder, attributes: ['key', 'jobId', 'body'] });
  const observationsOf = groupByJob(observations);
  const writesOf = groupByJob(writes);
  const confirmationsOf = groupByJob(confirmations);
  const runsOf = groupByJob(runs);
  const servicesOf = groupByJob(services);
  const eventsOf = groupByJob(events);
  const recordOfJob = (row: JobRow): JobRecord => ({
    header: stored(headerSchema, row.header, `job ${row.id}`),
    entries: (observationsOf.get(row.id) ?? []).map(({ key, body, replaces }) => ({
      key,
      observation: stored(observationSchema, body, `observation ${key}`),
      ...(replaces && { replaces }),
      ...takenBackPart(takenBack.get(key)),
    })),
    writes: (writesOf.get(row.id) ?? []).map(({ key, body }) => stored(carWriteSchema, body, `write ${key}`)),
    runs: (runsOf.get(row.id) ?? []).map((run) =>
      readAs(`relearn ${run.key}`, () =>
        recordOf(
          run,
          (eventsOf.get(row.id) ?? []).filter(({ runKey }) => runKey === run.key),
        ),
      ),
    ),
    services: (servicesOf.get(row.id) ?? []).map((service) =>
      readAs(`sensor service ${service.key}`, () => serviceFrom(service)),
    ),
    confirmations: (confirmationsOf.get(row.id) ?? []).map(confirmationOf),
  });
  return rows.map((row) => ({ row, record: unlessUnreadable(() => recordOfJob(row)) }));
}

function unlessUnreadable<Value>(read: () => Value): Value | Unreadable {
  try {
    return read();
  } catch (error) {
    if (error instanceof Unreadable) return error;
    throw error;
  }
}

const takenBackPart = (row: TakenBackRow | undefined) =>
  row && { takenBack: { at: row.at.toISOString(), by: row.by, reason: row.reason } };

/** JSON of the database is an edge too: an older version, or somebody's hand, may have written it. */
const stored = <Value>(schema: z.ZodType<Value>, json: unknown, what: string): Value =>
  readAs(what, () => schema.parse(json));

function readAs<Value>(what: string, read: () => Value): Value {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    const { path } = issuesOf(error)[0] ?? { path: '' };
    throw new Unreadable(path ? `${what} (at ${path})` : what);
  }
}

function groupByJob<Item extends { jobId: string }>(items: Item[]): Map<string, Item[]> {
  const groups = new Map<string, Item[]>();
  for (const item of items) {
    const group = groups.get(item.jobId);
    if (group) group.push(item);
    else groups.set(item.jobId, [item]);
  }
  return groups;
}

export async function loadJob(tx: Tx, id: string): Promise<StoredJob | undefined> {
  const row = await JobRow.findByPk(id, { transaction: tx });
  return row ? (await loadRecords(tx, [row]))[0] : undefined;
}

/** A job in the Yard, and all a verdict on it rests on, as revisions. */
export interface YardRow extends Pick<
  JobRow,
  'id' | 'number' | 'state' | 'openedAt' | 'openedBy' | 'handedOverAt' | 'revision' | 'vehicleId'
> {
  surroundings: string;
  /** The newest confirmation of any job from before this one was opened, by its sequence; null: none. */
  learned: string | null;
}

/** The most jobs a Yard shows. */
const yardLines = 200;

/** The Yard: all that is open, and what was handed over since a moment; the newest first. One query. */
export const loadYard = (handedOverSince: Date): Promise<YardRow[]> =>
  database().query<YardRow>(
    `SELECT id, number, state, opened_at AS "openedAt", opened_by AS "openedBy", handed_over_at AS "handedOverAt",
       revision, vehicle_id AS "vehicleId",
       (SELECT revision FROM surroundings) AS surroundings,
       (SELECT max(seq) FROM confirmations WHERE confirmations.at < jobs.opened_at) AS learned
     FROM jobs
     WHERE state = 'open' OR (state = 'handed-over' AND handed_over_at >= $since)
       OR (state = 'cancelled' AND cancelled_at >= $since)
     ORDER BY opened_at DESC LIMIT ${yardLines}`,
    { bind: { since: handedOverSince }, type: QueryTypes.SELECT },
  );

/** What a view of one job rests on, as revisions; undefined where there is no such job. */
export async function stampOf(
  id: string,
): Promise<Pick<YardRow, 'revision' | 'surroundings' | 'learned'> | undefined> {
  const [stamp] = await database().query<Pick<YardRow, 'revision' | 'surroundings' | 'learned'>>(
    `SELECT revision, (SELECT revision FROM surroundings) AS surroundings,
       (SELECT max(seq) FROM confirmations WHERE confirmations.at < jobs.opened_at) AS learned
     FROM jobs WHERE id = $id`,
    { bind: { id }, type: QueryTypes.SELECT },
  );
  return stamp;
}

export const loadJobs = async (tx: Tx, ids: readonly string[]): ReturnType<typeof loadReadable> =>
  ids.length === 0
    ? []
    : loadReadable(tx, await JobRow.findAll({ where: { id: [...ids] }, transaction: tx }));

export const jobsOfVehicle = (tx: Tx, vehicleId: string) =>
  JobRow.findAll({ where: { vehicleId }, order: [['openedAt', 'DESC']], transaction: tx });

export async function saveEdit(
  tx: Tx,
  row: JobRow,
  edit: { key: string; by: string; changes: JobEditRow['changes'] },
  next: Partial<
    Pick<JobRow, 'header' | 'state' | 'handedOverAt' | 'handedOverBy' | 'cancelledAt' | 'vehicleId'>
  >,
): Promise<void> {
  const version = row.version + 1;
  await JobEditRow.create({ jobId: row.id, version, at: new Date(), ...edit }, { transaction: tx });
  await row.update({ ...next, version }, { transaction: tx });
}

export const findEdit = (tx: Tx, key: string) => JobEditRow.findOne({ where: { key }, transaction: tx });

export const editsSince = (tx: Tx, jobId: string, version: number) =>
  JobEditRow.findAll({
    where: { jobId, version: { [Op.gt]: version } },
    order: [['version', 'ASC']],
    transaction: tx,
  });

export const findObservation = (tx: Tx, key: string) =>
  ObservationRow.findOne({ where: { key }, transaction: tx });

export const findCorrectionOf = (tx: Tx, key: string) =>
  ObservationRow.findOne({ where: { replaces: key }, transaction: tx });

export const addObservation = (
  tx: Tx,
  jobId: string,
  by: string,
  entry: { key: string; observation: Observation; replaces?: string },
) => ObservationRow.create(valuesOf(jobId, by, entry), { transaction: tx });

/** As `addObservation`, for many in one go. */
export const addObservations = (
  tx: Tx,
  jobId: string,
  by: string,
  entries: readonly { key: string; observation: Observation; replaces?: string }[],
) =>
  ObservationRow.bulkCreate(
    entries.map((entry) => valuesOf(jobId, by, entry)),
    { transaction: tx },
  );

const valuesOf = (
  jobId: string,
  by: string,
  { key, observation, replaces }: { key: string; observation: Observation; replaces?: string },
) => ({
  key,
  jobId,
  kind: observation.kind,
  at: new Date(observation.at),
  body: observation,
  replaces: replaces ?? null,
  recordedBy: by,
});

/** How many readings a job holds, corrected ones too, and how many bytes they are. */
export async function amountOf(tx: Tx, jobId: string): Promise<{ count: number; bytes: number }> {
  const [amount] = await database().query<{ count: number; bytes: number }>(
    `SELECT count(*)::int AS count, coalesce(sum(length(body::text)), 0)::int AS bytes
     FROM observations WHERE job_id = $jobId`,
    { bind: { jobId }, type: QueryTypes.SELECT, transaction: tx },
  );
  return amount ?? { count: 0, bytes: 0 };
}

/** Which job holds each of these keys, where one does. */
export async function jobsHolding(tx: Tx, keys: readonly string[]): Promise<Map<string, string>> {
  const rows = await ObservationRow.findAll({
    where: { key: [...keys] },
    attributes: ['key', 'jobId'],
    raw: true,
    transaction: tx,
  });
  return new Map(rows.map(({ key, jobId }) => [key, jobId]));
}

export const findTakenBack = (tx: Tx, key: string) => TakenBackRow.findByPk(key, { transaction: tx });

export const addTakenBack = (
  tx: Tx,
  jobId: string,
  observationKey: string,
  { by, reason, at = new Date() }: { by: string; reason: string; at?: Date },
) => TakenBackRow.create({ observationKey, jobId, at, by, reason }, { transaction: tx });

export const takenBackOf = (tx: Tx, jobId: string) =>
  TakenBackRow.findAll({ where: { jobId }, transaction: tx });

export const observationsOf = (tx: Tx, jobId: string) =>
  ObservationRow.findAll({ where: { jobId }, order: [['seq', 'ASC']], transaction: tx });

/** The job that is open for a vehicle, if there is one: the newest. */
export const openJobOf = (tx: Tx, vehicleId: string) =>
  JobRow.findOne({ where: { vehicleId, state: 'open' }, order: [['openedAt', 'DESC']], transaction: tx });

export const findWrite = (tx: Tx, key: string) => CarWriteRow.findOne({ where: { key }, transaction: tx });

export const addWrite = (tx: Tx, jobId: string, by: string, write: CarWrite) =>
  CarWriteRow.create(
    { ...columnsOf(write), key: write.key, jobId, kind: write.kind, askedBy: by },
    { transaction: tx },
  );

/** When another job of the same car last wrote to it. */
export async function lastWriteElsewhere(tx: Tx, { id, vehicleId }: JobRow): Promise<Date | undefined> {
  const [found] = await database().query<{ at: Date }>(
    `SELECT asked_at AS at FROM car_writes JOIN jobs ON jobs.id = job_id
     WHERE vehicle_id = $vehicleId AND job_id <> $id AND car_writes.kind <> 'sensor' AND answer IS DISTINCT FROM 'no'
     ORDER BY asked_at DESC LIMIT 1`,
    { bind: { vehicleId, id }, type: QueryTypes.SELECT, transaction: tx },
  );
  return found?.at;
}

/** Fills in what became known of a write. */
export const updateWrite = (tx: Tx, row: CarWriteRow, write: CarWrite) =>
  row.update(columnsOf(write), { transaction: tx });

function columnsOf(write: CarWrite) {
  const time = (at: string | undefined) => (at === undefined ? null : new Date(at));
  return {
    askedAt: new Date(write.askedAt),
    answeredAt: time(write.answeredAt),
    answer: write.answer ?? null,
    readBackAt: time(write.readBackAt),
    body: write,
  };
}
