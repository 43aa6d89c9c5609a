import { holds, type NextTest } from '../../assessment';
import { unexplainedDamage } from '../../../tire/damage';
import { failedInRelearn } from '../../../job/history';
import { questionsOf, stakesOf, type FindingCode } from '../../../catalogue/finding';
import { atWheel } from '../../../job';
import { spareOn } from '../../../job/spare';
import type { Position } from '../../../names/wheel';
import { isWhollyRead } from '../../../car/registration';
import { chanceOf, type Judgement } from './claims';
import type { WheelEvidence } from '../evidence';
import { model } from '../model';
import { rounded } from './rounded';
import { silentAfterTries } from '../../../job/ledger';
import type { Test } from '../../../catalogue/tests';

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

/** Best gain per minute first; what can change nothing is left out, but for what a car is never called in order without. */
export function nextTests(judgement: Judgement): NextTest[] {
  const tests = testsThatTell(judgement);
  const owed = owedTests(judgement, tests.length > 0).filter(
    (one) => !tests.some(({ test, wheel }) => test === one.test && wheel === one.wheel),
  );
  // Nobody is sent for little while a tire was never gauged.
  const gauges = owed.filter(({ test }) => test === 'gauge');
  const worth = tests.filter(({ savesMinutes }) => savesMinutes > 0);
  const all = [
    ...worth,
    ...gauges,
    ...tests.filter((test) => !worth.includes(test)),
    ...owed.filter((one) => !gauges.includes(one)),
  ];
  const failed = all.filter(
    ({ test, wheel }) => test === 'activation' && wheel === failedInRelearn(judgement.evidence.context.job),
  );
  const look = lookForSpare(judgement);
  const first = [...(look ? [look] : []), ...failed];
  return [
    ...first,
    ...all.filter((one) => !first.some(({ test, wheel }) => test === one.test && wheel === one.wheel)),
  ];
}

/** Where a wheel may be the small spare, and nobody looked: before air is let out, or a sensor sold for it. */
function lookForSpare({ evidence: { context } }: Judgement): NextTest | undefined {
  const spare = spareOn(context.job);
  if (!spare || spare.chance < leastSuspected || spare.chance >= holds) return undefined;
  if (atWheel(context.job, 'visual', spare.wheel).length > 0) return undefined;
  const minutes = model.minutes.visual;
  const missed = stakesOf('spare-in-use')?.missed ?? 0;
  return {
    test: 'visual',
    wheel: spare.wheel,
    minutes,
    bits: rounded(entropy(spare.chance)),
    savesMinutes: rounded(spare.chance * missed - minutes),
    about: { code: 'spare-in-use', wheels: [spare.wheel] },
  };
}

/** From this chance on it is asked about (judgement). */
const leastSuspected = 0.1;

/**
 * What is done however little it tells, before there is nothing to do: every tire is gauged, damage is said what it was,
 * and a lamp that is lit for no reason that is known is looked at once more.
 */
function owedTests({ evidence, ledger }: Judgement, anyTells: boolean): NextTest[] {
  const { job } = evidence.context;
  const owe = (test: Test, wheel?: Position): NextTest => ({
    test,
    ...(wheel && { wheel }),
    minutes: model.minutes[test],
    bits: 0,
    savesMinutes: -model.minutes[test],
  });
  const failed = failedInRelearn(job);
  const atWheels = [
    ...(failed ? [owe('activation', failed)] : []),
    ...evidence.context.wheels.filter((wheel) => !ledger.gauge[wheel]).map((wheel) => owe('gauge', wheel)),
    ...unexplainedDamage(job).map(({ wheel }) => owe('visual', wheel)),
  ];
  const isLit = evidence.car.lamp !== undefined && evidence.car.lamp.state !== 'off';
  return isLit && !anyTells && atWheels.length === 0 ? [owe('lamp')] : atWheels;
}

