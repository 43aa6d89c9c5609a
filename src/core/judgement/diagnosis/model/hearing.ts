import { judged, practice } from '../../../measure/figure';

/** What the car hears of a sensor that works, is registered and of the right kind. */
export const hearing = {
  sound: practice(0.99, 'on a drive'),
  ending: judged(0.85, 'a weak battery misses some'),
  intermittent: judged(0.6, 'the fault itself'),
  /** Chance of an empty or zero figure. */
  emptyDriving: {
    heard: judged(0.02, 'just not refreshed'),
    unheard: practice(0.97, 'the one that stays empty'),
  },
  emptyParked: { heard: practice(0.75, 'most sensors sleep'), unheard: practice(0.98, 'nothing to show') },
  emptyDisplay: { heard: judged(0.1, 'asleep'), unheard: judged(0.75, 'dashes') },
  /** All of a display that shows nothing until the car was driven. */
  blankDisplay: { heard: practice(0.9, 'many stay blank until the drive'), unheard: judged(0.98, 'dashes') },
  /** Check-ins counted of a sensor that is not there. */
  ghost: judged(0.0001, 'another car with a like ID'),
  /** A figure that is there and stale: the last one heard, before the air was changed. */
  stale: judged(0.01, 'kept from before'),
} as const;

/** Check-ins over a drive: shares received, as Beta(a, b). */
export const reception = {
  sound: { a: judged(40, 'nearly all'), b: judged(1.5, 'a few lost to traffic') },
  intermittent: { a: judged(4, 'half to two thirds'), b: judged(4, 'with a wide spread') },
  /** The drive itself may be bad for all: the share that gets through. */
  drives: [
    { quality: practice(1, 'an open road'), share: judged(0.9, 'most drives') },
    { quality: judged(0.75, 'a busy town, a bad antenna'), share: judged(0.07, 'some') },
    { quality: judged(0.45, 'a receiver half deaf'), share: judged(0.03, 'few') },
  ],
} as const;
