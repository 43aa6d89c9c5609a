import type { Evidence as Weight } from '../../assessment';
import type { FindingCode } from '../../finding';
import { changesOf } from '../../history';
import type { Job, Observation, Seen } from '../../job';
import { ledgerOf, type Ledger } from '../../ledger';
import { reachOf } from '../../observation';
import { tooHotC } from '../../tire-temperature';
import type { Position } from '../../wheel';
import { type Factors, posteriorOf } from '../inference';
import { type Judgement, chanceOf } from '../decision';
import {
  carEvidence,
  positionEvidence,
  wheelEvidence,
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
const leastNamed = 0.5;

/**
 * How much each observation speaks for or against a finding: by how many decibans its odds would be other
 * if this one observation had not been made, and all the others had.
 */
export function weigherOf(
  job: Job,
  judgement: Judgement,
  priors: Priors,
  factors: Factors,
): (code: FindingCode, wheels: readonly Position[]) => Weight[] {
  let others: Judgement[] | undefined;
  return (code, wheels) => {
    const first = Math.max(0, job.observations.length - mostWeighed(job, judgement));
    others ??= job.observations.map((seen, index) => {
      if (index < first) return judgement;
      const rest: Job = { ...job, observations: job.observations.filter((_, other) => other !== index) };
      return judgeChange(rest, seen, judgement, priors, factors);
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

/** The least of the chances a finding has at these wheels; of the car where none are named. */
const leastChance = (judgement: Judgement, code: FindingCode, wheels: readonly Position[]): number =>
  wheels.length === 0
    ? chanceOf(judgement, code)
    : Math.min(...wheels.map((wheel) => chanceOf(judgement, code, wheel)));

/**
 * What a posterior may leave out while an observation is weighed. At the ends of what odds may come to here, a chance
 * of 1e-5, that moves a weight by less than a twentieth of a deciban.
 */
const leftOut = 1e-7;

/** The judgement of the job with one observation less; what does not rest on it is taken over as it is. */
function judgeChange(
  job: Job,
  changed: Observation,
  before: Judgement,
  priors: Priors,
  factors: Factors,
): Judgement {
  if (reachOf(changed) === 'no-fault') return { ...before, ledger: ledgerOf(job) };
  const { evidence, ledger } = withChange(job, changed, before.evidence, before.ledger);
  return { evidence, ledger, posterior: posteriorOf(evidence, priors, factors, leftOut) };
}

/** The evidence after one observation was taken out of the job. What does not rest on it stays the same object. */
function withChange(
  job: Job,
  changed: Observation,
  evidence: Evidence,
  before: Ledger,
): { evidence: Evidence; ledger: Ledger } {
  const { context } = evidence;
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
      const wheels = wheelsAgain(ledger, ({ wheel }) => wheel === its);
      // What the car shows is brought to now by how warm the tires were, where it does not say so itself.
      const positions = positionsAgain(ledger, ({ position }) => lacksTemperature(job, position));
      return { evidence: { ...evidence, wheels, positions }, ledger };
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

const lacksTemperature = (job: Job, position: Position): boolean =>
  job.observations.some(
    (seen) =>
      (seen.kind === 'display' || (seen.kind === 'live' && seen.tempC == null)) && seen.wheel === position,
  );
