import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { slipBetween } from '.';
import { numericDistance, slipChance } from './channel';

const chances = { confused: 0.5, otherDigit: 0.15, exchanged: 0.15, lost: 0.12, doubled: 0.08 };
const pairs = ['B8', 'D0', '56'];
const id = fc.string({ unit: fc.constantFrom(...'0123456789ABCDEF'), minLength: 8, maxLength: 8 });

describe('the noisy channel between two screens', () => {
  it('gives no chance to what no one slip makes, and some to what one does', () => {
    fc.assert(
      fc.property(id, id, (meant, written) => {
        expect(slipChance(meant, written, chances, pairs) > 0).toBe(
          slipBetween(meant, written) !== undefined,
        );
      }),
    );
  });

  it('adds up to at most one over all that can be written for one ID', () => {
    fc.assert(
      fc.property(id, (meant) => {
        const digits = [...'0123456789ABCDEF'];
        const written = new Set<string>();
        for (let at = 0; at < meant.length; at += 1) {
          for (const digit of digits) written.add(meant.slice(0, at) + digit + meant.slice(at + 1));
          written.add(meant.slice(0, at) + meant.slice(at + 1));
          written.add(meant.slice(0, at) + (meant[at] ?? '') + meant.slice(at));
          written.add(meant.slice(0, at) + (meant[at + 1] ?? '') + (meant[at] ?? '') + meant.slice(at + 2));
        }
        const sum = [...written].reduce((total, text) => total + slipChance(meant, text, chances, pairs), 0);
        expect(sum).toBeLessThanOrEqual(1 + 1e-9);
        expect(sum).toBeGreaterThan(0.1);
      }),
      { numRuns: 50 },
    );
  });

  it('takes digits that look alike for likelier than others', () => {
    expect(slipChance('4B07C2D1', '4807C2D1', chances, pairs)).toBeGreaterThan(
      10 * slipChance('4B07C2D1', '4A07C2D1', chances, pairs),
    );
  });

  it('does not mind case, blanks and hyphens', () => {
    expect(slipChance('4b07-c2d1', '4807 C2D1', chances, pairs)).toBe(
      slipChance('4B07C2D1', '4807C2D1', chances, pairs),
    );
  });
});

describe('how far two IDs are apart as numbers', () => {
  it('is their difference, in any order', () => {
    expect(numericDistance('51A00001', '51A00004')).toBe(3);
    expect(numericDistance('51A0000F', '51a0-0010')).toBe(1);
    fc.assert(
      fc.property(id, id, (a, b) => {
        expect(numericDistance(a, b)).toBe(numericDistance(b, a));
      }),
    );
  });

  it('is not known for IDs of different length or no hexadecimal', () => {
    expect(numericDistance('51A0', '51A00001')).toBeUndefined();
    expect(numericDistance('51A0000G', '51A00001')).toBeUndefined();
  });
});
