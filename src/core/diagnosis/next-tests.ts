import { holds, type FindingCode, type NextTest, type Test } from '../assessment';
import type { Position } from '../wheel';
import { chanceOf, type Judgement } from './claims';
import type { WheelEvidence } from './evidence';
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
        ...(main && { about: { code: main.code, wheels: wheelsOf(main, worth) } }),
        savesMinutes: saved - cost,
      };
    })
    .filter(({ bits }) => bits > leastBits)
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes);
}

/** The wheels of the question that is worth most, and of those like it that are worth about as much: none stands out. */
const wheelsOf = (main: Question, worth: readonly Question[]): Position[] =>
  worth.flatMap((question) =>
    question.code === main.code && question.wheel && saving(question) >= aboutAsMuch * saving(main)
      ? [question.wheel]
      : [],
  );

const aboutAsMuch = 0.95;

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

/** What a test can be asked, by the model. */
type Asked<Kind extends Test> = keyof (typeof model.questions)[Kind] & FindingCode;

/** Every test that can be done now, in walking order, with what it asks. */
function openTests(judgement: Judgement): OpenTest[] {
  const { evidence } = judgement;
  const { kind, locates } = evidence.context.job.vehicle.tpms;
  const lamp = !evidence.car.lamp && kind !== 'none' ? [lampTest(judgement)] : [];
  const atWheels = evidence.wheels.flatMap((wheel) => wheelTests(judgement, wheel));
  switch (kind) {
    case 'direct':
      return [
        ...lamp,
        ...atWheels,
        ...(evidence.context.monitored.length > 0 ? carTests(judgement, locates !== false) : []),
      ];
    case 'indirect':
      return [...lamp, ...atWheels, ...indirectTests(judgement)];
    case 'none':
      return atWheels;
  }
}

function asker<Kind extends Test>(judgement: Judgement, test: Kind) {
  return (code: Asked<Kind>, wheel?: Position): Question => {
    const { ifTrue, ifFalse } =
      (model.questions[test] as Record<string, { ifTrue: number; ifFalse: number }>)[code] ?? nothingTold;
    return { code, wheel, chance: chanceOf(judgement, code, wheel), yesIfTrue: ifTrue, yesIfFalse: ifFalse };
  };
}

const nothingTold = { ifTrue: model.evenOdds, ifFalse: model.evenOdds };

/** A look at the lamp says whether anything is the matter, not what: it bears on each finding a little. */
function lampTest(judgement: Judgement): OpenTest {
  const { monitored, wheels } = judgement.evidence.context;
  const ask = asker(judgement, 'lamp');
  return {
    test: 'lamp',
    questions: [
      ask('system-disabled'),
      ...monitored.flatMap((wheel) => [ask('sensor-silent', wheel), ask('id-not-registered', wheel)]),
      ...wheels.map((wheel) => ask('tire-low', wheel)),
    ],
  };
}

/** What can be done at one wheel: gauge it, look at it, wake its sensor. */
function wheelTests(judgement: Judgement, wheel: WheelEvidence): OpenTest[] {
  const at = wheel.wheel;
  const tests: OpenTest[] = [];
  if (!wheel.gauge || wheel.gauge.slip > model.noise.gaugeSlip) {
    const ask = asker(judgement, 'gauge');
    tests.push({
      test: 'gauge',
      wheel: at,
      questions: [
        ask('tire-low', at),
        ask('tire-underinflated', at),
        ask('tire-overinflated', at),
        ...(wheel.replies.length > 0 ? [ask('sensor-inaccurate', at)] : []),
      ],
    });
  }
  if (wheel.signs.length === 0) {
    const ask = asker(judgement, 'visual');
    const { kind } = judgement.evidence.context.job.vehicle.tpms;
    tests.push({
      test: 'visual',
      wheel: at,
      questions: [
        ...(wheel.misses.length > 0 ? [ask('sensor-absent', at)] : []),
        ask('tire-leaking', at),
        ...(kind === 'indirect' ? [ask('rolling-radius-off', at)] : []),
      ],
    });
  }
  return wheel.monitored ? [...tests, ...wakeTest(judgement, wheel)] : tests;
}

