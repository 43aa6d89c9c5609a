import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { flushSync } from 'react-dom';
import { v7 as newKey } from 'uuid';
import type { Job, Observation } from '../../core/job';
import type { BodyOf, HeaderChanges } from '../../contract';
import { success, type Problem, type Result } from '../../core/result';
import type { Serviced } from '../../core/sensor/service';
import type { VisitView } from '../../contract/views';
import { ask } from '../api';
import { heardShop, shopTime } from '../clock';
import { useDeeds } from '../deeds';
import type { Outbox } from '../outbox';
import { keepView, keptView } from './kept-view';
import { outboxOfJob, withWaiting, type Waiting } from './outbox';

const none: readonly Waiting[] = [];

/** The use cases that answer with the visit as it is then. */
export type Deed =
  | 'wake'
  | 'readCar'
  | 'editJob'
  | 'takeBack'
  | 'cancelJob'
  | 'reopenJob'
  | 'writeIds'
  | 'writeThresholds'
  | 'readBack'
  | 'clearCodes'
  | 'confirm'
  | 'handOver'
  | 'practise'
  | 'programSensor'
  | 'noteProgrammed'
  | 'readSensorBack';
type WithoutKey<Body> = Body extends { key: string } ? Omit<Body, 'key'> : Body;
export type Act = <Name extends Deed>(
  what: string,
  name: Name,
  body: WithoutKey<BodyOf<Name>>,
) => Promise<boolean>;

export interface Visit {
  view: VisitView;
  /** The facts as this device knows them: with what is still on its way. */
  facts: Job;
  waiting: readonly Waiting[];
  connected: boolean;
  /** What is going on, and for how many seconds already. */
  busy: { what: string; seconds: number } | undefined;
  problem: Problem | undefined;
  dismissProblem: () => void;
  dismissRefused: (key: string) => void;
  record: (observation: Observation, replaces?: string) => void;
  /** Corrects the visit; without a connection it is kept here, and goes out later. Tells whether it is done with. */
  edit: (changes: HeaderChanges) => Promise<boolean>;
  /** Keeps how a sensor was serviced; without a connection on this device, like a reading. */
  service: (service: Omit<Serviced, 'at'>) => Promise<boolean>;
  /** Does one thing through the server; the same thing again after a lost answer is not done twice. */
  act: Act;
}

export function useVisit(initial: VisitView, person: { id: string; name: string }): Visit {
  const { view, setView, refresh } = useView(initial);
  const [connected, setConnected] = useState(true);
  const { once, busy, problem, setProblem } = useDeeds();
  const seconds = useSeconds(busy);
  const { id } = initial;
  /** A connection that is away needs nobody; a session that ended needs somebody to sign in. */
  const setSignedOutProblem = useCallback(
    (found: Problem) => {
      if (found.code === 'not-signed-in') setProblem(() => found);
      if (found.code === 'offline') setConnected(false);
    },
    [setProblem],
  );
  const onStored = useCallback(
    (fresh: VisitView) => {
      // At once: what was on its way is taken off the list right after.
      flushSync(() => setView((now) => newer(now, fresh)));
      setProblem((now) => (now?.code === 'not-signed-in' ? undefined : now));
    },
    [setView, setProblem],
  );
  const { outbox, waiting } = useOutbox(id, onStored, setSignedOutProblem, person);

  useNews(id, view.revision, { refresh, outbox, setConnected });

  const act: Act = async (what, name, body) => {
    const answer = await once(
      `${name} ${JSON.stringify(body)}`,
      // With its key it is the body again that it was taken from.
      (key) => ask(name, { id, as: person.id, body: { key, ...(body as object) } as BodyOf<typeof name> }),
      what,
    );
    if (answer?.ok) {
      const { value } = answer;
      if ('job' in value) setView((now) => newer(now, value));
    } else if (answer) void refresh();
    return answer?.ok ?? false;
  };

  /** Sends it now; without a connection it is kept on this device, and goes out later. */
  const sendOrKeep = async (
    thing: string,
    send: (key: string) => Promise<Result<VisitView>>,
    kept: (key: string) => Waiting,
  ): Promise<boolean> => {
    const sent = await once(thing, async (key): Promise<Result<VisitView | 'kept'>> => {
      const answer = await send(key);
      if (answer.ok || answer.problem.code !== 'offline') return answer;
      outbox?.add(kept(key));
      return success('kept' as const);
    });
    if (!sent) return false;
    if (!sent.ok) void refresh();
    else if (sent.value !== 'kept') {
      const { value } = sent;
      setView((now) => newer(now, value));
    }
    return sent.ok;
  };

  const edit: Visit['edit'] = (changes) => {
    const { version } = view;
    const kept = (key: string): Waiting => ({ key, changes, version });
    // What waits already goes out first.
    if (waiting.some((item) => 'changes' in item && item.refused === undefined)) {
      outbox?.add(kept(newKey()));
      return Promise.resolve(true);
    }
    return sendOrKeep(
      `edit ${JSON.stringify(changes)}`,
      (key) => ask('editJob', { id, as: person.id, body: { key, version, changes } }),
      kept,
    );
  };

  const service: Visit['service'] = (done) => {
    const at = shopTime();
    return sendOrKeep(
      `service ${JSON.stringify(done)}`,
      (key) => ask('serviceSensor', { id, as: person.id, body: { key, ...done, at } }),
      (key) => ({ key, service: { ...done, at } }),
    );
  };

  const facts = useMemo(() => withWaiting(view.job, waiting), [view.job, waiting]);
  return {
    view,
    facts,
    waiting,
    connected,
    busy: busy === undefined ? undefined : { what: busy, seconds },
    problem,
    dismissProblem: () => setProblem(() => undefined),
    dismissRefused: (key) => outbox?.dismiss(key),
    record: (observation, replaces) =>
      outbox?.add({ key: newKey(), observation, ...(replaces && { replaces }) }),
    edit,
    service,
    act,
  };
}

