import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { slipBetween } from '../../names/sensor-id';
import { distanceOf, readQuery, withSlip } from '.';

const hex = (least: number, most: number) =>
  fc.string({ unit: fc.constantFrom(...'0123456789ABCDEF'), minLength: least, maxLength: most });

/** The plain definition: some part of the ID is one slip away from what was typed. */
function isSlipAway(id: string, typed: string): boolean {
  for (let from = 0; from < id.length; from += 1)
    for (let to = from + 1; to <= id.length; to += 1) if (slipBetween(id.slice(from, to), typed)) return true;
  return false;
}

describe('what is typed into the one box', () => {
  it('is read as everything it may be', () => {
    expect(readQuery(' kur-125 ')).toMatchObject({ text: 'kur-125', code: 'KUR125', words: ['kur-125'] });
    expect(readQuery('job 41')).toMatchObject({ number: 41 });
    expect(readQuery('#41')).toMatchObject({ number: 41 });
    expect(readQuery('4b07 c2d1')).toMatchObject({ digits: '4B07C2D1' });
    expect(readQuery('Rosa Quince')?.words).toEqual(['rosa', 'quince']);
  });

  it('reads letters that no ID has as the digits they look like', () => {
    expect(readQuery('4BO7C2DI')?.digits).toBe('4B07C2D1');
    expect(readQuery('SZG')?.digits).toBe('526');
  });

  it('of one character, or of blanks, is no question yet', () => {
    expect(readQuery('k')).toBeUndefined();
    expect(readQuery('   ')).toBeUndefined();
  });

  it('is no job number where no job can have it', () => {
    expect(readQuery('99999999999')?.number).toBeUndefined();
    expect(readQuery('2147483648')?.number).toBeUndefined();
  });
});

describe('an ID typed with a slip', () => {
  it('is found exactly where a brute force over all its parts finds one slip', () => {
    fc.assert(
      fc.property(hex(7, 8), hex(6, 8), (id, typed) => {
        const pattern = withSlip(typed).join('|');
        // One that holds it as it is needs no slip.
        if (!id.includes(typed)) expect(new RegExp(pattern).test(id)).toBe(isSlipAway(id, typed));
      }),
      { numRuns: 500 },
    );
  });

  it('is found for every slip there is into a part of it', () => {
    fc.assert(
      fc.property(
        hex(8, 8),
        fc.nat(3),
        fc.nat(7),
        fc.constantFrom(...'0123456789ABCDEF'),
        (id, kind, at, digit) => {
          const typed =
            kind === 0
              ? id.slice(0, at) + digit + id.slice(at + 1)
              : kind === 1
                ? id.slice(0, at) + id.slice(at + 1)
                : kind === 2
                  ? id.slice(0, at + 1) + id.slice(at)
                  : id.slice(0, at) + (id[at + 1] ?? '') + (id[at] ?? '') + id.slice(at + 2);
          expect(id.includes(typed) || new RegExp(withSlip(typed).join('|')).test(id)).toBe(true);
        },
      ),
    );
  });

  it('is not looked for among a few digits', () => {
    expect(withSlip('4B07C')).toEqual([]);
  });

  it('leaves three digits together in every way it may be meant, for the index of parts', () => {
    fc.assert(
      fc.property(hex(6, 10), (typed) => {
        for (const meant of withSlip(typed))
          expect(
            meant.split('.').some((part) => part.length >= 3),
            meant,
          ).toBe(true);
      }),
    );
  });

  it('stands after those that hold it as it is', () => {
    const ids = ['4B07C2D7', '114B07C2', '004B07C201', '4B07C2'];
    expect(ids.map((id) => distanceOf(id, '4B07C2'))).toEqual([1, 1, 2, 0]);
    expect(distanceOf('4B07D2', '4B07C2')).toBe(3);
  });
});
