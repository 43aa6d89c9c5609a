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
    });
  });

  it('of an unread wheel says what to set, not what to add', () => {
    expect(target(jobWith([], climate({})))?.addKPa).toBeUndefined();
  });

  it('is not there without a placard', () => {
    expect(target(jobWith([gauge(1, 'LF', 200)], { placard: [] }))).toBeUndefined();
  });
});

describe('the school', () => {
  it('is ambient unless morning is chosen and the morning is known', () => {
    expect(policyCelsius(jobWith([], climate({})))).toBe(21);
    expect(policyCelsius(jobWith([], climate({ fillPolicy: 'morning' })))).toBe(3);
    expect(policyCelsius(jobWith([], climate({ fillPolicy: 'morning', overnightLowC: undefined })))).toBe(21);
  });
});
