import { methodOf } from '../relearn/method';
import { changesOf, lastOf, lastTouchedMs } from '../job/history';
import { allOf, type Job } from '../job';
import { writeVerdict } from '../job/car-write';
import { isAboveWakeSpeed } from '../car/wake-speed';

/** How often something was tried on this visit and did not come to anything: no move repeats without end. */

/** A way that failed so often is not offered again (practice): another one is. */
export const triesOfOneWay = 2;

/** Tries in a row to send the car its IDs, the latest ones, that failed: over the lead, or with another tool. */
export function writesThatFailed(job: Job): number {
  const tries = [
    ...(job.carWrites ?? []).flatMap((write) =>
      write.kind === 'registry' ? [{ at: write.askedAt, worked: writeVerdict(write) === 'worked' }] : [],
    ),
    // What went over the lead is among the writes already.
    ...allOf(job, 'relearn').flatMap(({ seen: { at, method, outcome, source } }) =>
      source === 'hand' && methodOf(method).sendsIds ? [{ at, worked: outcome !== 'failed' }] : [],
    ),
  ].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  return tries.length - 1 - tries.findLastIndex(({ worked }) => worked);
}

/** How often the codes were cleared and came back. */
export const clearedInVain = (job: Job): number =>
  (job.carWrites ?? []).filter((write) => write.kind === 'clear-codes' && writeVerdict(write) === 'failed')
    .length + allOf(job, 'registry').filter(({ seen }) => seen.cleared).length;

/** Moments on the road, since the last change to the car, at which it did not hear a wheel it should. */
export function drivenInVain(job: Job): number {
  const since = lastTouchedMs(job);
  const unheard = allOf(job, 'live').filter(
    ({ seen }) =>
      !((seen.kPa ?? 0) > 0) && Date.parse(seen.at) >= since && isAboveWakeSpeed(job, seen.speedKmh),
  );
  return new Set(unheard.map(({ seen }) => seen.at)).size;
}

/** Looks at the lamp since anything else was seen or done: looking again alone changes nothing. */
export function lampLooks(job: Job): number {
  const since = Math.max(
    lastOf(changesOf(job)),
    ...job.observations.flatMap(({ kind, at }) => (kind === 'lamp' ? [] : [Date.parse(at)])),
  );
  return allOf(job, 'lamp').filter(({ seen }) => Date.parse(seen.at) > since).length;
}
