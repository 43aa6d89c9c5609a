import type { RunView } from '../../contract';
import {
  closedJob,
  keyInUse,
  runUnderWay,
  unknownJob,
  unknownProcedure,
  unknownRun,
  writeUnderWay,
} from '../../contract/refusals';
import { toJobFile } from '../../core/job/record';
import type { Job } from '../../core/job';
import type { Procedure } from '../../core/relearn/procedure';
import { retryOf } from '../../core/visit/teaching/retry';
import { replay, type Run } from '../../core/relearn/run';
import { expectedIds } from '../../core/visit/teaching/choice';
import { success, type Result } from '../../core/result';
import { inTransaction, type Tx } from '../../data/database';
import * as jobs from '../../data/jobs';
import { findProcedure } from '../../data/procedures';
import * as runs from '../../data/runs';
import { isUnderWay } from '../car-write';
import { deriveKey } from '../jobs/common';
import { refuseUnless, type Person } from '../people';
import { settleIn } from './tell';
import { runViewIn } from './view';

/**
 * Starts a relearn at a car, with what the car should hold afterwards where that is known. The same key again is the
 * same run. Problems: `unknown-job`, `handed-over`, `unknown-procedure`, `run-under-way`, `write-under-way`, `not-allowed`.
 */
export function startRun(
  jobId: string,
  asked: { key: string; procedure?: string | undefined; retryOf?: string | undefined },
  who: Person,
): Promise<Result<RunView>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'change-a-car');
    if (refusal) return refusal;
    const job = await jobs.lockJob(tx, jobId);
    if (!job) return unknownJob();
    const there = await runs.findRun(tx, asked.key);
    if (there) return there.jobId === jobId ? success(await runViewIn(tx, there)) : keyInUse();
    if (job.state !== 'open') return closedJob(job.state);
    const other = await openRunIn(tx, job.vehicleId);
    if (other) return runUnderWay(other.by);
    const [loaded] = await jobs.loadRecords(tx, [job]);
    const file = loaded && toJobFile(loaded.record);
    const plan = await planOf(tx, file, asked);
    if (!plan.ok) return plan;
    const { procedure, expected } = plan.value;
    if (file?.carWrites?.some(isUnderWay)) return writeUnderWay();
    const startedAt = new Date();
    const run = await runs.addRun(tx, {
      key: asked.key,
      jobId,
      vehicleId: job.vehicleId,
      procedure,
      startedAt,
      by: who.name,
    });
    const ids = { ...(file && expectedIds(file)), ...expected };
    if (Object.keys(ids).length > 0)
      await runs.addEvent(tx, run, deriveKey(asked.key, 'expect'), { t: 0, event: 'expect', ids });
    return success(await runViewIn(tx, run));
  });
}

interface Plan {
  procedure: Procedure;
  /** Beyond what is known of the job: what a run before this one heard. */
  expected: Run['expected'];
}

/** What is led through: a procedure on file, or the retry of a run of this job. Problems: `unknown-procedure`, `unknown-run`. */
async function planOf(
  tx: Tx,
  file: Job | undefined,
  asked: { procedure?: string | undefined; retryOf?: string | undefined },
): Promise<Result<Plan>> {
  if (asked.retryOf === undefined) {
    const stored = asked.procedure && (await findProcedure(tx, asked.procedure));
    return stored
      ? success({ procedure: { ...stored.procedure, version: stored.version }, expected: {} })
      : unknownProcedure();
  }
  const before = file?.runs?.find(({ key }) => key === asked.retryOf);
  if (!before) return unknownRun();
  const ended = replay(before.procedure, before.events);
  const procedure = retryOf(before.procedure, ended);
  return procedure
    ? success({ procedure, expected: { ...ended.expected, ...ended.heard } })
    : unknownProcedure();
}

/** The run that goes on at a car. One whose time has passed meanwhile is ended first. */
export async function openRunIn(tx: Tx, vehicleId: string): Promise<runs.RunRow | undefined> {
  const open = await runs.openRunAt(tx, vehicleId);
  if (!open) return undefined;
  await settleIn(tx, open);
  return open.endedAt ? undefined : open;
}
