import { methodOf } from '../../relearn/method';
import { allOf, type Job } from '..';
import { monitoredWheels } from '../placard';
import type { Position } from '../../names/wheel';

/** Air that was let out of a tire on purpose, to teach the car. */
interface LetOut {
  atMs: number;
  wheel: Position;
}

/** By a run that was led through, at each wheel that was taught; by hand, at every wheel that has a sensor. */
export function letOutIn(job: Job): LetOut[] {
  const byRun = (job.runs ?? []).flatMap(({ procedure, startedAt, events }) =>
    procedure.each.some(({ do: kind }) => kind === 'air')
      ? events.flatMap((event): LetOut[] =>
          event.event === 'taught'
            ? [{ atMs: Date.parse(startedAt) + event.t * 1000, wheel: event.wheel }]
            : [],
        )
      : [],
  );
  if (byRun.length > 0) return byRun;
  return allOf(job, 'relearn').flatMap(({ seen: { method, at } }) =>
    methodOf(method).wakes === 'deflation'
      ? monitoredWheels(job).map((wheel): LetOut => ({ atMs: Date.parse(at), wheel }))
      : [],
  );
}

/** Whether air was let out of a tire after one moment and up to another, both ms. */
export const isLetOut = (job: Job, wheel: Position, afterMs: number, upToMs: number): boolean =>
  letOutIn(job).some((one) => one.wheel === wheel && one.atMs > afterMs && one.atMs <= upToMs);
