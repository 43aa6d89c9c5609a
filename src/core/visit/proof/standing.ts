import { blamesNothing } from '../../catalogue/finding';
import { holds, type Finding } from '../../judgement/assessment';
import type { Proof } from '.';

/** How a visit stands: proved; done as far as anybody knows, with something not checked; or known not to be right. */
export const standings = ['proved', 'done', 'not-right'] as const;
export type Standing = (typeof standings)[number];

/** `findings`: what follows from all that was seen. A fault that still stands is not right, whatever was checked. */
export function standingOf(
  { proved, checks }: Proof,
  findings: readonly Pick<Finding, 'code' | 'probability'>[],
): Standing {
  if (proved) return 'proved';
  const stands = findings.some(({ code, probability }) => probability >= holds && !blamesNothing(code));
  return stands || checks.some(({ state }) => state === 'unmet') ? 'not-right' : 'done';
}
