import type { Procedure } from '../procedure';
import type { EventOf, RunEvent } from './event';
import { happens } from './happens';
import { begin, hasEnded, noted, type Run, type Told } from './state';
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
    ...(event.event !== 'tick' && { last: { event: told, before } }),
  };
}

/** The last act can be taken back for so long, s. */
const backS = 30;

/** What is no act of anybody's hands or ears. */
const passing: readonly RunEvent['event'][] = ['tick', 'speed', 'expect'];

/** The last act that counts, whatever its age, with the run before it, and what was seen since. */
function lastActOf({ last }: Run): (Told & { since: RunEvent[] }) | undefined {
  const since: RunEvent[] = [];
  let told = last;
  for (; told && passing.includes(told.event.event); told = told.before.last) since.unshift(told.event);
  return told && { ...told, since };
}

/** What a `back` at the run's present time would take away, and the run as it stood before that; undefined: too late. */
export function lastAct(run: Run): Told | undefined {
  const act = lastActOf(run);
  return act && run.clock - act.event.t <= backS + slackS ? act : undefined;
}

/**
 * The run as it would have been without its last act, or with another in its place. What was seen since is read again, and
 * time is brought up to now. It notes what the other act does, and what falls due by itself.
 */
function takenBack(procedure: Procedure, before: Run, { t, instead }: EventOf<'back'>): Run {
  const act = lastActOf(before);
  if (!act || t - act.event.t > backS + slackS)
    return noted(timePasses(procedure, { ...before, notes: [] }, t), 'too-late');
  let run: Run = { ...act.before, notes: [] };
  if (instead) run = advance(procedure, run, { ...instead, t: act.event.t });
  const notes = [...run.notes];
  for (const seen of act.since) {
    run = advance(procedure, run, seen);
    notes.push(...run.notes.filter((note) => note !== 'ended'));
  }
  run = timePasses(procedure, { ...run, notes: [] }, t);
  return { ...run, notes: ['back', ...notes, ...run.notes] };
}
