import { wheelFindings, type WheelFinding } from '../../../catalogue/finding';
import { isWatched, type Evidence } from '../evidence';
import {
  assignmentsOf,
  heardNothing,
  inPlace,
  permutationsOf,
  systemsOf,
  zeros,
  type Assignment,
  type Permutation,
  type System,
} from '../hypotheses';
import { lampLikelihood, mountedFactor } from '../likelihoods';
import type { Factors } from './factors';
import type { Factor } from './sensor-sums';
import { ordersThatCount } from './orders';
import { emptySum, tally, totalOf, type Car, type CarFact, type Sum } from './marginals';

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

/**
 * The exact posterior: a sum over every way the car can be, every way to read the scans and every order of
 * the wheels; within each, the wheels depend on one another only by the worst cause they give the lamp, so
 * their states are summed wheel by wheel. The lamp shows the worst cause, and "the worst is k" is "all are k
 * or less" without "all are k-1 or less": a sum over five products.
 */
export function posteriorOf(evidence: Evidence, factors: Factors): Posterior {
  const { priors } = factors;
  const isDirect = evidence.context.job.vehicle.tpms.kind === 'direct';
  const wheels = evidence.wheels.length;
  const watched = watchedOf(evidence);
  const permutations = isDirect ? permutationsOf(evidence.context, priors) : inPlace(watched.coupled.length);
  const systems = systemsOf(evidence, priors);
  const readings = likeliest(
    isDirect ? assignmentsOf(evidence, priors) : [heardNothing(wheels)],
    (assignment) => mostByWheel(evidence, factors, watched, assignment, systems),
  );
  const car: Car = { lamp: lampLikelihood(evidence), priors, ...watched };
  const sum = emptySum(wheels, permutations.length);
  // Each wheel over about what it weighs, so that products of many wheels stay in the range of numbers.
  const scales = (readings[0]?.most ?? []).map((most) => most || 1);
  for (const { assignment } of readings) {
    const ofWheels = watched.coupled.map((place) => factors.of(evidence, assignment, place));
    for (const system of systems) {
      const weight = scales.reduce(
        (share, scale) => share / scale,
        assignment.weight * system.weight * mountedFactor(assignment.heard, system.mounted),
      );
      const grid = ofWheels.map((of) => of(system));
      const tires = watched.free.map((place) => factors.ofTire(evidence, place, system));
      const ofTires = tires.reduce((product, tire) => product * totalOf(tire), weight);
      const orders = ordersThatCount(permutations, grid, (negligible * sum.all) / ofTires);
      if (orders.length > 0)
        tally(sum, { assignment, system, weight, orders: { permutations: orders, grid }, tires }, car);
    }
  }
  const hypotheses = readings.length * systems.length;
  return posteriorFrom(sum, { ...watched, permutations, scales, evidence, hypotheses });
}

/** What adds no more than this share to what was added up already adds nothing that could be seen. */
const negligible = 1e-12;

/** No less than what a wheel weighs, wherever it is. */
const mostOf = (factors: readonly Factor[]): number => Math.max(...factors.map(totalOf));

/** The wheels of the evidence, as places in it: those the lamp watches, and those it does not. */
interface Watched {
  coupled: readonly number[];
  free: readonly number[];
}

function watchedOf({ context, wheels }: Evidence): Watched {
  const coupled: number[] = [];
  const free: number[] = [];
  wheels.forEach(({ wheel }, place) => (isWatched(context, wheel) ? coupled : free).push(place));
  return { coupled, free };
}

/** More ways to read the scans than this are not gone through: then the scans tell hardly anything (judgement). */
const mostAssignments = 8;

/** The ways to read the scans that weigh most in a car as usual, the weightiest first, each with what its wheels weigh there. */
function likeliest(
  assignments: readonly Assignment[],
  mostOf: (assignment: Assignment) => readonly number[],
): { assignment: Assignment; most: readonly number[] }[] {
  const weight = ({ assignment, most }: { assignment: Assignment; most: readonly number[] }) =>
    most.reduce((sum, wheel) => sum + Math.log(wheel), Math.log(assignment.weight));
  return assignments
    .map((assignment) => ({ assignment, most: mostOf(assignment) }))
    .sort((a, b) => weight(b) - weight(a))
    .slice(0, mostAssignments);
}

/** By wheel: what it weighs at the position it goes with best, in a car as usual. */
function mostByWheel(
  evidence: Evidence,
  factors: Factors,
  { coupled, free }: Watched,
  assignment: Assignment,
  [system]: readonly System[],
): number[] {
  const most = zeros(evidence.wheels.length);
  if (!system) return most;
  for (const place of coupled) most[place] = mostOf(factors.of(evidence, assignment, place)(system));
  for (const place of free) most[place] = totalOf(factors.ofTire(evidence, place, system));
  return most;
}

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
