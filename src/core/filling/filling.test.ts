import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gauge, jobWith } from '../../../tests/support/car';
import type { Job } from '../job';
import { ledgerOf } from '../ledger';
import { policyCelsius, targetsFor } from '.';

const target = (job: Job, wheel = 'LF') =>
  targetsFor(job, ledgerOf(job)).find((found) => found.wheel === wheel);
const climate = (more: object) => ({ climate: { nowC: 21, overnightLowC: 3, altitudeM: 1500, ...more } });

describe('a target', () => {
  it('of a cold tire by the ambient school is the placard', () => {
    const job = jobWith([gauge(1, 'LF', 215)], climate({ fillPolicy: 'ambient' }));
    expect(target(job)?.setNowKPa).toBeCloseTo(230, 9);
    expect(target(job)?.addKPa).toBeCloseTo(15, 9);
  });

  it('of a warm tire by the morning school is worked out by the gas law', () => {
    // By hand: (230 + 84.556) · 306.15 / 276.15 − 84.556, the standard atmosphere at 1500 m being 84.556 kPa.
    const job = jobWith(
      [gauge(1, 'LF', 228, { tire: 'warm', tireC: 33 })],
      climate({ fillPolicy: 'morning' }),
    );
    expect(target(job)?.setNowKPa).toBeCloseTo((230 + 84.556) * (306.15 / 276.15) - 84.556, 2);
  });

  it('of a warm tire whose temperature nobody knows is not guessed', () => {
    const job = jobWith([gauge(1, 'LF', 228, { tire: 'warm' })], climate({}));
    expect(target(job)).toEqual({ wheel: 'LF', coldKPa: 230 });
  });

  it('without any temperature is the placard for a cold tire', () => {
    expect(target(jobWith([gauge(1, 'LF', 200)], { climate: {} }))).toEqual({
      wheel: 'LF',
      coldKPa: 230,
      setNowKPa: 230,
      addKPa: 30,
      advice: 'add',
    });
  });

  it('of an unread wheel says what to set, not what to add', () => {
    expect(target(jobWith([], climate({})))?.addKPa).toBeUndefined();
  });

  it('is not there without a placard', () => {
    expect(target(jobWith([gauge(1, 'LF', 200)], { placard: [] }))).toBeUndefined();
  });
});

describe('a hot tire', () => {
  const hot = (kPa: number, more: object = {}) =>
    target(jobWith([gauge(1, 'LF', kPa, { tire: 'warm', tireC: 45, ...more })], climate({})));

  it('with too much air is left to cool, never bled', () => {
    expect(hot(290)?.advice).toBe('let-cool');
    expect(target(jobWith([gauge(1, 'LF', 290)], climate({})))?.advice).toBe('let-out');
  });

  it('is filled where it is short of its target all the same, and left within about a psi of it', () => {
    expect(hot(200)?.advice).toBe('add');
    expect(hot(254)?.advice).toBe('leave');
  });

  it('of which the temperature was only estimated has a target that says how far off it may be', () => {
    // By hand: (set now + 84.556) / 318.15 K is what one kelvin moves it.
    const target8 = hot(250, { tireCPlusMinusK: 8 });
    expect(target8?.plusMinusKPa).toBeCloseTo((((target8?.setNowKPa ?? 0) + 84.556) / 318.15) * 8, 2);
    expect(target(jobWith([gauge(1, 'LF', 220)], climate({})))?.plusMinusKPa).toBeUndefined();
  });
});

describe("the sidewall's maximum", () => {
  it('is never gone over', () => {
    const fitted = [{ position: 'front' as const, maxKPa: 240 }];
    const warm = jobWith([gauge(1, 'LF', 228, { tire: 'warm', tireC: 45 })], { ...climate({}), fitted });
    expect(target(warm)).toMatchObject({ setNowKPa: 240, addKPa: 12, cappedAtKPa: 240 });
    expect(target(warm, 'RR')?.cappedAtKPa).toBeUndefined();
  });

  it('holds for any weather, height and temperature of the tire', () => {
    const celsius = fc.integer({ min: -40, max: 60 });
    fc.assert(
      fc.property(celsius, celsius, fc.integer({ min: 0, max: 4000 }), (nowC, tireC, altitudeM) => {
        const job = jobWith([gauge(1, 'LF', 200, { tire: 'warm', tireC })], {
          climate: { nowC, altitudeM },
          fitted: [{ position: 'front', maxKPa: 300 }],
        });
        expect(target(job)?.setNowKPa).toBeLessThanOrEqual(300);
      }),
    );
  });
});

describe('the load case', () => {
  it('chooses the column of the placard', () => {
    const placard = [{ position: 'front' as const, coldKPa: 230, fullLoadKPa: 260 }];
    expect(target(jobWith([], { placard, ...climate({}) }))?.coldKPa).toBe(230);
    expect(target(jobWith([], { placard, loadCase: 'full', ...climate({}) }))?.coldKPa).toBe(260);
    expect(target(jobWith([], { loadCase: 'full', ...climate({}) }))?.coldKPa).toBe(230);
  });
});

describe('the school', () => {
  it('is ambient unless morning is chosen and the morning is known', () => {
    expect(policyCelsius(jobWith([], climate({})))).toBe(21);
    expect(policyCelsius(jobWith([], climate({ fillPolicy: 'morning' })))).toBe(3);
    expect(policyCelsius(jobWith([], climate({ fillPolicy: 'morning', overnightLowC: undefined })))).toBe(21);
  });
});
