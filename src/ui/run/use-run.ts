import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import type { AnswerOf, BodyOf, RunView } from '../../contract';
import type { Procedure } from '../../core/relearn/procedure';
import {
  hasEnded,
  replay,
  timePasses,
  type Happening,
  type Run,
  type RunEvent,
} from '../../core/relearn/run';
import type { Problem } from '../../core/result';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import type { Kept, Outbox } from '../outbox';
import { tellingOf, tellingsOf, type Telling } from './tellings';

/** Use cases that devices do within a run. */
type Deed = 'wakeInRun' | 'readInRun' | 'writeInRun';

export interface RunOnScreen {
  view: RunView;
  procedure: Procedure;
  /** Where it stands this moment. */
  run: Run;
  /** All that happened, with what is still on its way. */
  events: readonly RunEvent[];
  tell: (...happenings: Happening[]) => void;
  /** What was done some time ago, s. */
  tellOfPast: (told: readonly { agoS: number; happening: Happening }[]) => void;
  /** Once the shop has all that was told, or was waited for long enough. */
  settled: () => Promise<void>;
  act: <Name extends Deed>(what: string, name: Name, body: Omit<BodyOf<Name>, 'key'>) => Promise<boolean>;
  busy: string | undefined;
  problem: Problem | undefined;
  connected: boolean;
  /** So many events are on their way for longer than anybody should have to wait. */
  unsent: number;
}

const ticksMs = 200;
/** A deed waits so long for what was told before it to arrive, ms. */
const patienceMs = 4000;
/** What takes longer to the shop than this is said, s. */
const slowS = 1.5;
const none: readonly Telling[] = [];

export function useRun(initial: RunView, person: NonNullable<Kept['by']>): RunOnScreen {
  const { key } = initial;
  const { view, setView, clock } = useRunView(initial);
  const [connected, setConnected] = useState(true);
  const { once, busy, problem, setProblem } = useDeeds();
  const onProblem = useCallback((found: Problem) => setProblem(() => found), [setProblem]);
  const outbox = useTellings(key, person, setView, onProblem);
  const waiting = useSyncExternalStore(
    outbox?.subscribe ?? (() => () => undefined),
    outbox?.items ?? (() => none),
    () => none,
  );
  const now = useNow(clock, initial.elapsedS);

  const refresh = useCallback(async () => {
    const fresh = await ask('run', { id: key });
    if (fresh.ok) setView(fresh.value);
  }, [key, setView]);
  useEffect(() => {
    const news = new EventSource(`/api/jobs/${initial.jobId}/events`);
    news.addEventListener('change', () => {
      setConnected(true);
      void refresh();
      void outbox?.flush();
    });
    news.addEventListener('error', () => setConnected(false));
    return () => news.close();
  }, [initial.jobId, outbox, refresh]);

  const refused = waiting.find((item) => item.refused !== undefined);
  useEffect(() => {
    // What the shop does not take did not happen as far as the run goes: it is said, and left out.
    if (refused) outbox?.dismiss(refused.key);
  }, [refused, outbox]);

  const { procedure } = view;
  const events = useMemo(() => withTellings(view.events, waiting), [view.events, waiting]);
  const told = useMemo(() => replay(procedure, events), [procedure, events]);
  const run = timePasses(procedure, told, now);

  const tellOfPast = useCallback(
    (past: readonly { agoS: number; happening: Happening }[]) => {
      for (const { agoS, happening } of past) outbox?.add(tellingOf(happening, agoS, clock() - agoS));
    },
    [outbox, clock],
  );
  /** Told while a device was at work: a horn may sound before the tool has answered, and comes after its answer here. */
  const held = useRef<{ atMs: number; happening: Happening }[]>([]);
  const working = useRef(false);
  const tell = useCallback(
    (...happenings: Happening[]) => {
      setProblem(() => undefined);
      if (working.current)
        held.current.push(...happenings.map((happening) => ({ atMs: performance.now(), happening })));
      else tellOfPast(happenings.map((happening) => ({ agoS: 0, happening })));
    },
    [tellOfPast, setProblem],
  );

  // Time ended it, and nobody told the shop: this does.
  const endedByTime = hasEnded(run) && !hasEnded(told) && !view.closed;
  useEffect(() => {
    if (endedByTime) tellOfPast([{ agoS: 0, happening: { event: 'tick' } }]);
  }, [endedByTime, tellOfPast]);

  const settled = useCallback(() => (outbox ? emptied(outbox) : Promise.resolve()), [outbox]);
  const act: RunOnScreen['act'] = async (what, name, body) => {
    if (working.current) return false;
    working.current = true;
    const answer = await once(
      `${name} ${JSON.stringify(body)}`,
      async (deed) => {
        // The shop must know first what was told before: it goes by that.
        await settled();
        // With its key it is the body again that it was taken from.
        return ask(name, { id: key, body: { ...body, key: deed } as unknown as BodyOf<typeof name> });
      },
      what,
    );
    if (answer?.ok) setView(answer.value as AnswerOf<Deed>);
    working.current = false;
    tellOfPast(
      held.current.map(({ atMs, happening }) => ({ agoS: (performance.now() - atMs) / 1000, happening })),
    );
    held.current = [];
    return answer?.ok ?? false;
  };

  return {
    view,
    procedure,
    run,
    events,
    tell,
    tellOfPast,
    settled,
    act,
    busy,
    problem,
    connected,
    unsent: waiting.filter(({ t }) => now - t > slowS).length,
  };
}

