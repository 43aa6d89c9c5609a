import type { Position } from '../../names/wheel';
import type { Phase, Procedure, Step } from '../procedure';
import type { RunEvent } from './event';

/** Where a run stands. The last five are ends: nothing follows. */
export const runStates = [
  'before',
  'enter',
  'each',
  'finish',
  'prove',
  'done',
  'failed',
  'expired',
  'stopped',
  'unproved',
] as const;
export type RunState = (typeof runStates)[number];
export type RunEnd = 'done' | 'failed' | 'expired' | 'stopped' | 'unproved';

/** What went otherwise than the procedure has it; told with the event at which it showed. */
export const runNotes = [
  'answer-lost',
  'back',
  'cross-read',
  'differs',
  'early',
  'ended',
  'heard-before',
  'lamp-on',
  'no-cue',
  'not-heard',
  'not-known',
  'not-optional',
  'refused',
  'refused-by-car',
  'silent',
  'too-late',
  'too-long',
  'too-short',
  'too-slow',
  'twice',
  'unexpected',
  'unknown-cue',
  'wheels-open',
  'wrong-wheel',
] as const;
export type RunNote = (typeof runNotes)[number];

/** One execution of a procedure at one car, as its events so far have it. All times in seconds from its start. */
export interface Run {
  state: RunState;
  /** Up to when time has been brought. */
  clock: number;
  confirmed: readonly string[];
  /** Index of the open step in its phase. */
  step: number;
  /** Index of the present wheel among those that are taught. */
  turn: number;
  /** When the clocks of the limits were started. */
  since: { total: number; enter: number; wheel: number };
  open: Progress;
  /** The last speed that was read; it holds until the next. */
  kmh: number;
  expected: Partial<Record<Position, string>>;
  heard: Partial<Record<Position, string>>;
  skipped: readonly Position[];
  /** What is proved so far. */
  proved: { registry: boolean; lamp: boolean; live: readonly Position[] };
  /** The wheel at which the run ended, where it ended at one. */
  endedAt: Position | undefined;
  /** What ended it; undefined where time did, and while it goes on. */
  endedBy: RunEvent | undefined;
  /** What was noted when it ended. */
  because: readonly RunNote[];
  /** Where the car holds something else than it should. */
  differs: readonly Position[];
  /** Where the car holds an ID, and nobody knows which it should be: by its last reading, and what was said since. */
  notKnown: readonly Position[];
  /** The last cue that counted. */
  lastCue: { cue: string; t: number } | undefined;
  /** What was told last, as it counts now: nothing that was taken back, and no mere tick. With the run before it. */
  last: Told | undefined;
  /** Of the last event. */
  notes: readonly RunNote[];
}

/** An event that counts, and the run it came to: so the events before it are reached too. */
export interface Told {
  event: RunEvent;
  before: Run;
}

/** How far the open step has come. */
export interface Progress {
  since: number;
  /** When it was pressed, as far as those presses still count. */
  presses: readonly number[];
  /** Since when it is held. */
  heldSince: number | undefined;
  /** Seconds driven fast enough, up to `droveTo`. */
  droveS: number;
  droveTo: number;
}

const openedAt = (t: number): Progress => ({
  since: t,
  presses: [],
  heldSince: undefined,
  droveS: 0,
  droveTo: t,
});

/** A run at its start, with everything passed that asks for nothing. */
export const begin = (procedure: Procedure): Run =>
  settle(procedure, {
    state: 'before',
    clock: 0,
    confirmed: [],
    step: 0,
    turn: 0,
    since: { total: 0, enter: 0, wheel: 0 },
    open: openedAt(0),
    kmh: 0,
    expected: {},
    heard: {},
    skipped: [],
    proved: { registry: false, lamp: false, live: [] },
    endedAt: undefined,
    endedBy: undefined,
    because: [],
    differs: [],
    notKnown: [],
    lastCue: undefined,
    last: undefined,
    notes: [],
  });

export const hasEnded = ({ state }: Run): boolean => isEnd(state);
const isEnd = (state: RunState): state is RunEnd =>
  state === 'done' ||
  state === 'failed' ||
  state === 'expired' ||
  state === 'stopped' ||
  state === 'unproved';

