import type { Decision, Finding, NextTest } from '../../assessment';
import { holds } from '../../assessment';
import { recordOf, stakesOf, type FindingCode } from '../../finding';
import { expectedLoss, isWorthActing } from './value-of-information';

/**
 * Act now, or check first: a check is worth its minutes as long as its answers are expected to save more of
 * them than it takes. What then holds and is worth acting on is acted on, with what that costs if it is wrong.
 */
export function decisionFrom(findings: readonly Finding[], tests: readonly NextTest[]): Decision {
  const acts = findings
    .filter(({ code, probability }) => isWorthActing(code, probability) && probability >= holds)
    .sort((a, b) => order(a) - order(b) || worth(b) - worth(a));
  const wrongMinutes = acts.reduce(
    (sum, { code, probability }) => sum + (1 - probability) * (stakesOf(code)?.wrong ?? 0),
    0,
  );
  const leftMinutes = findings
    .filter((finding) => !acts.includes(finding))
    .reduce(
      (sum, { code, probability, wheels }) =>
        sum + expectedLoss(code, probability) * Math.max(1, wheels.length),
      0,
    );
  const worthwhile = tests.filter(({ savesMinutes }) => savesMinutes > 0);
  return {
    verdict: worthwhile.length > 0 ? 'check-first' : 'act',
    on: acts.map(({ code, wheels }): { code: FindingCode; wheels: Finding['wheels'] } => ({ code, wheels })),
    wrongMinutes,
    leftMinutes,
  };
}

/** What puts a part right that IDs are then written of comes before the writing. */
const order = ({ code }: Finding): number => Number(recordOf(code).remedy === 'write');

/** Minutes that acting on a finding may be expected to save, over leaving it. */
function worth({ code, probability }: Finding): number {
  const stakes = stakesOf(code);
  return stakes ? probability * stakes.missed - (1 - probability) * stakes.wrong : 0;
}
