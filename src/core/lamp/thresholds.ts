import type { Job } from '../job';
import { isTemporarySpare, placardKPa, sizeOn } from '../placard';
import { tireClassOf } from '../tire-size';
import type { Position } from '../wheel';
import { regulations, type RegulationName } from './regulations';

/** Where a figure comes from: the car's own, or which rule of which regulation. */
export type Basis =
  | { kind: 'car' }
  | { kind: 'regulation'; name: RegulationName; by: 'share-of-placard' | 'least-for-tire-type' };

export interface Thresholds {
  /** Lamp on at or below, kPa; unknown without placard and car's figure. */
  lowOnKPa: number | undefined;
  /** Off again at or above, kPa; unknown unless the car's own figure is. */
  lowOffKPa: number | undefined;
  /** Too high above, kPa. */
  highOnKPa: number | undefined;
  /** What `lowOnKPa` rests on; missing where that is not known. */
  basis: Basis | undefined;
}

/** Too much where the car's own figure is not known: a fifth above placard (contract of the assessment). */
export const overinflatedShare = 1.2;

/**
 * The car's own figures where known; else the regulation's share of the wheel's placard pressure, or its
 * fixed minimum for the tire type where that is higher.
 */
export function thresholdsFor(job: Job, wheel: Position): Thresholds {
  const { tpms } = job.vehicle;
  const cold = placardKPa(job, wheel);
  const own = isTemporarySpare(job, wheel) ? undefined : tpms;
  const known = own?.lowOnKPa;
  const ruled = known !== undefined || cold === undefined ? undefined : lowByRegulation(job, wheel, cold);
  return {
    lowOnKPa: known ?? ruled?.kPa,
    lowOffKPa: own?.lowOffKPa,
    highOnKPa: own?.highOnKPa ?? (cold === undefined ? undefined : overinflatedShare * cold),
    basis: known === undefined ? ruled?.basis : { kind: 'car' },
  };
}

/** Which regulation holds for a car whose own figures are not known. */
export const regulationOf = (job: Pick<Job, 'vehicle'>): RegulationName =>
  job.vehicle.tpms.regulation ?? 'US';

function lowByRegulation(job: Job, wheel: Position, coldKPa: number): { kPa: number; basis: Basis } {
  const name = regulationOf(job);
  const rule = regulations[name];
  const share = rule.lowShareOfPlacard * coldKPa;
  const least = rule.leastOnKPa(tireClassOf(sizeOn(job, wheel)));
  return least > share
    ? { kPa: least, basis: { kind: 'regulation', name, by: 'least-for-tire-type' } }
    : { kPa: share, basis: { kind: 'regulation', name, by: 'share-of-placard' } };
}

/** What the thresholds rest on, in words for a screen: "the car's own figures", "US rule, 25 % below placard". */
export function basisInWords(basis: Basis): string {
  if (basis.kind === 'car') return "the car's own figures";
  const { title, source } = regulations[basis.name];
  const least = basis.by === 'least-for-tire-type' ? ', least for this tire type' : '';
  return `${title}${least} (${source})`;
}
