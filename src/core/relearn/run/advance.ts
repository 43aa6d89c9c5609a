import type { Procedure } from '../procedure';
import type { EventOf, RunEvent } from './event';
import { happens } from './happens';
import { begin, hasEnded, noted, type Run } from './state';
import { slackS, timePasses } from './time';

/** The state of a run after its events: nothing else decides what that is. */
export const replay = (procedure: Procedure, events: readonly RunEvent[]): Run =>
  events.reduce((run, event) => advance(procedure, run, event), begin(procedure));

/**
 * A run after one event more. Pure, and never throws: what fits nothing is noted and changes nothing. Time is brought
 * up to the event first, so what fell due earlier has happened by then. An event from before the last one counts as now.
 */
export function advance(procedure: Procedure, before: Run, event: RunEvent): Run {
  if (event.event === 'back') return takenBack(procedure, before, event);
  const run = happens(procedure, before, event);
  const told = { ...event, t: run.clock };
  const ends = hasEnded(run) && !run.notes.includes('ended');
  return {
    ...run,
    ...(ends && { endedBy: told }),
    told: event.event === 'tick' ? run.told : [...run.told, told],
  };
}

/** The last act can be taken back for so long, s. */
export const backS = 30;

/** What is no act of anybody's hands or ears. */
const passing: readonly RunEvent['event'][] = ['tick', 'speed', 'expect'];

interface Act {
  event: RunEvent;
  /** Its place in what was told. */
  at: number;
}

/** The last act that counts, whatever its age; undefined: there is none. */
function lastActOf({ told }: Run): Act | undefined {
  const at = told.findLastIndex(({ event }) => !passing.includes(event));
  const event = told[at];
  return event && { event, at };
}

/** What a `back` at the run's present time would take away, and the run as it stood before that; undefined: too late. */
export function lastAct(procedure: Procedure, run: Run): { event: RunEvent; before: Run } | undefined {
  const last = lastActOf(run);
  return last && run.clock - last.event.t <= backS + slackS
    ? { event: last.event, before: replay(procedure, run.told.slice(0, last.at)) }
    : undefined;
}

/**
 * The run as it would have been without its last act, or with another in its place. What was seen since is read again, and
 * time is brought up to now. It notes what the other act does, and what falls due by itself.
 */
function takenBack(procedure: Procedure, before: Run, { t, instead }: EventOf<'back'>): Run {
  const last = lastActOf(before);
  if (!last || t - last.event.t > backS + slackS)
    return noted(timePasses(procedure, { ...before, notes: [] }, t), 'too-late');
  const { at, event } = last;
  let run: Run = { ...replay(procedure, before.told.slice(0, at)), notes: [] };
  if (instead) run = advance(procedure, run, { ...instead, t: event.t });
  const notes = [...run.notes];
  for (const seen of before.told.slice(at + 1)) {
    run = advance(procedure, run, seen);
    notes.push(...run.notes.filter((note) => note !== 'ended'));
  }
  run = timePasses(procedure, { ...run, notes: [] }, t);
  return { ...run, notes: ['back', ...notes, ...run.notes] };
}
