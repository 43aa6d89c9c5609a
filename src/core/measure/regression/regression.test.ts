import fc from 'fast-check';
import * as math from 'mathjs';
import { linearRegression } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { regressionOf, studentFactor } from '.';

/** NIST StRD, linear regression, dataset "Norris" (36 points), from memory; that the certified values come out says it is right. */
// prettier-ignore
const norris = [
  [0.2, 0.1], [337.4, 338.8], [118.2, 118.1], [884.6, 888], [10.1, 9.2], [226.5, 228.1], [666.3, 668.5],
  [996.3, 998.5], [448.6, 449.1], [777, 778.9], [558.2, 559.2], [0.4, 0.3], [0.6, 0.1], [775.5, 778.1],
  [666.9, 668.8], [338, 339.3], [447.5, 448.9], [11.6, 10.8], [556, 557.7], [228.1, 228.3], [995.8, 998],
  [887.6, 888.8], [120.2, 119.6], [0.3, 0.3], [0.3, 0.6], [556.8, 557.6], [339.1, 339.3], [887.2, 888],
  [999, 998.5], [779, 778.9], [11.1, 10.2], [118.3, 117.6], [229.2, 228.9], [669.1, 668.4], [448.9, 449.2],
  [0.5, 0.2],
].map(([x = 0, y = 0]) => ({ x, y }));

describe('a straight line', () => {
  it('has the certified values of NIST StRD "Norris"', () => {
    const line = regressionOf(norris);
    expect(line?.slope).toBeCloseTo(1.00211681802045, 12);
    expect(line?.intercept).toBeCloseTo(-0.262323073774029, 10);
    expect(line?.slopeError).toBeCloseTo(0.429796848199937e-3, 12);
    expect(line?.interceptError).toBeCloseTo(0.232818234301152, 10);
    expect(line?.residualSd).toBeCloseTo(0.884796396144373, 10);
  });

  const point = fc.record({ x: fc.integer({ min: -500, max: 500 }), y: fc.integer({ min: -500, max: 500 }) });
  const cloud = fc.uniqueArray(point, { minLength: 3, maxLength: 20, selector: ({ x }) => x });

  it('is the one of simple-statistics', () => {
    fc.assert(
      fc.property(cloud, (points) => {
        const { m, b } = linearRegression(points.map(({ x, y }) => [x, y]));
        const line = regressionOf(points);
        expect(line?.slope).toBeCloseTo(m, 6);
        expect(line?.intercept).toBeCloseTo(b, 6);
      }),
      { numRuns: 2000 },
    );
  });

  it('weighted, solves the normal equations as mathjs does', () => {
    fc.assert(
      fc.property(cloud, fc.integer({ min: 1, max: 9 }), (points, sd) => {
        const weighted = points.map((p, i) => ({ ...p, sd: i % 2 === 0 ? sd : 1 }));
        const X = weighted.map(({ x }) => [1, x]);
        const W = math.diag(weighted.map(({ sd: s }) => 1 / s ** 2));
        const Xt = math.transpose(X);
        const normal = math.multiply(math.multiply(Xt, W), X) as unknown as number[][];
        const right = math.multiply(math.multiply(Xt, W), weighted.map(({ y }) => y)); // prettier-ignore
        const [a, b] = math.flatten(math.lusolve(math.matrix(normal), right) as math.Matrix).toArray() as number[]; // prettier-ignore
        const line = regressionOf(weighted);
        expect(line?.intercept).toBeCloseTo(a ?? Number.NaN, 5);
        expect(line?.slope).toBeCloseTo(b ?? Number.NaN, 6);
      }),
      { numRuns: 300 },
    );
  });

  it('through two points knows its error only from theirs', () => {
    const two = [
      { x: 0, y: 10 },
      { x: 2, y: 6 },
    ];
    expect(regressionOf(two)).toMatchObject({ slope: -2, slopeError: Number.NaN });
    // By hand: the difference of two readings of sd 1 has sd √2; over two days that is √2/2 a day.
    expect(regressionOf(two.map((p) => ({ ...p, sd: 1 })))?.slopeError).toBeCloseTo(Math.SQRT1_2, 12);
  });

  it('that scatters more than the points admit is known less well', () => {
    const at = (sd: number) =>
      regressionOf([0, 1, 2, 3].map((x) => ({ x, y: x + (x % 2 === 0 ? 5 : -5), sd })))?.slopeError ?? 0;
    expect(at(0.1)).toBeCloseTo(at(1), 9);
    expect(at(50)).toBeGreaterThan(at(1));
  });

  it('is not there for one point, or for several at one place', () => {
    expect(regressionOf([{ x: 1, y: 1 }])).toBeUndefined();
    expect(regressionOf([1, 2].map((y) => ({ x: 3, y })))).toBeUndefined();
  });
});

describe("Student's factor", () => {
  it('leaves 5 % outside, by integrating the density with the gamma function of mathjs', () => {
    for (const n of [1, 2, 4, 10, 20, 30]) {
      const t = studentFactor(n);
      const scale = math.gamma((n + 1) / 2) / (Math.sqrt(n * Math.PI) * math.gamma(n / 2));
      const density = (x: number) => scale * (1 + (x * x) / n) ** (-(n + 1) / 2);
      const steps = 4000;
      let inside = density(0) + density(t);
      for (let i = 1; i < steps; i += 1) inside += density((t * i) / steps) * (i % 2 === 1 ? 4 : 2);
      expect((2 * inside * t) / (3 * steps)).toBeCloseTo(0.95, 3);
    }
  });
});
