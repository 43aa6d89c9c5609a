import type { Ledger } from '../../../job/ledger';
import { listWheels, positionName } from '../../../names/wheel';
import type { Need, NeedAction, NeedReason } from './need';
import type { Way } from './ways';

const needActionWords: Record<NeedAction, string> = {
  none: 'No relearn is needed',
  relearn: 'A relearn is needed',
  acknowledge: 'No relearn: the swap with the spare is acknowledged',
  'store-reference': 'The system must be reset',
  depends: 'Whether a relearn is needed is not known yet',
};

const needReasonWords: Record<NeedReason, string> = {
  'no-monitoring': 'This car does not watch its pressures.',
  'reference-holds': 'Nothing was changed on tires or air since the system was reset.',
  'reference-stale':
    'It compares wheel speeds with what it stored, and tires or air were changed since. Set the pressures cold first.',
  'holds-what-was-heard': 'It holds the ID that was heard at every wheel.',
  'holds-other-ids': 'It does not hold what was heard at',
  'holds-a-slip': 'It holds an ID one slip away from what was heard at',
  'wheels-moved': 'It holds the right IDs, but at other positions:',
  'spare-swapped':
    'It sees by itself that these two changed places. Hold the button its handbook names until it says so:',
  rotated: 'Wheels changed places, and this car ties IDs to positions.',
  'rotated-not-tied': 'Wheels changed places, but this car does not tie IDs to positions.',
  'rotated-not-known': 'Wheels changed places; whether this car ties IDs to positions is not known.',
  'other-set-not-known': 'Another wheel set is on; whether this car holds both sets is not known.',
  'other-set': 'Another wheel set is on, and the car holds one set.',
  'other-set-held': 'Another wheel set is on, and the car holds more than one set.',
  'new-sensor': 'Another sensor is in: one with a new ID must be taught, a clone need not.',
  cloned: 'The new sensor has the old one’s ID, so the car knows it already:',
  taught: 'It was taught after the last change.',
  'same-sensors': 'The sensors stayed with their wheels.',
  'nothing-done': 'Nothing is on record that a car must be taught.',
};

/** What is to be done about it. What nobody read off the car is not said as if somebody had. */
export const needTitle = ({ action, measured, reason }: Need): string =>
  action === 'none' && !measured && reason !== 'no-monitoring'
    ? 'By what was done, no relearn is needed'
    : needActionWords[action];

/** It goes by what was done alone: what of the measuring is missing. */
export const notMeasuredWords = ({ registry }: Pick<Ledger, 'registry'>): string =>
  registry
    ? 'What the car holds was not held against every wheel yet: wake those that are left.'
    : 'Nobody has read off the car what it holds.';

/** Why a relearn is needed, or none is: a sentence, with its wheels. */
export function needWords({ reason, wheels }: Need): string {
  const words = needReasonWords[reason];
  if (wheels.length === 0) return words;
  const where = wheels.map((wheel) => positionName[wheel]).join(', ');
  return words.endsWith('.') ? `${words} Here: ${where}.` : `${words} ${where}.`;
}

const meansWords: Record<Way['missing'][number], string> = {
  tool: 'an activation tool',
  lead: 'a lead to the car',
  road: 'a road',
};

/** What stands in the way of a procedure here and now; empty where nothing does. */
export function wayWords({ missing, failed, waitsForSupply, waitsForPressures }: Way): string[] {
  return [
    ...(missing.length > 0 ? [`Needs ${missing.map((one) => meansWords[one]).join(' and ')}`] : []),
    ...(waitsForSupply ? [`Waits for the supply: ${waitsForSupply}, read the car again`] : []),
    ...(waitsForPressures.length > 0
      ? [`Set the pressures first: ${listWheels(waitsForPressures)} not at target or not gauged`]
      : []),
    ...(failed > 0 ? [`Failed ${failed === 1 ? 'once' : `${failed} times`} on this visit`] : []),
  ];
}
