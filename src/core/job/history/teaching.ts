import { methodOf } from '../../relearn/method';
import { allOf, atWheel, latest, type Job, type Seen } from '..';
import { monitoredWheels } from '../placard';
import type { Position } from '../../names/wheel';

/**
 * From when on a reading of the car speaks of it as it was taught last, ms: IDs were sent and not refused, or a relearn is
 * on record that did not fail. Minus infinity where it was not taught. What was read before that is old.
 */
export function taughtMs(job: Job): number {
  const sent = (job.carWrites ?? [])
    .filter(({ kind, answer }) => kind === 'registry' && answer !== 'no')
    .map(({ askedAt }) => Date.parse(askedAt));
  const relearned = allOf(job, 'relearn').flatMap(({ seen }) => relearnedMs(job, seen) ?? []);
  return Math.max(Number.NEGATIVE_INFINITY, ...sent, ...relearned);
}

/** Whether what was read of the car at some time speaks of it as it was taught last. */
export const isAsTaught = (readAt: string, taught: number): boolean => Date.parse(readAt) >= taught;

/**
 * What was read within so long before a relearn was noted is what showed that it had worked; not so where IDs were sent:
 * what was read before that is what it was to change.
 */
const notedMs = 60_000;

/**
 * When a relearn changed the car: a run is noted at its end, and what proves it comes before that. One that was done by
 * hand is noted before it is read back: what was read until then is what it was to change.
 */
function relearnedMs(job: Job, { at, method, outcome, source }: Seen<'relearn'>): number | undefined {
  if (outcome === 'failed' || methodOf(method).of === 'indirect') return undefined;
  if (source === 'hand') return Date.parse(at);
  const run = (job.runs ?? []).findLast(({ startedAt }) => Date.parse(startedAt) <= Date.parse(at));
  if (!run) return Date.parse(at) - (methodOf(method).sendsIds ? 0 : notedMs);
  const taught = run.events.findLast(({ event }) => !provesOnly.includes(event));
  return Date.parse(run.startedAt) + (taught?.t ?? 0) * 1000 - notedMs;
}

/** Events of a run that look at what came of it, or let time pass. */
const provesOnly: readonly string[] = ['registry', 'lamp', 'live', 'speed', 'tick', 'expect', 'stop'];

/** The wheel at which the last relearn failed, as long as nobody woke its sensor since: that is the one to ask. */
export function failedInRelearn(job: Job): Position | undefined {
  const { seen } = latest(allOf(job, 'relearn')) ?? {};
  if (seen?.outcome !== 'failed' || seen.failedAt === undefined) return undefined;
  const { failedAt, at } = seen;
  const woken = atWheel(job, 'activation', failedAt).some(
    (tried) => Date.parse(tried.seen.at) >= Date.parse(at),
  );
  return woken || !monitoredWheels(job).includes(failedAt) ? undefined : failedAt;
}
