import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { flushSync } from 'react-dom';
import { v7 as newKey } from 'uuid';
import type { Job, Observation } from '../../core/job';
import type { BodyOf } from '../../contract';
import type { Problem } from '../../core/result';
import type { VisitView } from '../../core/visit/view';
import { ask } from '../api';
import type { Outbox } from '../outbox';
import { outboxOfJob, type Waiting } from './outbox';

const none: readonly Waiting[] = [];

/** The use cases that answer with the visit as it is then. */
export type Deed =
  | 'wake'
  | 'readCar'
  | 'editJob'
  | 'writeIds'
  | 'writeThresholds'
  | 'readBack'
  | 'clearCodes'
  | 'confirm'
  | 'handOver'
  | 'practise'
  | 'programSensor'
  | 'noteProgrammed'
  | 'readSensorBack'
  | 'serviceSensor';
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
  /** Does one thing through the server; the same thing again after a lost answer is not done twice. */
  act: Act;
}

export function useVisit(initial: VisitView): Visit {
  const [view, setView] = useState(initial);
  const [connected, setConnected] = useState(true);
  const [busy, setBusy] = useState<Visit['busy']>();
  const [problem, setProblem] = useState<Problem>();
  const { id } = initial;
  /** The key of each thing that was tried and not answered, so that a second try is the same thing. */
  const keys = useRef(new Map<string, string>());

  /** A connection that is away needs nobody; a session that ended needs somebody to sign in. */
  const setSignedOutProblem = useCallback((found: Problem) => {
    if (found.code === 'not-signed-in') setProblem(found);
  }, []);
  const onStored = useCallback((fresh: VisitView) => {
    // At once: what was on its way is taken off the list right after.
    flushSync(() => setView((now) => newer(now, fresh)));
    setProblem((now) => (now?.code === 'not-signed-in' ? undefined : now));
  }, []);
  const outbox = useOutbox(id, onStored, setSignedOutProblem);
  const waiting = useSyncExternalStore(
    outbox?.subscribe ?? (() => () => undefined),
    outbox?.items ?? (() => none),
    () => none,
  );

  const refresh = useCallback(async () => {
    const fresh = await ask('job', { id });
    if (fresh.ok) setView((now) => newer(now, fresh.value));
  }, [id]);

  useEffect(() => {
    const events = new EventSource(`/api/jobs/${id}/events`);
    events.addEventListener('change', () => {
      setConnected(true);
      void refresh();
      void outbox?.flush();
    });
    events.addEventListener('error', () => setConnected(false));
    return () => events.close();
  }, [id, refresh, outbox]);

  useEffect(() => {
    if (!busy) return undefined;
    const timer = setInterval(() => setBusy((now) => now && { ...now, seconds: now.seconds + 1 }), 1000);
    return () => clearInterval(timer);
  }, [busy?.what]); // eslint-disable-line react-hooks/exhaustive-deps -- restarts with the thing, not with its seconds

  const act: Act = async (what, name, body) => {
    if (busy) return false;
    setBusy({ what, seconds: 0 });
    setProblem(undefined);
    const thing = `${name} ${JSON.stringify(body)}`;
    const key = keys.current.get(thing) ?? newKey();
    keys.current.set(thing, key);
    // With its key it is the body again that it was taken from.
    const keyed: unknown = { key, ...(body as object) };
    const answer = await ask(name, { id, body: keyed as BodyOf<typeof name> });
    if (answer.ok || !['offline', 'server-error'].includes(answer.problem.code)) keys.current.delete(thing);
    if (answer.ok) {
      const { value } = answer;
      if ('job' in value) setView((now) => newer(now, value));
    } else {
      setProblem(answer.problem);
      void refresh();
    }
    setBusy(undefined);
    return answer.ok;
  };

  const facts = useMemo(() => withWaiting(view.job, waiting), [view.job, waiting]);
  return {
    view,
    facts,
    waiting,
    connected,
    busy,
    problem,
    dismissProblem: () => setProblem(undefined),
    dismissRefused: (key) => outbox?.dismiss(key),
    record: (observation, replaces) =>
      outbox?.add({ key: newKey(), observation, ...(replaces && { replaces }) }),
    act,
  };
}

/** Made in the browser only, after the first paint: the server has no storage to look into. */
function useOutbox(
  jobId: string,
  onStored: (view: VisitView) => void,
  onWaiting: (problem: Problem) => void,
): Outbox<Waiting> | undefined {
  const [outbox, setOutbox] = useState<Outbox<Waiting>>();
  useEffect(() => {
    const made = outboxOfJob(jobId, onStored, onWaiting);
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    setOutbox(made);
    void made.flush();
  }, [jobId, onStored, onWaiting]);
  return outbox;
}

/** Answers overtake one another: an older one changes nothing, nor does one that says the same again. */
function newer(now: VisitView, fresh: VisitView): VisitView {
  if (fresh.revision !== now.revision) return fresh.revision > now.revision ? fresh : now;
  return JSON.stringify(now.gauges) === JSON.stringify(fresh.gauges) ? now : fresh;
}

function withWaiting(job: Job, waiting: readonly Waiting[]): Job {
  const coming = waiting.filter(
    ({ key, refused }) => refused === undefined && !job.observations.some((seen) => seen.key === key),
  );
  if (coming.length === 0) return job;
  const replaced = new Set(coming.map(({ replaces }) => replaces));
  return {
    ...job,
    observations: [
      ...job.observations.filter(({ key }) => key === undefined || !replaced.has(key)),
      ...coming.map(({ key, observation }) => ({ ...observation, key })),
    ],
  };
}
