import { untrustedGaugeKPa } from '../../../tire/gauge';
import { shownInStepsOfKPa } from '../../../job/placard';
import { contract, judged, physics, practice } from '../../../measure/figure';
import { oneStopMinutes } from '../../../job/together';

/** What instruments may be off by: standard deviations, kPa unless said otherwise. */
export const noise = {
  gaugeKPa: practice(1.6, 'a good gauge in a trained hand, where its own figure is not known'),
  untrustedGaugeKPa: judged(untrustedGaugeKPa, 'a public air line'),
  gaugeSlip: judged(
    0.000003,
    'a reading that has nothing to do with the tire, and nobody noticed: wrong wheel',
  ),
  untrustedSlip: judged(0.1, 'the same with a gauge nobody trusts'),
  /** A figure out of the blue lies anywhere in this span. */
  anyKPa: judged(400, 'what a gauge can show of road tires'),
  temperatureK: practice(1.5, 'air inside against air outside, for a tire called cold or a measured one'),
  unknownWarmK: { rise: practice(18, 'driven in'), sd: judged(9, 'town to motorway') },
  sensorKPa: practice(2, 'a sound sensor beside a good gauge'),
  displayKPa: judged(1.6, 'what a display rounds to, and how old its figure is'),
  liveParkedKPa: judged(2, 'the same air as the tool heard'),
  liveDrivingKPa: { rise: practice(4, 'tires warm up on the way'), sd: judged(8, 'more on a motorway') },
  /** What a sensor's figure is rounded to: its error is the sensor's own. */
  replyKPa: judged(0.7, 'whole kPa, and a little'),
  /** One sensor heard twice gives the same figure within this. */
  sameSensorKPa: judged(2.5, 'brought to one temperature each'),
  /** A gauge of the register is never taken for better than this. */
  bestGaugeKPa: judged(0.3, 'reading and hose'),
  /** Where the gauge was read before and after the scan, the scan was made before the fill. */
  scanBeforeFill: judged(0.5, 'either order is usual'),
  /** A gauge reading and a sensor's belong together within this time. */
  oneStopMinutes: practice(oneStopMinutes, 'nobody drove in between'),
  /** Between stops a tire may have been driven, filled or lost air: what is older says the less of now. */
  otherStopKPa: judged(10, 'a leak, a fill or a warm drive that nobody noted'),
  /** By this share the tires of one car are not equally warm. */
  warmthDiffers: judged(0.3, 'load, sun, and a brake on one side'),
  /** Two temperatures of one sensor: what they share cancels. */
  betweenFiguresK: judged(1, 'whole degrees'),
  /** Air that is let out to wake a sensor by the fall. */
  wokenByAirKPa: { mean: practice(20, 'until it answers'), sd: judged(12, 'by ear') },
  /** The tire was filled between the scan and the first reading of the gauge. */
  filledUnseen: judged(0.02, 'a fill that nobody wrote down'),
  /** The tire was filled between the gauge and what its sensor said at a later stop. */
  filledBetweenStops: judged(0.1, 'a stop later, and nobody gauged it again'),
  showsInStepsOfKPa: contract(shownInStepsOfKPa, 'figures are compared as they are shown: 175 is at 175'),
} as const;

/** A sensor that reads wrong: further off than the contract's figure, by a broad curve. */
export const inaccuracy = {
  moreThanKPa: contract(10, 'off from a trusted gauge by more than this'),
  sdKPa: judged(35, 'off by an offset, from just wrong to far'),
  /** The figure of a sensor that reads wrong has nothing to do with the tire any more. */
  stuck: {
    share: judged(
      0.25,
      'of those that read wrong: it stands still at a figure of long ago, or says anything',
    ),
    atOldFigure: judged(0.6, 'of the stuck: at what the tire stood at when it was last right'),
    oldFigureSdKPa: judged(20, 'about placard, as tires are kept'),
    absurdUpToKPa: judged(1000, 'else anything a sensor can say'),
  },
} as const;

/** How tires react where no temperature is known. */
export const usualNowC = physics(15, 'a standard day; only differences matter');
