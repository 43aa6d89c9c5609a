import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compareAxles,
  compareSizes,
  kilogramsOf,
  kmhOf,
  loadCapacityKg,
  newPlacardKPa,
  parseTireSize,
  rollingMm,
} from '.';

const size = (text: string) => {
  const parsed = parseTireSize(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.problem.message}`);
  return parsed.value;
};

describe('a size', () => {
  // Design overall diameters in mm: ETRTO Standards Manual, new tire on the measuring rim, from memory.
  it.each([
    ['155/65R14', 558],
    ['165/70R14', 588],
    ['175/65R14', 584],
    ['185/60R15', 603],
    ['185/65R15', 621],
    ['195/65R15', 635],
    ['205/55R16', 632],
    ['215/55R17', 668],
    ['215/60R16', 664],
    ['225/45R17', 634],
    ['225/40R18', 637],
    ['225/50R17', 658],
    ['235/45R18', 669],
    ['245/40R18', 653],
    ['255/55R18', 737],
    ['275/40R20', 728],
  ])('%s is %i mm across', (text, diameterMm) => {
    // The tables round the section height and the rim to whole millimetres before they add them.
    expect(Math.abs(size(text).diameterMm - diameterMm)).toBeLessThan(1.5);
  });

  it('named by its diameter has that diameter', () => {
    const flotation = size('31x10.50R15LT 109S');
    expect(flotation).toMatchObject({
      kind: 'high-flotation',
      rimInch: 15,
      loadIndex: 109,
      speedSymbol: 'S',
    });
    expect(flotation.diameterMm).toBeCloseTo(787.4, 6);
  });

  it.each([
    ['215/55R17 94V', 'metric', 'standard-load', 94, 'V'],
    ['215/55 R17 98W XL', 'metric', 'extra-load', 98, 'W'],
    ['205/55ZR16 (91W)', 'metric', 'standard-load', 91, 'W'],
    ['P225/60R16 97T', 'p-metric', 'standard-load', 97, 'T'],
    ['LT245/75R16 120/116S E', 'lt-metric', 'load-range-E', 120, 'S'],
    ['195/70R15C 104/102R', 'commercial', 'load-range-C', 104, 'R'],
    ['T125/70D15 95M', 'temporary', 'standard-load', 95, 'M'],
    ['lt 235/85 r16 d', 'lt-metric', 'load-range-D', undefined, undefined],
  ])('%s is read', (text, kind, tireClass, loadIndex, speedSymbol) => {
    const parsed = parseTireSize(text);
    expect(parsed.ok && parsed.value).toMatchObject({ kind, class: tireClass });
    if (loadIndex !== undefined) expect(parsed.ok && parsed.value).toMatchObject({ loadIndex, speedSymbol });
  });

  it.each([
    ['215/55', 'not-a-size'],
    ['a good one', 'not-a-size'],
    ['', 'not-a-size'],
    ['215/55R17 231V', 'impossible-size'],
    ['915/55R17', 'impossible-size'],
    ['215/55R44', 'impossible-size'],
  ])('%j is refused with a sentence that says what to do', (text, code) => {
    const parsed = parseTireSize(text);
    expect(parsed).toMatchObject({ ok: false, problem: { code } });
    expect(!parsed.ok && parsed.problem.message).toMatch(/(Type|Read) .*\./);
  });

  it('is read back from the way it is shown', () => {
    const sizes = fc.record({
      width: fc.integer({ min: 13, max: 33 }),
      aspect: fc.integer({ min: 6, max: 16 }),
      rim: fc.integer({ min: 13, max: 22 }),
    });
    fc.assert(
      fc.property(sizes, ({ width, aspect, rim }) => {
        const first = size(`${width * 10 + 5}/${aspect * 5}R${rim}`);
        expect(size(first.text)).toEqual(first);
      }),
    );
  });
});

describe('load', () => {
  // ETRTO / ISO 4000-1, from memory.
  it.each([
    [75, 387],
    [82, 475],
    [88, 560],
    [91, 615],
    [94, 670],
    [95, 690],
    [100, 800],
    [104, 900],
    [112, 1120],
    [121, 1450],
  ])('index %i is %i kg', (index, kg) => {
    expect(kilogramsOf(index)).toBe(kg);
  });

  it('follows the preferred numbers R80 of ISO 3: each index 10^(1/80) more than the one before', () => {
    for (let index = 50; index <= 130; index += 1) {
      const preferred = 450 * 10 ** ((index - 80) / 80);
      expect(Math.abs((kilogramsOf(index) ?? 0) / preferred - 1)).toBeLessThan(0.02);
    }
    expect(kilogramsOf(49)).toBeUndefined();
    expect(kilogramsOf(131)).toBeUndefined();
  });

  it('is what the index says at the reference pressure, and less below', () => {
    expect(loadCapacityKg(size('205/55R16 91V'), 250)).toBe(615);
    expect(loadCapacityKg(size('205/55R16 91V'), 300)).toBe(615);
    expect(loadCapacityKg(size('205/55R16 94V XL'), 290)).toBe(670);
    // ETRTO by hand, from memory: 615 kg · (220 / 250)^0.8.
    expect(loadCapacityKg(size('205/55R16 91V'), 220)).toBeCloseTo(615 * 0.88 ** 0.8, 6);
    expect(loadCapacityKg(size('205/55R16'), 220)).toBeUndefined();
  });

  it('speed symbols are those of ISO 4000-1, from memory', () => {
    expect(['Q', 'S', 'T', 'H', 'V', 'W', 'Y'].map(kmhOf)).toEqual([160, 180, 190, 210, 240, 270, 300]);
  });
});

describe('a new placard for other tires', () => {
  const placard = size('205/55R16 91V');

  it('is the pressure at which they carry as much: load goes with (p / reference)^0.8, 250 and 290 kPa', () => {
    // ETRTO Standards Manual, from memory; worked by hand: 290 × 0.92 × (615/670)^1.25 = 239.7.
    const extraLoad = size('205/55R16 94V XL');
    expect(newPlacardKPa(placard, extraLoad, 230, undefined)).toEqual({ kind: 'kPa', kPa: 240 });
    const carried = loadCapacityKg(extraLoad, 240) ?? 0;
    expect(carried).toBeGreaterThanOrEqual(loadCapacityKg(placard, 230) ?? Infinity);
    expect(loadCapacityKg(extraLoad, 239)).toBeLessThan(loadCapacityKg(placard, 230) ?? 0);
  });

  it('is never below the maker’s figure, nor above the sidewall’s', () => {
    expect(newPlacardKPa(placard, size('225/50R16 92V'), 230, undefined)).toEqual({ kind: 'as-placard' });
    expect(newPlacardKPa(placard, placard, 230, undefined)).toEqual({ kind: 'as-placard' });
    expect(newPlacardKPa(placard, size('205/55R16 94V XL'), 230, 235)).toEqual({
      kind: 'over-maximum',
      kPa: 240,
    });
  });

  it('does not exist where they never carry as much, or nobody knows what they carry', () => {
    expect(newPlacardKPa(size('205/55R16 94V XL'), size('195/55R16 87V'), 290, undefined)).toEqual({
      kind: 'carries-too-little',
    });
    expect(newPlacardKPa(placard, size('205/55R16'), 230, undefined)).toEqual({ kind: 'unknown' });
  });

  it('carries at least as much, whatever the sizes and pressures', () => {
    const sizes = [
      '195/65R15 91H',
      '205/55R16 91V',
      '205/55R16 94V XL',
      '215/55R17 94W',
      '225/45R17 94W XL',
      '235/35R19 91Y XL',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...sizes),
        fc.constantFrom(...sizes),
        fc.integer({ min: 180, max: 320 }),
        (one, other, kPa) => {
          const wanted = newPlacardKPa(size(one), size(other), kPa, undefined);
          const needed = loadCapacityKg(size(one), kPa) ?? 0;
          if (wanted.kind === 'kPa') {
            expect(wanted.kPa).toBeGreaterThan(kPa);
            expect(loadCapacityKg(size(other), wanted.kPa)).toBeGreaterThanOrEqual(needed - 1e-6);
          }
          if (wanted.kind === 'as-placard')
            expect(loadCapacityKg(size(other), kPa)).toBeGreaterThanOrEqual(needed - 1e-6);
        },
      ),
    );
  });
});

describe('fitted against placard', () => {
  const fit = (placard: string, fitted: string, kPa = 230) => compareSizes(size(placard), size(fitted), kPa);

  it('of one size is the same', () => {
    expect(fit('215/55R17 94V', '215/55R17 94W')).toMatchObject({
      verdict: 'same',
      load: 'enough',
      trueAt100: 100,
    });
  });

  it('one rim up with a flatter wall rolls alike', () => {
    const found = fit('205/55R16 91V', '225/45R17 91W');
    expect(found).toMatchObject({ verdict: 'other-rim', load: 'enough', speed: 'enough' });
    expect(Math.abs(found.diameterShare)).toBeLessThan(0.005);
  });

  it('that is larger makes the car faster than its dash shows', () => {
    const found = fit('205/55R16 91V', '215/65R16 98H');
    expect(found.verdict).toBe('rolls-differently');
    expect(found.trueAt100).toBeCloseTo((100 * 685.9) / 631.9, 6);
    expect(found.speed).toBe('too-little');
  });

  it('with too small an index carries too little, whatever its size', () => {
    expect(fit('215/55R17 98W XL', '215/55R17 94V', 290).verdict).toBe('carries-too-little');
  });

  it('is not judged where the placard names no index', () => {
    expect(fit('215/55R17', '215/55R17 94V')).toMatchObject({ load: 'unknown', verdict: 'same' });
  });

  it('an extra-load tire of the same index carries less at the same pressure, and enough at a higher one', () => {
    expect(fit('205/55R16 94V', '205/55R16 94V XL').verdict).toBe('wants-more-pressure');
    const [placard, fitted] = [size('205/55R16 94V'), size('205/55R16 94V XL')];
    expect(compareSizes(placard, fitted, 230, 267)).toMatchObject({ verdict: 'same', load: 'enough' });
  });

  it('compares staggered axles by their ratio, not by one another', () => {
    const placard = { front: size('225/45R18'), rear: size('255/40R18') };
    expect(compareAxles(placard, placard)).toBe(0);
    const worn = { ...placard, rear: size('265/40R18') };
    // By hand: the rear becomes 8 mm larger in 661.2.
    expect(compareAxles(placard, worn)).toBeCloseTo(661.2 / 669.2 - 1, 9);
  });

  it('rolls 3.05 diameters a turn as a radial (ETRTO, from memory)', () => {
    expect(rollingMm(size('205/55R16'))).toBeCloseTo(3.05 * 631.9, 6);
  });
});
