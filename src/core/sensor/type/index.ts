import type { Reply, Tpms } from '../../job';

/** Carriers nearer than this, MHz, are one and the same; 315 and 433.92 are far apart. */
const sameCarrierMHz = 1;

/**
 * Whether a sensor sends what the car can hear, by carrier and protocol family; undefined where the two cannot be
 * compared. A sensor of the wrong family can look the same and fit.
 */
export function isRightType({ frequencyMHz, family }: Tpms, reply: Reply): boolean | undefined {
  const carrier =
    frequencyMHz === undefined || reply.frequencyMHz === undefined
      ? undefined
      : Math.abs(reply.frequencyMHz - frequencyMHz) <= sameCarrierMHz;
  const format =
    family === undefined || reply.family === undefined
      ? undefined
      : reply.family.toLowerCase() === family.toLowerCase();
  return carrier === undefined && format === undefined ? undefined : (carrier ?? true) && (format ?? true);
}
