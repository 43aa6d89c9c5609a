import { judged, practice } from '../../../measure/figure';

/**
 * What is left open about faults beside how common each is, which its record in the catalogue of findings says.
 * Those are chosen so that no single sign proves more than it should; a shop's own outcomes sharpen them.
 */
export const faults = {
  /** A fact somebody read off is only as sure as the reading. */
  asRead: judged(0.985, 'a slip of the eye'),
  tire: {
    leakStillFull: judged(0.3, 'share of the leaking that still stand near placard when they come in'),
  },
  car: {
    pendingAfterWrite: judged(0.6, 'written IDs count as heard only after some driving'),
    pendingAfterLearn: judged(0.06, 'learned by hearing each sensor: only the lamp may lag'),
    pendingLater: judged(0.0005, 'a day later the car was driven, and has heard them'),
    pendingWhenSaid: judged(0.97, 'the procedure itself says that the drive is still to come'),
    filedSetIsOn: judged(0.1, 'put on and learned elsewhere: only counts where the car holds it'),
    wentWithTheCold: judged(0.25, 'a fall in temperature is known: nobody topped up since the last fill'),
  },
  indirect: {
    baselineAfterWork: judged(0.4, 'tires or pressures changed and no storing is on record'),
    baselineStored: judged(0.01, 'stored on record: stored wrongly'),
    baselineTooSoon: judged(0.92, 'stored before the air was put right: it is of other pressures'),
    baselineFailed: judged(0.95, 'a storing that failed or was not finished'),
  },
  /** A car seen with all in order is still only as sure as this many cars: where priors meet a shop's own. */
  strength: practice(
    400,
    'cars a prior is worth against outcomes of the shop: about a quarter of a busy year',
  ),
} as const;

/** How far a shop's own outcomes may move a prior, as a factor either way: a small shop's luck does not rule. */
export const historyMayMove = judged(5, 'beyond this the difference is luck or a habit of recording');

/** How many confirmed visits count, the latest: older ones speak of other stock and other habits. */
export const historyVisits = judged(1000, 'about half a year of a busy shop');
