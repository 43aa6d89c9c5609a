import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { atTemperature } from '../../measure/pressure';
import { placardToleranceKPa } from '../../job/placard';
import { estimateTireTemperature } from '.';
import { drives, type Drive } from '../../names/kinds';

const after = (drive: Drive, minutesDriven: number, minutesStood: number) =>
  estimateTireTemperature({ outdoorC: 10, drive, minutesDriven, minutesStood });
/** What a tire of 230 kPa at 10 °C shows above that, at a temperature. */
const above = (celsius: number) => atTemperature({ kPa: 230, celsius: 10, altitudeM: 0 }, celsius) - 230;

describe('the temperature of a tire nobody measured', () => {
  // Common practice: "cold" is three hours standing, or less than about 1.5 km at town speed.
  it.each(drives)('is that of the air after three hours standing, however it was driven: %s', (drive) => {
    expect(above(after(drive, 120, 180).celsius)).toBeLessThan(1);
  });

  it('is as good as cold after 1.5 km in town (three minutes)', () => {
    expect(above(after('town', 3, 0).celsius)).toBeLessThan(placardToleranceKPa);
  });

  it('is that of the air, and nearly as sure, where it was not driven', () => {
    expect(after('motorway', 0, 0)).toEqual({ celsius: 10, uncertaintyK: 2 });
  });

  it('raises a fully warmed tire by 20 to 40 kPa on the motorway (common practice: 3 to 6 psi)', () => {
    expect(above(after('motorway', 60, 0).celsius)).toBeGreaterThan(20);
    expect(above(after('motorway', 60, 0).celsius)).toBeLessThan(41);
  });

  it('rises with driving, falls with standing, and is the less sure the warmer', () => {
    const minutes = fc.integer({ min: 0, max: 600 });
    fc.assert(
      fc.property(fc.constantFrom(...drives), minutes, minutes, (drive, driven, stood) => {
        const here = after(drive, driven, stood);
        expect(after(drive, driven + 1, stood).celsius).toBeGreaterThanOrEqual(here.celsius);
        expect(after(drive, driven, stood + 1).celsius).toBeLessThanOrEqual(here.celsius);
        expect(after(drive, driven, stood + 1).uncertaintyK).toBeLessThanOrEqual(here.uncertaintyK);
      }),
    );
  });
});
