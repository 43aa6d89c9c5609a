import { Op, QueryTypes, type Attributes } from 'sequelize';
import type { JobRecord } from '../core/job/record';
import { z } from 'zod';
import type { CarWrite } from '../core/job';
import { carWriteSchema, headerSchema, observationSchema } from '../core/job/schema';
import { confirmationOf } from './confirmations';
import { database, type Tx } from './database';
import type { RunEventRow } from './models';
import { CarWriteRow, JobEditRow, JobRow } from './models';
import { recordOf } from './runs';
import { serviceFrom } from './sensor-services';
import { issuesOf } from '../core/result/issues';

export type { JobRow };

/** A job as its row says it. */
export type JobFacts = Attributes<JobRow>;

/** A job with all that was recorded on it. */
export interface StoredJob {
  row: JobFacts;
  record: JobRecord;
  /** All that every job is judged by beside its own facts, as one name: it is another once any of it changed. */
  surroundings: string;
}

const surroundingsName =
  "concat(current_schema(), '/', (SELECT revision FROM surroundings), '/', (SELECT max(seq) FROM confirmations))";

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
export const loadRecords = async (tx: Tx, rows: readonly JobFacts[]): Promise<StoredJob[]> =>
  (await loadReadable(tx, idsOf(rows))).map(orThrow);

function orThrow({ record, ...job }: MaybeReadable): StoredJob {
  if (record instanceof Unreadable) throw record;
  return { ...job, record };
}

const idsOf = (rows: readonly { id: string }[]) => rows.map(({ id }) => id);

/** A job, or which of its records cannot be read. */
type MaybeReadable = Omit<StoredJob, 'record'> & { record: JobRecord | Unreadable };

/**
 * Everything recorded on some jobs, in their order, in one query however many they are. A job with a record that cannot be
 * read is told as that: half of what was seen may look like a sound car.
 */
export async function loadReadable(tx: Tx | undefined, ids: readonly string[]): Promise<MaybeReadable[]> {
  const found = ids.length === 0 ? [] : await partsOf(tx, ids);
  const byId = new Map(found.map((parts) => [parts.id, parts]));
  return ids.flatMap((id) => {
    const parts = byId.get(id);
    if (!parts) return [];
    const { observations, takenBack, writes, runs, events, services, confirmations, surroundings, ...row } =
      parts;
    const recorded = { observations, takenBack, writes, runs, events, services, confirmations };
    return [{ row, surroundings, record: unlessUnreadable(() => recordFrom(row, recorded)) }];
  });
}

function recordFrom(row: JobFacts, parts: Recorded): JobRecord {
  const takenBack = new Map(parts.takenBack?.map(({ key, ...one }) => [key, one]));
  const eventsOf = (run: string) => (parts.events ?? []).filter(({ runKey }) => runKey === run);
  return {
    header: stored(headerSchema, row.header, `job ${row.id}`),
    entries: (parts.observations ?? []).map(({ key, body, replaces }) => {
      const back = takenBack.get(key);
      return {
        key,
        observation: stored(observationSchema, body, `observation ${key}`),
        ...(replaces && { replaces }),
        ...(back && { takenBack: { ...back, at: iso(back.at) } }),
      };
    }),
    writes: (parts.writes ?? []).map(({ key, body }) => stored(carWriteSchema, body, `write ${key}`)),
    runs: (parts.runs ?? []).map(({ startedAt, ...run }) =>
      readAs(`relearn ${run.key}`, () =>
        recordOf({ ...run, startedAt: new Date(startedAt) }, eventsOf(run.key)),
      ),
    ),
    services: (parts.services ?? []).map((service) =>
      readAs(`sensor service ${service.key}`, () => serviceFrom(service)),
    ),
    confirmations: (parts.confirmations ?? []).map(({ at, ...said }) =>
      confirmationOf({ ...said, at: new Date(at) }),
    ),
  };
}

/** What was recorded on one job, as the database says it in JSON: times are text. */
interface Recorded {
  observations: { key: string; body: unknown; replaces: string | null }[] | null;
  takenBack: { key: string; at: string; by: string; reason: string }[] | null;
  writes: { key: string; body: unknown }[] | null;
  runs: (Omit<Parameters<typeof recordOf>[0], 'startedAt'> & { startedAt: string })[] | null;
  events: { runKey: string; body: RunEventRow['body'] }[] | null;
  services: Parameters<typeof serviceFrom>[0][] | null;
  confirmations: (Omit<Parameters<typeof confirmationOf>[0], 'at'> & { at: string })[] | null;
}

const iso = (text: string): string => new Date(text).toISOString();

