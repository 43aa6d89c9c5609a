import { sameId } from '../../names/sensor-id';
import { canonicalCue, meaningOf } from '../procedure';
import { lampSeen, liveRead, registryRead } from './proof';
import {
  continued,
  ended,
  entered,
  hasEnded,
  isLastTurn,
  noted,
  openStep,
  phaseOf,
  presentWheel,
  settle,
  startedOver,
  stepDone,
  wheelAgain,
  wheelDone,
  wheelsDone,
  type Run,
} from './state';
import type { CueMeaning, Procedure, Step, StepOf } from '../procedure';
import type { EventOf, RunEvent } from './event';
import { driven, slackS, timePasses } from './time';

/** What happens to a run by one event that is no taking back. What fits nothing is noted and changes nothing. */
export function happens(procedure: Procedure, before: Run, event: Exclude<RunEvent, EventOf<'back'>>): Run {
  const run = timePasses(procedure, { ...before, notes: [] }, event.t);
  if (hasEnded(run)) return noted(run, 'ended');
  if (breaksOff(procedure, run, event)) return ended(procedure, run, 'stopped');
  if (event.event === 'stop') return ended(procedure, run, run.state === 'prove' ? 'unproved' : 'stopped');
  if (isEarly(procedure, run, event)) return noted(run, 'early');
  switch (event.event) {
    case 'tick':
      return run;
    case 'expect':
      return expecting(run, event);
    case 'speed':
      return driven(procedure, run, event.kmh);
    case 'confirm':
      return confirmed(procedure, run, event);
    case 'cue':
      return cueHeard(procedure, run, event);
    case 'skip':
      return skipped(procedure, run, event);
    case 'heard':
      return sensorHeard(procedure, run, event);
    case 'registry':
      return run.state === 'prove' ? registryRead(procedure, run, event) : noted(run, 'unexpected');
    case 'lamp':
      return run.state === 'prove' ? lampSeen(procedure, run, event) : noted(run, 'unexpected');
    case 'live':
      return run.state === 'prove' ? liveRead(procedure, run, event) : noted(run, 'unexpected');
    case 'set':
    case 'press':
    case 'release':
    case 'chosen':
    case 'taught':
    case 'answer':
      return handled(procedure, run, event);
  }
}

/** The ignition goes off while the car is learning, and the open step does not ask for it. */
function breaksOff(procedure: Procedure, run: Run, event: RunEvent): boolean {
  if (event.event !== 'set' || event.what !== 'ignition' || event.to !== 'off') return false;
  if (run.state !== 'enter' && run.state !== 'each') return false;
  const step = openStep(procedure, run);
  return !(step?.do === 'set' && step.what === event.what && step.to === event.to);
}

const earlyEvents: readonly RunEvent['event'][] = ['set', 'press', 'chosen', 'heard', 'taught', 'answer'];

/** Hands that do not wait. */
const isEarly = (procedure: Procedure, run: Run, { event }: RunEvent): boolean =>
  openStep(procedure, run)?.do === 'wait' && earlyEvents.includes(event);

/** What the car should hold becomes known; at those wheels nothing keeps it from being compared any more. */
const expecting = (run: Run, { ids }: EventOf<'expect'>): Run => ({
  ...run,
  expected: { ...run.expected, ...ids },
  notKnown: run.notKnown.filter((wheel) => ids[wheel] === undefined),
});

function confirmed(procedure: Procedure, run: Run, { what }: EventOf<'confirm'>): Run {
  if (run.state !== 'before' || !procedure.before.includes(what) || run.confirmed.includes(what))
    return noted(run, 'unexpected');
  return settle(procedure, { ...run, confirmed: [...run.confirmed, what] });
}

function skipped(procedure: Procedure, run: Run, { wheel }: EventOf<'skip'>): Run {
  const present = presentWheel(procedure, run);
  if (present === undefined) return noted(run, 'unexpected');
  if (wheel !== present) return noted(run, 'wrong-wheel');
  if (!procedure.optional.includes(wheel)) return noted(run, 'not-optional');
  return wheelDone(procedure, { ...run, skipped: [...run.skipped, wheel] });
}

/** What the car says of itself, by the legend of the phase. A cue that the open step waits for does that step. */
function cueHeard(procedure: Procedure, run: Run, { cue }: EventOf<'cue'>): Run {
  if (isSecondTap(run, cue)) return noted(run, 'twice');
  const means = meaningOf(procedure, cue, phaseOf(run));
  if (means === undefined) return noted(run, 'unknown-cue');
  const now = { ...run, lastCue: { cue, t: run.clock } };
  const step = openStep(procedure, now);
  if (step?.do === 'cue' && step.means === means) return stepDone(procedure, now);
  return carSaid(procedure, now, means) ?? noted(run, 'unknown-cue');
}

/** A car does not say the same twice so soon: two people, or a thumb that jumped. */
export const isSecondTap = ({ lastCue, clock }: Pick<Run, 'lastCue' | 'clock'>, cue: string): boolean =>
  lastCue !== undefined &&
  clock - lastCue.t <= doubleTapS + slackS &&
  canonicalCue(lastCue.cue) === canonicalCue(cue);