function testsThatTell(judgement: Judgement): NextTest[] {
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
        bits: rounded(bits),
        ...(main && { about: { code: main.code, wheels: wheelsOf(main, worth) } }),
        savesMinutes: rounded(saved - cost),
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
  const { evidence } = judgement;
  const { kind, locates } = evidence.context.job.vehicle.tpms;
  const { monitored, wheels } = evidence.context;
  // A look at the lamp says whether anything is the matter, not what: it bears on each finding a little.
  const lamp: OpenTest[] =
    !evidence.car.lamp && kind !== 'none'
      ? [{ test: 'lamp', questions: ask(judgement, 'lamp', { tires: wheels, sensors: monitored }) }]
      : [];
  const atWheels = evidence.wheels.flatMap((wheel) => wheelTests(judgement, wheel));
  switch (kind) {
    case 'direct':
      return [...lamp, ...atWheels, ...(monitored.length > 0 ? carTests(judgement, locates !== false) : [])];
    case 'indirect':
      return [...lamp, ...atWheels, ...indirectTests(judgement)];
    case 'none':
      return atWheels;
  }
}

/** What a test asks by the catalogue: of each of these wheels, and of the car. */
function ask(
  judgement: Judgement,
  test: Test,
  at: { tires?: readonly Position[]; sensors?: readonly Position[] },
): Question[] {
  return questionsOf(test).flatMap(({ code, scope, ifTrue, ifFalse }) => {
    const of = scope === 'car' ? ofCar : ((scope === 'tire' ? at.tires : at.sensors) ?? []);
    return of.map((wheel): Question => {
      const chance = chanceOf(judgement, code, wheel);
      return { code, wheel, chance, yesIfTrue: ifTrue, yesIfFalse: ifFalse };
    });
  });
}

const ofCar = [undefined];

/** What can be done at one wheel: gauge it, look at it, wake its sensor. */
function wheelTests(judgement: Judgement, wheel: WheelEvidence): OpenTest[] {
  const { kind } = judgement.evidence.context.job.vehicle.tpms;
  const at = { tires: [wheel.wheel], sensors: [wheel.wheel] };
  const tests: OpenTest[] = [];
  const add = (test: Test, without: readonly FindingCode[], change = (question: Question) => question) => {
    const questions = ask(judgement, test, at).filter(({ code }) => !without.includes(code));
    tests.push({ test, wheel: wheel.wheel, questions: questions.map(change) });
  };
  const place = judgement.evidence.context.wheels.indexOf(wheel.wheel);
  if (!wheel.gauge || wheel.gaugeAgain || wheel.gauge.slip > model.noise.gaugeSlip) {
    const doubted = doubtedAt(judgement, place, wheel);
    add('gauge', wheel.replies.length > 0 ? [] : ['sensor-inaccurate'], (question) =>
      question.code === doubted ? { ...question, chance: model.evenOdds } : question,
    );
  }
  if (wheel.signs.length === 0) {
    add('visual', [
      ...(wheel.misses.length > 0 ? [] : ['sensor-absent' as const]),
      ...(kind === 'indirect' ? [] : ['rolling-radius-off' as const]),
    ]);
  }
  if (!wheel.monitored) return tests;
  const tried = wheel.misses.length;
  const misheard = judgement.posterior.misheard(place) > holds;
  if (judgement.posterior.wheel('sensor-inaccurate', place) > holds && wheel.scans === 1) {
    // A sensor is not called wrong for one answer.
    const again = ask(judgement, 'activation', at).filter(({ code }) => code === 'sensor-inaccurate');
    const questions = again.map((question) => ({ ...question, chance: model.evenOdds }));
    return [...tests, { test: 'activation', wheel: wheel.wheel, questions }];
  }
  const open = wheel.replies.length === 0 || misheard || tried > 0;
  if (!open || tried > silentAfterTries) return tests;
  // With what the car holds, read before or after.
  add(
    'activation',
    [...(misheard ? [] : ['cross-read' as const]), ...(wheel.gauge ? [] : ['sensor-inaccurate' as const])],
    (question) => {
      if (question.code === 'cross-read') return { ...question, chance: model.evenOdds };
      const isOfSilence = question.code === 'sensor-silent' || question.code === 'sensor-absent';
      // Another trigger than the one it was silent to.
      return isOfSilence && tried > 0 ? { ...question, yesIfFalse: 1 - model.answers.againOther } : question;
    },
  );
  return tests;
}

