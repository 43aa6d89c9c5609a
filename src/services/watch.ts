import { tooManyStreams } from '../contract/refusals';
import { success, type Result } from '../core/result';
import { onChange, onPeople } from '../data/notifications';
import { newsTold, streamsOpen } from './measures';
import { personOfToken, type Person } from './people';

/** So many pages of one account may wait for news in one server process: more than anybody has open (judgement). */
const mostStreams = 40;
/** Whether the session still is one is asked so often, ms, since one may also run out. */
const lookAgainMs = 15_000;

const open = new Map<string, number>();

interface Watching {
  /** Of a job that changed in any server process; of nothing in particular when a change may have been missed. */
  onChange: (jobId: string | undefined) => void;
  /** The session ended, the account was closed, or its role is another: nothing more is told. */
  onEnd: () => void;
}

/**
 * Tells of changed jobs as long as the session lasts that it was asked under. Returns how to stop. Problem:
 * `too-many-requests`.
 */
export function watchJobs(who: Person, token: string, watching: Watching): Result<() => void> {
  const count = open.get(who.id) ?? 0;
  if (count >= mostStreams) return tooManyStreams();
  open.set(who.id, count + 1);
  streamsOpen.inc();
  const unwatch = onChange((jobId) => {
    newsTold.inc();
    watching.onChange(jobId);
  });
  const look = () =>
    void personOfToken(token)
      .then((now) => {
        if (now?.role === who.role) return;
        stop();
        watching.onEnd();
      })
      // The database is away: nothing is told meanwhile either.
      .catch(() => undefined);
  const forget = onPeople(look);
  const timer = setInterval(look, lookAgainMs);
  let stopped = false;
  const stop = () => {
    if (stopped) return;
    stopped = true;
    clearInterval(timer);
    unwatch();
    forget();
    streamsOpen.dec();
    const left = (open.get(who.id) ?? 1) - 1;
    if (left > 0) open.set(who.id, left);
    else open.delete(who.id);
  };
  return success(stop);
}
