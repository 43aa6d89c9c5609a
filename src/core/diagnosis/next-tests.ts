import type { FindingCode, NextTest, Test } from '../assessment';
import type { Position } from '../wheel';
import { chanceOf, type Judgement } from './claims';
import { model } from './model';
import { silentAfterTries } from './tries';

/**
 * What to check next: every test the shop can do now asks some questions, each with the chance of a yes as
 * things stand and with how well its answer tells. What a test is worth is what its answers change: bits only
 * of questions whose answer would change what is done, and the minutes that saves. The questions of a test
 * are taken as independent, so its bits are the most it can give.
 */

/** One question a test answers: is this true, and how often does the test say yes when it is, and when it is not. */
interface Question {
  code: FindingCode;
  wheel: Position | undefined;
  chance: number;
  yesIfTrue: number;
  yesIfFalse: number;
}

/** Best gain per minute first; what can change nothing is left out. */
export function nextTests(judgement: Judgement): NextTest[] {
  return openTests(judgement)
    .map(({ test, wheel, questions }): NextTest => {
      const cost = model.minutes[test];
      const worth = questions.filter(changesAction);
      const bits = worth.reduce((sum, question) => sum + information(question), 0);
      const saved = worth.reduce((sum, question) => sum + saving(question), 0);
      const main = worth.reduce<Question | undefined>(
        (best, question) => (best && saving(best) >= saving(question) ? best : question),
        undefined,
      );
      return {
        test,
        ...(wheel && { wheel }),
        minutes: cost,
        bits,
        ...(main && { about: { code: main.code, wheels: main.wheel ? [main.wheel] : [] } }),
        savesMinutes: saved - cost,
      };
    })
    .filter(({ bits }) => bits > leastBits)
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
}

/** Less than this is no answer worth a walk (judgement). */
const leastBits = 0.001;

/** What a finding costs if it is acted on wrongly, and if it is left; findings that call for nothing cost nothing. */
export const stakesOf = (code: FindingCode): { wrong: number; missed: number } | undefined =>
  code in model.stakes ? model.stakes[code as keyof typeof model.stakes] : undefined;

/** The loss to be expected, minutes, with the better of acting and leaving at this chance. */
export function expectedLoss(code: FindingCode, chance: number): number {
  const stakes = stakesOf(code);
  return stakes ? Math.min(chance * stakes.missed, (1 - chance) * stakes.wrong) : 0;
}

/** Whether acting is better than leaving at this chance. */
export function isWorthActing(code: FindingCode, chance: number): boolean {
  const stakes = stakesOf(code);
  return stakes !== undefined && chance * stakes.missed > (1 - chance) * stakes.wrong;
}

/** The chance of a yes, and of the finding after a yes and after a no. */
function answersTo({ chance, yesIfTrue, yesIfFalse }: Question): {
  yes: number;
  afterYes: number;
  afterNo: number;
} {
  const yes = chance * yesIfTrue + (1 - chance) * yesIfFalse;
  return {
    yes,
    afterYes: yes > 0 ? (chance * yesIfTrue) / yes : chance,
    afterNo: yes < 1 ? (chance * (1 - yesIfTrue)) / (1 - yes) : chance,
  };
}

function changesAction(question: Question): boolean {
  const now = isWorthActing(question.code, question.chance);
  const { afterYes, afterNo } = answersTo(question);
  return isWorthActing(question.code, afterYes) !== now || isWorthActing(question.code, afterNo) !== now;
}

function saving(question: Question): number {
  const { code, chance } = question;
  const { yes, afterYes, afterNo } = answersTo(question);
  return (
    expectedLoss(code, chance) - yes * expectedLoss(code, afterYes) - (1 - yes) * expectedLoss(code, afterNo)
  );
}

const entropy = (chance: number): number =>
  chance <= 0 || chance >= 1 ? 0 : -chance * Math.log2(chance) - (1 - chance) * Math.log2(1 - chance);

/** Mutual information of the answer and the truth, bits. */
function information(question: Question): number {
  const { yes, afterYes, afterNo } = answersTo(question);
  return Math.max(0, entropy(question.chance) - yes * entropy(afterYes) - (1 - yes) * entropy(afterNo));
}

interface OpenTest {
  test: Test;
  wheel?: Position;
  questions: Question[];
}

