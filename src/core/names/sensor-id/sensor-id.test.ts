import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as math from 'mathjs';
import {
  decimalOf,
  describeSlip,
  groupedId,
  idFromDecimal,
  idsFromText,
  isWellFormed,
  sameId,
  slipBetween,
  spellAloud,
} from '.';

const hex = fc.constantFrom(...'0123456789ABCDEF');
const id = fc.string({ unit: hex, minLength: 8, maxLength: 8 });

describe('a list of IDs, pasted or typed', () => {
  const order = ['LF', 'RF', 'RR', 'LR'] as const;

  it('is taken by its wheels where it names them', () => {
    expect(idsFromText('RR: 4b07c2d1\nLF 4B07 D93A\nrf=4B11-E0F6', order)).toEqual({
      RR: '4B07C2D1',
      LF: '4B07D93A',
      RF: '4B11E0F6',
    });
  });

  it('goes round the car in walking order where it names none', () => {
    expect(idsFromText('4B07C2D1\n4B07D93A\n4B11E0F6\n4B2A7C08\n4B3300AA', order)).toEqual({
      LF: '4B07C2D1',
      RF: '4B07D93A',
      RR: '4B11E0F6',
      LR: '4B2A7C08',
    });
    expect(idsFromText('4B07C2D1, 4B07D93A; LR 4B2A7C08', order)).toEqual({
      LF: '4B07C2D1',
      RF: '4B07D93A',
      LR: '4B2A7C08',
    });
  });

  it('leaves out what is no ID', () => {
    expect(idsFromText('Sensors read at 9:00\nLF 4B07C2D1\nRF none\n\nbattery ok', order)).toEqual({
      LF: '4B07C2D1',
    });
    expect(idsFromText('', order)).toEqual({});
  });
});

describe('two IDs', () => {
  it('are the same whatever their case, blanks and hyphens', () => {
    fc.assert(
      fc.property(id, (text) => sameId(text, `${text.slice(0, 4).toLowerCase()} - ${text.slice(4)}`)),
    );
  });
});

describe('a slip', () => {
  it('is found where one digit is wrong', () => {
    fc.assert(
      fc.property(id, fc.nat({ max: 7 }), hex, (meant, at, digit) => {
        fc.pre(meant[at] !== digit);
        expect(slipBetween(meant, meant.slice(0, at) + digit + meant.slice(at + 1))).toEqual({
          kind: 'wrong-digit',
          at,
        });
      }),
    );
  });

  it('is found where a digit is lost or doubled', () => {
    fc.assert(
      fc.property(id, fc.nat({ max: 7 }), (meant, at) => {
        expect(slipBetween(meant, meant.slice(0, at) + meant.slice(at + 1))?.kind).toBe('lost-digit');
        expect(slipBetween(meant, meant.slice(0, at + 1) + meant.slice(at))?.kind).toBe('doubled-digit');
      }),
    );
  });

  it('is found where two neighbours are exchanged', () => {
    fc.assert(
      fc.property(id, fc.nat({ max: 6 }), (meant, at) => {
        fc.pre(meant[at] !== meant[at + 1]);
        const written = `${meant.slice(0, at)}${meant[at + 1]}${meant[at]}${meant.slice(at + 2)}`;
        expect(slipBetween(meant, written)).toEqual({ kind: 'exchanged-neighbours', at });
      }),
    );
  });

  it.each([
    ['4B07C2D1', '4B07C2D1', 'the same'],
    ['4B07C2D1', '4B17C2D7', 'two digits wrong'],
    ['4B07C2D1', '4B07', 'half of it'],
    ['4B07C2D1', '4B07C2D15', 'a stranger digit at the end'],
  ])('%s and %s are no slip: %s', (meant, written) => {
    expect(slipBetween(meant, written)).toBeUndefined();
  });

  it('is told in words with the digits', () => {
    const slip = slipBetween('4B2A7C08', '4B2A7CD8');
    expect(slip && describeSlip(slip, '4B2A7C08', '4B2A7CD8')).toBe('digit 7 is D, should be 0');
  });
});

describe('an ID for people', () => {
  it('is grouped, and spelled aloud by the ICAO alphabet (from memory)', () => {
    expect(groupedId('4b07c2d1')).toBe('4B07 C2D1');
    expect(spellAloud('B0F8')).toBe('bravo zero foxtrot eight');
  });

  it('of another length or alphabet is not well formed, and still an ID', () => {
    expect(isWellFormed('4B07C2D', 8)).toBe(false);
    expect(isWellFormed('4B07C2DG', 8)).toBe(false);
    expect(isWellFormed('4b07 c2d1', 8)).toBe(true);
  });
});

describe('an ID printed in decimal', () => {
  it('is the same number, as mathjs converts it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 0xffffffff }), (number) => {
        const id = number.toString(16).toUpperCase().padStart(8, '0');
        expect(decimalOf(id)).toBe(math.format(number, { notation: 'fixed' }));
        expect(math.format(number, { notation: 'hex' }).slice(2).toUpperCase().padStart(8, '0')).toBe(id);
        expect(idFromDecimal(String(number), 8)).toBe(id);
      }),
    );
  });

  it('may be grouped, and must fit into the digits of its family', () => {
    expect(idFromDecimal('1 258 799 825', 8)).toBe('4B07C2D1');
    expect(idFromDecimal('4294967296', 8)).toBeUndefined();
    expect(idFromDecimal('4B07', 8)).toBeUndefined();
    expect(decimalOf('not hex')).toBeUndefined();
  });
});
