import { judged, practice } from '../../../measure/figure';

/**
 * What the lamp shows for the worst thing it has cause to show. One row per cause, the worst last; each
 * row sums to one.
 */
export const telltale = {
  nothing: {
    off: practice(0.95, 'as it should'),
    steady: judged(0.03, 'a tire was low, and somebody filled it'),
    'flash-then-steady': judged(0.012, 'a fault that passed'),
    'flash-while-driving': judged(0.008, 'traffic beside it'),
  },
  'between-on-and-off': {
    off: judged(0.55, 'never was low enough to light'),
    steady: judged(0.43, 'lit before, and held'),
    'flash-then-steady': judged(0.012, 'a fault that passed'),
    'flash-while-driving': judged(0.008, 'traffic beside it'),
  },
  intermittent: {
    off: judged(0.33, 'not at the moment'),
    steady: judged(0.02, 'seldom'),
    'flash-then-steady': judged(0.25, 'missed for long enough'),
    'flash-while-driving': practice(0.4, 'the sign of missed check-ins'),
  },
  low: {
    off: judged(0.12, 'not driven since, or not near enough to the line'),
    steady: practice(0.85, 'what it is for'),
    'flash-then-steady': judged(0.02, 'mistaken for'),
    'flash-while-driving': judged(0.01, 'mistaken for'),
  },
  malfunction: {
    off: judged(0.15, 'not driven long enough since'),
    steady: judged(0.05, 'the flashing was missed'),
    'flash-then-steady': practice(0.77, 'what it is for'),
    'flash-while-driving': judged(0.03, 'comes and goes at first'),
  },
} as const;

export const bulbCheck = {
  missingSound: judged(0.001, 'looked at too late'),
  missingDark: practice(0.95, 'the sign of it'),
  /** A dark lamp is seen as off. */
  darkSeenOff: judged(0.98, 'whatever it would have shown'),
} as const;

/** Other causes of a steady lamp: a hot tire, and air that goes fast. */
export const warned = {
  lights: practice(0.7, 'many cars warn of either'),
  perDayKPa: judged(1500, 'a kPa a minute: more than any slow leak'),
} as const;

/** What an ending battery is to the lamp: mostly nothing yet. */
export const endingIsMalfunction = judged(0.2, 'the car may take the flag for a fault');