function wakeTest(judgement: Judgement, wheel: WheelEvidence): OpenTest[] {
  const at = wheel.wheel;
  const tried = wheel.misses.length;
  const misheard = judgement.posterior.misheard(judgement.evidence.context.wheels.indexOf(at)) > holds;
  const open = wheel.replies.length === 0 || misheard || tried > 0;
  if (!open || tried > silentAfterTries) return [];
  const ask = asker(judgement, 'activation');
  // Another trigger than the one it was silent to.
  const again = (question: Question): Question =>
    tried === 0 ? question : { ...question, yesIfFalse: 1 - model.answers.againOther };
  return [
    {
      test: 'activation',
      wheel: at,
      questions: [
        again(ask('sensor-silent', at)),
        again(ask('sensor-absent', at)),
        ask('sensor-battery-low', at),
        ask('sensor-wrong-type', at),
        ...(misheard ? [{ ...ask('cross-read', at), chance: model.evenOdds }] : []),
        ...(wheel.gauge ? [ask('sensor-inaccurate', at)] : []),
        // With what the car holds, read before or after.
        ask('id-not-registered', at),
        ask('id-mistyped', at),
        ask('positions-swapped', at),
      ],
    },
  ];
}

/** What can be done on the car as a whole, where its wheels have sensors. */
function carTests(judgement: Judgement, locates: boolean): OpenTest[] {
  const { evidence, ledger } = judgement;
  const { positions, car } = evidence;
  const { monitored } = evidence.context;
  const tests: OpenTest[] = [];
  if (!ledger.registry) {
    const ask = asker(judgement, 'registry');
    tests.push({
      test: 'registry',
      questions: [
        ...monitored.flatMap((wheel) => [
          ask('id-not-registered', wheel),
          ask('id-mistyped', wheel),
          ask('positions-swapped', wheel),
          ask('sensor-silent', wheel),
        ]),
        ask('other-set-registered'),
        ask('receiver-fault'),
      ],
    });
  }
  const undriven = positions.filter(({ empty, heardDriving }) => !empty.includes('driving') && !heardDriving);
  if (undriven.length > 0) {
    const ask = asker(judgement, 'drive');
    tests.push({
      test: 'drive',
      questions: [
        ...undriven.flatMap(({ position }) => [
          ask('sensor-silent', position),
          ask('sensor-absent', position),
          ask('id-not-registered', position),
          ask('sensor-wrong-type', position),
        ]),
        ask('receiver-fault'),
        ask('waiting-for-drive'),
      ],
    });
  }
  if (car.reception.length === 0) {
    const ask = asker(judgement, 'reception');
    tests.push({ test: 'reception', questions: monitored.map((wheel) => ask('sensor-intermittent', wheel)) });
  }
  const test = positions.every(({ shown, empty }) => shown.length === 0 && !empty.includes('display'))
    ? 'display'
    : 'shift';
  if (test === 'display' || locates) {
    const ask = asker(judgement, test);
    const tells = test === 'display' ? displayTells(judgement) : 1;
    tests.push({
      test,
      questions: monitored.map((wheel) => {
        const question = ask('positions-swapped', wheel);
        return { ...question, yesIfTrue: Math.min(question.yesIfTrue, tells) };
      }),
    });
  }
  return tests;
}

function indirectTests(judgement: Judgement): OpenTest[] {
  const { context, wheels, car } = judgement.evidence;
  const turns = asker(judgement, 'wheelspeed');
  const stored = asker(judgement, 'baseline');
  return [
    ...(wheels.every((wheel) => wheel.turns === undefined)
      ? [
          {
            test: 'wheelspeed' as const,
            questions: context.wheels.map((wheel) => turns('rolling-radius-off', wheel)),
          },
        ]
      : []),
    ...(car.relearn?.method === 'reset'
      ? []
      : [{ test: 'baseline' as const, questions: [stored('baseline-not-set')] }]),
  ];
}

/** Displayed figures tell a swap only where the gauge found pressures that differ. */
function displayTells({ evidence: { wheels } }: Judgement): number {
  const { alike, perKPa } = model.displayTells;
  const gauged = wheels.flatMap(({ gauge, monitored }) => (gauge && monitored ? [gauge.kPa] : []));
  return gauged.length < 2 ? alike : alike + perKPa * (Math.max(...gauged) - Math.min(...gauged));
}
