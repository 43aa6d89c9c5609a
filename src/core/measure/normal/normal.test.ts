import { erf } from 'mathjs';
import { cumulativeStdNormalProbability } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { normalBelow, normalDensity } from '.';

describe('the normal curve', () => {
  it('below z is that of the tables (standard normal table, any handbook of statistics, from memory)', () => {
    expect(normalBelow(0)).toBe(0.5);
    expect(normalBelow(1)).toBeCloseTo(0.841344746, 9);
    expect(normalBelow(1.959963985)).toBeCloseTo(0.975, 9);
    expect(normalBelow(-2.575829304)).toBeCloseTo(0.005, 9);
    expect(normalBelow(-3.090232306)).toBeCloseTo(0.001, 9);
  });

  it('below z is that of two libraries', () => {
    for (let z = -7; z <= 7; z += 0.013) {
      expect(Math.abs(normalBelow(z) - (1 + erf(z / Math.SQRT2)) / 2)).toBeLessThan(1e-12);
      // simple-statistics reads a table of hundredths.
      expect(Math.abs(normalBelow(z) - cumulativeStdNormalProbability(z))).toBeLessThan(4e-3);
    }
  });

  it('has the density its integral grows by', () => {
    for (let z = -6; z <= 6; z += 0.37) {
      const step = 1e-4;
      expect((normalBelow(z + step) - normalBelow(z - step)) / (2 * step)).toBeCloseTo(
        normalDensity(z, 1),
        7,
      );
    }
  });
});
