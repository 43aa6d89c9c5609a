import type { RunView, Told } from '../../contract';
import {
  closedJob,
  invalidInput,
  keyInUse,
  runTooLong,
  runUnderWay,
  unknownJob,
  unknownRun,
} from '../../contract/refusals';
import type { Observation } from '../../core/job';
import { observationSchema } from '../../core/job/schema';
import {
  hasEnded,
  lastAct,
  replay,
  timePasses,
  type Happening,
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
  const slips: RunEvent[] = [];
  for (const { key, agoS, happening, observed } of told) {
    const there = await runs.findEvent(tx, key);
    if (there && there.runKey !== row.key) return keyInUse();
    if (there) continue;
    if (closed) return closedJob(closed);
    const events = [...record.events, ...fresh];
    if (events.length >= mostEvents) return runTooLong();
    const t = thousandths(Math.max(events.at(-1)?.t ?? 0, secondsSince(row.startedAt) - agoS));
    const event: RunEvent = { ...signed(happening, key, who), t };
    const slip = event.event === 'back' ? takenBackAt({ ...record, events }, t) : undefined;
    const other = slip && row.endedAt ? await runs.openRunAt(tx, row.vehicleId) : null;
    // It cannot go on beside one that has begun at this car since.
    if (other) return runUnderWay(other.by);
    if (slip) slips.push(slip);
    const recorded = await recordObserved(
      tx,
      row,
      key,
      observed === undefined ? observedNow(row, event, slip) : observed,
      who,
    );
    if (!recorded.ok) return recorded;
    await runs.addEvent(tx, row, key, event);
    fresh.push(event);
  }
  const after = { ...record, events: [...record.events, ...fresh] };
  if (slips.length > 0) await unsay(tx, row, slips, after, who);
  if (fresh.length > 0 && !row.endedAt) await endWhere(tx, row, replay(after.procedure, after.events), after);
  return success(fresh);
}

/** What is told, with its key and who tells it; what stands in for a slip has them too, and can be taken back as well. */
const signed = (happening: Happening, key: string, { name: by }: Person): Happening =>
  happening.event === 'back' && happening.instead
    ? { ...happening, instead: { ...happening.instead, key, by }, key, by }
    : { ...happening, key, by };

/** The act that a `back` at this time takes away; undefined: it is too late. */
const takenBackAt = ({ procedure, events }: RunRecord, t: number): RunEvent | undefined =>
  lastAct(timePasses(procedure, replay(procedure, events), t))?.event;

/** What of an event is an observation; of one that stands in for a slip, at the time of the slip. */
function observedNow(row: runs.RunRow, event: RunEvent, slip: RunEvent | undefined): Observation | undefined {
  if (event.event !== 'back') return observedIn(event, atOf(row, event.t));
  return slip && event.instead && observedIn(event.instead, atOf(row, slip.t));
}

/** What was a slip is out of all judgement too, and a run that had ended by it goes on. */
async function unsay(
  tx: Tx,
  row: runs.RunRow,
  slips: readonly RunEvent[],
  { events }: RunRecord,
  who: Person,
): Promise<void> {
  const keys = slips.flatMap(({ key }) => (typeof key === 'string' ? [deriveKey(key, 'observed')] : []));
  if (row.endedAt) {
    await runs.reopenRun(tx, row);
    keys.push(...Array.from({ length: backsIn(events) }, (_, backs) => relearnKey(row, backs)));
  }
  for (const key of keys) {
    const seen = await observations.find(tx, key);
    if (seen?.jobId !== row.jobId || (await observations.findTakenBack(tx, key))) continue;
    await observations.addTakenBack(tx, row.jobId, key, {
      by: who.name,
      reason: 'It was a slip, taken back in the relearn.',
    });
  }
}

/** A run says what it came to once for each time it ended: as often as something was taken back, and once more. */
const relearnKey = ({ key }: runs.RunRow, backs: number): string =>
  deriveKey(key, backs === 0 ? 'relearn' : `relearn ${backs}`);
const backsIn = (events: readonly RunEvent[]): number =>
  events.filter(({ event }) => event === 'back').length;

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
  { procedure, by = '', events }: RunRecord,
): Promise<void> {
  if (!hasEnded(now)) return;
  const endedAt = new Date();
  await runs.endRun(tx, row, endedAt);
  const observation = relearnOf(procedure, now, endedAt.toISOString());
  if (observation)
    await observations.add(tx, row.jobId, by, { key: relearnKey(row, backsIn(events)), observation });
}

const atOf = ({ startedAt }: runs.RunRow, t: number): string =>
  new Date(startedAt.getTime() + t * 1000).toISOString();

const thousandths = (seconds: number): number => Math.round(Math.max(0, seconds) * 1000) / 1000;