/** What was inferred of a tire, or read in a way that leaves doubt, is an open question as long as it can be measured. */
function doubtedAt(
  { posterior }: Judgement,
  place: number,
  { gaugeAgain }: WheelEvidence,
): FindingCode | undefined {
  const codes = ['tire-low', 'tire-underinflated', 'tire-overinflated'] as const;
  return (
    codes.find((code) => posterior.wheel(code, place) > holds) ??
    (gaugeAgain ? 'tire-underinflated' : undefined)
  );
}

/** What can be done on the car as a whole, where its wheels have sensors. */
function carTests(judgement: Judgement, locates: boolean): OpenTest[] {
  const { evidence, ledger } = judgement;
  const { positions, car } = evidence;
  const sensors = evidence.context.monitored;
  const tests: OpenTest[] = [];
  const add = (test: Test, at = sensors, without: readonly FindingCode[] = []) => {
    const questions = ask(judgement, test, { sensors: at }).filter(({ code }) => !without.includes(code));
    tests.push({ test, questions });
  };
  // What the car holds tells of an ID once there is one to hold it against.
  const isHeard = evidence.wheels.some(({ replies, recordedId }) => replies.length > 0 || recordedId);
  if (!isWhollyRead(evidence.context.job, ledger)) add('registry', sensors, isHeard ? [] : ofIds);
  // Where there is a tool, nobody drives off to learn what another trigger may tell on the spot.
  const hasTool = evidence.wheels.some(({ replies, misses }) => replies.length > 0 || misses.length > 0);
  const isToWake = (position: Position) =>
    hasTool &&
    evidence.wheels.some(
      ({ wheel, replies, misses }) =>
        wheel === position && replies.length === 0 && misses.length <= silentAfterTries,
    );
  const undriven = positions.filter(
    ({ position, empty, heardDriving }) => !empty.includes('driving') && !heardDriving && !isToWake(position),
  );
  if (undriven.length > 0)
    add(
      'drive',
      undriven.map(({ position }) => position),
    );
  if (car.reception.length === 0) add('reception');
  const shown = positions.some((position) => position.shown.length > 0 || position.empty.includes('display'));
  if (shown) {
    if (locates) add('shift');
  } else {
    const tells = displayTells(judgement);
    const questions = ask(judgement, 'display', { sensors }).map((question) => ({
      ...question,
      yesIfTrue: Math.min(question.yesIfTrue, tells),
    }));
    tests.push({ test: 'display', questions });
  }
  return tests;
}

/** Told by holding what was heard against what the car holds. */
const ofIds: readonly FindingCode[] = ['id-not-registered', 'id-mistyped', 'positions-swapped'];

function indirectTests(judgement: Judgement): OpenTest[] {
  const { context, wheels, car } = judgement.evidence;
  const test = (name: Test): OpenTest => ({
    test: name,
    questions: ask(judgement, name, { tires: context.wheels }),
  });
  return [
    ...(wheels.every((wheel) => wheel.turns === undefined) ? [test('wheelspeed')] : []),
    ...(car.relearn?.method === 'reset' ? [] : [test('baseline')]),
  ];
}

/** Displayed figures tell a swap only where the gauge found pressures that differ. */
function displayTells({ evidence: { wheels } }: Judgement): number {
  const { alike, perKPa } = model.displayTells;
  const gauged = wheels.flatMap(({ gauge, monitored }) => (gauge && monitored ? [gauge.kPa] : []));
  return gauged.length < 2 ? alike : alike + perKPa * (Math.max(...gauged) - Math.min(...gauged));
}
