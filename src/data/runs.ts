import type { ByFile } from '../core/job/by-file';
import type { RunEvent, RunRecord } from '../core/relearn/run';
import type { Procedure } from '../core/relearn/procedure';
import { runRecordSchema } from '../core/relearn/run/schema';
import type { Tx } from './database';
import { RunEventRow, RunRow } from './models';

export type { RunRow };

/** A run with all that happened in it, as it stands in the job file. */
export const recordOf = (
  {
    key,
    procedure,
    startedAt,
    by,
    byFile,
  }: Pick<RunRow, 'key' | 'procedure' | 'startedAt' | 'by' | 'byFile'>,
  events: readonly Pick<RunEventRow, 'body'>[],
): RunRecord =>
  runRecordSchema.parse({
    key,
    procedure,
    startedAt: startedAt.toISOString(),
    by,
    ...(byFile && { byFile }),
    events: events.map(({ body }) => body),
  });

export const findRun = (tx: Tx, key: string) => RunRow.findByPk(key, { transaction: tx });

/** The run that goes on at a car; there is at most one. */
export const openRunAt = (tx: Tx, vehicleId: string) =>
  RunRow.findOne({ where: { vehicleId, endedAt: null }, transaction: tx });

export const eventsOfRun = (tx: Tx, runKey: string) =>
  RunEventRow.findAll({ where: { runKey }, order: [['seq', 'ASC']], raw: true, transaction: tx });

export const findEvent = (tx: Tx, key: string) => RunEventRow.findOne({ where: { key }, transaction: tx });

export const addRun = (
  tx: Tx,
  run: {
    key: string;
    jobId: string;
    vehicleId: string;
    procedure: Procedure;
    startedAt: Date;
    by: string;
  } & {
    endedAt?: Date;
    byFile?: ByFile | undefined;
  },
) => RunRow.create({ endedAt: null, ...run, byFile: run.byFile ?? null }, { transaction: tx });

export const addEvent = (
  tx: Tx,
  { key, jobId }: Pick<RunRow, 'key' | 'jobId'>,
  eventKey: string,
  body: RunEvent,
) => RunEventRow.create({ key: eventKey, runKey: key, jobId, body }, { transaction: tx });

export const endRun = (tx: Tx, run: RunRow, endedAt: Date) => run.update({ endedAt }, { transaction: tx });

/** What ended it was taken back. */
export const reopenRun = (tx: Tx, run: RunRow) => run.update({ endedAt: null }, { transaction: tx });
