import { allOf, latest, type Job, type Seen } from '../../job';

/** Cold or warm, and how a warm one was driven, where that is known. */
export type Stand = Pick<Seen<'gauge'>, 'tire' | 'driven'>;

/** A car that stood so long has cold tires (common practice). */
export const coldAfterHours = 3;
const minuteMs = 60_000;

/**
 * How the tires stand at a moment, ms, as far as the visit tells: as at its last reading, with the minutes stood since
 * added; cold once the car has stood long enough since then, or since it was booked in. Undefined where nobody said, or
 * where it was driven after that: then it is asked, not supposed.
 */
export function standOf(job: Job, bookedInAt: string | undefined, moment: number): Stand | undefined {
  const last = latest(allOf(job, 'gauge'))?.seen;
  const sinceMs = Math.max(msOf(last?.at), msOf(bookedInAt), lastDrivenMs(job));
  if (Number.isFinite(sinceMs) && moment - sinceMs >= coldAfterHours * 60 * minuteMs) return { tire: 'cold' };
  if (!last || lastDrivenMs(job) > msOf(last.at)) return undefined;
  const { tire, driven } = last;
  if (!driven) return { tire };
  const stoodMinutes = driven.stoodMinutes + Math.round((moment - msOf(last.at)) / minuteMs);
  return { tire, driven: { ...driven, stoodMinutes } };
}

/** When the car was last seen to move, ms. */
function lastDrivenMs(job: Job): number {
  const moved = job.observations.filter(
    (seen) =>
      (seen.kind === 'live' && (seen.speedKmh ?? 0) > 0) ||
      (seen.kind === 'relearn' && seen.method === 'drive' && seen.outcome === 'done'),
  );
  return Math.max(...moved.map(({ at }) => msOf(at)), Number.NEGATIVE_INFINITY);
}

const msOf = (at: string | undefined): number =>
  at === undefined ? Number.NEGATIVE_INFINITY : Date.parse(at);
