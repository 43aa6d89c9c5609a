import { v7 as newKey } from 'uuid';
import type { RunView } from '../../contract';
import type { Happening } from '../../core/relearn/run';
import type { Problem } from '../../core/result';
import { ask } from '../api';
import { createOutbox, waitingPlaces, type Kept, type Outbox } from '../outbox';

/** What happened in a run, on its way to the shop. */

/** One event, with when it happened by this device's own clocks. */
export interface Telling extends Kept {
  happening: Happening;
  /** On the run's clock, as this device has it, s. */
  t: number;
  atMs: number;
  /** Since the page was opened, ms; it holds only in the page that wrote it, named by `page`. */
  monotonicMs: number;
  page: string;
}

const page = newKey();
const placeOf = (run: string): string => `run ${run}`;

/** `agoS`: how long ago it happened; `t`: when that was on the run's clock. */
export const tellingOf = (happening: Happening, agoS: number, t: number): Telling => ({
  key: newKey(),
  happening,
  t,
  atMs: Date.now() - agoS * 1000,
  monotonicMs: performance.now() - agoS * 1000,
  page,
});

/** What of a run the shop has not confirmed yet, in order. */
export const tellingsOf = (
  run: string,
  person: NonNullable<Kept['by']>,
  onStored: (view: RunView) => void,
  onProblem: (problem: Problem) => void,
): Outbox<Telling> =>
  createOutbox<Telling, RunView>({
    place: placeOf(run),
    person,
    inOrder: true,
    isItem: (found) => 'happening' in found && 't' in found && 'atMs' in found && 'page' in found,
    send: async (item) => {
      const sent = await ask('tellRun', {
        id: run,
        as: item.by?.id,
        body: { told: [toldNow(item)] },
        queued: true,
      });
      if (!sent.ok && sent.problem.code !== 'offline') onProblem(sent.problem);
      return sent;
    },
    onStored,
  });

/** How long ago it happened: by the page's own stopwatch, or by the device's clock where the page was opened anew. */
function toldNow({ key, happening, atMs, monotonicMs, page: written }: Telling) {
  const agoMs = written === page ? performance.now() - monotonicMs : Date.now() - atMs;
  return { key, agoS: Math.max(0, agoMs / 1000), happening };
}

/**
 * Sends what was on its way when the page of a run was left: without its last event a run is not over, and its car is
 * not handed over. Gives back what stops it.
 */
export function sendWhatWasLeft(person: NonNullable<Kept['by']>): () => void {
  let stopped = false;
  const sending: Outbox<Telling>[] = [];
  void waitingPlaces(placeOf('')).then((places) => {
    if (stopped) return;
    for (const place of places) {
      const run = place.slice(placeOf('').length);
      const outbox = tellingsOf(
        run,
        person,
        () => undefined,
        () => undefined,
      );
      sending.push(outbox);
      void outbox.flush();
    }
  });
  return () => {
    stopped = true;
    for (const outbox of sending) outbox.close();
  };
}
