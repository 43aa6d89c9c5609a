import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gauge, gauges, jobWith, lamp } from '../../../../tests/support/car';
import { targetsFor } from '../../tire/filling';
import type { Job } from '../../job';
import { ledgerOf } from '../../job/ledger';
import { roadWheels } from '../../names/wheel';
import type { Hour } from '../../measure/weather';
import { celsiusAtPressure, forecastOf, latchesOf, litOver } from '.';
import { atTemperature } from '../../measure/pressure';

/** One temperature an hour, from midnight unless another hour is said. */
const hours = (temperatures: number[], from: string): Hour[] =>
  temperatures.map((celsius, n) => ({
    at: `${new Date(Date.parse(from) + n * 3_600_000).toISOString().slice(0, 19)}+00:00`,
    celsius,
  }));
const forecast = (job: Job, temperatures: number[], filled = false, from = '2026-10-15T00:00:00Z') => {
  const ledger = ledgerOf(job);
  return forecastOf(job, ledger, hours(temperatures, from), filled ? targetsFor(job, ledger) : undefined);
};
const at12 = { climate: { nowC: 12, altitudeM: 0, fillPolicy: 'ambient' as const } };

describe('a lamp with two figures', () => {
  const figures = { lowOnKPa: 175, lowOffKPa: 200 };

  it('changes once for one crossing, however the pressure trembles about a figure', () => {
    const tremble = fc.array(fc.integer({ min: -10, max: 10 }), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(tremble, fc.boolean(), (steps, down) => {
        // A path from one side to the other, with trembling smaller than half the gap between the figures.
        const path = steps.map((step, i) => {
          const along = steps.length === 1 ? 1 : i / (steps.length - 1);
          return 150 + 75 * (down ? 1 - along : along) + step;
        });
        const lit = [down ? false : true, ...litOver(!down, path, figures)];
        const changes = lit.slice(1).filter((now, i) => now !== lit[i]).length;
        expect(changes).toBeLessThanOrEqual(1);
      }),
      { numRuns: 2000 },
    );
  });

  it('stays as it was between them', () => {
    expect(litOver(false, [230, 190, 175, 190, 199, 200, 190], figures)).toEqual([
      false, false, true, true, true, false, false,
    ]); // prettier-ignore
    expect(litOver(true, [190], figures)).toEqual([true]);
  });

  it('of which the second is not known goes out above the first', () => {
    expect(litOver(true, [175, 176], { lowOnKPa: 175 })).toEqual([true, false]);
  });
});

