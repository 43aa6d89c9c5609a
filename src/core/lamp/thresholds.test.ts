import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../tests/support/car';
import type { Job } from '../job';
import { basisInWords, regulations, thresholdsFor } from '.';

const unknown = { lowOnKPa: undefined, lowOffKPa: undefined, highOnKPa: undefined };
const ruled = (regulation: 'US' | 'UN', frontKPa: number, more: Partial<Job> = {}) =>
  thresholdsFor(
    jobWith([], {
      tpms: { ...unknown, regulation },
      placard: [{ position: 'front', coldKPa: frontKPa }],
      ...more,
    }),
    'LF',
  );

describe('the thresholds', () => {
  it("are the car's own where they are known", () => {
    expect(thresholdsFor(jobWith([]), 'LF')).toEqual({
      lowOnKPa: 175,
      lowOffKPa: 200,
      highOnKPa: 330,
      basis: { kind: 'car' },
    });
  });

  // 49 CFR 571.138 S4.2 (25 %, table 1) and UN Regulation 141 (20 %, at least 150 kPa), from memory.
  it.each([
    ['US', 230, 172.5, 'share-of-placard'],
    ['UN', 230, 184, 'share-of-placard'],
    ['US', 180, 140, 'least-for-tire-type'],
    ['UN', 180, 150, 'least-for-tire-type'],
  ] as const)('%s at a placard of %i kPa are %f', (name, placard, kPa, by) => {
    const found = ruled(name, placard);
    expect(found.lowOnKPa).toBeCloseTo(kPa, 9);
    expect(found.basis).toEqual({ kind: 'regulation', name, by });
  });

  // Table 1 of 49 CFR 571.138, from memory: 20, 23, 29, 38 and 46 psi.
  it.each([
    ['205/55R16 91V', 140],
    ['205/55R16 94V XL', 160],
    ['LT215/75R15 C', 200],
    ['LT235/75R15 D', 260],
    ['LT245/75R16 E', 320],
  ])('of a %s under the US rule have a least of %i kPa', (size, least) => {
    const low = ruled('US', 150, { fitted: [{ position: 'front', size }] });
    expect(low.lowOnKPa).toBe(least);
    expect(least / 6.894757).toBeCloseTo(Math.round(least / 6.894757), 0);
  });

  it('go by the size on the placard where nobody read the sidewall', () => {
    const placard = [{ position: 'front' as const, size: '205/55R16 94V XL', coldKPa: 180 }];
    expect(ruled('US', 180, { placard }).lowOnKPa).toBe(160);
  });

  it('are not known without placard or figure', () => {
    const found = thresholdsFor(jobWith([], { tpms: unknown, placard: [] }), 'LF');
    expect(found).toMatchObject({ lowOnKPa: undefined, basis: undefined });
  });

  it('name what they rest on', () => {
    expect(basisInWords({ kind: 'car' })).toBe("the car's own figures");
    expect(basisInWords({ kind: 'regulation', name: 'US', by: 'share-of-placard' })).toContain('571.138');
    expect(basisInWords({ kind: 'regulation', name: 'UN', by: 'least-for-tire-type' })).toContain(
      'least for',
    );
  });

  it('must show within 20 minutes in the US and 10 under the UN rule, from memory', () => {
    expect(regulations.US.withinMinutes).toEqual({ low: 20, malfunction: 20 });
    expect(regulations.UN.withinMinutes).toEqual({ low: 10, malfunction: 10 });
  });
});