/** The run as the shop has it, and its clock: the shop's, whatever this device's own says. */
function useRunView(initial: RunView) {
  const [view, setNewest] = useState(initial);
  /** The run's clock less this device's, s; the largest that was met had the shortest way. */
  const ahead = useRef(initial.elapsedS);
  useEffect(() => {
    // Once: the page was made with the view in it.
    ahead.current -= performance.now() / 1000;
  }, []);
  const setView = useCallback((fresh: RunView) => {
    ahead.current = Math.max(ahead.current, fresh.elapsedS - performance.now() / 1000);
    setNewest((now) => (fresh.events.length >= now.events.length ? fresh : now));
  }, []);
  const clock = useCallback(() => ahead.current + performance.now() / 1000, []);
  return { view, setView, clock };
}

function useNow(clock: () => number, first: number): number {
  const [now, setNow] = useState(first);
  useEffect(() => {
    const timer = setInterval(() => setNow(clock()), ticksMs);
    return () => clearInterval(timer);
  }, [clock]);
  return now;
}

/** Made in the browser only, after the first paint: the server has no storage to look into. */
function useTellings(
  key: string,
  { id, name }: NonNullable<Kept['by']>,
  onStored: (view: RunView) => void,
  onProblem: (problem: Problem) => void,
): Outbox<Telling> | undefined {
  const [outbox, setOutbox] = useState<Outbox<Telling>>();
  useEffect(() => {
    const made = tellingsOf(key, { id, name }, onStored, onProblem);
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    setOutbox(made);
    void made.flush();
    return made.close;
  }, [key, id, name, onStored, onProblem]);
  return outbox;
}

/** When all that was told has arrived; or, where it does not, after a while. */
function emptied(outbox: Outbox<Telling>): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      unsubscribe();
      resolve();
    };
    const timer = setTimeout(done, patienceMs);
    const unsubscribe = outbox.subscribe(() => outbox.items().length === 0 && done());
    if (outbox.items().length === 0) done();
  });
}

function withTellings(events: readonly RunEvent[], waiting: readonly Telling[]): readonly RunEvent[] {
  const stored = new Set(events.map(({ key }) => key));
  const coming = waiting.filter((item) => item.refused === undefined && !stored.has(item.key));
  if (coming.length === 0) return events;
  const last = events.at(-1)?.t ?? 0;
  return [...events, ...coming.map(({ key, happening, t }) => ({ ...happening, t: Math.max(last, t), key }))];
}
