import type { FindingCode } from '../finding';
import type { Position } from '../wheel';
import type { Test } from './tests';

/** The vocabulary of an assessment. The schema in `./schema` is built from these lists and the catalogue of findings. */
export const lampMeanings = ['none', 'low-pressure', 'malfunction', 'intermittent', 'not-working'] as const;
export type LampMeaning = (typeof lampMeanings)[number];

export { tests, type Test } from './tests';

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

/** From this chance on a finding is taken to hold (contract of the assessment). */
export const holds = 0.5;

/** The findings that are taken to hold, the surest first; the others are possible, no more. */
export const findingsThatHold = ({ findings }: Pick<Assessment, 'findings'>): Finding[] =>
  findings.filter(({ probability }) => probability >= holds);

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
  /** How far off `setNowKPa` may be for what is not known of the tire's temperature: expanded uncertainty (95 %). */
  uncertaintyKPa?: number;
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
  /** What its answer tells about what is worth doing differently. */
  bits: number;
  /** Minutes of shop time its answers may be expected to save, beyond its own. */
  savesMinutes: number;
  /** What it tells most about. */
  about?: { code: FindingCode; wheels: Position[] };
}

/** Whether enough is known to act. */
export interface Decision {
  /** `nothing-to-do`: nothing found calls for a hand, and no check is left that tells more. */
  verdict: 'act' | 'check-first' | 'nothing-to-do';
  /** What is worth acting on as things stand, what saves most first. */
  on: { code: FindingCode; wheels: Position[] }[];
  /** Minutes of shop time that acting now may be expected to cost for what of it is wrong. */
  wrongMinutes: number;
  /** Minutes that acting now may be expected to cost for what is left though it may be true. */
  leftMinutes: number;
}

/** Something in the job that cannot be, and where: a dotted path into the job file, and one sentence. */
export interface Inconsistency {
  path: string;
  message: string;
}

export interface Assessment {
  format: 'hacienda.assessment/1';
  findings: Finding[];
  targets: Target[];
  lamp: { meaning: LampMeaning; tomorrow?: LampForecast };
  registration?: { ok: boolean; mismatches: Mismatch[] };
  positions?: Partial<Record<Position, Position>>;
  nextTests: NextTest[];
  decision: Decision;
  inconsistencies?: Inconsistency[];
}
