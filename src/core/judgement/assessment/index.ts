import type { LampForecast, LampMeaning } from '../../car/lamp';
import type { Mismatch } from '../../car/registration';
import type { Inconsistency } from '../../job/inconsistency';
import type { Target } from '../../tire/filling';
import type { FindingCode } from '../../catalogue/finding';
import type { Position } from '../../names/wheel';
import type { Test } from '../../catalogue/tests';

/** The vocabulary of an assessment. The schema in `./schema` is built from these lists and the catalogue of findings. */
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
