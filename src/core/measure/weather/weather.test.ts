import { describe, expect, it } from 'vitest';
import { celsiusAt, hoursFrom, nightsOf } from '.';

const at = (text: string, celsius: number) => ({ at: `${text}:00:00+01:00`, celsius });

describe('nights', () => {
  it('go from noon to noon by the clock of the place, and are called by their evening', () => {
    const hours = [at('2026-01-09T10', -3), at('2026-01-09T13', 2), at('2026-01-09T23', -9), at('2026-01-10T06', -11), at('2026-01-10T12', -1), at('2026-01-11T07', -4)]; // prettier-ignore
    expect(nightsOf(hours).map(({ evening, coldest }) => [evening, coldest.celsius])).toEqual([
      ['2026-01-09', -11],
      ['2026-01-10', -4],
    ]);
  });
});

describe('the temperature of a moment', () => {
  const hours = [at('2026-01-09T10', -3), at('2026-01-09T11', -2)];
  it('is that of its hour', () => {
    expect(celsiusAt(hours, Date.parse('2026-01-09T10:20:00+01:00'))).toBe(-3);
    expect(celsiusAt(hours, Date.parse('2026-01-09T11:59:00+01:00'))).toBe(-2);
  });
  it('is not known half a day away, nor without hours', () => {
    expect(celsiusAt(hours, Date.parse('2026-01-09T22:00:00+01:00'))).toBeUndefined();
    expect(celsiusAt([], 0)).toBeUndefined();
  });
  it('counts from the hour that is running', () => {
    expect(hoursFrom(hours, Date.parse('2026-01-09T11:10:00+01:00'))).toHaveLength(1);
  });
});
