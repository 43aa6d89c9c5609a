import type { AnswerOf, BodyOf, RunView } from '../../contract';
import { noPractice, noVinForPractice, unknownRun } from '../../contract/refusals';
import { replay, type RunEvent } from '../../core/relearn/run';
import { success, type Result } from '../../core/result';
import { inTransaction } from '../../data/database';
import { findJob } from '../../data/jobs';
import { findRun } from '../../data/runs';
import * as bay from '../../devices/bay';
import { practiceBay } from '../devices';
import { refuseUnless, type Person } from '../people';

/** In the practice bay the simulated car feels what hands do, and says what it has to say by itself. */

const ofHands: readonly RunEvent['event'][] = ['set', 'press', 'release', 'chosen', 'taught', 'speed'];

/** Lets the simulated car feel what was told just now. A real one has felt it already; one that is away misses it. */
export async function carFeels(
  { jobId, devices, procedure, events: all, elapsedS }: RunView,
  events: readonly RunEvent[],
): Promise<void> {
  const address = practiceBay();
  const felt = events.filter(({ event }) => ofHands.includes(event));
  if (!address || !devices.practice || felt.length === 0) return;
  const vin = await vinOf(jobId);
  if (!vin) return;
  // Into its menu somebody types what it should hold.
  const typed = replay(procedure, all).expected;
  for (const event of felt) {
    const hands = { ...event, method: procedure.method, typed };
    await bay.feel(address, vin, hands, Math.max(0, elapsedS - event.t) * 1000);
  }
}

/**
 * A procedure tried dry: the car of a job feels, answers and is read, and nothing of it is recorded. It learns all the
 * same. Problems: `not-allowed`, `unknown-job`, `no-practice`, and those of the bay.
 */
export async function tryDry(
  jobId: string,
  asked: BodyOf<'tryDry'>,
  who: Person,
): Promise<Result<AnswerOf<'tryDry'>>> {
  const refusal = refuseUnless(who, 'manage-shop');
  if (refusal) return refusal;
  const address = practiceBay();
  if (!address) return noPractice();
  const vin = await vinOf(jobId);
  if (!vin) return noVinForPractice();
  let ids: string[] = [];
  let entries: AnswerOf<'tryDry'>['entries'] = [];
  if (asked.do === 'hands' && ofHands.includes(asked.happening.event)) {
    const felt = await bay.feel(address, vin, {
      ...asked.happening,
      method: asked.method,
      typed: asked.typed,
    });
    if (!felt.ok) return felt;
  } else if (asked.do === 'wake') {
    const woken = await bay.wake(address, vin, asked.wheel);
    if (!woken.ok) return woken;
    ids = woken.value.replies.map(({ id }) => id);
  } else if (asked.do === 'read') {
    const read = await bay.readRegistry(address, vin);
    if (!read.ok) return read;
    ({ entries } = read.value);
  }
  const said = await bay.listen(address, vin);
  return said.ok ? success({ ids, entries, cues: said.value.cues }) : said;
}

/** What the simulated car said lately. Problems: `no-practice`, `unknown-run`, and those of the bay. */
export async function hearCar(key: string): Promise<Result<bay.SaidLately>> {
  const address = practiceBay();
  if (!address) return noPractice();
  const run = await inTransaction((tx) => findRun(tx, key));
  if (!run) return unknownRun();
  const vin = await vinOf(run.jobId);
  return vin ? bay.listen(address, vin) : noVinForPractice();
}

const vinOf = async (jobId: string): Promise<string | undefined> =>
  (await inTransaction((tx) => findJob(tx, jobId)))?.header.vehicle.vin;
