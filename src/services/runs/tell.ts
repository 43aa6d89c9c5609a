import type { RunView, Told } from '../../contract';
import {
  closedJob,
  invalidInput,
  keyInUse,
  runTooLong,
  unknownJob,
  unknownRun,
} from '../../contract/refusals';
import type { Observation } from '../../core/job';
import { observationSchema } from '../../core/job/schema';
import {
  hasEnded,
  replay,
  timePasses,
  type Run,
  type RunEvent,
  type RunRecord,
} from '../../core/relearn/run';
import { mostEvents } from '../../core/relearn/run/schema';
import { success, type Result } from '../../core/result';
import { inTransaction, type Tx } from '../../data/database';
import * as jobs from '../../data/jobs';
import * as observations from '../../data/observations';
import * as runs from '../../data/runs';
import { deriveKey } from '../jobs/common';
import { recordIn } from '../jobs/record';
import { refuseUnless, type Person } from '../people';
import { carFeels } from './practice';
import { runViewIn, secondsSince } from './view';
import { issuesOf } from '../../core/result/issues';
import { observedIn, relearnOf } from '../../core/job/seen-in-run';

/** What is told, with what a device saw at the same moment beyond the event itself; null: that is recorded already. */
export interface ToldWith extends Told {
  observed?: Observation | null;
}

/**
 * Tells what happened in a run, in the order it happened. What was told before changes nothing. What of it is an
 * observation of the job is recorded as one, and so is what the run says of the car once it has ended.
 * Problems: `unknown-run`, `handed-over`, `run-too-long`, `key-in-use`, `not-allowed`, and those of `recordIn`.
 */
export async function tellRun(key: string, told: readonly ToldWith[], who: Person): Promise<Result<RunView>> {
  const refusal = refuseUnless(who, 'record-readings');
  if (refusal) return refusal;
  const done = await inTransaction(async (tx) => {
    const found = await runs.findRun(tx, key);
    if (!found) return unknownRun();
    const job = await jobs.lockJob(tx, found.jobId);
    // Others may have told something while this waited for the job.
    const row = await runs.findRun(tx, key);
    if (!job || !row) return unknownJob();
    const fresh = await tellIn(tx, row, job.state === 'open' ? undefined : job.state, told, who);
    if (!fresh.ok) return fresh;
    return success({ fresh: fresh.value, view: await runViewIn(tx, row) });
  });
  if (!done.ok) return done;
  await carFeels(done.value.view, done.value.fresh);
  return success(done.value.view);
}

/** Those of what is told that were not told before. */
async function tellIn(
  tx: Tx,
  row: runs.RunRow,
  closed: 'handed-over' | 'cancelled' | undefined,
  told: readonly ToldWith[],
  who: Person,
): Promise<Result<RunEvent[]>> {
  const record = runs.recordOf(row, await runs.eventsOfRun(tx, row.key));
  const fresh: RunEvent[] = [];
  for (const { key, agoS, happening, observed } of told) {
    const there = await runs.findEvent(tx, key);
    if (there && there.runKey !== row.key) return keyInUse();
    if (there) continue;
    if (closed) return closedJob(closed);
    if (record.events.length + fresh.length >= mostEvents) return runTooLong();
    const last = fresh.at(-1)?.t ?? record.events.at(-1)?.t ?? 0;
    const t = thousandths(Math.max(last, secondsSince(row.startedAt) - agoS));
    const event: RunEvent = { ...happening, t, key, by: who.name };
    const recorded = await recordObserved(
      tx,
      row,
      key,
      observed === undefined ? observedIn(event, atOf(row, t)) : observed,
      who,
    );
    if (!recorded.ok) return recorded;
    await runs.addEvent(tx, row, key, event);
    fresh.push(event);
  }
  if (fresh.length > 0 && !row.endedAt) {
    const events = [...record.events, ...fresh];
    await endWhere(tx, row, replay(record.procedure, events), { ...record, events });
  }
  return success(fresh);
}

async function recordObserved(
  tx: Tx,
  { jobId }: runs.RunRow,
  key: string,
  observation: Observation | null | undefined,
  who: Person,
): Promise<Result<null>> {
  if (!observation) return success(null);
  const parsed = observationSchema.safeParse(observation);
  if (!parsed.success) return invalidInput(issuesOf(parsed.error));
  return recordIn(tx, jobId, [{ key: deriveKey(key, 'observed'), observation: parsed.data }], who);
}

/** Ends a run whose time has passed while nobody told anything. */
export async function settleIn(tx: Tx, row: runs.RunRow): Promise<void> {
  const record = runs.recordOf(row, await runs.eventsOfRun(tx, row.key));
  const t = thousandths(secondsSince(row.startedAt));
  const now = timePasses(record.procedure, replay(record.procedure, record.events), t);
  if (!hasEnded(now)) return;
  await runs.addEvent(tx, row, deriveKey(row.key, 'time'), { t, event: 'tick' });
  await endWhere(tx, row, now, record);
}

async function endWhere(
  tx: Tx,
  row: runs.RunRow,
  now: Run,
  { procedure, by = '' }: RunRecord,
): Promise<void> {
  if (!hasEnded(now)) return;
  const endedAt = new Date();
  await runs.endRun(tx, row, endedAt);
  const observation = relearnOf(procedure, now, endedAt.toISOString());
  if (observation)
    await observations.add(tx, row.jobId, by, { key: deriveKey(row.key, 'relearn'), observation });
}

const atOf = ({ startedAt }: runs.RunRow, t: number): string =>
  new Date(startedAt.getTime() + t * 1000).toISOString();

const thousandths = (seconds: number): number => Math.round(Math.max(0, seconds) * 1000) / 1000;
