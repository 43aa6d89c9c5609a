import { mean } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { calibrationErrorOf, reliabilityOf, type Claim } from '.';

const claim = (chance: number, isTrue: boolean): Claim => ({ chance, true: isTrue });

describe('reliability', () => {
  it('puts each claim into its tenth, a certain one into the last', () => {
    const bars = reliabilityOf([claim(0.05, false), claim(0.1, false), claim(1, true), claim(0.97, false)]);
    expect(bars.map(({ claims }) => claims)).toEqual([1, 1, 0, 0, 0, 0, 0, 0, 0, 2]);
    expect(bars[9]).toMatchObject({ meanChance: mean([1, 0.97]), shareTrue: 0.5 });
  });

  it('is off by the mean distance of said and true, by claims: by hand', () => {
    // Three at 0.9, two of them true: off by 0.9 - 2/3. One at 0.2, false: off by 0.2.
    const bars = reliabilityOf([claim(0.9, true), claim(0.9, true), claim(0.9, false), claim(0.2, false)]);
    expect(calibrationErrorOf(bars)).toBeCloseTo((3 * (0.9 - 2 / 3) + 0.2) / 4, 12);
    expect(calibrationErrorOf(reliabilityOf([]))).toBe(0);
  });
});
