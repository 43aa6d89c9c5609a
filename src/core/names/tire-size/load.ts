import type { TireClass, TireSize } from '.';

/**
 * Load index to kilograms per tire and speed symbol to km/h: ETRTO Standards Manual / ISO 4000-1, from
 * memory. The index follows the preferred numbers of ISO 3: twenty steps are a factor of 10^(1/4).
 */
const firstIndex = 50;
// prettier-ignore
const kilograms = [
  190, 195, 200, 206, 212, 218, 224, 230, 236, 243,
  250, 257, 265, 272, 280, 290, 300, 307, 315, 325,
  335, 345, 355, 365, 375, 387, 400, 412, 425, 437,
  450, 462, 475, 487, 500, 515, 530, 545, 560, 580,
  600, 615, 630, 650, 670, 690, 710, 730, 750, 775,
  800, 825, 850, 875, 900, 925, 950, 975, 1000, 1030,
  1060, 1090, 1120, 1150, 1180, 1215, 1250, 1285, 1320, 1360,
  1400, 1450, 1500, 1550, 1600, 1650, 1700, 1750, 1800, 1850,
  1900,
];

/** The load a tire of this index may carry at its reference pressure, kg; undefined outside of 50 … 130. */
export const kilogramsOf = (loadIndex: number): number | undefined => kilograms[loadIndex - firstIndex];

// prettier-ignore
const kmh: Record<string, number> = {
  F: 80, G: 90, J: 100, K: 110, L: 120, M: 130, N: 140, P: 150, Q: 160, R: 170, S: 180,
  T: 190, U: 200, H: 210, V: 240, W: 270, Y: 300,
};

/** The speed a tire of this symbol may be driven at, km/h; undefined for an unknown symbol. */
export const kmhOf = (speedSymbol: string): number | undefined => kmh[speedSymbol.toUpperCase()];

/** The pressure at which the load index holds, kPa, and how load falls below it: ETRTO and TRA, from memory. */
const reference: Record<TireClass, { kPa: number; exponent: number }> = {
  'standard-load': { kPa: 250, exponent: 0.8 },
  'extra-load': { kPa: 290, exponent: 0.8 },
  'load-range-C': { kPa: 350, exponent: 0.7 },
  'load-range-D': { kPa: 450, exponent: 0.7 },
  'load-range-E': { kPa: 550, exponent: 0.7 },
};
/** P-metric tires are rated at less air than metric ones. */
const pMetricReferenceKPa: Partial<Record<TireClass, number>> = { 'standard-load': 240, 'extra-load': 280 };

/** The rated load and how it falls with pressure, for one size; undefined without a load index. */
function ratingOf(size: TireSize): { full: number; ratedAt: number; exponent: number } | undefined {
  const full = size.loadIndex === undefined ? undefined : kilogramsOf(size.loadIndex);
  if (full === undefined) return undefined;
  const { kPa, exponent } = reference[size.class];
  return {
    full,
    exponent,
    ratedAt: size.kind === 'p-metric' ? (pMetricReferenceKPa[size.class] ?? kPa) : kPa,
  };
}

/**
 * What one tire may carry at a cold gauge pressure, kg: its index, less `(p / reference) ^ exponent` below
 * the reference pressure; never more than the index. Undefined without a load index.
 */
export function loadCapacityKg(size: TireSize, coldKPa: number): number | undefined {
  const rating = ratingOf(size);
  return rating && rating.full * Math.min(1, Math.max(0, coldKPa) / rating.ratedAt) ** rating.exponent;
}

/** The cold pressure other tires want in place of the placard's. */
export type NewPlacard =
  | { kind: 'kPa'; kPa: number }
  /** The maker's figure is enough. */
  | { kind: 'as-placard' }
  /** At no pressure do they carry what the placard's tires carry. */
  | { kind: 'carries-too-little' }
  /** They would, above what their sidewalls allow. */
  | { kind: 'over-maximum'; kPa: number }
  /** One of them names no load index. */
  | { kind: 'unknown' };

/**
 * The cold gauge pressure at which a fitted tire carries what the placard's tire carries at its own, by the same
 * relation turned round: never below the maker's figure, never above the sidewall's, kPa.
 */
export function newPlacardKPa(
  placard: TireSize,
  fitted: TireSize,
  coldKPa: number,
  maxKPa: number | undefined,
): NewPlacard {
  const needKg = loadCapacityKg(placard, coldKPa);
  const rating = ratingOf(fitted);
  if (needKg === undefined || !rating) return { kind: 'unknown' };
  if (needKg > rating.full) return { kind: 'carries-too-little' };
  const kPa = Math.ceil(rating.ratedAt * (needKg / rating.full) ** (1 / rating.exponent) - 1e-9);
  if (kPa <= coldKPa) return { kind: 'as-placard' };
  return maxKPa !== undefined && kPa > maxKPa ? { kind: 'over-maximum', kPa } : { kind: 'kPa', kPa };
}
