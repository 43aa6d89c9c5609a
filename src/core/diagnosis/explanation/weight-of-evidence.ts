import type { Evidence as Weight } from '../../assessment';
import type { FindingCode } from '../../finding';
import { unexplainedDamage } from '../../damage';
import { changesOf } from '../../history';
import { allOf, atWheel, type Job, type Observation, type Seen } from '../../job';
import { ledgerOf, type Ledger } from '../../ledger';
import { reachOf } from '../../observation';
import { monitoredWheels } from '../../placard';
import { tooHotC } from '../../tire-temperature';
import { isAboveWakeSpeed } from '../../wake-speed';
import type { Position } from '../../wheel';
import { type Factors, posteriorOf } from '../inference';
import { type Judgement, chanceOf } from '../decision';
import {
  carEvidence,
  contextOf,
  positionEvidence,
  wheelEvidence,
  type Context,
  type Evidence,
  type PositionEvidence,
  type WheelEvidence,
} from '../evidence';
import type { Priors } from '../learning';

/** The odds of a probability in decibans: ten times their decimal logarithm. Kept within ±50: no evidence is endless. */
export function decibans(probability: number): number {
  const bounded = Math.min(1 - 1e-5, Math.max(1e-5, probability));
  return 10 * Math.log10(bounded / (1 - bounded));
}

/** An observation that moves a finding by less than this, decibans, is not worth naming: an eighth on the odds. */
export const leastNamed = 0.5;

/**
 * How much each observation speaks for or against a finding: by how many decibans its odds would be other
 * if this one observation had not been made, and all the others had. `judge`: from nothing, a job of which other things are
 * to be expected without it.
 */
export function weigherOf(
  job: Job,
  judgement: Judgement,
  priors: Priors,
  factors: Factors,
  judge: (job: Job) => Judgement,
): (code: FindingCode, wheels: readonly Position[]) => Weight[] {
  let others: Judgement[] | undefined;
  return (code, wheels) => {
    const first = Math.max(0, job.observations.length - mostWeighed(job, judgement));
    others ??= job.observations.map((seen, index) => {
      if (index < first || saysNothingNew(seen, judgement)) return judgement;
      const rest: Job = { ...job, observations: job.observations.filter((_, other) => other !== index) };
      return judgeChange(rest, seen, judgement, priors, factors) ?? judge(rest);
    });
    const now = decibans(leastChance(judgement, code, wheels));
    return others.flatMap((without, observation) => {
      const weight = now - decibans(leastChance(without, code, wheels));
      return Math.abs(weight) >= leastNamed ? [{ observation, decibans: weight }] : [];
    });
  };
}

/**
 * So many observations are weighed, the latest: all of them in any visit a person makes. Each costs a judgement,
 * and a job where every scan heard a crowd, or with thousands of readings, must not hold up the shop (judgement).
 */
function mostWeighed({ observations }: Job, { posterior }: Judgement): number {
  return Math.min(100, Math.floor(1200 / posterior.hypotheses), Math.floor(5000 / observations.length));
}

/**
 * What stem a wheel has tells one with a sensor from one without, and nothing else. Where that is settled by far, no
 * finding is moved by it: a chance by no more than this, times what the stem is worth.
 */
const settled = 1e-8;

function saysNothingNew(seen: Observation, { evidence, posterior }: Judgement): boolean {
  if (seen.kind !== 'visual' || !(seen.sign === 'stem-metal' || seen.sign === 'stem-rubber')) return false;
  const place = evidence.context.wheels.indexOf(seen.wheel);
  return place >= 0 && posterior.wheel('sensor-absent', place) < settled;
}

/** The least of the chances a finding has at these wheels; of the car where none are named. */
const leastChance = (judgement: Judgement, code: FindingCode, wheels: readonly Position[]): number =>
  wheels.length === 0
    ? chanceOf(judgement, code)
    : Math.min(...wheels.map((wheel) => chanceOf(judgement, code, wheel)));

/**
 * The share a posterior may leave out while an observation is weighed. What bounds it is far above what is left out: on
 * 1,500 simulated jobs no weight was off by more than 0.0004 decibans, a thousandth of the least that is named.
 */
const leftOut = 1e-5;

/**
 * The judgement of the job with one observation less; what does not rest on it is taken over as it is. Undefined where so
 * much rests on it that nothing can be.
 */
function judgeChange(
  job: Job,
  changed: Observation,
  before: Judgement,
  priors: Priors,
  factors: Factors,
): Judgement | undefined {
  if (isExpectedOtherwise(job, changed, before.evidence.context)) return undefined;
  const context = { ...before.evidence.context, job };
  if (reachOf(changed) === 'no-fault')
    return { ...before, evidence: { ...before.evidence, context }, ledger: ledgerOf(job) };
  const { evidence: changedOnly, ledger } = withChange(job, changed, before.evidence, before.ledger);
  const evidence = { ...changedOnly, context };
  return { ...before, evidence, ledger, posterior: posteriorOf(evidence, priors, factors, leftOut) };
}

