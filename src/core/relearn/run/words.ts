import { groupedId } from '../../names/sensor-id';
import { listWheels } from '../../names/wheel';
import type { Procedure } from '../procedure';
import { conditionWords, cueWords, meaningWords, phraseOf, secondsWords } from '../procedure/words';
import type { Happening } from './event';
import type { limitNames } from './clock';
import type { Run, RunEnd, RunNote, RunState } from './state';

/** What somebody is told of a run: in one hand a tool, in the other a wheel. */

export const stateWords: Record<RunState, string> = {
  before: 'Make ready',
  enter: 'Bring the car to learn',
  each: 'Wheel by wheel',
  finish: 'Finish',
  prove: 'Prove it',
  done: 'Done, and proved',
  failed: 'It failed',
  expired: 'Time ran out: the car left learning',
  stopped: 'Stopped before it was done',
  unproved: 'Ended without proof',
};

/** What a clock of the car allows time for. */
export const limitWords: Record<(typeof limitNames)[number], string> = {
  enter: 'to begin learning',
  wheel: 'for this wheel',
  total: 'in all',
};

/** What somebody told, as it stands beside the way to take it back: "horn twice", "nothing answered at LF". */
export function eventWords(event: Happening): string {
  switch (event.event) {
    case 'confirm':
      return conditionWords(event.what);
    case 'set':
      return `${phraseOf(event.what)} ${event.to}`;
    case 'press':
      return `${phraseOf(event.what)} pressed`;
    case 'release':
      return `${phraseOf(event.what)} let go`;
    case 'chosen':
      return event.path.join(' › ');
    case 'cue':
      return cueWords(event.cue);
    case 'heard':
      return event.ids.length === 0
        ? `nothing answered at ${event.wheel}`
        : `${event.ids.map(groupedId).join(' and ')} heard at ${event.wheel}`;
    case 'taught':
      return `${event.wheel} done`;
    case 'skip':
      return `${event.wheel} left out`;
    case 'answer':
      return { yes: 'the car took the IDs', no: 'the car refused', lost: 'no answer came' }[event.answer];
    case 'registry':
      return 'what the car holds';
    case 'lamp':
      return `lamp ${event.state}`;
    case 'live':
      return `the pressure at ${event.wheel}`;
    case 'stop':
      return 'stopped';
    case 'expect':
    case 'speed':
    case 'tick':
    case 'back':
      return event.event;
  }
}

/** What a note means, and what to do about it; nothing where that goes without saying. */
export const noteWords: Record<RunNote, { means: string; next: string }> = {
  'answer-lost': {
    means: 'The car was asked and its answer never came.',
    next: 'It may hold the IDs or not. Only reading it can tell.',
  },
  back: { means: 'The last act was taken back.', next: '' },
  'cross-read': {
    means: 'More than one sensor answered.',
    next: 'Move other wheels half a metre away, hold the antenna to this valve, wake it again.',
  },
  differs: {
    means: 'The car holds other IDs than it should.',
    next: 'Start again at that wheel, or register the IDs over the lead.',
  },
  early: {
    means: 'Too early: the wait is not over.',
    next: 'Wait until the clock is out, then do it again.',
  },
  ended: { means: 'The relearn has ended; this changed nothing.', next: 'Start it again.' },
  'heard-before': {
    means: 'This sensor was heard at another wheel already.',
    next: 'Stand at this wheel’s own valve, with the other wheel out of reach, and wake it again.',
  },
  'lamp-on': {
    means: 'The lamp is on.',
    next: 'Wait a minute, ignition off and on, drive two or three kilometres, then look again.',
  },
  'no-cue': {
    means: 'The car did not answer in its time.',
    next: 'Ignition off, then start again. Check that this procedure is for this car and its year.',
  },
  'not-heard': {
    means: 'The car took this wheel, but nobody heard which sensor it has.',
    next: 'Reading the car will tell; wake this wheel again when you are done.',
  },
  'not-known': {
    means: 'The car was read, but nobody knows which IDs it should hold.',
    next: 'Wake those sensors or type their IDs, then read the car again.',
  },
  'not-optional': { means: 'This wheel cannot be left out.', next: 'Teach it, or take another method.' },
  refused: {
    means: 'The car did not take this wheel.',
    next: 'Begin this wheel again. If it is refused again, this wheel’s sensor is the one to look at.',
  },
  'refused-by-car': {
    means: 'The car refused the write.',
    next: 'Check the supply and the ignition, read the car, then register them again.',
  },
  silent: {
    means: 'Nothing answered at this wheel.',
    next: 'Move the antenna to the valve, roll the wheel a quarter turn, change the trigger. If the wheel before answered, it is this sensor.',
  },
  'too-late': {
    means: 'Too late to take anything back.',
    next: 'Only what was told in the last half minute can be.',
  },
  'too-long': { means: 'Held too long.', next: 'Step back and hold it again, letting go in time.' },
  'too-short': { means: 'Let go too soon.', next: 'Hold it again, until the clock turns.' },
  'too-slow': {
    means: 'Too slow: the first presses no longer count.',
    next: 'Press on, faster: the counter says how many still count.',
  },
  twice: { means: 'The same cue twice within two seconds counts once.', next: '' },
  unexpected: { means: 'The procedure does not ask for this now.', next: 'Do what stands above.' },
  'unknown-cue': {
    means: 'This cue means nothing here by the procedure on file.',
    next: 'Listen again. If the car keeps saying it, the procedure may be wrong for this car: say so.',
  },
  'wheels-open': {
    means: 'The car says it is finished though wheels were still to come.',
    next: 'Reading the car will tell what it took.',
  },
  'wrong-wheel': {
    means: 'That is another wheel than the one whose turn it is.',
    next: 'Go to the wheel that is marked above.',
  },
};

/** What to try after a run that ended otherwise than done: the likeliest first. */
export function nextAfter({ method }: Procedure, run: Run): string[] {
  const { endedAt, state } = run;
  const ends: Record<Exclude<RunEnd, 'done'>, string[]> = {
    failed: endedAt
      ? [
          `Where the wheel before passed, look at the sensor at ${endedAt}: wake it alone, check its family and battery.`,
          'Start again from ignition off.',
          ...another(method),
        ]
      : ['Start again from ignition off.', ...another(method)],
    expired: [
      endedAt
        ? `It ran out at ${endedAt}. Have the tool ready at the next wheel before the car answers.`
        : 'Have everything at hand before the first step.',
      'Start again from ignition off.',
      ...another(method),
    ],
    stopped: ['The car may have left learning half taught. Read it, or start again.'],
    unproved: ['Nothing shows yet that it worked. Drive, then read the car or look at its lamp.'],
  };
  return state in ends ? ends[state as keyof typeof ends] : [];
}

const another = (method: Procedure['method']): string[] =>
  method === 'write'
    ? ['Take another method if it fails again.']
    : ['Take another method if it fails again: sending the IDs over the lead does not need the car’s help.'];

/** The cue that ended it, when and at which wheel: what is read of it may have been a slip. */
export function endedWords({ endedBy, endedAt, state }: Run): string | undefined {
  if (endedBy?.event !== 'cue') return undefined;
  const where = endedAt ? ` at ${endedAt}` : '';
  const meaning = state === 'failed' || state === 'expired' ? `: ${meaningWords[state]}` : '';
  return `Told after ${secondsWords(Math.round(endedBy.t))}${where}: ${cueWords(endedBy.cue)}${meaning}.`;
}

/** Where the car holds something else than it should. */
export const differsWords = ({ differs }: Run): string | undefined =>
  differs.length > 0 ? `It differs at ${listWheels(differs)}.` : undefined;
