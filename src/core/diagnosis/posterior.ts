import { wheelFindings, type WheelFinding } from '../finding';
import type { Cells } from './cells';
import { isWatched, type Evidence } from './evidence';
import { negligible, ordersLeft, ordersThatCount, type Orders } from './orders';
import { inPlace, type PositionMap } from './position-maps';
import type { Priors } from './priors';
import { allRows, type Wanted } from './states';
import { lampLikelihood, type LampLikelihood } from './systems';
import { emptySum, inRow, tally, type Car, type CarFact, type Sum } from './tally';
import { alternativesOf, cellOf, waysOf, type Alternatives, type Watched, type Way } from './ways';

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
  /** The likeliest order: for each position the wheel that is there, both as places. */
  order: () => { position: number; wheel: number }[];
  /** What it was summed from, to be summed anew after a small change. */
  account: Account;
}

/** How the sum came about. */
export interface Account extends Watched, Alternatives {
  evidence: Evidence;
  ways: readonly WayTaken[];
  scales: readonly number[];
  maps: readonly PositionMap[];
}

/** A way with those of its orders that count; undefined: none does. Over its weight, what is left out adds up to less than `left`. */
export interface WayTaken {
  way: Way;
  orders: Orders | undefined;
  left: number;
}

/**
 * The exact posterior: a sum over every way the car can be, every way to read the scans and every order of
 * the wheels; within each, the wheels depend on one another only by the worst cause they give the lamp, so
 * their states are summed wheel by wheel. The lamp shows the worst cause, and "the worst is k" is "all are k
 * or less" without "all are k-1 or less": a sum over five products. What a bound shows to add next to nothing
 * is not worked out: all of it together is less than 1e-9 of the sum. With `wanted`, only those findings can be
 * asked of it.
 */
export function posteriorOf(
  evidence: Evidence,
  priors: Priors,
  cells: Cells,
  wanted: Wanted = allRows,
): Posterior {
  const watched = watchedOf(evidence);
  const maps =
    evidence.context.job.vehicle.tpms.kind === 'direct'
      ? cells.maps(evidence.context)
      : inPlace(watched.coupled.length);
  const car: Car = { evidence, cells, lamp: lampLikelihood(evidence), priors, wanted, ...watched };
  const alternatives = alternativesOf(evidence, priors);
  const { ways, scales } = waysOf(evidence, cells, watched, alternatives);
  const sum = emptySum(evidence.wheels.length, maps.length);
  const taken = take(ways, maps, sum, car);
  return posteriorFrom(sum, { ...watched, ...alternatives, evidence, maps, scales, ways: taken });
}

function watchedOf({ context, wheels }: Evidence): Watched {
  const coupled: number[] = [];
  const free: number[] = [];
  wheels.forEach(({ wheel }, place) => (isWatched(context, wheel) ? coupled : free).push(place));
  return { coupled, free };
}

/** Adds up the ways and orders that count, the weightiest way first: it tells what of the others is too small. */
function take(ways: readonly Way[], maps: readonly PositionMap[], sum: Sum, car: Car): WayTaken[] {
  const [first, ...others] = [...ways].sort((a, b) => b.weight * b.size - a.weight * a.size);
  if (!first) return [];
  const taken = [takeOne(first, { orders: maps, left: 0 }, sum, car)];
  const weightOf = ({ most, weight, tires }: Way) => ({ most, weight: weight * inRow(tires, 0) });
  const remaining = ordersLeft(maps, others.map(weightOf), negligible * sum.all);
  for (const way of others) taken.push(takeOne(way, remaining, sum, car));
  return taken;
}

function takeOne(
  way: Way,
  remaining: { orders: readonly PositionMap[]; left: number },
  sum: Sum,
  car: Car,
): WayTaken {
  if (way.weight * way.size < negligible * sum.all) return { way, orders: undefined, left: way.size };
  const tires = inRow(way.tires, 0);
  const make = (wheel: number, at: number) => cellOf(way, car, wheel, at);
  const known = sum.all / (way.weight * tires);
  const orders = ordersThatCount(remaining.orders, way.most, make, known, leastLit(car.lamp));
  tally(sum, way, orders, car);
  return { way, orders, left: tires * orders.left + remaining.left / way.weight };
}

/** Whatever the worst cause, the lamp is at least this likely. */
const leastLit = ({ byCause, dark }: LampLikelihood): number => Math.min(dark, ...byCause);

/** What can be asked of a sum. */
export function posteriorFrom(sum: Sum, account: Account): Posterior {
  const { coupled, maps, scales, evidence } = account;
  const { kind, locates } = evidence.context.job.vehicle.tpms;
  const wheels = sum.misheard.length;
  const chance = (amount: number | undefined) => Math.min(1, Math.max(0, (amount ?? 0) / sum.all));
  return {
    logEvidence: Math.log(sum.all) + scales.reduce((total, scale) => total + Math.log(scale || 1), 0),
    wheel: (finding, place) => chance(sum.rows[(wheelFindings.indexOf(finding) + 1) * wheels + place]),
    misheard: (place) => chance(sum.misheard[place]),
    twin: (place) => chance(sum.twin[place]),
    moved: (place) => {
      const wheel = coupled.indexOf(place);
      if (kind !== 'direct' || locates === false || wheel < 0) return 0;
      let amount = 0;
      maps.forEach(({ wheelAt }, m) => {
        if (wheelAt[wheel] !== wheel) amount += sum.byMap[m] ?? 0;
      });
      return chance(amount);
    },
    car: (fact) => chance(sum.car[fact]),
    order: () => {
      const best = sum.byMap.indexOf(Math.max(...sum.byMap));
      return (maps[best]?.wheelAt ?? []).map((wheel, at) => ({
        position: coupled[at] ?? at,
        wheel: coupled[wheel] ?? wheel,
      }));
    },
    account,
  };
}
