import { judged, practice } from '../../measure/figure';

/** What one or all is weighed by. */
export const figures = {
  yearsBetweenTires: practice(4, 'a set of tires lasts about four years'),
  worthWithTireOff: judged(
    0.5,
    'with the tire off only the part is paid for: worth it where it more likely ends before the next time than not',
  ),
  worthTakingOff: judged(
    0.5,
    'taking a tire off for a sensor that works is worth it only where it more likely ends within a year than not',
  ),
} as const;
