import { legendOf } from './legend';
import type { CueMeaning, Phase, Procedure, Step } from '.';
import type { RelearnMethod } from '../method';

export const methodWords: Record<RelearnMethod, string> = {
  drive: 'drive',
  tool: 'stationary, with the tool',
  air: 'stationary, letting air out',
  magnet: 'stationary, with the magnet',
  write: 'register the IDs over the lead',
  typed: 'type the IDs into the car',
  reset: 'reset the system',
};

export const phaseWords: Record<Phase, string> = {
  enter: 'Enter learning',
  each: 'At each wheel',
  finish: 'Finish',
};

/** What a cue means, as it is said to whoever stands at the wheel. */
export const meaningWords: Record<CueMeaning, string> = {
  entered: 'the car is learning',
  accepted: 'this wheel is learned',
  refused: 'not taken: this wheel again',
  finished: 'all is learned',
  failed: 'the car gave up',
  expired: 'the car left learning by itself',
};

export const proofWords: Record<Procedure['proof'][number], string> = {
  registry: 'the car holds the right ID at every wheel',
  lamp: 'the lamp is off',
  live: 'the car shows a pressure at every wheel',
};

export const conditions: Record<string, string> = {
  'parking-brake': 'Parking brake set',
  'engine-off': 'Engine off',
  'pressures-set': 'Pressures set, cold',
  'neighbours-away': 'Other wheels and cars half a metre away',
  'supply-steady': 'Supply steady: charger on, or the car switched on',
};

/** A cue as it is said: "horn twice", "message IDs stored"; one that counts nothing as it is written. */
export function cueWords(cue: string): string {
  const [, who = '', times] = /^(.*\S)\s+(\d+)$/.exec(cue.trim()) ?? [];
  return times === undefined ? cue : `${who}${Number(times) === 1 ? ' once' : timesWords(Number(times))}`;
}

/** A condition in words; one of the procedure's own as it is written. */
export const conditionWords = (condition: string): string =>
  conditions[condition] ?? capital(condition.replaceAll('-', ' '));

/** A step as an instruction; where it waits for a cue, with the cues of this car. */
export function stepWords(procedure: Procedure, phase: Phase, step: Step): string {
  switch (step.do) {
    case 'set':
      return `${phraseOf(step.what)} ${step.to}`;
    case 'press':
      return `Press ${step.what.replaceAll('-', ' ')}${timesWords(step.times)}${within(step.withinS)}`;
    case 'hold':
      return `Hold ${step.what.replaceAll('-', ' ')} ${spanWords(step.leastS, step.mostS)}`;
    case 'menu':
      return `Choose ${step.path.join(' › ')}`;
    case 'wait':
      return `Wait ${secondsWords(step.s)}`;
    case 'cue': {
      const cues = legendOf(procedure, phase)
        .filter(({ means }) => means === step.means)
        .map(({ cue }) => cueWords(cue));
      const time = step.withinS === undefined ? '' : `, ${secondsWords(step.withinS)} at most`;
      return `Wait for ${cues.join(' or ')}${time}: ${meaningWords[step.means]}`;
    }
    case 'drive':
      return `Drive ${secondsWords(step.leastS)} at ${step.leastKmh} km/h or faster${step.unbroken ? ', without a break' : ''}`;
    case 'wake':
      return 'Wake the sensor with the tool';
    case 'air':
      return 'Let air out until the car answers';
    case 'magnet':
      return 'Hold the magnet over the valve until the car answers';
    case 'write':
      return 'Register the IDs in the car';
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
/** What is switched, pressed or held, as a word at the beginning of a sentence. */
export const phraseOf = (what: string): string => capital(what.replaceAll('-', ' '));
const timesWords = (times: number): string => (times === 1 ? '' : times === 2 ? ' twice' : ` ${times} times`);
const within = (s: number | undefined): string => (s === undefined ? '' : `, within ${secondsWords(s)}`);

/** Seconds as a person says them: `90 s`, `10 min`. */
export const secondsWords = (s: number): string => (s >= 120 && s % 60 === 0 ? `${s / 60} min` : `${s} s`);

function spanWords(least: number, most: number | undefined): string {
  if (most === undefined) return `${secondsWords(least)} or longer`;
  return least === 0 ? `up to ${secondsWords(most)}` : `${secondsWords(least)} to ${secondsWords(most)}`;
}