describe('a forecast', () => {
  it('lights exactly at the temperature it names', () => {
    const job = jobWith(gauges(1, { LF: 190 }), at12);
    const wheel = forecast(job, [12]).wheels.find((found) => found.wheel === 'LF');
    // By hand: 285.15 · (175 + 101.325) / (190 + 101.325) − 273.15.
    expect(wheel?.lightsAtC).toBeCloseTo(285.15 * (276.325 / 291.325) - 273.15, 9);
    const lights = wheel?.lightsAtC ?? 0;
    expect(forecast(job, [12, lights + 0.01]).changes).toEqual([]);
    expect(forecast(job, [12, lights - 0.01]).changes).toMatchObject([{ lit: true, wheels: ['LF'] }]);
  });

  it('is the inverse of bringing a pressure to a temperature', () => {
    const air = fc.record({
      kPa: fc.integer({ min: 100, max: 450 }),
      celsius: fc.integer({ min: -40, max: 60 }),
      altitudeM: fc.integer({ min: 0, max: 4000 }),
    });
    fc.assert(
      fc.property(air, fc.integer({ min: -40, max: 60 }), (tire, celsius) => {
        expect(celsiusAtPressure(tire, atTemperature(tire, celsius))).toBeCloseTo(celsius, 6);
      }),
    );
  });

  it('is the darker the colder: a colder night never puts the lamp out', () => {
    fc.assert(
      fc.property(fc.integer({ min: 176, max: 240 }), fc.integer({ min: -40, max: 11 }), (kPa, low) => {
        const job = jobWith(gauges(1, { RR: kPa }), at12);
        const lit = (celsius: number) => forecast(job, [12, celsius]).nights[0]?.lit;
        expect(lit(low)).toBeDefined();
        expect(Number(lit(low - 1))).toBeGreaterThanOrEqual(Number(lit(low)));
      }),
    );
  });

  it('goes night by night, with the wheel nearest to its figure', () => {
    const day = [12, 8, 4, 0, -2, -4, -5, -6, -6, -6, -7, -7, -8, -8, -8, -8, -6, -3, 0, 3, 5, 6, 6, 4];
    const job = jobWith(gauges(1, { RR: 200 }), at12);
    const found = forecast(job, [...day, ...day.map((c) => c - 12)], false, '2026-10-14T16:00:00Z');
    expect(found.nights.map(({ evening, coldestC, lit }) => [evening, coldestC, lit])).toEqual([
      ['2026-10-14', -8, false],
      ['2026-10-15', -20, true],
    ]);
    expect(found.nights[0]?.nearest?.wheel).toBe('RR');
    expect(found.changes).toMatchObject([{ lit: true, wheels: ['RR'] }]);
  });

  it('of a lit lamp says whether this fill puts it out', () => {
    const job = jobWith([lamp(0, 'steady'), ...gauges(1, { RR: 150 })], at12);
    expect(forecast(job, [12]).litNow).toBe(true);
    expect(forecast(job, [12], true)).toMatchObject({ litNow: false, changes: [] });
  });

  it('set for the morning stays out in the cold for which it was set, and set for now it does not', () => {
    const cold = (fillPolicy: 'ambient' | 'morning') =>
      forecast(
        jobWith([lamp(0, 'steady'), ...roadWheels.map((wheel) => gauge(1, wheel, 150))], {
          climate: { nowC: 25, overnightLowC: -30, altitudeM: 0, fillPolicy },
          tpms: { lowOnKPa: 200, lowOffKPa: 210 },
          placard: [
            { position: 'front', coldKPa: 230 },
            { position: 'rear', coldKPa: 230 },
          ],
        }),
        [25, -30],
        true,
      );
    expect(cold('ambient').nights[0]?.lit).toBe(true);
    expect(cold('morning').nights[0]?.lit).toBe(false);
  });

  it('leaves out a warm tire of unknown temperature, and the wheels without a reading', () => {
    const job = jobWith([gauge(1, 'LF', 240, { tire: 'warm' }), gauge(2, 'RR', 220)], at12);
    expect(forecast(job, [0]).wheels.map(({ wheel }) => wheel)).toEqual(['RR']);
  });
});

describe('a latched lamp', () => {
  const latches = (job: Job) => {
    const ledger = ledgerOf(job);
    return latchesOf(job, ledger, targetsFor(job, ledger));
  };

  it('is held by the wheels between on and off: what puts it out, and what to fill to', () => {
    const job = jobWith([lamp(0, 'steady'), ...gauges(1, { LF: 190, RR: 186 })], at12);
    expect(latches(job)).toMatchObject([
      { wheel: 'LF', outWithKPa: 10, fillWithKPa: 40 },
      { wheel: 'RR', outWithKPa: 14, fillWithKPa: 34 },
    ]);
  });

  it('is not held where it is dark, or where the tire is low', () => {
    expect(latches(jobWith([lamp(0, 'off'), ...gauges(1, { LF: 190 })], at12))).toEqual([]);
    expect(latches(jobWith([lamp(0, 'steady'), ...gauges(1, { LF: 170 })], at12))).toEqual([]);
  });

  it('lights at its figure of 175 and goes out at its figure of 200: both belong to the tire, not to the latch', () => {
    const wheelsAt = (kPa: number) =>
      latches(jobWith([lamp(0, 'steady'), ...gauges(1, { LF: kPa })], at12)).map(({ wheel }) => wheel);
    expect([175, 175.5, 199.5, 200].map(wheelsAt)).toEqual([[], ['LF'], ['LF'], []]);
  });
});
