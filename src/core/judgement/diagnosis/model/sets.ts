import { judged, practice } from '../../../measure/figure';

/**
 * How often a whole set of wheels is on a car that does not hear it, for one reason and by the work done: never learned,
 * bought without sensors, or of another family. One cause explains all wheels.
 */
export const wholeSets = {
  none: {
    'not-learned': judged(0.004, 'put on at home, and nobody said'),
    'without-sensors': judged(0.003, 'the same, and the lamp is lived with'),
    'another-family': judged(0.0008, 'wheels off another car'),
  },
  'tires-fitted': {
    'not-learned': judged(0.01, 'new sensors with new tires'),
    'without-sensors': judged(0.005, 'sensors left out'),
    'another-family': judged(0.003, 'a wrong set programmed'),
  },
  'sensor-replaced': {
    'not-learned': judged(0.03, 'the set was replaced'),
    'without-sensors': judged(0.0005, 'sensors were what it was about'),
    'another-family': judged(0.005, 'a wrong set programmed'),
  },
  'wheels-swapped': {
    'not-learned': practice(0.15, 'the step after other wheels that is forgotten'),
    'without-sensors': judged(0.05, 'the cheaper set'),
    'another-family': judged(0.02, 'bought for another year of the model'),
  },
  /** Of the wheels of such a set, so many have it. */
  all: { share: judged(0.97, 'one of them may be of the other set') },
} as const;
