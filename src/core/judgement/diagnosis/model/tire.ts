import { contract, judged, practice } from '../../../measure/figure';
import { oneVisitHours } from '../../../job/together';

/**
 * How tires stand when a car comes in, relative to placard: a mixture of normal curves, in kPa or as a
 * share of placard. Broad on purpose: one gauge reading outweighs it anywhere.
 */
export const standing = {
  kept: {
    share: judged(0.58, 'somebody looks after them'),
    offsetKPa: judged(-2, 'about placard'),
    sdKPa: judged(6, 'about one psi either way'),
  },
  slack: {
    share: judged(0.29, 'seeped for some months'),
    offsetKPa: judged(-20, 'two months of seepage and a cooler day'),
    sdKPa: judged(14, 'by how long it was left'),
  },
  over: {
    share: judged(0.07, 'filled hot, or by feel'),
    offsetKPa: judged(24, 'half a step of a public air line'),
    sdKPa: judged(38, 'up to a spare pressure on a road wheel'),
  },
  /** Low for no leak: left alone for a year, let down, never filled. */
  neglected: {
    share: judged(0.06, 'one tire in sixteen'),
    ofPlacard: judged(0.65, 'well under the lamp'),
    sdOfPlacard: judged(0.22, 'from flat to nearly right'),
  },
  /** Low for a leak. */
  leaking: {
    ofPlacard: judged(0.65, 'the same spread as the neglected: one reading does not tell a leak'),
    sdOfPlacard: judged(0.22, 'from flat to nearly right'),
  },
  /** Went with the temperature since the last fill, about what the gas law gives. */
  cooled: {
    share: judged(0.85, 'of wheels, on a car that went with the cold'),
    offsetKPa: judged(-2, 'some seepage on top'),
    sdKPa: judged(6, 'as filled, about one psi either way'),
    noticeableKPa: contract(7, 'a fall that takes less than the tolerance off a tire explains nothing'),
  },
} as const;

/** Where no placard was entered. */
export const unknownPlacard = {
  usualKPa: practice(235, 'a car of middling size'),
  sdKPa: judged(30, 'small cars to vans'),
} as const;

/** How fast leaking tires lose air, kPa a day: classes, each taken as a normal curve of this relative width. */
export const leakRates = {
  perDayKPa: [
    judged(1, 'a slow bead'),
    judged(2, 'a nail that seals'),
    judged(4, 'lamp every fortnight'),
    judged(8, 'lamp every week'),
    judged(16, 'lamp every few days'),
    judged(32, 'flat in a week'),
    judged(64, 'flat in days'),
    judged(128, 'flat overnight'),
    judged(256, 'flat within the day'),
    judged(512, 'heard and seen'),
    judged(1024, 'flat within hours'),
    judged(2048, 'heard to hiss'),
    judged(4096, 'flat within the hour'),
    judged(8192, 'flat while one looks'),
  ],
  relativeWidth: judged(0.4, 'so that neighbouring classes meet'),
  seepPerDayKPa: practice(0.35, '7 to 14 kPa a month through sound rubber'),
  seepSdPerDayKPa: judged(0.15, 'the spread of that'),
  /** Two readings apart for another reason than air lost: another gauge, a hand on the valve. */
  handled: judged(0.02, 'now and then somebody let air out'),
  handledShort: judged(0.002, 'within a visit, of a tire that was not over: nobody has a reason to'),
  visitDays: judged(oneVisitHours / 24, 'readings of one visit are less than half a day apart'),
  /** A sensor and a gauge of two stops differ because the sensor reads wrong. */
  readsOff: judged(0.015, 'as common as such sensors are'),
  /** All wheels apart alike: likelier another gauge or another day's hand. */
  together: judged(0.1, 'two gauges in one shop'),
  togetherKPaSquaredPerDay: judged(0.1, 'how alike, beyond what gauges leave open'),
  handledSdPerDayKPa: judged(400, 'any figure'),
  handledSdKPa: judged(30, 'however short the time: a hand is quick'),
} as const;

/** What a tire that looks flat stands at, of its placard. */
export const seenFlat = {
  ofPlacard: judged(0.3, 'a radial looks flat from half its pressure down'),
  sdOfPlacard: judged(0.15, 'by eye'),
  slip: judged(0.02, 'a radial with a soft wall looks flatter than it is'),
} as const;

/** What is seen of a leak by eye. Chance of the sign at a leaking and at a sound tire. */
export const signs = {
  flat: {
    leaking: judged(0.15, 'a flat tire is mostly a leak'),
    sound: judged(0.002, 'or nobody filled it'),
  },
  object: { leaking: judged(0.3, 'the usual cause'), sound: judged(0.004, 'some never reach through') },
  sidewall: { leaking: judged(0.04, 'rare'), sound: judged(0.006, 'mostly skin deep') },
  'stem-damaged': {
    leaking: judged(0.08, 'a stem seldom cracks without leaking'),
    sound: judged(0.006, 'seen in time'),
  },
} as const;

/** A tire that was found lower than the others of its car by so much, and filled: how far sound ones lie apart. */
export const foundLow = {
  togetherSdKPa: judged(7, 'filled by one hand, they seep alike'),
  aloneShare: judged(0.04, 'one was let down, forgotten, or filled by feel'),
  aloneSdKPa: judged(55, 'mostly by little; hardly ever nearly flat'),
} as const;
