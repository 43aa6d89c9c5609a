import { judged, practice, type Figure } from './figure';

/**
 * What each test asks: how often its answer is yes where the finding is true, and where it is not. These rank
 * tests; what a reading then says is weighed by the likelihoods of the other files.
 */
export interface Answer {
  ifTrue: Figure;
  ifFalse: Figure;
}

const answer = (ifTrue: number, ifFalse: number, why: string): Answer => ({
  ifTrue: judged(ifTrue, why),
  ifFalse: judged(ifFalse, why),
});

const unlit = 'a dark lamp clears, a lit one only warns';
const withIds = 'digit by digit, once both sides are known';
const onDrive = 'the one that stays empty on a drive';

export const questions = {
  lamp: {
    'system-disabled': answer(0.95, 0.001, 'the bulb check'),
    'sensor-silent': answer(0.77, 0.15, unlit),
    'id-not-registered': answer(0.77, 0.15, unlit),
    'tire-low': answer(0.85, 0.13, unlit),
  },
  gauge: {
    'tire-low': answer(0.97, 0.02, 'but for readings at the line'),
    'tire-underinflated': answer(0.9, 0.05, 'the line is nearer to where tires stand'),
    'tire-overinflated': answer(0.97, 0.01, 'far from where tires stand'),
    'sensor-inaccurate': answer(0.9, 0.02, 'beside a scan of the same stop'),
  },
  visual: {
    'sensor-absent': answer(0.9, 0.12, 'the plain stem'),
    'tire-leaking': answer(0.55, 0.02, 'half of the leaks are seen'),
    'rolling-radius-off': answer(0.7, 0.002, 'an odd size is mostly seen'),
  },
  activation: {
    'sensor-silent': answer(0.99, 0.05, 'of the first try; later ones by how often they are answered'),
    'sensor-absent': answer(0.99, 0.05, 'of the first try; later ones by how often they are answered'),
    'sensor-battery-low': answer(0.8, 0.01, 'an ending battery mostly says so'),
    'sensor-wrong-type': answer(0.97, 0.002, 'the answer names its format'),
    'cross-read': answer(0.95, 0.05, 'done again with the others away'),
    'sensor-inaccurate': answer(0.9, 0.02, 'beside a gauge reading of the same stop'),
    'id-not-registered': answer(0.97, 0.01, withIds),
    'id-mistyped': answer(0.97, 0.01, withIds),
    'positions-swapped': answer(0.97, 0.01, withIds),
  },
  registry: {
    'id-not-registered': answer(0.98, 0.005, withIds),
    'id-mistyped': answer(0.98, 0.005, withIds),
    'positions-swapped': answer(0.98, 0.005, withIds),
    'sensor-silent': answer(0.6, 0.02, 'by its codes'),
    'other-set-registered': answer(0.97, 0.01, 'the set is on file'),
    'receiver-fault': answer(0.55, 0.01, 'by its codes'),
  },
  drive: {
    'sensor-silent': answer(0.97, 0.03, onDrive),
    'sensor-absent': answer(0.97, 0.03, onDrive),
    'id-not-registered': answer(0.95, 0.03, onDrive),
    'sensor-wrong-type': answer(0.95, 0.03, onDrive),
    'receiver-fault': answer(0.97, 0.01, 'none of them is heard'),
    'waiting-for-drive': answer(0.9, 0.05, 'the drive is what it waits for'),
  },
  reception: { 'sensor-intermittent': answer(0.9, 0.03, 'sixty check-ins tell a third missed') },
  display: { 'positions-swapped': answer(0.9, 0.05, 'where pressures differ; less where they are alike') },
  shift: { 'positions-swapped': answer(0.9, 0.03, 'the figure that moves is the tire') },
  wheelspeed: { 'rolling-radius-off': answer(0.8, 0.02, 'where the gauge is known') },
  baseline: { 'baseline-not-set': answer(0.95, 0.1, 'the lamp stays out after storing') },
} as const;

/** How well displayed figures tell a swap: from alike tires up by the spread of what the gauge found. */
export const displayTells = {
  alike: judged(0.1, 'nothing to tell them by'),
  perKPa: judged(0.025, 'spread of 32 kPa tells as well as it gets'),
} as const;

/** A try after which it is open which of several replies is the wheel's own: as good as even odds. */
export const evenOdds = practice(0.5, 'two replies alike');
