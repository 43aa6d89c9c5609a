import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everyWheel, ordersThatCount, overOrders } from './orders';
import { arrangements, inPlace, permutationsOf, type Permutation } from '../hypotheses/permutation';
import { priorsFor } from '../learning/priors';
import { contextOf } from '../evidence';
import { jobWith } from '../../../../../tests/support/car';
import { causeCount, rows, zeros } from '../hypotheses/wheel-state';

const size = 4;
const context = contextOf(jobWith([]), []);
const permutations = permutationsOf(context, priorsFor(context));

/** A table of factors whose row 0 is this weight for every cause, and nothing else. */
const factorAt = (weight: number) => {
  const factor = zeros(rows * causeCount);
  for (let cause = 0; cause < causeCount; cause += 1) factor[cause] = weight;
  return factor;
};
const weights = fc.array(
  fc.array(fc.double({ min: 1e-30, max: 1, noNaN: true }), { minLength: size, maxLength: size }),
  {
    minLength: size,
    maxLength: size,
  },
);
/** Only the worst cause counts: a lamp nobody looked at. */
const steps = [0, 0, 0, 0, 1];

/** All orders, one by one. */
const listed = (table: number[][], of: readonly Permutation[] = permutations) =>
  of.map(({ wheelAt, prior }) =>
    wheelAt.reduce((product, wheel, at) => product * (table[wheel]?.[at] ?? 0), prior),
  );
const total = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0);

const counted = (table: number[][], enough = 0) => {
  const grid = table.map((row) => row.map(factorAt));
  return { permutations: ordersThatCount(permutations, grid, enough), grid };
};

describe('the orders of the wheels', () => {
  it('are all there are, each once, with chances that add up to one', () => {
    expect(permutations).toHaveLength(24);
    expect(new Set(permutations.map(({ wheelAt }) => wheelAt.join())).size).toBe(24);
    expect(total(permutations.map(({ prior }) => prior))).toBeCloseTo(1, 12);
    expect(permutations.map(({ order }) => order)).toEqual(permutations.map((_, at) => at));
    expect(arrangements([0, 1, 2])).toHaveLength(6);
  });

  it('of wheels that nobody can have mixed up are one', () => {
    expect(inPlace(size)).toMatchObject([{ wheelAt: [0, 1, 2, 3], prior: 1 }]);
  });

  it('add up to what going through all of them one by one gives', () => {
    fc.assert(
      fc.property(weights, (table) => {
        const orders = counted(table);
        const exact = total(listed(table));
        const { all, unlit, byMap } = overOrders(orders, steps, steps);
        expect(Math.abs(all - exact)).toBeLessThanOrEqual(1e-12 * exact);
        expect(unlit).toBeCloseTo(all, 12);
        expect(Math.abs(total(byMap) - all)).toBeLessThanOrEqual(1e-12 * exact);
      }),
    );
  });

  it('keep for each wheel the weight of all the others: times its own it is the whole again', () => {
    fc.assert(
      fc.property(weights, fc.integer({ min: 0, max: size - 1 }), (table, wheel) => {
        const orders = counted(table);
        const { all, others } = overOrders(orders, steps, steps);
        const from = (causeCount - 1) * size * size;
        const again = total(
          Array.from(
            { length: size },
            (_, at) => (others[from + wheel * size + at] ?? 0) * (table[wheel]?.[at] ?? 0),
          ),
        );
        expect(Math.abs(again - all)).toBeLessThanOrEqual(1e-12 * all);
      }),
    );
  });

  it('that add nothing that could be seen are left out, and hold no more together', () => {
    // Each wheel fits its own place a thousand million times better: as an ID does that is held there.
    const table = permutations
      .slice(0, size)
      .map((_, wheel) => Array.from({ length: size }, (_, at) => (wheel === at ? 1 : 1e-10)));
    const { permutations: kept } = counted(table, 1e-15);
    expect(kept.map(({ wheelAt }) => wheelAt.join())).toEqual(['0,1,2,3']);
    expect(
      total(
        listed(
          table,
          permutations.filter((order) => !kept.includes(order)),
        ),
      ),
    ).toBeLessThan(24e-15);
  });

  it('are all left out where more is known already than they could add', () => {
    const table = Array.from({ length: size }, () => Array.from({ length: size }, () => 1e-9));
    expect(counted(table).permutations).toHaveLength(24);
    expect(counted(table, 1e-20).permutations).toEqual([]);
  });

  it('with every wheel in place are one, whatever the others weigh', () => {
    const table = Array.from({ length: size }, (_, wheel) =>
      Array.from({ length: size }, (_, at) => 0.1 + 0.05 * ((wheel + at) % 3)),
    );
    const orders = counted(table);
    const inPlaceOnly = everyWheel(orders, 0, steps, 'in-place');
    const identity = permutations.find(({ wheelAt }) => wheelAt.every((wheel, at) => wheel === at));
    expect(inPlaceOnly).toBeCloseTo(total(listed(table, identity ? [identity] : [])), 12);
    expect(everyWheel(orders, 0, steps, 'all')).toBeCloseTo(total(listed(table)), 12);
  });
});