/** Everything recorded on some jobs, in the order it was, in one query. */
const partsOf = (tx: Tx | undefined, ids: readonly string[]) =>
  database().query<JobFacts & Recorded & Pick<StoredJob, 'surroundings'>>(
    `SELECT id, number, key, vehicle_id AS "vehicleId", state, version, revision, header, opened_by AS "openedBy",
       opened_at AS "openedAt", handed_over_at AS "handedOverAt", handed_over_by AS "handedOverBy",
       cancelled_at AS "cancelledAt", ${surroundingsName} AS surroundings,
       (SELECT json_agg(json_build_object('key', key, 'body', body, 'replaces', replaces) ORDER BY seq)
         FROM observations WHERE job_id = jobs.id) AS observations,
       (SELECT json_agg(json_build_object('key', observation_key, 'at', at, 'by', by, 'reason', reason))
         FROM taken_back WHERE job_id = jobs.id) AS "takenBack",
       (SELECT json_agg(json_build_object('key', key, 'body', body) ORDER BY seq)
         FROM car_writes WHERE job_id = jobs.id) AS writes,
       (SELECT json_agg(json_build_object('key', key, 'procedure', procedure, 'startedAt', started_at, 'by', by,
           'byFile', by_file) ORDER BY seq)
         FROM runs WHERE job_id = jobs.id) AS runs,
       (SELECT json_agg(json_build_object('runKey', run_key, 'body', body) ORDER BY seq)
         FROM run_events WHERE job_id = jobs.id) AS events,
       (SELECT json_agg(json_build_object('key', key, 'body', body) ORDER BY seq)
         FROM sensor_services WHERE job_id = jobs.id) AS services,
       (SELECT json_agg(json_build_object('key', key, 'at', at, 'by', by, 'parts', parts, 'byFile', by_file) ORDER BY seq)
         FROM confirmations WHERE job_id = jobs.id) AS confirmations
     FROM jobs WHERE id = ANY($ids)`,
    { bind: { ids: [...ids] }, type: QueryTypes.SELECT, ...(tx && { transaction: tx }) },
  );

function unlessUnreadable<Value>(read: () => Value): Value | Unreadable {
  try {
    return read();
  } catch (error) {
    if (error instanceof Unreadable) return error;
    throw error;
  }
}

/** JSON of the database is an edge too: an older version, or somebody's hand, may have written it. */
const stored = <Value>(schema: z.ZodType<Value>, json: unknown, what: string): Value =>
  readAs(what, () => schema.parse(json));

function readAs<Value>(what: string, read: () => Value): Value {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    const { path } = issuesOf(error)[0] ?? { path: '' };
    throw new Unreadable(path ? `${what} (field ${path})` : what);
  }
}

/** Everything recorded on a job, in one query: it needs no transaction of its own. Throws `Unreadable`. */
export async function loadJob(tx: Tx | undefined, id: string): Promise<StoredJob | undefined> {
  const [job] = await loadReadable(tx, [id]);
  return job && orThrow(job);
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

/** The newest confirmation of any job from before one was opened. */
const learnedBefore = `(SELECT seq FROM confirmations WHERE confirmations.at < jobs.opened_at
  ORDER BY confirmations.at DESC, seq DESC LIMIT 1) AS learned`;

/** The Yard: all that is open, and what was handed over since a moment; the newest first. One query, each part by its index. */
export const loadYard = (handedOverSince: Date): Promise<YardRow[]> =>
  database().query<YardRow>(
    `SELECT id, number, state, opened_at AS "openedAt", opened_by AS "openedBy", handed_over_at AS "handedOverAt",
       revision, vehicle_id AS "vehicleId", (SELECT revision FROM surroundings) AS surroundings, ${learnedBefore}
     FROM (
       (SELECT * FROM jobs WHERE state = 'open' ORDER BY opened_at DESC LIMIT ${yardLines})
       UNION ALL (SELECT * FROM jobs WHERE state = 'handed-over' AND handed_over_at >= $since
         ORDER BY handed_over_at DESC LIMIT ${yardLines})
       UNION ALL (SELECT * FROM jobs WHERE state = 'cancelled' AND cancelled_at >= $since
         ORDER BY cancelled_at DESC LIMIT ${yardLines})
     ) AS jobs ORDER BY opened_at DESC LIMIT ${yardLines}`,
    { bind: { since: handedOverSince }, type: QueryTypes.SELECT },
  );

/** What a view of one job rests on, as it comes with the job too; undefined where there is no such job. */
export async function stampOf(id: string): Promise<Stamp | undefined> {
  const [stamp] = await database().query<Stamp>(
    `SELECT revision, ${surroundingsName} AS surroundings FROM jobs WHERE id = $id`,
    { bind: { id }, type: QueryTypes.SELECT },
  );
  return stamp;
}

/** `revision`: counts all that was recorded on the job. */
export type Stamp = Pick<JobFacts, 'revision'> & Pick<StoredJob, 'surroundings'>;

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
