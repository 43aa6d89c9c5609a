import { describe, expect, it } from 'vitest';
import { chanceFrom } from '../../../simulation';
import { aliveAt, fitWeibull, kaplanMeier, type Lifetime } from '.';

/** Weeks of remission under 6-MP [Freireich and others 1963, Blood 21]; 0.5 marks one that went on. */
const freireich: Lifetime[] = [
  ...[6, 6, 6, 7, 10, 13, 16, 22, 23].map((to) => ({ to, ended: true })),
  ...[6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35].map((to) => ({ to, ended: false })),
];

describe('the share alive by age', () => {
  it('is that of Freireich and others 1963, with Greenwood’s error (textbook figures, from memory)', () => {
    const steps = kaplanMeier(freireich);
    const wanted: [number, number, number][] = [
      [6, 0.857, 0.0764],
      [7, 0.807, 0.0869],
      [10, 0.753, 0.0963],
      [13, 0.69, 0.1068],
      [16, 0.627, 0.1141],
      [22, 0.538, 0.1282],
      [23, 0.448, 0.1346],
    ];
    expect(steps.map(({ at }) => at)).toEqual(wanted.map(([at]) => at));
    for (const [n, [, survival, error]] of wanted.entries()) {
      expect(steps[n]?.survival).toBeCloseTo(survival, 3);
      expect(steps[n]?.error).toBeCloseTo(error, 4);
    }
    // 0.857 less and more 1.96 errors.
    expect(steps[0]?.low).toBeCloseTo(0.707, 3);
    expect(steps[0]?.high).toBe(1);
  });

  it('counts a life from the age it was first watched at', () => {
    const [step] = kaplanMeier([
      { to: 5, ended: true },
      { to: 9, ended: false },
      { from: 6, to: 9, ended: false },
    ]);
    expect(step).toMatchObject({ at: 5, atRisk: 2, survival: 0.5 });
  });

  it('is nothing of lives that all go on', () => {
    expect(kaplanMeier([{ to: 3, ended: false }])).toEqual([]);
  });
});

describe('the curve of a life', () => {
  it('is that of the ball bearings of Lieblein and Zelen 1956, as Lawless fits it: 2.102 and 81.9 (from memory)', () => {
    const millions = [
      17.88, 28.92, 33, 41.52, 42.12, 45.6, 48.4, 51.84, 51.96, 54.12, 55.56, 67.8, 68.64, 68.64, 68.88,
      84.12, 93.12, 98.64, 105.12, 105.84, 127.92, 128.04, 173.4,
    ];
    const fit = fitWeibull(millions.map((to) => ({ to, ended: true })));
    expect(fit?.shape).toBeCloseTo(2.102, 3);
    expect(fit?.scale).toBeCloseTo(81.87, 1);
  });

  it('is that of lives that did not all end: 10 of 20 by 500 hours [NIST/SEMATECH e-Handbook 8.4.1.2], the remissions (R, survreg), from memory', () => {
    const failed = [54, 187, 216, 240, 244, 335, 361, 373, 375, 386];
    const fit = fitWeibull([
      ...failed.map((to) => ({ to, ended: true })),
      ...failed.map(() => ({ to: 500, ended: false })),
    ]);
    expect(fit?.scale).toBeCloseTo(606.528, 2);
    expect(fit?.ended).toBe(10);
    expect(fitWeibull(freireich)?.shape).toBeCloseTo(1.354, 3);
    expect(fitWeibull(freireich)?.scale).toBeCloseTo(33.77, 1);
  });

  it('finds a curve again from lives drawn by it, within what it says it knows, watched from any age', () => {
    const chance = chanceFrom(41);
    const truth = { shape: 5, scale: 9 };
    let within = 0;
    for (let round = 0; round < 40; round += 1) {
      const lives: Lifetime[] = [];
      while (lives.length < 150) {
        const ends = truth.scale * (-Math.log(1 - chance.share())) ** (1 / truth.shape);
        const from = chance.share() * 6;
        const until = from + chance.share() * 8;
        // Nobody sees one that ended before it came.
        if (ends > from) lives.push({ from, to: Math.min(ends, until), ended: ends <= until });
      }
      const fit = fitWeibull(lives);
      if (!fit) throw new Error('there are ends enough');
      const [low, high] = fit.scaleInterval;
      if (low <= truth.scale && truth.scale <= high) within += 1;
    }
    // 95 % of 40 is 38; fewer than 33 would be chance once in a thousand.
    expect(within).toBeGreaterThanOrEqual(33);
  });

  it('follows the share alive', () => {
    const fit = fitWeibull(freireich);
    if (!fit) throw new Error('nine ended');
    for (const { at, survival, low, high } of kaplanMeier(freireich)) {
      expect(aliveAt(fit, at), `${at}: ${survival}`).toBeGreaterThan(low);
      expect(aliveAt(fit, at)).toBeLessThan(high);
    }
  });

  it('is none of too few ends, or of ends at one age alone', () => {
    expect(
      fitWeibull([
        { to: 3, ended: true },
        { to: 4, ended: true },
      ]),
    ).toBeUndefined();
    expect(fitWeibull([3, 3, 3].map((to) => ({ to, ended: true })))).toBeUndefined();
    expect(fitWeibull([])).toBeUndefined();
  });
});
