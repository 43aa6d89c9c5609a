import type { Job, Tpms } from '../../job';
import { writeVerdict } from '../../job/car-write';
import { isTemporarySpare, makerKPa, placardKPa, sizeOn } from '../../job/placard';
import { tireClassOf } from '../../names/tire-size';
import { roadWheels, type Position } from '../../names/wheel';
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
  const cold = placardKPa(job, wheel);
  const own = isTemporarySpare(job, wheel) ? undefined : ownFigures(job);
  const known = own?.lowOnKPa;
  const ruled = known !== undefined || cold === undefined ? undefined : lowByRegulation(job, wheel, cold);
  return {
    lowOnKPa: known ?? ruled?.kPa,
    lowOffKPa: own?.lowOffKPa,
    highOnKPa: own?.highOnKPa ?? (cold === undefined ? undefined : overinflatedShare * cold),
    basis: known === undefined ? ruled?.basis : { kind: 'car' },
  };
}

/** What the car's receiver goes by: what it was last written and read back as, else what is on file of its kind. */
function ownFigures({ vehicle, carWrites = [] }: Job): Tpms {
  const written = carWrites.findLast(
    (write) => write.kind === 'thresholds' && writeVerdict(write) === 'worked',
  );
  return written?.kind === 'thresholds' ? { ...vehicle.tpms, ...figuresOf(written.asked) } : vehicle.tpms;
}
const figuresOf = ({ lowOnKPa, lowOffKPa }: LampFigures): LampFigures => ({ lowOnKPa, lowOffKPa });

/** The pressures at which a car's lamp comes on and goes out, kPa. */
export interface LampFigures {
  lowOnKPa: number;
  lowOffKPa: number;
}

/**
 * The lamp's figures for a placard that was raised for other tires: the same share of the lowest cold pressure of the
 * road wheels, in whole kPa, and as far apart as before; never below the maker's. Undefined where the maker's are not
 * known, or the lowest was not raised.
 */
export function raisedFigures(job: Job): LampFigures | undefined {
  const { lowOnKPa, lowOffKPa } = job.vehicle.tpms;
  const least = Math.min(...roadWheels.map((wheel) => placardKPa(job, wheel) ?? Infinity));
  const makers = Math.min(...roadWheels.map((wheel) => makerKPa(job, wheel) ?? Infinity));
  if (lowOnKPa === undefined || lowOffKPa === undefined) return undefined;
  if (!Number.isFinite(makers) || least <= makers) return undefined;
  const on = Math.max(lowOnKPa, Math.round((lowOnKPa * least) / makers));
  return { lowOnKPa: on, lowOffKPa: Math.max(lowOffKPa, Math.min(on + lowOffKPa - lowOnKPa, least - 1)) };
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
