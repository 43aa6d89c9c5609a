import { wheelFindings, type WheelFinding } from '../../finding';
import type { Factors } from './factors';
import { isWatched, type Evidence } from '../evidence';
import { ordersLeft, ordersThatCount } from './orders';
import { type Permutation, type System, inPlace, zeros } from '../hypotheses';
import type { Priors } from '../learning';
import { type LampLikelihood, lampLikelihood } from '../likelihoods';
import { emptySum, inRow, tally, type Car, type CarFact, type Sum } from './marginals';
import {
  boundsOf,
  type Placed,
  placedIn,
  hypothesesOf,
  weightiestFirst,
  type BoundAssignment,
  type Watched,
  type Hypothesis,
  type ReadWheel,
} from './hypothesis';

/** The chances of everything the model can say, given all that was seen. Wheels are places in the evidence. */
export interface Posterior {
  /** Natural logarithm of the likelihood of all that was seen. */
  logEvidence: number;
  wheel: (finding: WheelFinding, place: number) => number;
  /** The reply one would take for the wheel's sensor is another's. */
  misheard: (place: number) => number;
  /** Two sensors send the ID of this wheel's. */
  twin: (place: number) => number;
  /** The wheel is not where the car has it. */
  moved: (place: number) => number;
  car: (fact: CarFact) => number;
  /** How many ways to read the scans, and ways the car can be with them, were gone through: what it took. */
  hypotheses: number;
  /** The likeliest order: for each position the wheel that is there, both as places. */
  order: () => { position: number; wheel: number }[];
}

/** All that is left out of the sum together is less than this share of it, where nothing else is asked for. */
export const mostLeftOut = 1e-10;

/**
 * The exact posterior: a sum over every way the car can be, every way to read the scans and every order of
 * the wheels; within each, the wheels depend on one another only by the worst cause they give the lamp, so
 * their states are summed wheel by wheel. The lamp shows the worst cause, and "the worst is k" is "all are k
 * or less" without "all are k-1 or less": a sum over five products. What a bound shows to add next to nothing
 * is not worked out: together less than the share `leftOut` of the whole.
 */
export function posteriorOf(
  evidence: Evidence,
  priors: Priors,
  factors: Factors,
  leftOut = mostLeftOut,
): Posterior {
  const watched = watchedOf(evidence);
  const permutations =
    evidence.context.job.vehicle.tpms.kind === 'direct'
      ? factors.permutations(evidence.context)
      : inPlace(watched.coupled.length);
  const car: Car = { evidence, factors, lamp: lampLikelihood(evidence), priors, ...watched };
  const alternatives = factors.alternativesOf(evidence);
  const placed = placedIn(evidence, factors);
  const sum = emptySum(evidence.wheels.length, permutations.length);
  const scales = zeros(evidence.wheels.length);
  const hypotheses = addAssignments(
    weightiestFirst(evidence, factors, watched, placed, alternatives),
    alternatives.systems,
    {
      car,
      placed,
      permutations,
      scales,
      sum,
      leftOut,
    },
  );
  return posteriorFrom(sum, { ...watched, evidence, permutations, scales, hypotheses });
}

/** More ways to read the scans than this are not gone through: then the scans tell hardly anything (judgement). */
const mostAssignments = 8;

/** Adds up the ways to read the scans until what is left cannot count; gives back how much was gone through. */
function addAssignments(
  assignments: readonly BoundAssignment[],
  systems: readonly System[],
  {
    car,
    placed,
    permutations,
    scales,
    sum,
    leftOut,
  }: {
    car: Car;
    placed: Placed;
    permutations: readonly Permutation[];
    scales: number[];
    sum: Sum;
    leftOut: number;
  },
): number {
  const negligible =
    leftOut / (Math.min(assignments.length, mostAssignments) * systems.length * permutations.length);
  const first = assignments[0]?.logMost ?? 0;
  // Against the first, so that none leaves the range of numbers.
  const shares = assignments.map(({ logMost }) => Math.exp(logMost - first));
  let taken = 0;
  for (const { assignment } of assignments.slice(0, mostAssignments)) {
    if (taken > 0) {
      const logScale = scales.reduce((total, scale) => total + Math.log(scale || 1), 0);
      const left = shares.slice(taken).reduce((total, share) => total + share, 0);
      if (Math.log(left) + first - logScale < Math.log(leftOut * sum.all)) break;
    }
    addUp(
      hypothesesOf(car.evidence, car.factors, car, placed, assignment, systems, scales),
      permutations,
      negligible,
      sum,
      car,
    );
    taken += 1;
  }
  return assignments.length + taken * systems.length;
}

