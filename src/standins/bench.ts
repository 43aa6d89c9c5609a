import type { Position } from '../core/names/wheel';
import type { Car } from './car';

/**
 * Wheels of a second set, lying on the bench. The tool's field falls off with the third power of the distance, so that it
 * wakes what lies within half a metre (common practice); what answers is heard by how far away it lies, as in free space.
 */

const reachM = 0.5;
/** From the antenna at the valve to the sensor of that wheel, and to those of the others while they lie in one stack. */
const ownM = 0.1;
const stackedM = 0.15;
/** At that first distance. */
const nearestDbm = -48;

/** Free-space path loss goes with the square of the distance: 20 dB a decade (Friis 1946, from memory). */
const heardDbm = (m: number): number => Math.round(nearestDbm - 20 * Math.log10(m / ownM));

/** What answers at one wheel of the bench. Whoever tries a wheel again has carried it away from the stack first. */
export function wakeOnBench(car: Car, wheel: Position): { car: Car; replies: object[] } {
  const tries = (car.benchTries[wheel] ?? 0) + 1;
  const next = { ...car, benchTries: { ...car.benchTries, [wheel]: tries } };
  const othersM = tries === 1 ? stackedM : 2 * reachM;
  const replies = Object.entries(car.bench).flatMap(([at, { kPa, sensor }]) => {
    const m = at === wheel ? ownM : othersM;
    if (!sensor || sensor.dead || m > reachM) return [];
    const { id, frequencyMHz, family, battery, offsetKPa } = sensor;
    return [
      {
        id,
        kPa: Math.round(kPa + offsetKPa),
        tempC: Math.round(car.outdoorC),
        frequencyMHz,
        family,
        battery,
        accelG: 0,
        rssiDbm: heardDbm(m),
      },
    ];
  });
  return { car: next, replies };
}
