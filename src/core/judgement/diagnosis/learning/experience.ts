import type { FindingCode } from '../../../catalogue/finding';
import { model } from '../model';

/** Of one fault: of so many parts confirmed, so many had it, where the model expects so many of those very cars. */
interface Count {
  had: number;
  of: number;
  /** By the work done, the ages and the sets on file of those cars: a shop that sells tires sees other faults. */
  expected: number;
}

/** What a shop has seen. Counts, so that an outcome taken back takes its weight back too. */
export type Experience = Partial<Record<FindingCode, Count>>;

/** Both counts together. */
export function addExperience(one: Experience, other: Experience): Experience {
  const sum: Experience = { ...one };
  for (const [code, { had, of, expected }] of Object.entries(other) as [FindingCode, Count][]) {
    const before = sum[code] ?? { had: 0, of: 0, expected: 0 };
    sum[code] = { had: before.had + had, of: before.of + of, expected: before.expected + expected };
  }
  return sum;
}

/**
 * The factor by which a shop's outcomes move a prior. The prior is a Beta distribution worth
 * `faults.strength` parts; outcomes add to its counts, each part for as many plain ones as it was likelier to
 * have the fault; what comes out is its mean over the prior's, and never further off than `historyMayMove`
 * either way.
 */
export function historyMayMoveBy(
  code: FindingCode,
  prior: number,
  experience: Experience | undefined,
): number {
  const seen = experience?.[code];
  if (!seen || !(seen.of > 0) || !(prior > 0)) return 1;
  const worth = prior * model.faults.strength;
  const factor = (worth + Math.min(seen.had, seen.of)) / (worth + seen.expected);
  const most = model.historyMayMove;
  return Math.min(most, Math.max(1 / most, factor));
}