function watchedOf({ context, wheels }: Evidence): Watched {
  const coupled: number[] = [];
  const free: number[] = [];
  wheels.forEach(({ wheel }, place) => (isWatched(context, wheel) ? coupled : free).push(place));
  return { coupled, free };
}

/** Adds up the hypotheses and orders that count, the weightiest first: it tells what of the others is too small. */
function addUp(
  hypotheses: readonly Hypothesis[],
  permutations: readonly Permutation[],
  negligible: number,
  sum: Sum,
  car: Car,
): void {
  const [one, ...more] = hypotheses;
  if (!one) return;
  const first = more.reduce((most, other) => (mostOf(other) > mostOf(most) ? other : most), one);
  if (mostOf(first) < negligible * sum.all) return;
  addHypothesis(first, permutations, negligible, sum, car);
  const counting = hypotheses
    .filter((other) => other !== first && mostOf(other) >= negligible * sum.all)
    .sort((a, b) => mostOf(b) - mostOf(a));
  const remaining = ordersLeft(permutations, counting.map(withBounds), negligible * sum.all);
  for (const hypothesis of counting) addHypothesis(hypothesis, remaining, negligible, sum, car);
}

/** No less than what a hypothesis adds. */
const mostOf = ({ weight, size }: Hypothesis): number => weight * size;

const withBounds = (hypothesis: Hypothesis) => ({
  most: boundsOf(hypothesis),
  weight: hypothesis.weight * inRow(hypothesis.tires, 0),
});

function addHypothesis(
  hypothesis: Hypothesis,
  permutations: readonly Permutation[],
  negligible: number,
  sum: Sum,
  car: Car,
): void {
  const { system, wheels } = hypothesis;
  const make = (wheel: number, at: number) => wheelIn(wheels, wheel).factor(at, system);
  const { most, weight } = withBounds(hypothesis);
  const orders = ordersThatCount(permutations, most, make, sum.all / weight, leastLit(car.lamp), negligible);
  tally(sum, hypothesis, orders, car);
}

function wheelIn(wheels: readonly ReadWheel[], at: number): ReadWheel {
  const wheel = wheels[at];
  if (!wheel) throw new RangeError(`no wheel ${at}`);
  return wheel;
}

/** Whatever the worst cause, the lamp is at least this likely. */
const leastLit = ({ byCause, dark }: LampLikelihood): number => Math.min(dark, ...byCause);

/** By wheel that the lamp watches: the weight of the orders in which it is not where the car has it. */
function movedIn({ byMap }: Sum, permutations: readonly Permutation[]): number[] {
  const moved = zeros(permutations[0]?.wheelAt.length ?? 0);
  permutations.forEach(({ wheelAt }, m) => {
    const amount = byMap[m] ?? 0;
    if (amount === 0) return;
    for (let wheel = 0; wheel < wheelAt.length; wheel += 1)
      if (wheelAt[wheel] !== wheel) moved[wheel] = (moved[wheel] ?? 0) + amount;
  });
  return moved;
}

/** The place of a finding among those of a wheel. */
const placeOf = Object.fromEntries(wheelFindings.map((code, place) => [code, place])) as Record<
  WheelFinding,
  number
>;

/** What can be asked of a sum. */
function posteriorFrom(
  sum: Sum,
  {
    coupled,
    permutations,
    scales,
    evidence,
    hypotheses,
  }: Watched & {
    evidence: Evidence;
    permutations: readonly Permutation[];
    scales: readonly number[];
    hypotheses: number;
  },
): Posterior {
  const { kind, locates } = evidence.context.job.vehicle.tpms;
  const wheels = sum.misheard.length;
  const chance = (amount: number | undefined) => Math.min(1, Math.max(0, (amount ?? 0) / sum.all));
  let movedBy: readonly number[] | undefined;
  return {
    logEvidence: Math.log(sum.all) + scales.reduce((total, scale) => total + Math.log(scale || 1), 0),
    wheel: (finding, place) => chance(sum.rows[(placeOf[finding] + 1) * wheels + place]),
    misheard: (place) => chance(sum.misheard[place]),
    twin: (place) => chance(sum.twin[place]),
    moved: (place) => {
      if (kind !== 'direct' || locates === false) return 0;
      return chance((movedBy ??= movedIn(sum, permutations))[coupled.indexOf(place)]);
    },
    car: (fact) => chance(sum.car[fact]),
    hypotheses,
    order: () => {
      const best = sum.byMap.indexOf(Math.max(...sum.byMap));
      return (permutations[best]?.wheelAt ?? []).map((wheel, at) => ({
        position: coupled[at] ?? at,
        wheel: coupled[wheel] ?? wheel,
      }));
    },
  };
}
