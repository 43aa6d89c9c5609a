import { judged } from '../../../measure/figure';

/** Chance that the car has stored a code, where its cause is there and where it is not. */
export const codes = {
  'no-signal': { cause: judged(0.65, 'set after some drives'), none: judged(0.006, 'left from before') },
  'low-battery': {
    cause: judged(0.5, 'where the car reads the flag'),
    none: judged(0.001, 'left from before'),
  },
  'low-pressure': { cause: judged(0.4, 'where the car stores it'), none: judged(0.006, 'left from before') },
  receiver: { cause: judged(0.6, 'set by the module itself'), none: judged(0.002, 'after a weak supply') },
  'wheel-speed': {
    cause: judged(0.85, 'the other system sees it at once'),
    none: judged(0.003, 'left from before'),
  },
  baseline: { cause: judged(0.6, 'where the car tells'), none: judged(0.004, 'left from before') },
  /** A battery that was called low has ended since. */
  lowThenDead: judged(0.1, 'the code is set by what the car still heard; the end comes weeks later'),
  /** A receiver that hears nothing blames single sensors now and then. */
  deafBlamesSensor: judged(0.15, 'it mostly blames itself, or nothing'),
  /** A code that is only stored says less than an active one: its weight, in logarithms. */
  storedWeighs: judged(0.5, 'it may be from before a repair'),
} as const;