/** The phase a run is in; undefined before, in the proof and after the end. */
export const phaseOf = ({ state }: Run): Phase | undefined =>
  state === 'enter' || state === 'each' || state === 'finish' ? state : undefined;

export function openStep(procedure: Procedure, run: Run): Step | undefined {
  const phase = phaseOf(run);
  return phase && procedure[phase][run.step];
}

/** The wheel whose turn it is. */
export const presentWheel = ({ wheels }: Procedure, run: Run): Position | undefined =>
  run.state === 'each' ? wheels[run.turn] : undefined;

/** How many wheels had their turn, skipped ones among them; where a run ended at a wheel, those before it. */
export function wheelsTaught({ wheels }: Procedure, { state, turn, endedAt, because }: Run): number {
  if (endedAt) return wheels.indexOf(endedAt);
  switch (state) {
    case 'each':
      return turn;
    case 'finish':
    case 'prove':
    case 'done':
    case 'unproved':
      return wheels.length;
    case 'failed':
      return because.some((note) => note === 'differs' || note === 'lamp-on') ? wheels.length : 0;
    default:
      return 0;
  }
}

/** Whether a wheel is still to come after the present one. */
export const isLastTurn = ({ wheels }: Procedure, { turn }: Run): boolean => turn >= wheels.length - 1;

export const noted = (run: Run, ...notes: readonly RunNote[]): Run => ({
  ...run,
  notes: [...run.notes, ...notes],
});

/** The same step, with so much more done of it. */
export const continued = (run: Run, more: Partial<Progress>): Run => ({
  ...run,
  open: { ...run.open, ...more },
});

/** The same step from its beginning. */
export const startedOver = (run: Run): Run => ({ ...run, open: openedAt(run.clock) });

export const stepDone = (procedure: Procedure, run: Run): Run =>
  settle(procedure, { ...startedOver(run), step: run.step + 1 });

/** The present wheel is done, whatever step was open. */
export const wheelDone = (procedure: Procedure, run: Run): Run =>
  settle(procedure, { ...startedOver(run), step: procedure.each.length });

/** The present wheel from its first step, with nothing heard there; its clock goes on. */
export function wheelAgain(procedure: Procedure, run: Run): Run {
  const heard = { ...run.heard };
  const wheel = presentWheel(procedure, run);
  if (wheel) delete heard[wheel];
  return { ...startedOver(run), step: 0, heard };
}

/** The present wheel is done, and no other comes. */
export const wheelsDone = (procedure: Procedure, run: Run): Run => enter(procedure, run, 'finish');

/** The car was entered into its learning, whatever step was open. */
export const entered = (procedure: Procedure, run: Run): Run => enter(procedure, run, 'each');

export const ended = (procedure: Procedure, run: Run, state: RunEnd, ...notes: readonly RunNote[]): Run => ({
  ...noted(run, ...notes),
  state,
  endedAt: presentWheel(procedure, run),
  because: notes,
});

export const isConfirmed = ({ before }: Procedure, { confirmed }: Run): boolean =>
  before.every((what) => confirmed.includes(what));

/** Passes over whatever asks for nothing more. */
export function settle(procedure: Procedure, run: Run): Run {
  switch (run.state) {
    case 'before':
      return isConfirmed(procedure, run) ? enter(procedure, run, 'enter') : run;
    case 'enter':
      return run.step < procedure.enter.length ? run : enter(procedure, run, 'each');
    case 'each':
      if (procedure.each.length === 0 || run.turn >= procedure.wheels.length)
        return enter(procedure, run, 'finish');
      return run.step < procedure.each.length ? run : nextWheel(procedure, run);
    case 'finish':
      return run.step < procedure.finish.length ? run : { ...run, state: 'prove', step: 0 };
    default:
      return run;
  }
}

function enter(procedure: Procedure, run: Run, phase: Phase): Run {
  const { clock, since } = run;
  const started = {
    enter: { total: clock, enter: clock, wheel: since.wheel },
    each: { ...since, wheel: clock },
    finish: since,
  }[phase];
  return settle(procedure, { ...startedOver(run), state: phase, step: 0, turn: 0, since: started });
}

const nextWheel = (procedure: Procedure, run: Run): Run =>
  settle(procedure, {
    ...startedOver(run),
    step: 0,
    turn: run.turn + 1,
    since: { ...run.since, wheel: run.clock },
  });
