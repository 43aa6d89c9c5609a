import { legendOf } from './legend';
import { positionName } from '../wheel';
import type { Way } from './methods';
import type { Need, NeedAction, NeedReason } from './need';
import type { CueMeaning, Phase, Procedure, RelearnMethod, Step } from './procedure';

export const methodWords: Record<RelearnMethod, string> = {
  drive: 'drive',
  tool: 'stationary, with the tool',
  air: 'stationary, letting air out',
  magnet: 'stationary, with the magnet',
  write: 'send the IDs over the lead',
  typed: 'type the IDs into the car',
  reset: 'store the reference',
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

const conditions: Record<string, string> = {
  'parking-brake': 'Parking brake set',
  'engine-off': 'Engine off',
  'pressures-set': 'Pressures set, cold',
  'neighbours-away': 'Other wheels and cars half a metre away',
  'supply-steady': 'Supply steady: charger on, or the car switched on',
};

/** A condition in words; one of the procedure's own as it is written. */
export const conditionWords = (condition: string): string =>
  conditions[condition] ?? capital(condition.replaceAll('-', ' '));

/** A step as an instruction; where it waits for a cue, with the cues of this car. */
export function stepWords(procedure: Procedure, phase: Phase, step: Step): string {
  switch (step.do) {
    case 'set':
      return `${named(step.what)} ${step.to}`;
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
        .map(({ cue }) => cue);
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
      return 'Send the IDs to the car';
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const named = (what: string): string => capital(what.replaceAll('-', ' '));
const timesWords = (times: number): string => (times === 1 ? '' : times === 2 ? ' twice' : ` ${times} times`);
const within = (s: number | undefined): string => (s === undefined ? '' : `, within ${secondsWords(s)}`);

/** Seconds as a person says them: `90 s`, `10 min`. */
export const secondsWords = (s: number): string => (s >= 120 && s % 60 === 0 ? `${s / 60} min` : `${s} s`);

function spanWords(least: number, most: number | undefined): string {
  if (most === undefined) return `${secondsWords(least)} or longer`;
  return least === 0 ? `up to ${secondsWords(most)}` : `${secondsWords(least)} to ${secondsWords(most)}`;
}

export const needActionWords: Record<NeedAction, string> = {
  none: 'No relearn is needed',
  relearn: 'A relearn is needed',
  acknowledge: 'No relearn: the swap with the spare is acknowledged',
  'store-reference': 'The reference must be stored again',
  'read-first': 'Read the car first',
};

const needReasonWords: Record<NeedReason, string> = {
  'no-monitoring': 'This car does not watch its pressures.',
  'reference-holds': 'Nothing was changed on tires or air since the reference was stored.',
  'reference-stale':
    'It compares wheel speeds with what it stored, and tires or air were changed since. Set the pressures cold first.',
  'holds-what-was-heard': 'It holds the ID that was heard at every wheel.',
  'holds-other-ids': 'It does not hold what was heard at',
  'holds-a-slip': 'It holds an ID one slip away from what was heard at',
  'wheels-moved': 'It holds the right IDs, but at other positions:',
  'spare-swapped':
    'It sees by itself that these two changed places. Hold the button its handbook names until it says so:',
  rotated: 'Wheels changed places, and this car ties IDs to positions. Read the car to be sure.',
  'rotated-not-tied': 'Wheels changed places, but this car does not tie IDs to positions.',
  'other-set': 'Another wheel set is on, and the car holds one set. Read the car to be sure.',
  'other-set-held': 'Another wheel set is on, and the car holds more than one set. Read the car to be sure.',
  'new-sensor': 'Another sensor is in: one with a new ID must be taught, a clone need not.',
  'same-sensors': 'The sensors stayed with their wheels. Read the car to be sure.',
  'nothing-done': 'Nothing was done that a car must be taught.',
};

/** Why a relearn is needed, or none is: a sentence, with its wheels. */
export function needWords({ reason, wheels }: Need): string {
  const words = needReasonWords[reason];
  if (wheels.length === 0) return words;
  const where = wheels.map((wheel) => positionName[wheel]).join(', ');
  return words.endsWith('.') ? `${words} It answered at: ${where}.` : `${words} ${where}.`;
}

const meansWords: Record<Way['missing'][number], string> = {
  tool: 'an activation tool',
  lead: 'a lead to the car',
  road: 'a road',
};

/** What stands in the way of a procedure here and now; empty where nothing does. */
export function wayWords({ missing, failed, waitsForSupply }: Way): string[] {
  return [
    ...(missing.length > 0 ? [`Needs ${missing.map((one) => meansWords[one]).join(' and ')}`] : []),
    ...(waitsForSupply ? ['Waits for the supply: connect a charger, read the car again'] : []),
    ...(failed > 0 ? [`Failed ${failed === 1 ? 'once' : `${failed} times`} on this visit`] : []),
  ];
}
