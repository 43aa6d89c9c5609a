import { type Permutation, causeCount, isIdentity, zeros } from '../hypotheses';
import type { Factor } from './sensor-sums';

/** The orders of the wheels that count within one hypothesis, and the factors they need. */
export interface Orders {
  kept: Permutation[];
  /** By wheel and position; undefined where no order that counts has the wheel there. */
  grid: (Factor | undefined)[][];
}

/**
 * Leaves out each order that adds less than the share `negligible` to what is known already, or to the likeliest
 * order by itself. `most`: by wheel and position, no less than the weight of the factor. `leastLit`: the lamp is at
 * least so likely, whatever the order.
 */
export function ordersThatCount(
  permutations: readonly Permutation[],
  most: readonly (readonly number[])[],
  make: (wheel: number, at: number) => Factor,
  known: number,
  leastLit: number,
  negligible: number,
): Orders {
  const size = most.length;
  const grid = most.map((row): (Factor | undefined)[] => row.map(() => undefined));
  const cellAt = (wheel: number, at: number): Factor => ((grid[wheel] ?? [])[at] ??= make(wheel, at));
  const flat = zeros(size * size);
  most.forEach((row, wheel) => row.forEach((bound, at) => (flat[wheel * size + at] = bound)));
  const bounds = zeros(permutations.length);
  let best = 0;
  for (let m = 0; m < permutations.length; m += 1) {
    const map = permutations[m];
    if (!map) continue;
    const bound = boundOf(map.slots, flat, map.prior);
    bounds[m] = bound;
    if (bound > (bounds[best] ?? 0)) best = m;
  }
  if ((bounds[best] ?? 0) <= negligible * known) return { kept: [], grid };
  const likeliest = permutations[best];
  let least = (likeliest?.prior ?? 0) * leastLit;
  likeliest?.wheelAt.forEach((wheel, at) => (least *= cellAt(wheel, at)[causeCount - 1] ?? 0));
  const enough = negligible * Math.max(known, least);
  const kept = permutations.filter((_, m) => (bounds[m] ?? 0) > enough);
  for (const { wheelAt } of kept) wheelAt.forEach((wheel, at) => cellAt(wheel, at));
  return { kept, grid };
}

/** The orders that add more than so much in any of these hypotheses, each with its bounds and its weight. */
export function ordersLeft(
  permutations: readonly Permutation[],
  hypotheses: readonly { most: readonly (readonly number[])[]; weight: number }[],
  enough: number,
): readonly Permutation[] {
  const size = permutations[0]?.slots.length ?? 0;
  const most = zeros(size * size);
  let weight = 0;
  for (const hypothesis of hypotheses) {
    weight = Math.max(weight, hypothesis.weight);
    for (let wheel = 0; wheel < size; wheel += 1) {
      for (let at = 0; at < size; at += 1) {
        const slot = wheel * size + at;
        most[slot] = Math.max(most[slot] ?? 0, hypothesis.most[wheel]?.[at] ?? 0);
      }
    }
  }
  return permutations.filter(({ prior, slots }) => boundOf(slots, most, prior * weight) > enough);
}

/** No less than the weight of an order. A plain loop: it is gone through for every order. */
function boundOf(slots: readonly number[], most: readonly number[], prior: number): number {
  let bound = prior;
  for (let at = 0; at < slots.length; at += 1) bound *= most[slots[at] ?? 0] ?? 0;
  return bound;
}

/**
 * Over all orders: their weight, their weight whatever the lamp shows, and, by cause, wheel and position, the
 * weight of all the other wheels while that wheel is at that position.
 */
export function overOrders({ kept, grid }: Orders, steps: number[], noneLow: number[]) {
  const size = grid.length;
  const totals = zeros(causeCount * size * size);
  grid.forEach((row, wheel) => {
    row.forEach((factor, at) => {
      for (let cause = 0; factor && cause < causeCount; cause += 1) {
        totals[(cause * size + wheel) * size + at] = factor[cause] ?? 0;
      }
    });
  });
  const others = zeros(totals.length);
  const before = zeros(size + 1);
  let all = 0;
  let unlit = 0;
  const byMap = kept.map(({ slots, prior }) => {
    let ofMap = 0;
    for (let cause = 0; cause < causeCount; cause += 1) {
      const step = steps[cause] ?? 0;
      // Causes the lamp does not tell apart from the next worse one add nothing.
      if (step === 0 && noneLow[cause] === 0 && cause < causeCount - 1) continue;
      const from = cause * size * size;
      let product = prior;
      for (let at = 0; at < size; at += 1) {
        before[at] = product;
        product *= totals[from + (slots[at] ?? 0)] ?? 0;
      }
      ofMap += step * product;
      if (cause === causeCount - 1) unlit += product;
      let after = 1;
      for (let at = size - 1; at >= 0; at -= 1) {
        const slot = from + (slots[at] ?? 0);
        others[slot] = (others[slot] ?? 0) + (before[at] ?? 0) * after;
        after *= totals[slot] ?? 0;
      }
    }
    all += ofMap;
    return ofMap;
  });
  return { all, unlit, others, byMap };
}

/** The weight of every wheel being in a row at once, over all orders or with all in place. */
export function everyWheel(
  { grid, kept }: Orders,
  row: number,
  steps: readonly number[],
  which: 'all' | 'in-place',
): number {
  let sum = 0;
  for (const { wheelAt, prior } of kept) {
    if (which === 'in-place' && !isIdentity(wheelAt)) continue;
    for (let cause = 0; cause < causeCount; cause += 1) {
      let product = prior * (steps[cause] ?? 0);
      for (let at = 0; at < wheelAt.length; at += 1) {
        product *= grid[wheelAt[at] ?? 0]?.[at]?.[row * causeCount + cause] ?? 0;
      }
      sum += product;
    }
  }
  return sum;
}
