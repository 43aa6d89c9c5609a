import type { Position } from '../../../names/wheel';
import type { Context } from '../evidence';
import { numbersOf } from '../../../measure/figure';
import { patterns } from '../model';
import type { Priors } from '../learning';

/** Where the wheels are: for each position the car knows, the place of the wheel that is there now. */
export interface Permutation {
  /** Index of the wheel, by index of the position. */
  wheelAt: readonly number[];
  prior: number;
  /** Its place among all orders. */
  order: number;
  /** The same as places in a table of wheels by positions, row by row. */
  slots: readonly number[];
}

/** All orders of so many wheels: they are few, and worked out once. */
function ordersOf(size: number): readonly Omit<Permutation, 'prior'>[] {
  const known = ordersBySize.get(size);
  if (known) return known;
  const orders = arrangements(Array.from({ length: size }, (_, place) => place)).map((wheelAt, order) => ({
    wheelAt,
    order,
    slots: wheelAt.map((wheel, at) => wheel * size + at),
  }));
  ordersBySize.set(size, orders);
  return orders;
}

const ordersBySize = new Map<number, readonly Omit<Permutation, 'prior'>[]>();

/** So many wheels, each where it belongs. */
export const inPlace = (size: number): Permutation[] =>
  ordersOf(size)
    .slice(0, 1)
    .map((order) => ({ ...order, prior: 1 }));

/**
 * All orders the monitored wheels can be in, each with its prior: as the car has them, one of the usual
 * patterns, or any other. A car that ties no ID to a position is as likely in any order.
 */
export function permutationsOf({ job, monitored }: Context, priors: Priors): readonly Permutation[] {
  const moved = priors.of['positions-swapped'];
  const orders = ordersOf(monitored.length);
  if (job.vehicle.tpms.locates === false || orders.length === 1) {
    return orders.map((order) => ({ ...order, prior: 1 / orders.length }));
  }
  const wheels = monitored.join();
  const known = lastByWheels.get(wheels);
  if (known?.moved === moved) return known.permutations;
  const shares = sharesOf(
    monitored,
    orders.map(({ wheelAt }) => wheelAt),
  );
  const permutations = orders.map((order, at) => ({
    ...order,
    prior: isIdentity(order.wheelAt) ? 1 - moved : moved * (shares[at] ?? 0),
  }));
  lastByWheels.set(wheels, { moved, permutations });
  return permutations;
}

/** How often wheels are moved goes by the work done on the car: for one job it is the same at each reading. */
const lastByWheels = new Map<string, { moved: number; permutations: readonly Permutation[] }>();

export const isIdentity = (wheelAt: readonly number[]): boolean =>
  wheelAt.every((wheel, position) => wheel === position);

/** The share of each order among the moved ones; a pattern the car has no sensors for counts among the others. */
function sharesOf(monitored: readonly Position[], orders: readonly (readonly number[])[]): number[] {
  const key = monitored.join();
  const known = sharesByWheels.get(key);
  if (known) return known;
  const shares = orders.map(() => 0);
  for (const { share, moves } of patterns) {
    const wheelAt = monitored.map((position) => monitored.indexOf(moves[position] ?? position));
    const order = orders.findIndex((candidate) => candidate.every((wheel, at) => wheel === wheelAt[at]));
    if (order >= 0) shares[order] = (shares[order] ?? 0) + numbersOf(share);
  }
  const others = orders.filter((order, at) => !isIdentity(order) && shares[at] === 0).length;
  const left = 1 - shares.reduce((sum, share) => sum + share, 0);
  const filled = orders.map((order, at) => (isIdentity(order) ? 0 : (shares[at] ?? 0) || left / others));
  const total = filled.reduce((sum, share) => sum + share, 0);
  const normalised = filled.map((share) => (total > 0 ? share / total : 0));
  sharesByWheels.set(key, normalised);
  return normalised;
}

/** The patterns are data and the wheels are few: worked out once for each set of wheels. */
const sharesByWheels = new Map<string, number[]>();

export function arrangements(items: readonly number[]): number[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((item, place) =>
    arrangements([...items.slice(0, place), ...items.slice(place + 1)]).map((rest) => [item, ...rest]),
  );
}
