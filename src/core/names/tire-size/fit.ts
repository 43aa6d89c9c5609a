import type { TireSize } from '.';
import { kmhOf, loadCapacityKg, newPlacardKPa } from './load';

/** Rolling circumference of a radial per outer diameter, and of a diagonal: ETRTO Standards Manual, from memory. */
const rollingFactor = { radial: 3.05, diagonal: 2.99 };

/** Rolling circumference at road speed, mm. */
export const rollingMm = ({
  construction,
  diameterMm,
}: Pick<TireSize, 'construction' | 'diameterMm'>): number => rollingFactor[construction] * diameterMm;

/** A fitted tire against the size the placard names. */
export interface Fit {
  /** Outer diameter against placard, as a share: 0.01 is one percent larger. */
  diameterShare: number;
  rollingMm: { placard: number; fitted: number };
  /** What the car really does when its dash shows 100. */
  trueAt100: number;
  /** What each may carry at the placard's pressure, kg, where its load index is known. */
  capacityKg: { placard: number | undefined; fitted: number | undefined };
  /** `unknown`: the placard names no load index, or the tire none. */
  load: 'enough' | 'too-little' | 'unknown';
  speed: 'enough' | 'too-little' | 'unknown';
  verdict: FitVerdict;
}

export type FitVerdict =
  | 'same'
  /** Rolls alike and carries enough. */
  | 'fits'
  /** Another circumference than speedometer and indirect monitoring were made for. */
  | 'rolls-differently'
  | 'other-rim'
  | 'carries-too-little'
  /** It carries too little as it is set, and enough at a higher cold pressure. */
  | 'wants-more-pressure';

/** Circumferences nearer than this share roll alike (common practice; makers allow less on all-wheel drive). */
const alikeShare = 0.025;

/** Compares a fitted size at its cold pressure with the placard's at the maker's, kPa; one where no other was chosen. */
export function compareSizes(
  placard: TireSize,
  fitted: TireSize,
  coldKPa: number | undefined,
  fittedKPa: number | undefined = coldKPa,
): Fit {
  const circumference = { placard: rollingMm(placard), fitted: rollingMm(fitted) };
  const ratio = circumference.fitted / circumference.placard;
  const capacityKg = {
    placard: loadCapacityKg(placard, coldKPa ?? Number.POSITIVE_INFINITY),
    fitted: loadCapacityKg(fitted, fittedKPa ?? Number.POSITIVE_INFINITY),
  };
  const load = atLeast(capacityKg.fitted, capacityKg.placard);
  const speed = atLeast(speedOf(fitted), speedOf(placard));
  const fit = {
    diameterShare: fitted.diameterMm / placard.diameterMm - 1,
    rollingMm: circumference,
    trueAt100: 100 * ratio,
    capacityKg,
    load,
    speed,
  };
  const same =
    placard.widthMm === fitted.widthMm &&
    placard.aspect === fitted.aspect &&
    placard.rimInch === fitted.rimInch;
  const verdict = verdictOn(ratio, load, same, placard.rimInch === fitted.rimInch);
  const moreWouldDo =
    coldKPa !== undefined && newPlacardKPa(placard, fitted, coldKPa, undefined).kind === 'kPa';
  return {
    ...fit,
    verdict: verdict === 'carries-too-little' && moreWouldDo ? 'wants-more-pressure' : verdict,
  };
}

function verdictOn(ratio: number, load: Fit['load'], same: boolean, sameRim: boolean): FitVerdict {
  if (load === 'too-little') return 'carries-too-little';
  if (same) return 'same';
  if (Math.abs(ratio - 1) > alikeShare) return 'rolls-differently';
  return sameRim ? 'fits' : 'other-rim';
}

const speedOf = ({ speedSymbol }: TireSize) => (speedSymbol ? kmhOf(speedSymbol) : undefined);

function atLeast(fitted: number | undefined, asked: number | undefined): 'enough' | 'too-little' | 'unknown' {
  if (fitted === undefined || asked === undefined) return 'unknown';
  // A kilogram is less than any table of loads tells.
  return fitted >= asked - 1 ? 'enough' : 'too-little';
}

/**
 * How much the ratio of front to rear circumference differs from the placard's, as a share: what an
 * all-wheel drive and an indirect system feel, also where the axles have different sizes by design.
 */
export function compareAxles(
  placard: { front: TireSize; rear: TireSize },
  fitted: { front: TireSize; rear: TireSize },
): number {
  const ratio = (axles: typeof placard) => rollingMm(axles.front) / rollingMm(axles.rear);
  return ratio(fitted) / ratio(placard) - 1;
}
