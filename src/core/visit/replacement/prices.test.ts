import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gauges, jobWith, registry, scans } from '../../../../tests/support/car';
import { assess } from '../../judgement/diagnosis';
import { roadWheels } from '../../names/wheel';
import { adviseReplacement } from '.';
import { costsOf, costWords, worthFrom, type Prices } from './prices';
import { pricesSchema } from '../../job/schemas/replacement';
import { adviceWords } from './words';

const prices: Prices = { currency: 'cr', sensor: 60, tireWork: 25, visit: 70 };

describe('what it costs to replace a sensor', () => {
  it('is the part alone where the tire is off, and less than to come back for it', () => {
    expect(costsOf(prices, true)).toEqual({ now: 60, later: 155 });
    expect(costsOf(prices, false)).toEqual({ now: 85, later: 155 });
    expect(costWords(costsOf(prices, true), 'cr')).toBe('60 cr now, 155 cr to come back for it');
  });

  it('is worth it from where both cost the same on: by hand, 60 of 155 and 85 of 155', () => {
    expect(worthFrom(prices, true)).toBeCloseTo(60 / 155, 12);
    expect(worthFrom(prices, false)).toBeCloseTo(85 / 155, 12);
    expect(worthFrom(undefined, true)).toBe(0.5);
  });

  it('never costs less with the tire on, whatever the prices', () => {
    const price = fc.double({ min: 0, max: 1000, noNaN: true });
    fc.assert(
      fc.property(price, price, price, (sensor, tireWork, visit) => {
        const some = pricesSchema.parse({ currency: 'cr', sensor, tireWork, visit });
        if (sensor + tireWork + visit === 0) return;
        expect(worthFrom(some, true)).toBeLessThanOrEqual(worthFrom(some, false));
        expect(worthFrom(some, false)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('one or all, by the shop’s prices', () => {
  // At 4.3 years, four more are lived by exp(-(8.3/9)^5) / exp(-(4.3/9)^5) = 0.526: it ends with a chance of 0.47.
  const sensors = roadWheels.map((wheel, at) => ({ id: `4C31A20${at}`, wheel, ageYears: 4.3 }));
  const job = jobWith([...gauges(1), ...scans(2), registry(5)], { sensors });
  const advised = (more: { prices?: Prices }) =>
    adviseReplacement(job, { assessment: assess(job), tiresOff: true, year: 2026, ...more });

  it('goes by what coming back costs: dear visits speak for the set, cheap ones against it', () => {
    expect(advised({}).choice).toBe('none');
    const dear = advised({ prices: { ...prices, visit: 200 } });
    expect(dear.choice).toBe('set');
    expect(adviceWords(dear)).toContain('to come back for it would cost more than now');
    expect(advised({ prices: { ...prices, visit: 0 } }).choice).toBe('none');
  });
});
