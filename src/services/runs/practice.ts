import type { RunView } from '../../contract';
import { noPractice, noVinForPractice, unknownRun } from '../../contract/refusals';
import { replay, type RunEvent } from '../../core/relearn/run';
import type { Result } from '../../core/result';
import { inTransaction } from '../../data/database';
import { findJob } from '../../data/jobs';
import { findRun } from '../../data/runs';
import * as bay from '../../devices/bay';
import { practiceBay } from '../devices';

/** In the practice bay the simulated car feels what hands do, and says what it has to say by itself. */

const ofHands: readonly RunEvent['event'][] = ['set', 'press', 'release', 'chosen', 'taught', 'speed'];

/** Lets the simulated car feel what was told just now. A real one has felt it already; one that is away misses it. */
export async function carFeels(
  { jobId, devices, procedure, events: all }: RunView,
  events: readonly RunEvent[],
): Promise<void> {
  const address = practiceBay();
  const felt = events.filter(({ event }) => ofHands.includes(event));
  if (!address || !devices.practice || felt.length === 0) return;
  const vin = await vinOf(jobId);
  if (!vin) return;
  // Into its menu somebody types what it should hold.
  const typed = replay(procedure, all).expected;
  for (const event of felt) await bay.feel(address, vin, { ...event, method: procedure.method, typed });
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
