import { judged, practice } from '../../../measure/figure';

/**
 * What was done to the car lately makes some faults likelier, by the factors in their records. Those fade with the
 * time since: just after the work they hold in full.
 */

/** After so many hours half of what the work made likelier is left. */
export const serviceHalfLifeHours = practice(
  720,
  'a month: by then a customer has come back or the lamp is lived with',
);

/** No fault is made likelier than this by work alone. */
export const mostByService = judged(0.4, 'work makes a fault likely, never certain');