/** The visit as the shop last had it: what is older than what is shown changes nothing. It is kept on the device. */
function useView(initial: VisitView) {
  const [view, setView] = useState(initial);
  const { id } = initial;
  const refresh = useCallback(async () => {
    const fresh = await ask('job', { id });
    if (fresh.ok) setView((now) => newer(now, fresh.value));
  }, [id]);

  useEffect(() => {
    // The page may be one that was kept: the shop may have confirmed more since it was made.
    void keptView(id).then((kept) => kept && setView((now) => (kept.revision > now.revision ? kept : now)));
  }, [id]);
  useEffect(() => void keepView(view), [view]);
  return { view, setView, refresh };
}

/** For how many seconds something has been going on. */
function useSeconds(what: string | undefined): number {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (what === undefined) return undefined;
    const timer = setInterval(() => setSeconds((now) => now + 1), 1000);
    return () => {
      clearInterval(timer);
      setSeconds(0);
    };
  }, [what]);
  return seconds;
}

/** Listens for news of the job, and for the connection; what was entered meanwhile goes out with each. */
function useNews(
  id: string,
  revision: number,
  {
    refresh,
    outbox,
    setConnected,
  }: {
    refresh: () => Promise<void>;
    outbox: Outbox<Waiting> | undefined;
    setConnected: (connected: boolean) => void;
  },
): void {
  /** The revision that is on the screen. */
  const shown = useRef(revision);
  useEffect(() => {
    shown.current = revision;
  }, [revision]);
  useEffect(() => {
    const events = new EventSource(`/api/jobs/${id}/events`);
    // The page was made a moment ago; after a connection that was lost anything may have changed.
    let first = true;
    const asked = Date.now();
    events.addEventListener('change', ({ data }: MessageEvent<string>) => {
      setConnected(true);
      const heardMs = Date.now();
      const shopMs = numberIn(data, 'now');
      if (shopMs !== undefined)
        heardShop({ shopMs, sentMs: first ? asked : heardMs - unknownWayMs, heardMs });
      if (!first || numberIn(data, 'revision') !== shown.current) void refresh();
      first = false;
      void outbox?.flush();
    });
    const gone = () => setConnected(false);
    events.addEventListener('error', gone);
    // The stream may take its time to notice.
    window.addEventListener('offline', gone);
    const back = () => void outbox?.flush();
    window.addEventListener('online', back);
    return () => {
      events.close();
      window.removeEventListener('offline', gone);
      window.removeEventListener('online', back);
    };
  }, [id, refresh, outbox, setConnected]);
}

/** Made in the browser only, after the first paint: the server has no storage to look into. */
function useOutbox(
  jobId: string,
  onStored: (view: VisitView) => void,
  onWaiting: (problem: Problem) => void,
  { id: personId, name }: { id: string; name: string },
): { outbox: Outbox<Waiting> | undefined; waiting: readonly Waiting[] } {
  const [outbox, setOutbox] = useState<Outbox<Waiting>>();
  useEffect(() => {
    const made = outboxOfJob(jobId, onStored, onWaiting, { id: personId, name });
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    setOutbox(made);
    void made.flush();
    return made.close;
  }, [jobId, onStored, onWaiting, personId, name]);
  const waiting = useSyncExternalStore(
    outbox?.subscribe ?? (() => () => undefined),
    outbox?.items ?? (() => none),
    () => none,
  );
  return { outbox, waiting };
}

/** Which revision an event speaks of; undefined where it only says that there is another. */
function numberIn(data: string, name: 'revision' | 'now'): number | undefined {
  const said = JSON.parse(data) as Record<string, unknown>;
  return typeof said[name] === 'number' ? said[name] : undefined;
}

/** A stream that was taken up again may have been on its way for so long, ms. */
const unknownWayMs = 2000;

/** Answers overtake one another: an older one changes nothing, nor does one that says the same again. */
function newer(now: VisitView, fresh: VisitView): VisitView {
  if (fresh.revision !== now.revision) return fresh.revision > now.revision ? fresh : now;
  return JSON.stringify(now.gauges) === JSON.stringify(fresh.gauges) ? now : fresh;
}
