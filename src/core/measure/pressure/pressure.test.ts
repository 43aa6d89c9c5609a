import fc from 'fast-check';
import * as math from 'mathjs';
import { describe, expect, it } from 'vitest';
import { atmosphericKPa, atPlace, atTemperature, pressureToSet } from '.';

const celsius = fc.double({ min: -40, max: 60, noNaN: true });
const altitudeM = fc.double({ min: 0, max: 4000, noNaN: true });

describe('the standard atmosphere', () => {
  // ISO 2533:1975 / ICAO Doc 7488, tables by geopotential height, from memory.
  it.each([
    [0, 101.325],
    [1000, 89.875],
    [2000, 79.495],
    [3000, 70.109],
  ])('has the tabled pressure at %i m', (height, kPa) => {
    expect(atmosphericKPa(height)).toBeCloseTo(kPa, 2);
  });

  it('falls with height, and holds at the ends of its layer', () => {
    fc.assert(fc.property(altitudeM, (height) => atmosphericKPa(height + 1) < atmosphericKPa(height)));
    expect(atmosphericKPa(50_000)).toBe(atmosphericKPa(11_000));
  });
});

describe('air at constant volume', () => {
  it('follows the ideal gas law as mathjs works it out with its own units and constants', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 450, noNaN: true }),
        celsius,
        celsius,
        altitudeM,
        (kPa, from, to, height) => {
          const ambient = atmosphericKPa(height);
          const kelvin = (degrees: number) => math.unit(degrees, 'degC').toNumber('K');
          const amount = math.divide(kPa + ambient, kelvin(from));
          expect(atTemperature({ kPa, celsius: from, altitudeM: height }, to)).toBeCloseTo(
            amount * kelvin(to) - ambient,
            6,
          );
        },
      ),
      { numRuns: 1000 },
    );
  });

  it('reads higher up the mountain by as much as the air around it got thinner (ISO 2533, from memory)', () => {
    const tire = { kPa: 230, celsius: 15, altitudeM: 0 };
    expect(atPlace(tire, 15, 2000)).toBeCloseTo(230 + 101.325 - 79.495, 2);
    expect(atPlace(tire, 15, 0)).toBe(230);
    fc.assert(
      fc.property(celsius, altitudeM, (to, height) => {
        const there = { kPa: atPlace(tire, to, height), celsius: to, altitudeM: height };
        expect(atPlace(there, 15, 0)).toBeCloseTo(230, 6);
      }),
    );
  });

  it('loses about one psi for ten degrees Fahrenheit (common practice)', () => {
    const fallen = atTemperature({ kPa: 230, celsius: 20, altitudeM: 0 }, 20 - 10 / 1.8);
    expect((230 - fallen) / 6.894757).toBeCloseTo(0.91, 1);
  });

  it('set by the target and cooled to the policy temperature, stands at placard within 0.05 kPa', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 150, max: 450, noNaN: true }),
        celsius,
        celsius,
        altitudeM,
        (cold, policyC, tireC, height) => {
          const kPa = pressureToSet(cold, policyC, tireC, height);
          expect(
            Math.abs(atTemperature({ kPa, celsius: tireC, altitudeM: height }, policyC) - cold),
          ).toBeLessThan(0.05);
        },
      ),
    );
  });
});
