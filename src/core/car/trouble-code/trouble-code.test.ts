import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTroubleCode } from '.';
import { meaningOf } from './meaning';

const read = (typed: string) => {
  const found = readTroubleCode(typed);
  return found.ok ? found.value : found.problem.code;
};

describe('a trouble code', () => {
  // SAE J2012 / ISO 15031-6, from memory.
  it.each([
    ['C1B31', 'chassis', 'maker', [0x5b, 0x31]],
    ['P0300', 'powertrain', 'standard', [0x03, 0x00]],
    ['P3201', 'powertrain', 'maker', [0x32, 0x01]],
    ['P3401', 'powertrain', 'standard', [0x34, 0x01]],
    ['U0100', 'network', 'standard', [0xc1, 0x00]],
    ['B1342', 'body', 'maker', [0x93, 0x42]],
    ['C3000', 'chassis', 'reserved', [0x70, 0x00]],
  ])('%s belongs to %s, %s', (typed, system, owner, bytes) => {
    expect(read(typed)).toMatchObject({ text: typed, system, owner, bytes, failureType: undefined });
  });

  it('is read from its bytes too, with how the part failed', () => {
    expect(read('5B 31 13')).toMatchObject({ text: 'C1B31', failureType: 0x13 });
    expect(read('0x5b 0x31')).toMatchObject({ text: 'C1B31', failureType: undefined });
    expect(read('c1b31-13')).toMatchObject({ text: 'C1B31', failureType: 0x13 });
  });

  it('goes there and back for every pair of bytes', () => {
    const byte = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(byte, byte, (a, b) => {
        const hex = [a, b].map((value) => value.toString(16).padStart(2, '0')).join(' ');
        const found = readTroubleCode(hex);
        expect(found.ok && found.value.bytes).toEqual([a, b]);
        expect(found.ok && read(found.value.text)).toEqual(found.ok && found.value);
      }),
    );
  });

  it.each(['', 'C9B31', 'lamp', 'C1B', '5B3'])('is not %j, and it is said what to type', (typed) => {
    expect(read(typed)).toBe('not-a-code');
  });
});

describe("the maker's codes of a vehicle", () => {
  const table = { C1B31: { about: 'no-signal', wheel: 'RR' as const }, C1B40: { about: 'heated seats' } };

  it('mean what the table of its profile says', () => {
    expect(meaningOf(table, 'C1B31')).toEqual({ about: 'no-signal', wheel: 'RR' });
  });

  it('about things the engine does not judge are about something else; one not in the table stays unknown', () => {
    expect(meaningOf(table, 'C1B40')).toEqual({ about: 'other' });
    expect(meaningOf(table, 'C1B99')).toEqual({});
    expect(meaningOf({}, 'C1B31')).toEqual({});
  });
});
