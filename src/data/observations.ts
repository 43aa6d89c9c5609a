import { QueryTypes } from 'sequelize';
import type { Observation } from '../core/job';
import { database, type Tx } from './database';
import type { JobFacts } from './jobs';
import { ObservationRow, TakenBackRow } from './models';

/** What was seen at jobs, as rows: added, put right by a later one, or taken back, and never changed. */

export const find = (tx: Tx, key: string) => ObservationRow.findOne({ where: { key }, transaction: tx });

export const findCorrectionOf = (tx: Tx, key: string) =>
  ObservationRow.findOne({ where: { replaces: key }, transaction: tx });

export const add = (
  tx: Tx,
  jobId: string,
  by: string,
  entry: { key: string; observation: Observation; replaces?: string },
) => ObservationRow.create(valuesOf(jobId, by, entry), { returning: false, transaction: tx });

/**
 * As `add`, in one statement, where the job is open and nothing was recorded on it since this revision: gives back the
 * revision it has then; undefined where it is not so, and nothing was added. Throws where the key is in use.
 */
export async function addAt(
  jobId: string,
  revision: string,
  by: string,
  entry: { key: string; observation: Observation },
): Promise<string | undefined> {
  const { key, kind, at, body } = valuesOf(jobId, by, entry);
  const added = await database().query(
    `WITH job AS (SELECT id FROM jobs WHERE id = $jobId AND state = 'open' AND revision = $revision FOR UPDATE)
     INSERT INTO observations (key, job_id, kind, at, body, recorded_by)
     SELECT $key, id, $kind, $at, $body, $by FROM job RETURNING key`,
    {
      bind: { jobId, revision, key, kind, at, body: JSON.stringify(body), by },
      type: QueryTypes.SELECT,
    },
  );
  // What is stored with one statement counts as one.
  return added.length > 0 ? String(Number(revision) + 1) : undefined;
}

/** As `add`, for many in one go. */
export const addAll = (
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

/** How many readings a job holds, corrected ones too, and how many bytes they are; and which job holds each of some keys. */
export interface Held {
  count: number;
  bytes: number;
  holders: Map<string, string>;
}

type HeldColumns = Omit<Held, 'holders'> & { holders: Record<string, string> | null };

const heldColumns = (jobId: string) =>
  `(SELECT count(*)::int FROM observations WHERE job_id = ${jobId}) AS count,
   (SELECT coalesce(sum(length(body::text)), 0)::int FROM observations WHERE job_id = ${jobId}) AS bytes,
   (SELECT json_object_agg(key, job_id) FROM observations WHERE key = ANY($keys)) AS holders`;

const heldFrom = ({ count, bytes, holders }: HeldColumns): Held => ({
  count,
  bytes,
  holders: new Map(Object.entries(holders ?? {})),
});

export async function heldOf(tx: Tx, jobId: string, keys: readonly string[]): Promise<Held> {
  const [held] = await database().query<HeldColumns>(`SELECT ${heldColumns('$jobId')}`, {
    bind: { jobId, keys: [...keys] },
    type: QueryTypes.SELECT,
    transaction: tx,
  });
  return heldFrom(held ?? { count: 0, bytes: 0, holders: null });
}

/**
 * A job, locked until the transaction ends, with what it holds, in one query. Where it waited for another change, what it
 * holds is from before that: two of one key are then kept apart by the key, which no two observations share.
 */
export async function lockToRecord(
  tx: Tx,
  id: string,
  keys: readonly string[],
): Promise<{ row: Pick<JobFacts, 'state' | 'header'>; held: Held } | undefined> {
  const [found] = await database().query<Pick<JobFacts, 'state' | 'header'> & HeldColumns>(
    `SELECT state, header, ${heldColumns('jobs.id')} FROM jobs WHERE id = $id FOR UPDATE`,
    { bind: { id, keys: [...keys] }, type: QueryTypes.SELECT, transaction: tx },
  );
  return found && { row: found, held: heldFrom(found) };
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

export const ofJob = (tx: Tx, jobId: string) =>
  ObservationRow.findAll({ where: { jobId }, order: [['seq', 'ASC']], transaction: tx });
