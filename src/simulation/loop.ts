import { holds, type Finding } from '../core/judgement/assessment';
import { verdictOn } from '../core/judgement/diagnosis';
import { blamesNothing, faultsOf, recordOf, type FindingCode } from '../core/catalogue/finding';
import type { Job } from '../core/job';
import type { Position } from '../core/names/wheel';
import type { Claim } from '../core/measure/reliability';
import { checklistOn, replaceOnLamp } from './baselines';
import type { TrueCar } from './car';
import type { Chance } from './chance';
import { doTest, lampOf } from './look';
import { isClaim, isWorthFinding, truthOf } from './truth';

/** What one way of working came to on one car. */
export interface Outcome {
  /** The finding it would have acted on first is true; or it found nothing, and there is nothing. */
  right: boolean;
  minutes: number;
  /** Sensors and modules it would have replaced that were in order. */
  needlessParts: number;
}

export interface CarResult {
  engine: Outcome;
  checklist: Outcome;
  replace: Outcome;
  /** What the engine claimed of each wheel when it acted, with whether it was true: for the calibration. */
  claims: Claim[];
  leaks: Leaks;
}

/** Tires that lose air: how many there are, and how many of them a full round, judged by the engine, tells. */
export interface Leaks {
  there: number;
  byRound: number;
  /** Told by the full round, and not when it would act. */
  missed: number;
  /** Of these nothing at all was said of the tire, though every tire was gauged before hand-over: the car leaves with it. */
  left: number;
}

/** After so many tests a shop gives up; the engine never comes near (judgement). */
const mostTests = 40;

const needsPart = (code: FindingCode): boolean => recordOf(code).remedy === 'part';

/** Test by test until acting, on the same car as the checklist and as a sensor sold for the lamp. */
export function runCar(car: TrueCar, chance: Chance): CarResult {
  const truths = truthOf(car);
  const isTrue = (code: FindingCode, wheel?: Position) =>
    truths.some(
      (truth) =>
        truth.code === code && (truth.wheel === undefined || wheel === undefined || truth.wheel === wheel),
    );
  const start: Job = { ...car.job, observations: [lampOf(car, chance)] };

  const { job, minutes } = testByTest(car, start, chance);
  const { findings, told } = verdictOn(job);
  const claims = told
    .filter(({ code }) => isClaim(code))
    .map(({ code, wheel, chance: said }) => ({ chance: said, true: isTrue(code, wheel) }));
  const listed = checklistOn(car, start, chance);
  const sold = replaceOnLamp(start);
  return {
    engine: judge(
      findings.filter(({ probability }) => probability >= holds),
      minutes,
      isTrue,
      truths,
    ),
    checklist: judge(listed.findings, listed.minutes, isTrue, truths),
    replace: judge(sold.findings, sold.minutes, isTrue, truths),
    claims,
    leaks: leaksIn(car, findings, {
      round: () => verdictOn(listed.job).findings,
      handOver: () => verdictOn(gauged(car, job, chance)).findings,
    }),
  };
}

/** Lasts, what is worth no minute by itself: nobody hands a car over with a tire that was never gauged. */
function gauged(car: TrueCar, from: Job, chance: Chance): Job {
  const owed = verdictOn(from).nextTests.filter(({ test }) => test === 'gauge');
  return owed.reduce((job, { wheel }, n) => {
    car.job = job;
    const seen = doTest(car, 'gauge', wheel, mostTests + n, chance);
    return { ...job, observations: [...job.observations, ...seen] };
  }, from);
}

type Found = () => readonly Finding[];

function leaksIn(
  { wheels }: TrueCar,
  acted: readonly Finding[],
  { round, handOver }: { round: Found; handOver: Found },
): Leaks {
  const there = wheels.filter(({ leaking }) => leaking).map(({ wheel }) => wheel);
  if (there.length === 0) return { there: 0, byRound: 0, missed: 0, left: 0 };
  const says = (findings: readonly Finding[], wheel: Position, ...codes: FindingCode[]) =>
    findings.some(
      (finding) =>
        finding.probability >= holds && codes.includes(finding.code) && finding.wheels.includes(wheel),
    );
  const listed = round();
  const told = there.filter((wheel) => says(listed, wheel, 'tire-leaking'));
  const missed = told.filter((wheel) => !says(acted, wheel, 'tire-leaking'));
  const last = missed.length > 0 ? handOver() : [];
  const left = missed.filter((wheel) => !says(last, wheel, 'tire-leaking', 'tire-low', 'tire-underinflated'));
  return { there: there.length, byRound: told.length, missed: missed.length, left: left.length };
}

function testByTest(car: TrueCar, start: Job, chance: Chance): { job: Job; minutes: number } {
  let job = start;
  let minutes = 0;
  for (let n = 1; n <= mostTests; n += 1) {
    const { nextTests } = verdictOn(job);
    const next = nextTests.find(({ test, savesMinutes }) => savesMinutes > 0 && test !== 'shift');
    if (!next) break;
    minutes += next.minutes;
    car.job = job;
    job = { ...job, observations: [...job.observations, ...doTest(car, next.test, next.wheel, n, chance)] };
  }
  return { job, minutes };
}

type Claimed = Pick<Finding, 'code' | 'wheels'>;

function judge(
  findings: readonly Claimed[],
  minutes: number,
  isTrue: (code: FindingCode, wheel?: Position) => boolean,
  truths: readonly { code: FindingCode }[],
): Outcome {
  const claimed = findings.filter(({ code }) => !blamesNothing(code) && isClaim(code));
  const [top] = claimed;
  const nothing = !truths.some(({ code }) => isWorthFinding(code));
  return {
    right: top ? isMostlyTrue(top, isTrue) : nothing,
    minutes,
    needlessParts: claimed
      .filter(({ code }) => needsPart(code))
      .reduce(
        (sum, { code, wheels }) =>
          sum +
          (wheels.length > 0
            ? wheels.filter((wheel) => !partIsDue(isTrue, wheel)).length
            : Number(!isTrue(code))),
        0,
      ),
  };
}

/** True at most of the wheels it names: one tire more filled by two kPa is no wrong finding. */
function isMostlyTrue(
  { code, wheels }: Claimed,
  isTrue: (code: FindingCode, wheel?: Position) => boolean,
): boolean {
  return wheels.length === 0
    ? isTrue(code)
    : wheels.filter((wheel) => isTrue(code, wheel)).length * 2 > wheels.length;
}

/** A sensor that is bad in any way is not replaced needlessly, whatever it was replaced for. */
const partIsDue = (isTrue: (code: FindingCode, wheel?: Position) => boolean, wheel: Position): boolean =>
  faultsOf('sensor').some((code) => isTrue(code, wheel));
