import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeBytes, codeText, readAnswer, service } from '.';
import { decodeLive, decodeRegistry, encodeLive, encodeRegistry, type Receiver } from './receiver';

const receiver: Receiver = {
  requestId: 0x7a3,
  answerId: 0x7ab,
  wheels: ['LF', 'RF', 'RR', 'LR', 'SP'],
  idBytes: 4,
  registry: 0xb100,
  live: 0xb110,
  speed: 0xb120,
  supply: 0xb121,
  codes: {},
};

describe('a trouble code', () => {
  // ISO 15031-6 / SAE J2012, from memory: two bits of system, then digits.
  it.each([
    [0x01, 0x33, 'P0133'],
    [0x5b, 0x04, 'C1B04'],
    [0x80, 0x01, 'B0001'],
    [0xd1, 0x00, 'U1100'],
  ])('of bytes %i %i reads %s', (high, low, text) => {
    expect(codeText(high, low)).toBe(text);
    expect(codeBytes(text)).toEqual([high, low]);
  });

  it('goes there and back for every pair of bytes', () => {
    const lost = Array.from({ length: 0x10000 }, (_, value) => value).filter((value) => {
      const [high, low] = codeBytes(codeText(value >> 8, value & 0xff)) ?? [];
      return high !== value >> 8 || low !== (value & 0xff);
    });
    expect(lost).toEqual([]);
  });
});

describe('an answer of a module', () => {
  it('is told apart: positive, negative with its reason, more time, stray', () => {
    expect(readAnswer(service.readData, Uint8Array.of(0x62, 0xf1, 0x90))).toMatchObject({ kind: 'positive' });
    expect(readAnswer(service.writeData, Uint8Array.of(0x7f, 0x2e, 0x22))).toMatchObject({
      kind: 'negative',
      reason: expect.stringContaining('12.2 V'),
    });
    expect(readAnswer(service.writeData, Uint8Array.of(0x7f, 0x2e, 0x78))).toEqual({ kind: 'pending' });
    expect(readAnswer(service.writeData, Uint8Array.of(0x62, 0xf1, 0x90))).toEqual({ kind: 'stray' });
    expect(readAnswer(service.writeData, new Uint8Array())).toEqual({ kind: 'stray' });
  });
});

describe('the layout of a receiver', () => {
  const id = fc
    .string({ unit: fc.constantFrom(...'0123456789ABCDEF'), minLength: 8, maxLength: 8 })
    .filter((text) => !/^0+$/.test(text));

  it('gives registered IDs back, none included', () => {
    fc.assert(
      fc.property(fc.array(fc.option(id), { minLength: 5, maxLength: 5 }), (ids) => {
        const entries = receiver.wheels.map((wheel, place) => ({ wheel, id: ids[place] ?? null }));
        expect(decodeRegistry(receiver, encodeRegistry(receiver, entries))).toEqual(entries);
      }),
    );
  });

  it('gives live pressures back to a tenth of a kPa', () => {
    const entries = [
      { wheel: 'LF' as const, kPa: 231.4, tempC: -12 },
      { wheel: 'RF' as const, kPa: null, tempC: null },
    ];
    expect(decodeLive(receiver, encodeLive(receiver, entries))?.slice(0, 2)).toEqual(entries);
  });

  it('of another length is not understood', () => {
    expect(decodeRegistry(receiver, new Uint8Array(16))).toBeUndefined();
    expect(decodeLive(receiver, new Uint8Array(3))).toBeUndefined();
  });
});
