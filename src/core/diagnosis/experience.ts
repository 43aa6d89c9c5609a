import type { FindingCode } from '../assessment';
import { model } from './model';

/**
 * What a shop has seen: of so many cars (or wheels) handed over with an outcome recorded, so many had the
 * fault. Counts, so that a record taken back takes its weight back too.
 */
export type Experience = Partial<Record<FindingCode, { had: number; of: number }>>;

/**
 * The factor by which a shop's outcomes move a prior. The prior is a Beta distribution worth
 * `faults.strength` cars; outcomes add to its counts; what comes out is its mean over the prior's, and never
 * further off than `historyMayMove` either way.
 */
export function historyMayMoveBy(
  code: FindingCode,
  prior: number,
  experience: Experience | undefined,
): number {
  const seen = experience?.[code];
  if (!seen || !(seen.of > 0) || !(prior > 0)) return 1;
  const { strength } = model.faults;
  const mean = (prior * strength + Math.min(seen.had, seen.of)) / (strength + seen.of);
  const most = model.historyMayMove;
  return Math.min(most, Math.max(1 / most, mean / prior));
}
