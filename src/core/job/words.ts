import { doneLately, type Job, type Seen, type Service, type Tpms } from '.';

/** What a vehicle is called that nobody named. */
export const unnamedVehicle = 'Unnamed vehicle';

export const monitoringWords: Record<Exclude<Tpms['kind'], 'none'>, string> = {
  direct: 'sensors in the wheels',
  indirect: 'by wheel speed, no sensors',
};

export const lampWords: Record<Seen<'lamp'>['state'], string> = {
  off: 'off',
  steady: 'on, steady',
  'flash-then-steady': 'flashes, then steady',
  'flash-while-driving': 'flashes now and then on the road',
};

export const serviceWords: Record<Service['kind'], string> = {
  none: 'nothing lately',
  'tires-fitted': 'tires fitted',
  rotation: 'wheels rotated',
  'wheels-swapped': 'other wheels put on',
  'sensor-replaced': 'sensor replaced',
  repair: 'tire repaired',
};

/** All that was done lately, in words; empty where it was nothing. */
export const doneWords = (job: Pick<Job, 'service'>): string =>
  doneLately(job)
    .map(({ kind }) => serviceWords[kind])
    .join(', ');

export const signWords: Record<Seen<'visual'>['sign'], string> = {
  flat: 'flat',
  object: 'object in the tread',
  sidewall: 'sidewall damaged',
  'stem-damaged': 'stem damaged',
  'stem-metal': 'metal stem',
  'stem-rubber': 'rubber stem',
  'odd-size': 'odd size',
};
