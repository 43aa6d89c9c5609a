import { judged } from '../../../measure/figure';

/** How IDs get lost between two screens: what kind of slip, given that there is one. */
export const slips = {
  confused: judged(0.5, 'digits that look or sound alike: B and 8, D and 0, 5 and 6 …'),
  otherDigit: judged(0.15, 'any other digit wrong'),
  exchanged: judged(0.15, 'two neighbours'),
  lost: judged(0.12, 'one left out'),
  doubled: judged(0.08, 'one typed twice'),
} as const;

/** Hexadecimal digits taken for one another by eye or key. */
export const confusable = [
  'B8',
  'D0',
  '0C',
  '56',
  '17',
  '3E',
  '38',
  '6B',
  '9A',
  '2A',
  'CE',
  '4A',
  '69',
  '8A',
] as const;

/** What a relearn, or a write that was not refused, leaves of the doubt that work on the car has raised. */
export const taught = {
  leaves: judged(0.1, 'it mostly works, and is mostly done for all wheels'),
  didNotTake: judged(0.03, 'until it is read back: a wheel that was not heard, a write that was lost'),
} as const;

/** What the car holds where it does not hold the wheel's own sensor. */
export const held = {
  empty: judged(0.15, 'never learned anything there'),
  /** The ID of a sensor that is on file: the one before it, or of another set. */
  onFile: judged(0.3, 'where the one before is on record'),
  /** A wheel still carries the sensor its record names. */
  recordHolds: judged(0.9, 'records are of the last visit'),
  /** A wheel carries a sensor that another wheel's record names. */
  recordMoved: judged(0.02, 'wheels change places'),
  /** With a sensor on record, the chance that there is none is this part of what it would be. */
  recordDoubted: judged(0.3, 'a record may be of another wheel'),
  likeNumber: judged(0.02, 'the new sensor comes from the box of the old one'),
  clonedSlip: judged(0.5, 'of the slips with the old one on file: into the sensor, not into the car'),
  /** The car holds nothing for a wheel whose sensor died, or never was. */
  goneAndEmpty: judged(0.02, 'a dead sensor stays registered'),
  neverAndEmpty: judged(0.8, 'or an old ID was left'),
  /** Of another set that is held, so much at each position. */
  setComplete: judged(0.96, 'one of its sensors may have been replaced'),
  /** The same ID as at another position. */
  doubled: judged(0.004, 'one ID sent for two wheels'),
  /** A number near the wheel's own, of one batch: consecutive sensors of one box. */
  sameBatch: judged(0.003, 'sets are bought together and numbered in a row'),
  batchSpan: judged(16, 'numbers of one box'),
} as const;
