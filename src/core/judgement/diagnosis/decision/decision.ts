import type { Decision, Finding, NextTest } from '../../assessment';
import { holds } from '../../assessment';
import { blamesNothing, recordOf, stakesOf, type FindingCode } from '../../../catalogue/finding';
import { expectedLoss, isWorthActing } from './value-of-information';

/**
 * Act now, or check first: a check is worth its minutes as long as its answers are expected to save more of
 * them than it takes. What then holds and is worth acting on is acted on, with what that costs if it is wrong; and what
 * holds and calls for a hand is never left as nothing to do.
 */
export function decisionFrom(findings: readonly Finding[], tests: readonly NextTest[]): Decision {
  const worthwhile = tests.filter(({ savesMinutes }) => savesMinutes > 0);
  const sure = findings.filter(({ code, probability }) => probability >= leastFor(code));
  const worthActing = sure.filter(({ code, probability }) => isWorthActing(code, probability));
  const acts = (
    worthActing.length > 0 || worthwhile.length > 0
      ? worthActing
      : sure.filter((finding) => callsForAHand(finding, tests.length === 0))
  ).sort((a, b) => order(a) - order(b) || worth(b) - worth(a));
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
  return {
    verdict: verdictOf(acts.length, worthwhile.length, tests.length),
    on: acts.map(({ code, wheels }): { code: FindingCode; wheels: Finding['wheels'] } => ({ code, wheels })),
    wrongMinutes,
    leftMinutes,
  };
}

/** To act there has to be something to act on; where nothing is, a check that is left comes first. */
function verdictOf(acts: number, worthwhile: number, tests: number): Decision['verdict'] {
  if (worthwhile > 0) return 'check-first';
  if (acts > 0) return 'act';
  return tests > 0 ? 'check-first' : 'nothing-to-do';
}

/** Somebody must do something about it, whatever that saves; what is only to be read again is a check, as long as there is one. */
const callsForAHand = ({ code }: Finding, noCheckIsLeft: boolean): boolean => {
  const { remedy } = recordOf(code);
  return remedy !== 'none' && !blamesNothing(code) && (remedy !== 'scan' || noCheckIsLeft);
};

/** A dear part is replaced for more than one fact: that sure no single one makes it. */
const leastFor = (code: FindingCode): number =>
  recordOf(code).remedy === 'part' && (stakesOf(code)?.wrong ?? 0) >= dearMinutes ? sureOfPart : holds;

/** A module, not a sensor, minutes (judgement). */
const dearMinutes = 90;
const sureOfPart = 0.8;

/** What puts a part right that IDs are then written of comes before the writing. */
const order = ({ code }: Finding): number => Number(recordOf(code).remedy === 'write');

/** Minutes that acting on a finding may be expected to save, over leaving it. */
function worth({ code, probability }: Finding): number {
  const stakes = stakesOf(code);
  return stakes ? probability * stakes.missed - (1 - probability) * stakes.wrong : 0;
}
