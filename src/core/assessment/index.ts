import type { Position } from '../wheel';

/** The vocabulary of an assessment. The schema in `./schema` is built from these lists. */
export const findingCodes = [
  'tire-low',
  'tire-underinflated',
  'tire-overinflated',
  'tire-leaking',
  'temperature-drop',
  'lamp-latched',
  'sensor-silent',
  'sensor-absent',
  'sensor-battery-low',
  'sensor-inaccurate',
  'sensor-wrong-type',
  'sensor-intermittent',
  'id-not-registered',
  'id-mistyped',
  'id-duplicate',
  'positions-swapped',
  'cross-read',
  'other-set-registered',
  'receiver-fault',
  'sensors-asleep',
  'system-disabled',
  'waiting-for-drive',
  'supply-voltage-low',
  'baseline-not-set',
  'wheel-speed-sensor-fault',
  'rolling-radius-off',
  'no-fault',
] as const;

export type FindingCode = (typeof findingCodes)[number];

export const lampMeanings = ['none', 'low-pressure', 'malfunction', 'intermittent', 'not-working'] as const;
export type LampMeaning = (typeof lampMeanings)[number];

/** The tests a shop can do next. */
export const tests = ['gauge', 'activation', 'registry', 'lamp', 'drive'] as const;
export type Test = (typeof tests)[number];

export interface Evidence {
  /** Index into the job's observations. */
  observation: number;
  /** Ten times the decimal logarithm of the odds this observation adds; negative speaks against. */
  decibans: number;
}

export interface Finding {
  code: FindingCode;
  wheels: Position[];
  probability: number;
  evidence: Evidence[];
  /** What to do about it, one sentence. */
  action: string;
}

export interface Mismatch {
  wheel: Position;
  scanned: string;
  registered: string | null;
  kind: 'mistyped' | 'elsewhere' | 'absent';
}

export interface Target {
  wheel: Position;
  coldKPa: number;
  /** Gauge pressure to set at the tire's temperature of now; missing when that is not known. */
  setNowKPa?: number;
  /** What to add (or, negative, to let out) against the last reading. */
  addKPa?: number;
  /** How far off `setNowKPa` may be for what is not known of the tire's temperature: half of its 95 % interval. */
  plusMinusKPa?: number;
  /** The sidewall's maximum, where it is what limits `setNowKPa`. */
  cappedAtKPa?: number;
  /** `let-cool`: too much air, but the tire is hot; it is never bled then. */
  advice?: 'add' | 'leave' | 'let-out' | 'let-cool';
}

export interface LampForecast {
  willLight: boolean;
  kPa: Partial<Record<Position, number>>;
}

export interface NextTest {
  test: Test;
  wheel?: Position;
  minutes: number;
  bits: number;
}

export interface Assessment {
  format: 'hacienda.assessment/1';
  findings: Finding[];
  targets: Target[];
  lamp: { meaning: LampMeaning; tomorrow?: LampForecast };
  registration?: { ok: boolean; mismatches: Mismatch[] };
  positions?: Partial<Record<Position, Position>>;
  nextTests: NextTest[];
}
