import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judgeVin, vinAdvice, vinCheckDigit } from '.';
import { decodeVin } from './decode';

/** The same rule (49 CFR 565.15, from memory) by another road: a letter's value is its column on a punched card. */
const columns = '0123456789.ABCDEFGH..JKLMN.P.R..STUVWXYZ';
const weights = '8765432X098765432';
function byColumns(vin: string): string {
  const sum = [...vin].reduce((total, character, at) => {
    const weight = weights[at] === 'X' ? 10 : Number(weights[at]);
    return total + (columns.indexOf(character) % 10) * weight;
  }, 0);
  return '0123456789X'.charAt(sum % 11);
}

const anyVin = fc.string({
  unit: fc.constantFrom(...'ABCDEFGHJKLMNPRSTUVWXYZ0123456789'),
  minLength: 17,
  maxLength: 17,
});

describe('the check digit of a VIN', () => {
  it('is 1 for seventeen ones, the published example', () => {
    expect(judgeVin('11111111111111111')).toEqual({ kind: 'valid' });
  });

  it('is what another way of working it out gives', () => {
    fc.assert(fc.property(anyVin, (vin) => vinCheckDigit(vin) === byColumns(vin)));
  });

  it('finds every single wrong digit in a place that carries weight', () => {
    fc.assert(
      fc.property(anyVin, fc.nat({ max: 16 }), fc.constantFrom(...'0123456789'), (vin, at, digit) => {
        fc.pre(at !== 8 && /\d/.test(vin.charAt(at)) && vin.charAt(at) !== digit);
        const right = vin.slice(0, 8) + (vinCheckDigit(vin) ?? '') + vin.slice(9);
        const wrong = right.slice(0, at) + digit + right.slice(at + 1);
        expect(judgeVin(wrong).kind).toBe('check-digit-differs');
      }),
    );
  });
});

describe('a VIN that cannot be', () => {
  it.each([
    ['4B07', /17 characters; this one has 4/],
    ['I1111111111111111', /"I" does not occur/],
    ['11111111211111111', /check digit is 2, these characters call for 1/],
  ])('%s is told what is wrong', (vin, words) => {
    expect(vinAdvice(vin)).toMatch(words);
  });

  it('nothing is said of a good one, however it is spaced', () => {
    expect(vinAdvice('1111 1111-1111 11111')).toBeUndefined();
  });
});

describe('a VIN decoded', () => {
  // The well-known check-digit example 1M8GDM9A_KP042788 of 49 CFR 565.15 (check digit X), from memory.
  it('says region, maker, year, plant and serial by its places', () => {
    expect(decodeVin('1M8GDM9AXKP042788')).toEqual({
      verdict: { kind: 'valid' },
      region: 'North America',
      maker: '1M8',
      fewVehicles: false,
      descriptor: 'GDM9A',
      modelYears: [1989, 2019],
      plant: 'P',
      serial: '042788',
    });
  });

  // Model-year characters of 49 CFR 565.15 table VII, from memory; a letter at place seven means 2010 or later.
  it.each([
    ['A', [2010, 1980]],
    ['K', [2019, 1989]],
    ['L', [2020, 1990]],
    ['Y', [2030, 2000]],
    ['1', [2031, 2001]],
    ['9', [2039, 2009]],
    ['0', []],
    ['U', []],
  ])('has %s for the model years %j', (character, years) => {
    expect(decodeVin(`0HAVE1A0A${character}1004417`.replace('1A0A', 'AA0A')).modelYears).toEqual(years);
  });

  it('is decoded as far as it goes where it is too short', () => {
    expect(decodeVin('SAB')).toMatchObject({ region: 'Europe', maker: 'SAB', modelYears: [], plant: '' });
    expect(decodeVin('').region).toBeUndefined();
  });
});