const doubleTapS = 2;

/** Undefined where it makes no sense. */
function carSaid(procedure: Procedure, run: Run, means: CueMeaning): Run | undefined {
  switch (means) {
    case 'failed':
    case 'expired':
      return ended(procedure, run, means);
    case 'entered':
      return run.state === 'enter' ? entered(procedure, run) : undefined;
    case 'accepted': {
      const wheel = presentWheel(procedure, run);
      if (wheel === undefined) return undefined;
      const unheard =
        procedure.each.some(({ do: kind }) => kind === 'wake') && run.heard[wheel] === undefined;
      return wheelDone(procedure, unheard ? noted(run, 'not-heard') : run);
    }
    case 'refused':
      return run.state === 'each' ? wheelAgain(procedure, noted(run, 'refused')) : undefined;
    case 'finished':
      if (run.state !== 'each') return undefined;
      return wheelsDone(procedure, isLastTurn(procedure, run) ? run : noted(run, 'wheels-open'));
  }
}

/** A sensor was woken: it counts at the present wheel alone, and only where it was heard nowhere else. */
function sensorHeard(procedure: Procedure, run: Run, { wheel, ids }: EventOf<'heard'>): Run {
  const present = presentWheel(procedure, run);
  if (present === undefined) return noted(run, 'unexpected');
  if (wheel !== present) return noted(run, 'wrong-wheel');
  const [id, another] = ids;
  if (id === undefined) return noted(run, 'silent');
  if (another !== undefined) return noted(run, 'cross-read');
  const elsewhere = procedure.wheels.some((other) => {
    const heard = run.heard[other];
    return other !== wheel && heard !== undefined && sameId(heard, id);
  });
  if (elsewhere) return noted(run, 'heard-before');
  if (openStep(procedure, run)?.do !== 'wake') return noted(run, 'unexpected');
  return stepDone(procedure, { ...run, heard: { ...run.heard, [wheel]: id } });
}

type Handling = EventOf<'set' | 'press' | 'release' | 'chosen' | 'taught' | 'answer'>;

/** What hands do, for the step that is open. Letting go of something is never wrong. */
function handled(procedure: Procedure, run: Run, event: Handling): Run {
  const step = openStep(procedure, run);
  const after = step && stepTakes(procedure, run, step, event);
  return after ?? (event.event === 'release' ? run : noted(run, 'unexpected'));
}

/** The run after a step took an event; undefined where the event is not for it. */
function stepTakes(procedure: Procedure, run: Run, step: Step, event: Handling): Run | undefined {
  switch (step.do) {
    case 'set':
      return event.event === 'set' && event.what === step.what && event.to === step.to
        ? stepDone(procedure, run)
        : undefined;
    case 'press':
      return event.event === 'press' && event.what === step.what ? pressed(procedure, run, step) : undefined;
    case 'hold':
      return heldOrLetGo(procedure, run, step, event);
    case 'menu':
      return event.event === 'chosen' && isSamePath(event.path, step.path)
        ? stepDone(procedure, run)
        : undefined;
    case 'air':
    case 'magnet':
      return event.event === 'taught' && event.wheel === presentWheel(procedure, run)
        ? stepDone(procedure, run)
        : undefined;
    case 'write':
      return event.event === 'answer' ? answered(procedure, run, event) : undefined;
    case 'wait':
    case 'cue':
    case 'drive':
    case 'wake':
      return undefined;
  }
}

/** The last presses count, as many as are asked for, if the first and the last of them lie close enough. */
function pressed(procedure: Procedure, run: Run, { times, withinS }: StepOf<'press'>): Run {
  const presses = [...run.open.presses, run.clock];
  const inTime = withinS === undefined ? presses : presses.filter((t) => run.clock - t <= withinS + slackS);
  const late = presses.slice(inTime.length).map(() => 'too-slow' as const);
  const now = noted(run, ...late);
  return inTime.length >= times ? stepDone(procedure, now) : continued(now, { presses: inTime });
}

function heldOrLetGo(procedure: Procedure, run: Run, step: StepOf<'hold'>, event: Handling): Run | undefined {
  const { heldSince } = run.open;
  if (event.event === 'press' && event.what === step.what)
    return heldSince === undefined ? continued(run, { heldSince: run.clock }) : undefined;
  if (event.event !== 'release' || event.what !== step.what || heldSince === undefined) return undefined;
  const heldS = run.clock - heldSince;
  if (heldS < step.leastS - slackS) return startedOver(noted(run, 'too-short'));
  if (step.mostS !== undefined && heldS > step.mostS + slackS) return startedOver(noted(run, 'too-long'));
  return stepDone(procedure, run);
}

const isSamePath = (one: readonly string[], other: readonly string[]): boolean =>
  one.length === other.length && one.every((item, at) => item === other[at]);

/** A lost answer leaves it open whether the car took the IDs: only the proof can tell. */
function answered(procedure: Procedure, run: Run, { answer }: EventOf<'answer'>): Run {
  if (answer === 'no') return ended(procedure, run, 'failed', 'refused-by-car');
  return stepDone(procedure, answer === 'lost' ? noted(run, 'answer-lost') : run);
}
