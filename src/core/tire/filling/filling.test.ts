import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gauge, jobWith } from '../../../../tests/support/car';
import type { Job } from '../../job';
import { ledgerOf } from '../../job/ledger';
import { policyCelsius, targetsFor } from '.';

const target = (job: Job, wheel = 'LF') =>
  targetsFor(job, ledgerOf(job)).find((found) => found.wheel === wheel);
const climate = (more: NonNullable<Job['climate']>) => ({
  climate: { nowC: 21, overnightLowC: 3, altitudeM: 1500, ...more },
});

describe('a target', () => {
  it('of a cold tire by the ambient fill policy is the placard', () => {
    const job = jobWith([gauge(1, 'LF', 215)], climate({ fillPolicy: 'ambient' }));
    expect(target(job)?.setNowKPa).toBeCloseTo(230, 9);
    expect(target(job)?.addKPa).toBeCloseTo(15, 9);
  });

  it('of a warm tire by the morning fill policy is worked out by the gas law', () => {
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
    const target8 = hot(250, { tireCUncertaintyK: 8 });
    expect(target8?.uncertaintyKPa).toBeCloseTo((((target8?.setNowKPa ?? 0) + 84.556) / 318.15) * 8, 2);
    expect(target(jobWith([gauge(1, 'LF', 220)], climate({})))?.uncertaintyKPa).toBeUndefined();
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

describe('the fill policy', () => {
  it('is ambient unless morning is chosen and the morning is known', () => {
    expect(policyCelsius(jobWith([], climate({})))).toBe(21);
    expect(policyCelsius(jobWith([], climate({ fillPolicy: 'morning' })))).toBe(3);
    expect(policyCelsius(jobWith([], climate({ fillPolicy: 'morning', overnightLowC: undefined })))).toBe(21);
  });
});

describe('what is said of a target', () => {
  const advice = (kPa: number, more: object = {}, nowC: number | undefined = 12) =>
    target(
      jobWith([gauge(1, 'LF', kPa, more)], {
        climate: { ...(nowC !== undefined && { nowC }), altitudeM: 0 },
      }),
    )?.advice;

  it('is to leave a tire within a psi, to add below and to let out above', () => {
    // Figures are compared as they are shown: 222.6 is shown as 223.
    expect([advice(222.6), advice(222.4), advice(237.4), advice(237.6)]).toEqual([
      'leave',
      'add',
      'leave',
      'let-out',
    ]);
    expect(advice(230)).toBe('leave');
  });

  it('is to let a warm tire cool, by what was said of it or by what it measures against the air', () => {
    // Five kelvin over the air are of the weather; more is of the road.
    const over = { tire: 'cold' as const };
    expect(advice(270, { ...over, tireC: 17 })).toBe('let-out');
    expect(advice(270, { ...over, tireC: 17.1 })).toBe('let-cool');
    expect(advice(270, { ...over, tireC: 7 })).toBe('let-out');
    expect(advice(300, { tire: 'warm', tireC: 13 })).toBe('let-cool');
    expect(target(jobWith([gauge(1, 'LF', 270, { tireC: 40 })], { climate: {} }))?.advice).toBe('let-out');
    expect(advice(200, { ...over, tireC: 40 })).toBe('add');
  });

  it('is nothing where nothing was read, and no figure is given for a wheel without placard', () => {
    const job = jobWith([], { placard: [{ position: 'front', coldKPa: 230 }] });
    expect(targetsFor(job, ledgerOf(job)).map(({ wheel }) => wheel)).toEqual(['LF', 'RF']);
    const open = target(job);
    expect(open).toMatchObject({ coldKPa: 230 });
    expect(open).not.toHaveProperty('advice');
    expect(open).not.toHaveProperty('addKPa');
    expect(open).not.toHaveProperty('cappedAtKPa');
  });

  it('stops at the sidewall, and says so only where it is the sidewall that stops it', () => {
    const capped = (maxKPa: number) =>
      target(jobWith([gauge(1, 'LF', 200)], { fitted: [{ position: 'front', maxKPa }] }));
    expect(capped(220)).toMatchObject({ setNowKPa: 220, cappedAtKPa: 220, addKPa: 20 });
    expect(capped(230)).not.toHaveProperty('cappedAtKPa');
    expect(capped(231)).not.toHaveProperty('cappedAtKPa');
    const untempered = jobWith([gauge(1, 'LF', 200)], {
      climate: {},
      fitted: [{ position: 'front', maxKPa: 220 }],
    });
    expect(target(untempered)).toMatchObject({ setNowKPa: 220, cappedAtKPa: 220 });
  });

  it('carries the doubt of the temperature only where one was taken', () => {
    expect(target(jobWith([gauge(1, 'LF', 220)]))).not.toHaveProperty('uncertaintyKPa');
    expect(target(jobWith([gauge(1, 'LF', 220, { tireC: 12 })]))?.uncertaintyKPa).toBeGreaterThan(1);
    const noWeather = jobWith([gauge(1, 'LF', 220, { tireC: 12 })], { climate: {} });
    expect(target(noWeather)).not.toHaveProperty('uncertaintyKPa');
  });

  it('aims where the fill policy says, as far as the temperatures are known', () => {
    const policy = (more: NonNullable<Job['climate']>) => policyCelsius(jobWith([], { climate: more }));
    expect(policy({ nowC: 20, overnightLowC: 3, fillPolicy: 'morning' })).toBe(3);
    expect(policy({ nowC: 20, overnightLowC: 3, fillPolicy: 'ambient' })).toBe(20);
    expect(policy({ nowC: 20, overnightLowC: 3 })).toBe(20);
    expect(policy({ nowC: 20, fillPolicy: 'morning' })).toBe(20);
    const { climate, ...rest } = jobWith([gauge(1, 'LF', 220)]);
    expect(climate).toBeDefined();
    expect(policyCelsius(rest)).toBeUndefined();
    expect(target(rest)).toMatchObject({ setNowKPa: 230, addKPa: 10, advice: 'add' });
    expect(target({ ...rest, observations: [] })).toMatchObject({ setNowKPa: 230 });
  });
});
