import { type Permutation, causeCount, isIdentity, zeros } from '../hypotheses';
import type { Factor } from './sensor-sums';

/** The orders of the wheels that count within one hypothesis, and the factors of the wheels. */
export interface Orders {
  permutations: readonly Permutation[];
  /** By wheel and position. */
  grid: readonly (readonly Factor[])[];
}

/** Those that weigh more than so much, whatever the lamp shows. */
export function ordersThatCount(
  permutations: readonly Permutation[],
  grid: Orders['grid'],
  enough: number,
): readonly Permutation[] {
  const totals = grid.flatMap((factors) => factors.map((factor) => factor[causeCount - 1] ?? 0));
  let most = 1;
  for (let from = 0; from < totals.length; from += grid.length)
    most *= Math.max(...totals.slice(from, from + grid.length));
  if (most <= enough) return [];
  return permutations.filter(({ slots, prior }) => {
    let weight = prior;
    for (let at = 0; at < slots.length; at += 1) weight *= totals[slots[at] ?? 0] ?? 0;
    return weight > enough;
  });
}

/**
 * Over all orders: their weight, their weight whatever the lamp shows, and, by cause, wheel and position, the
 * weight of all the other wheels while that wheel is at that position.
 */
export function overOrders({ permutations, grid }: Orders, steps: number[], noneLow: number[]) {
  const size = grid.length;
  const totals = zeros(causeCount * size * size);
  grid.forEach((row, wheel) => {
    row.forEach((factor, at) => {
      for (let cause = 0; cause < causeCount; cause += 1) {
        totals[(cause * size + wheel) * size + at] = factor[cause] ?? 0;
      }
    });
  });
  const others = zeros(totals.length);
  const before = zeros(size + 1);
  let all = 0;
  let unlit = 0;
  const byMap = permutations.map(({ slots, prior }) => {
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
  { grid, permutations }: Orders,
  row: number,
  steps: readonly number[],
  which: 'all' | 'in-place',
): number {
  let sum = 0;
  for (const { wheelAt, prior } of permutations) {
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
