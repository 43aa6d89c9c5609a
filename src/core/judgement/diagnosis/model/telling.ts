import { judged, practice } from '../../../measure/figure';

/** How well displayed figures tell a swap: from alike tires up by the spread of what the gauge found. */
export const displayTells = {
  alike: judged(0.1, 'nothing to tell them by'),
  perKPa: judged(0.025, 'spread of 32 kPa tells as well as it gets'),
} as const;

/** A try after which it is open which of several replies is the wheel's own: as good as even odds. */
export const evenOdds = practice(0.5, 'two replies alike');
