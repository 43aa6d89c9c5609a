import { allOf, type Job, type Seen } from '../job';

/**
 * When the car was last taught its sensors, ms: IDs were sent and not refused, or a relearn is on record that did not
 * fail. Minus infinity where it was not. What was read of it before that is old.
 */
export function taughtMs(job: Job): number {
  const sent = (job.carWrites ?? [])
    .filter(({ kind, answer }) => kind === 'registry' && answer !== 'no')
    .map(({ askedAt }) => Date.parse(askedAt));
  const relearned = allOf(job, 'relearn').flatMap(({ seen }) => relearnedMs(job, seen) ?? []);
  return Math.max(Number.NEGATIVE_INFINITY, ...sent, ...relearned);
}

/** Whether what was read of the car at some time speaks of it as it was taught last. */
export const isAsTaught = (readAt: string, taught: number): boolean => Date.parse(readAt) >= taught - notedMs;

/** What was read within so long before a relearn was noted is what showed that it had worked. */
const notedMs = 60_000;

/** When a relearn changed the car: a run is noted at its end, and what proves it comes before that. */
function relearnedMs(job: Job, { at, method, outcome }: Seen<'relearn'>): number | undefined {
  if (outcome === 'failed' || method === 'reset') return undefined;
  const run = (job.runs ?? []).findLast(({ startedAt }) => Date.parse(startedAt) <= Date.parse(at));
  if (!run) return Date.parse(at);
  const taught = run.events.findLast(({ event }) => !provesOnly.includes(event));
  return Date.parse(run.startedAt) + (taught?.t ?? 0) * 1000;
}

/** Events of a run that look at what came of it, or let time pass. */
const provesOnly: readonly string[] = ['registry', 'lamp', 'live', 'speed', 'tick', 'expect', 'stop'];
