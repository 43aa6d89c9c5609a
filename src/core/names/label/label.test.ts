import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkCharacter, codeLength, groupedCode, newCode, readCode } from '.';
import { labelStocks, placesOn } from './sheets';

const codes = fc.infiniteStream(fc.nat(31)).map((stream) => {
  const take = stream[Symbol.iterator]();
  return newCode((below) => (take.next().value as number) % below);
});

const exchangedAt = (code: string, at: number): string =>
  code.slice(0, at) + code.charAt(at + 1) + code.charAt(at) + code.slice(at + 2);

describe('the code on a label', () => {
  it('has the check character of ISO 7064 MOD 37,36, as the published GRid A1-2425G-ABC1234002-M has it', () => {
    // The example of the Global Release Identifier (IFPI), from memory.
    expect(checkCharacter('A12425GABC1234002')).toBe('M');
  });

  it('is read as it was printed, however it was typed', () => {
    fc.assert(
      fc.property(codes, (code) => {
        expect(code).toHaveLength(codeLength);
        expect(readCode(groupedCode(code).toLowerCase().replace('0', 'o').replace('1', 'l'))).toEqual({
          ok: true,
          value: code,
        });
      }),
    );
  });

  it('is refused with any one character wrong', () => {
    fc.assert(
      fc.property(
        codes,
        fc.nat(codeLength - 1),
        fc.constantFrom(...'0123456789ABCDEFGHJKMNPQRSTVWXYZ'),
        (code, at, other) => {
          if (code[at] === other) return;
          const wrong = code.slice(0, at) + other + code.slice(at + 1);
          expect(readCode(wrong)).toMatchObject({ ok: false, problem: { code: 'torn-label' } });
        },
      ),
    );
  });

  it('is refused with two neighbours exchanged, or a part torn off', () => {
    fc.assert(
      fc.property(codes, fc.nat(codeLength - 2), (code, at) => {
        expect(readCode(exchangedAt(code, at)).ok).toBe(code === exchangedAt(code, at));
        expect(readCode(code.slice(0, at + 1)).ok).toBe(false);
        expect(readCode(code.slice(at + 1)).ok).toBe(false);
      }),
    );
  });

  it('is not given out where its check would stay right with two neighbours exchanged', () => {
    // Found by going through codes: the check is right for both.
    expect(readCode('RQZ4APQM').ok && readCode(exchangedAt('RQZ4APQM', 5)).ok).toBe(true);
    const body = [...'RQZ4APQ', ...'0000000'].map((character) =>
      '0123456789ABCDEFGHJKMNPQRSTVWXYZ'.indexOf(character),
    );
    expect(newCode(() => body.shift() ?? 1)).not.toBe('RQZ4APQM');
  });
});

describe('labels on a sheet', () => {
  it.each(labelStocks)('of $name lie on their page, one beside another', (stock) => {
    const places = placesOn(stock, stock.columns * stock.rows + 1);
    for (const { xMm, yMm } of places) {
      expect(xMm).toBeGreaterThanOrEqual(0);
      expect(yMm).toBeGreaterThanOrEqual(0);
      expect(xMm + stock.label.widthMm).toBeLessThanOrEqual(stock.page.widthMm + 1e-9);
      expect(yMm + stock.label.heightMm).toBeLessThanOrEqual(stock.page.heightMm + 1e-9);
    }
    expect(new Set(places.map((place) => JSON.stringify(place))).size).toBe(places.length);
    expect(places.at(-1)?.page).toBe(1);
  });

  it('begin after those that are used up', () => {
    const [stock] = labelStocks;
    if (stock) expect(placesOn(stock, 1, 4)).toEqual(placesOn(stock, 5).slice(4));
  });
});
