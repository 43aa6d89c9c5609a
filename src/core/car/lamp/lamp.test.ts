import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gauge, gauges, jobWith, lamp, minute } from '../../../../tests/support/car';
import { ledgerOf } from '../../job/ledger';
import type { Job } from '../../job';
import { lampMeaning, lampTomorrow } from '.';

const tomorrow = (job: Job) => lampTomorrow(job, ledgerOf(job));
const cold = (nowC: number, overnightLowC: number) => ({ climate: { nowC, overnightLowC, altitudeM: 0 } });

describe('the lamp means', () => {
  const seen = (state: 'off' | 'steady' | 'flash-then-steady' | 'flash-while-driving', more: object = {}) =>
    lampMeaning({ kind: 'lamp', at: minute(0), state, ...more });

  // Two things one lamp says: low pressure steady, malfunction flashing first (49 CFR 571.138, from memory).
  it.each([
    ['off', {}, 'none'],
    ['off', { bulbCheck: true }, 'none'],
    ['off', { bulbCheck: false }, 'not-working'],
    ['steady', {}, 'low-pressure'],
    ['steady', { otherLamps: ['abs'] }, 'malfunction'],
    ['flash-then-steady', {}, 'malfunction'],
    ['flash-while-driving', {}, 'intermittent'],
  ] as const)('%s %j: %s', (state, more, meaning) => {
    expect(seen(state, more)).toBe(meaning);
  });

  it('nothing where nobody looked', () => {
    expect(lampMeaning(undefined)).toBe('none');
  });
});

describe('tomorrow', () => {
  it('lights for a tire that the cold takes to the threshold, and not for one that stays above', () => {
    expect(tomorrow(jobWith(gauges(1, { LF: 190 }), cold(12, -4)))).toMatchObject({ willLight: true });
    expect(tomorrow(jobWith(gauges(1, { LF: 190 }), cold(12, 4)))).toMatchObject({ willLight: false });
  });

  it('stays lit between the two figures where it is lit, and dark where it is dark', () => {
    const seen = gauges(1, { LF: 195 });
    expect(tomorrow(jobWith([lamp(0, 'steady'), ...seen], cold(12, 12)))).toMatchObject({ willLight: true });
    expect(tomorrow(jobWith([lamp(0, 'off'), ...seen], cold(12, 12)))).toMatchObject({ willLight: false });
  });

  it('is not said while a tire is unread and none is low', () => {
    expect(tomorrow(jobWith([gauge(1, 'LF', 230)], cold(12, 2)))).toBeUndefined();
    expect(tomorrow(jobWith([gauge(1, 'LF', 150)], cold(12, 2)))).toMatchObject({ willLight: true });
    expect(tomorrow(jobWith(gauges(1)))).toBeUndefined();
  });

  it('is the darker the colder: pressures fall with the temperature', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 20 }), fc.integer({ min: 150, max: 300 }), (low, kPa) => {
        const at = (celsius: number) =>
          tomorrow(jobWith(gauges(1, { LF: kPa }), cold(20, celsius)))?.kPa.LF ?? Number.NaN;
        expect(at(low - 1)).toBeLessThan(at(low));
      }),
    );
  });
});
