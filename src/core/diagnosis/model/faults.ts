import { judged, practice } from './figure';

/**
 * How common each fault is before anything was seen: the share of wheels, or of cars, that have it on a
 * car that comes to a tire shop with no work done lately. Chosen so that no single sign proves more than
 * it should; a shop's own outcomes sharpen them.
 */
export const faults = {
  /** A fact somebody read off is only as sure as the reading. */
  asRead: judged(0.985, 'a slip of the eye'),
  /** Of wheels that should have a sensor. */
  wheel: {
    dead: judged(
      0.02,
      'age unknown; half of the lamps of a shop are pressure, and most of the rest one sensor',
    ),
    absent: judged(0.004, 'rare: a wheel bought without, and nobody said'),
    wrongType: judged(0.003, 'rare unless a sensor was replaced: it looks alike and fits'),
    inaccurate: judged(0.015, 'drifts are rarer than silences'),
    intermittent: judged(0.012, 'a weak battery or a bad place of the wheel'),
    batteryEnding: judged(0.03, 'age unknown: of ten years about the last four months'),
    unregistered: judged(0.008, 'a relearn forgotten, long ago'),
    mistyped: judged(0.003, 'only where IDs are typed by hand'),
  },
  tire: {
    leaking: judged(0.03, 'of all wheels that come in; one in eight cars'),
    leakStillFull: judged(0.3, 'share of the leaking that still stand near placard when they come in'),
  },
  car: {
    receiver: judged(0.006, 'receiver, antenna or supply: rare beside sensors'),
    lampDark: judged(0.004, 'bulb, cluster or configuration'),
    otherSet: judged(0.03, 'where another wheel set is on file: changed, and not relearned'),
    moved: judged(0.01, 'wheels at other places than the car holds, with no work known'),
    pendingAfterWrite: judged(0.6, 'written IDs count as heard only after some driving'),
    pendingAfterLearn: judged(0.06, 'learned by hearing each sensor: only the lamp may lag'),
    pendingWhenSaid: judged(0.97, 'the procedure itself says that the drive is still to come'),
    wentWithTheCold: judged(0.25, 'a fall in temperature is known: nobody topped up since the last fill'),
  },
  indirect: {
    baseline: judged(0.03, 'the reference was stored wrongly or not at all, with no work known'),
    baselineAfterWork: judged(0.4, 'tires or pressures changed and no storing is on record'),
    baselineStored: judged(0.01, 'stored on record: stored wrongly'),
    baselineFailed: judged(0.95, 'a storing that failed or was not finished'),
    wheelSpeedSensor: judged(0.01, 'rare; mostly known from its own lamp'),
    oddRadius: judged(0.012, 'an odd size or a much more worn tire'),
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