/**
 * Without it the car was not taught, or nobody read what it holds since; or no air was put in, of a car that goes by that;
 * or a wheel is not taken for the small spare.
 */
function isExpectedOtherwise(job: Job, changed: Observation, before: Context): boolean {
  if (monitoredWheels(job).length !== before.monitored.length) return true;
  const mayBe =
    changed.kind === 'registry' ||
    changed.kind === 'relearn' ||
    (changed.kind === 'gauge' && job.vehicle.tpms.kind === 'indirect');
  if (!mayBe) return false;
  const { taught, filledNow } = contextOf(job, changesOf(job));
  return taught !== before.taught || filledNow !== before.filledNow;
}

/** The evidence after one observation was taken out of the job. What does not rest on it stays the same object. */
function withChange(
  job: Job,
  changed: Observation,
  evidence: Evidence,
  before: Ledger,
): { evidence: Evidence; ledger: Ledger } {
  const context = { ...evidence.context, job };
  const its = 'wheel' in changed ? changed.wheel : undefined;
  const wheelsAgain = (ledger: Ledger, of: (old: WheelEvidence) => boolean) =>
    evidence.wheels.map((old) => (of(old) ? wheelEvidence(context, job, ledger, old.wheel) : old));
  const positionsAgain = (ledger: Ledger, of: (old: PositionEvidence) => boolean) => {
    if (!evidence.positions.some(of)) return evidence.positions;
    const changes = changesOf(job);
    return evidence.positions.map((old) =>
      of(old) ? positionEvidence(context, job, ledger, changes, old.position) : old,
    );
  };
  switch (reachOf(changed)) {
    case 'no-fault':
      return { evidence, ledger: ledgerOf(job) };
    case 'its-wheel': {
      // Of a scan the ledger is asked for its temperature alone.
      const ledger = changed.kind === 'activation' && saysHot(changed) ? ledgerOf(job) : before;
      const leaning = leaningOn(changed, evidence.context);
      const isOfCourse = leaning.some(({ kind }) => kind === 'live');
      // Whether a tire was low by itself is told by the others.
      const isOfOthers =
        changed.kind === 'gauge' && unexplainedDamage(evidence.context.job).some(({ found }) => found);
      const wheels = wheelsAgain(ledger, ({ wheel }) => wheel === its || isOfCourse || isOfOthers);
      const positions = positionsAgain(ledger, ({ position }) =>
        leaning.some(({ wheel }) => wheel === position),
      );
      // Of a tire gauged more than once it tells of air put in or lost, which the lamp may speak of.
      const isOfAir =
        changed.kind === 'gauge' &&
        atWheel(evidence.context.job, 'gauge', changed.wheel).length + (job.history?.length ?? 0) > 1;
      const car = isOfAir ? carEvidence(job, ledger, changesOf(job)) : evidence.car;
      return { evidence: { ...evidence, wheels, positions, car }, ledger };
    }
    case 'its-position': {
      const positions = positionsAgain(before, ({ position }) => position === its);
      // What the car had of a sensor is part of what that said, whichever wheel it is in.
      const held = evidence.positions.find(({ position }) => position === its)?.held;
      const speaksOf = ({ wheel, replies }: WheelEvidence) =>
        wheel === its || replies.some(({ id }) => id === held);
      const wheels = changed.kind === 'live' ? wheelsAgain(before, speaksOf) : evidence.wheels;
      return { evidence: { ...evidence, wheels, positions }, ledger: before };
    }
    case 'the-car': {
      const ledger = ledgerOf(job);
      return { evidence: { ...evidence, car: carEvidence(job, ledger, changesOf(job)) }, ledger };
    }
    case 'the-car-and-positions': {
      const ledger = ledgerOf(job);
      const positions = positionsAgain(ledger, () => true);
      return { evidence: { ...evidence, positions, car: carEvidence(job, ledger, changesOf(job)) }, ledger };
    }
  }
}

const saysHot = ({ replies }: Seen<'activation'>): boolean =>
  replies.some(({ tempC }) => (tempC ?? 0) > tooHotC - 10);

/** What the car told of its tires and is brought to now by how warm they were, where this reading is one to know that by. */
function leaningOn(changed: Observation, { job, nowC }: Context): (Seen<'live'> | Seen<'display'>)[] {
  const isOfWarmth =
    changed.kind === 'gauge' ||
    (changed.kind === 'activation' && changed.replies.some(({ tempC }) => tempC != null));
  if (!isOfWarmth) return [];
  // Figures of a drive are those of warm tires anyway; a gauge reading of warm ones says how warm.
  const areWarm = allOf(job, 'gauge').some(({ seen }) => seen.tire === 'warm');
  return [...allOf(job, 'live'), ...allOf(job, 'display')]
    .map(({ seen }) => seen)
    .filter(
      (seen) =>
        seen.kind === 'display' ||
        ((seen.tempC == null || nowC === undefined) && (areWarm || !isAboveWakeSpeed(job, seen.speedKmh))),
    );
}
