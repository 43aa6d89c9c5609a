import { judged } from '../../../measure/figure';
import { curve } from '../../../sensor/life';

/** The life of a sensor's battery, and how it ends on a car that is driven on with it. */
export const survival = {
  ...curve,
  /** The share dying now is the hazard times how long a dead one is driven with, years. */
  drivenWithDeadYears: judged(0.4, 'a lamp is lived with for some months'),
  /** The share ending now is the hazard times how long an ending battery still answers, years. */
  endsForYears: judged(0.7, 'weak in the cold for about a winter before it is silent'),
  /** Endings that have nothing to do with age. */
  endsEarly: judged(0.002, 'a bad cell'),
  /** However old, so many of the sensors still on a car work. */
  mostNow: judged(0.6, 'what is dead is replaced sooner or later'),
  /** Share of sensors that die of other causes, of all wheels. */
  otherCauses: judged(0.008, 'broken, corroded, torn off'),
} as const;