/** Every test that can be done now, in walking order, with what it asks. */
function openTests(judgement: Judgement): OpenTest[] {
  const { evidence, ledger } = judgement;
  const { context, wheels, positions, car } = evidence;
  const { kind } = context.job.vehicle.tpms;
  const direct = kind === 'direct';
  const { monitored } = context;
  const ask = (
    code: FindingCode,
    wheel: Position | undefined,
    yesIfTrue: number,
    yesIfFalse: number,
  ): Question => ({
    code,
    wheel,
    chance: chanceOf(judgement, code, wheel),
    yesIfTrue,
    yesIfFalse,
  });
  const read = ledger.registry !== undefined;
  const tests: OpenTest[] = [];

  if (!car.lamp && kind !== 'none') {
    tests.push({
      test: 'lamp',
      questions: [ask('system-disabled', undefined, 0.95, 0.001), ...lampQuestions(judgement, ask)],
    });
  }
  for (const wheel of wheels) {
    const at = wheel.wheel;
    if (!wheel.gauge || wheel.gauge.slip > model.noise.gaugeSlip) {
      tests.push({
        test: 'gauge',
        wheel: at,
        questions: [
          ask('tire-low', at, 0.97, 0.02),
          ask('tire-underinflated', at, 0.9, 0.05),
          ask('tire-overinflated', at, 0.97, 0.01),
          ...(wheel.replies.length > 0 ? [ask('sensor-inaccurate', at, 0.9, 0.02)] : []),
        ],
      });
    }
    if (wheel.signs.length === 0) {
      const gone = wheel.misses.length > 0 ? [ask('sensor-absent', at, 0.9, 0.12)] : [];
      const leak = [ask('tire-leaking', at, 0.55, 0.02)];
      const odd = kind === 'indirect' ? [ask('rolling-radius-off', at, 0.7, 0.002)] : [];
      tests.push({ test: 'visual', wheel: at, questions: [...gone, ...leak, ...odd] });
    }
    if (!wheel.monitored) continue;
    const misheard = judgement.posterior.misheard(context.wheels.indexOf(at)) > 0.5;
    const tried = wheel.misses.length;
    if (wheel.replies.length === 0 || misheard || (tried > 0 && tried < silentAfterTries + 1)) {
      if (tried > silentAfterTries) continue;
      const answer = tried === 0 ? model.answers.pulsed : model.answers.againOther;
      tests.push({
        test: 'activation',
        wheel: at,
        questions: [
          ask('sensor-silent', at, 0.99, 1 - answer),
          ask('sensor-absent', at, 0.99, 1 - answer),
          ask('sensor-battery-low', at, 0.8, 0.01),
          ask('sensor-wrong-type', at, 0.97, 0.002),
          // Which of the replies is its own is open: as good as even odds.
          ...(misheard ? [{ ...ask('cross-read', at, 0.95, 0.05), chance: 0.5 }] : []),
          ...(wheel.gauge ? [ask('sensor-inaccurate', at, 0.9, 0.02)] : []),
          // With what the car holds, read before or after.
          ask('id-not-registered', at, 0.97, 0.01),
          ask('id-mistyped', at, 0.97, 0.01),
          ask('positions-swapped', at, 0.97, 0.01),
        ],
      });
    }
  }
  if (direct && monitored.length > 0) {
    if (!read) {
      tests.push({
        test: 'registry',
        questions: [
          ...monitored.flatMap((wheel) => [
            ask('id-not-registered', wheel, 0.98, 0.005),
            ask('id-mistyped', wheel, 0.98, 0.005),
            ask('positions-swapped', wheel, 0.98, 0.005),
          ]),
          ...monitored.map((wheel) => ask('sensor-silent', wheel, 0.6, 0.02)),
          ask('other-set-registered', undefined, 0.97, 0.01),
          ask('receiver-fault', undefined, 0.55, 0.01),
        ],
      });
    }
    const undriven = positions.filter(
      ({ empty, heardDriving }) => !empty.includes('driving') && !heardDriving,
    );
    if (undriven.length > 0) {
      tests.push({
        test: 'drive',
        questions: [
          ...undriven.flatMap(({ position }) => [
            ask('sensor-silent', position, 0.97, 0.03),
            ask('sensor-absent', position, 0.97, 0.03),
            ask('id-not-registered', position, 0.95, 0.03),
            ask('sensor-wrong-type', position, 0.95, 0.03),
          ]),
          ask('receiver-fault', undefined, 0.97, 0.01),
          ask('waiting-for-drive', undefined, 0.9, 0.05),
        ],
      });
    }
    if (car.reception.length === 0) {
      tests.push({
        test: 'reception',
        questions: monitored.map((wheel) => ask('sensor-intermittent', wheel, 0.9, 0.03)),
      });
    }
    if (positions.every(({ shown, empty }) => shown.length === 0 && !empty.includes('display'))) {
      tests.push({
        test: 'display',
        questions: monitored.map((wheel) => ask('positions-swapped', wheel, displayTells(judgement), 0.05)),
      });
    } else if (context.job.vehicle.tpms.locates !== false) {
      tests.push({
        test: 'shift',
        questions: monitored.map((wheel) => ask('positions-swapped', wheel, 0.9, 0.03)),
      });
    }
  }
  if (kind === 'indirect') {
    if (wheels.every(({ turns }) => turns === undefined)) {
      tests.push({
        test: 'wheelspeed',
        questions: context.wheels.map((wheel) => ask('rolling-radius-off', wheel, 0.8, 0.02)),
      });
    }
    if (car.relearn?.method !== 'reset') {
      tests.push({ test: 'baseline', questions: [ask('baseline-not-set', undefined, 0.95, 0.1)] });
    }
  }
  return tests;
}

/** A look at the lamp says whether anything is the matter, not what: it bears on each finding a little. */
function lampQuestions(
  { evidence: { context } }: Judgement,
  ask: (code: FindingCode, wheel: Position | undefined, yesIfTrue: number, yesIfFalse: number) => Question,
): Question[] {
  const { monitored, wheels } = context;
  const { low, malfunction, nothing } = model.telltale;
  return [
    ...monitored.map((wheel) => ask('sensor-silent', wheel, malfunction['flash-then-steady'], 0.15)),
    ...monitored.map((wheel) => ask('id-not-registered', wheel, malfunction['flash-then-steady'], 0.15)),
    ...wheels.map((wheel) => ask('tire-low', wheel, low.steady, nothing.steady + 0.1)),
  ];
}

/** Displayed figures tell a swap only where the gauge found pressures that differ. */
function displayTells({ evidence: { wheels } }: Judgement): number {
  const gauged = wheels.flatMap(({ gauge, monitored }) => (gauge && monitored ? [gauge.kPa] : []));
  if (gauged.length < 2) return 0.1;
  const spread = Math.max(...gauged) - Math.min(...gauged);
  return Math.min(0.9, 0.1 + spread / 40);
}
