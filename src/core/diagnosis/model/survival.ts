import { judged, practice } from '../../figure';

/**
 * The life of a sensor's battery: a Weibull curve, S(t) = exp(-(t/scale)^shape), years. Common practice
 * has 5 to 10 years: S(5) = 0.95, S(8) = 0.58, S(10) = 0.18.
 */
export const survival = {
  shape: practice(5, 'few go early, most between 7 and 10 years'),
  scaleYears: practice(9, 'two thirds are gone after nine years'),
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
