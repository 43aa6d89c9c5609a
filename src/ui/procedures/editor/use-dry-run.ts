import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import type { BodyOf } from '../../../contract';
import type { Procedure } from '../../../core/relearn/procedure';
import { replay, timePasses, type Happening, type RunEvent } from '../../../core/relearn/run';
import { walkingOrder } from '../../../core/names/wheel';
import { ask } from '../../api';
import type { RunOnScreen } from '../../run/use-run';

const ticksMs = 200;
const listenMs = 400;

/** A run that lives on this page alone, against a simulated car of the practice bay. */
export function useDryRun(
  procedure: Procedure,
  jobId: string,
): { on: RunOnScreen; said: string[]; problem: string | undefined } {
  const begun = useRef<number>(undefined);
  const [events, setEvents] = useState<readonly RunEvent[]>([]);
  const [now, setNow] = useState(0);
  const [busy, setBusy] = useState<string>();

  const clock = useCallback(() => {
    begun.current ??= performance.now();
    return (performance.now() - begun.current) / 1000;
  }, []);
  useEffect(() => {
    const timer = setInterval(() => setNow(clock()), ticksMs);
    return () => clearInterval(timer);
  }, [clock]);

  const { bay, said, problem } = useBay(jobId);

  const told = useMemo(() => replay(procedure, events), [procedure, events]);
  const run = timePasses(procedure, told, now);
  const { method } = procedure;
  const { expected } = told;
  const note = (happenings: readonly Happening[], agoS = 0) =>
    setEvents((before) => [
      ...before,
      ...happenings.map((happening) => ({
        ...happening,
        t: Math.max(before.at(-1)?.t ?? 0, clock() - agoS),
        key: newKey(),
      })),
    ]);
  /** What hands do comes to the car one after another. */
  const hands = useRef(Promise.resolve());
  const tell = (...happenings: Happening[]) => {
    for (const happening of happenings)
      hands.current = hands.current.then(async () => {
        // It happened once the car has felt it: a hold that is long enough here is then long enough for the car.
        if (await bay({ do: 'hands', happening, method, typed: expected })) note([happening]);
      });
  };
  const act: RunOnScreen['act'] = async (what, name, body) => {
    setBusy(what);
    await hands.current;
    const wheel = walkingOrder.find((one) => 'wheel' in body && body.wheel === one);
    if (name === 'wakeInRun' && wheel) {
      const woken = await bay({ do: 'wake', wheel });
      const [id, another] = woken?.ids ?? [];
      if (woken && run.state !== 'prove') note([{ event: 'heard', wheel, ids: woken.ids }]);
      else if (id !== undefined && another === undefined) note([{ event: 'expect', ids: { [wheel]: id } }]);
    } else {
      const read = await bay({ do: 'read' });
      if (read) note([{ event: 'registry', entries: read.entries }]);
    }
    setBusy(undefined);
    return true;
  };
  const writes = procedure.finish.some(({ do: kind }) => kind === 'write');
  return {
    on: {
      view: {
        key: jobId,
        jobId,
        jobNumber: 0,
        vehicle: { label: '', plate: '' },
        procedure,
        startedAt: '',
        by: '',
        events: [...events],
        elapsedS: now,
        closed: false,
        // Nobody fills a simulated tire for a dry try.
        fillFirst: [],
        // Nothing is written to a car in a dry try: its answer is pressed by hand.
        devices: {
          tool: true,
          lead: !writes,
          ownTool: true,
          ownLead: true,
          takesThresholds: false,
          practice: true,
        },
      },
      procedure,
      run,
      events,
      tell,
      tellOfPast: (past) => {
        for (const { agoS, happening } of past) note([happening], agoS);
      },
      act,
      settled: () => Promise.resolve(),
      busy,
      problem: undefined,
      connected: true,
      unsent: 0,
    },
    said,
    problem,
  };
}

/** The car of a job in the practice bay, and what it said last. */
function useBay(jobId: string) {
  const [said, setSaid] = useState<string[]>([]);
  const [problem, setProblem] = useState<string>();
  const heard = useRef<number>(undefined);
  const bay = useCallback(
    async (body: BodyOf<'tryDry'>) => {
      const answer = await ask('tryDry', { id: jobId, body });
      setProblem(answer.ok ? undefined : answer.problem.message);
      if (!answer.ok) return undefined;
      const { cues } = answer.value;
      const last = cues.at(-1)?.n ?? 0;
      const before = heard.current ?? last;
      heard.current = Math.max(before, last);
      const fresh = cues.filter(({ n }) => n > before).map(({ cue }) => cue);
      if (fresh.length > 0) setSaid(fresh);
      return answer.value;
    },
    [jobId],
  );
  useEffect(() => {
    // What it said before this try is not heard in it.
    const listen = () => void bay({ do: 'listen' });
    const first = setTimeout(listen);
    const timer = setInterval(listen, listenMs);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [bay]);
  return { bay, said, problem };
}
