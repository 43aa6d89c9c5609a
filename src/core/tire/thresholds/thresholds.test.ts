import { describe, expect, it } from 'vitest';
import { jobWith, minute } from '../../../../tests/support/car';
import type { Job } from '../../job';
import { basisInWords, raisedFigures, thresholdsFor } from '../../car/lamp';

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
});

describe('the lamp’s figures for other tires', () => {
  const raisedTo = (frontKPa: number, rearKPa: number) =>
    jobWith([], {
      placard: [
        { position: 'front', coldKPa: frontKPa, makerKPa: 230 },
        { position: 'rear', coldKPa: rearKPa, makerKPa: 220 },
      ],
    });

  it('are the same share of the lowest cold pressure, as far apart as before', () => {
    // By hand: 175 / 220 = 0.7955; of 250 that is 198.9. The lamp went out 25 kPa above it.
    expect(raisedFigures(raisedTo(260, 250))).toEqual({ lowOnKPa: 199, lowOffKPa: 224 });
  });

  it('leave the lamp able to go out at the cold pressure', () => {
    const near = { lowOnKPa: 175, lowOffKPa: 219 };
    const { placard } = raisedTo(240, 230);
    expect(raisedFigures(jobWith([], { placard, tpms: near }))).toEqual({ lowOnKPa: 183, lowOffKPa: 227 });
  });

  it('are not asked for where the lowest stands as the maker has it, or the car’s own are not known', () => {
    expect(raisedFigures(raisedTo(250, 220))).toBeUndefined();
    const { placard } = raisedTo(260, 250);
    expect(raisedFigures(jobWith([], { placard, tpms: unknown }))).toBeUndefined();
  });

  it('hold once they were read back, and not because the car said yes', () => {
    const write = {
      key: 'lamp',
      kind: 'thresholds' as const,
      askedAt: minute(1),
      answer: 'yes' as const,
      asked: { lowOnKPa: 199, lowOffKPa: 224 },
    };
    const after = (more: object) =>
      thresholdsFor({ ...raisedTo(260, 250), carWrites: [{ ...write, ...more }] }, 'LF');
    expect(after({})).toMatchObject({ lowOnKPa: 175, lowOffKPa: 200 });
    const readBackAt = minute(2);
    expect(after({ readBackAt, readBack: { lowOnKPa: 175, lowOffKPa: 200 } })).toMatchObject({
      lowOnKPa: 175,
    });
    expect(after({ readBackAt, readBack: write.asked })).toMatchObject({
      lowOnKPa: 199,
      lowOffKPa: 224,
      basis: { kind: 'car' },
    });
  });
});
