import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromHex, toHex } from './frame';
import { Reassembly, readFlowControl, segment } from './isotp';
import { decodeFrame, encodeFrame } from './slcan';

const bytes = (most: number) => fc.uint8Array({ minLength: 1, maxLength: most });

/** Passes a message from a sender to a receiver, frame by frame. */
function transport(message: Uint8Array): Uint8Array | undefined {
  const { first, rest } = segment(message);
  const receiver = new Reassembly();
  let received = receiver.accept(first);
  if (received.kind === 'flow-control') {
    expect(readFlowControl(received.data)).toBe('clear-to-send');
    for (const frame of rest) received = receiver.accept(frame);
  }
  return received.kind === 'message' ? received.message : undefined;
}

describe('ISO 15765-2 transport', () => {
  it('gives back every message of 1 to 4095 bytes', () => {
    fc.assert(
      fc.property(bytes(4095), (message) => {
        expect(transport(message)).toEqual(message);
      }),
    );
  });

  it('makes the frames of the standard (layout from memory): single, first, consecutive', () => {
    expect(toHex(segment(fromHex('22F190') ?? new Uint8Array()).first)).toBe('0322F190CCCCCCCC');
    const vin = Uint8Array.from([0x62, 0xf1, 0x90, ...new TextEncoder().encode('0HAVE1A90K1004417')]);
    const { first, rest } = segment(vin);
    expect(toHex(first)).toBe('101462F190304841');
    expect(rest.map((frame) => toHex(frame).slice(0, 2))).toEqual(['21', '22']);
  });

  it('says so when a consecutive frame is missing, and takes the next message', () => {
    const { first, rest } = segment(new Uint8Array(30).fill(7));
    const receiver = new Reassembly();
    receiver.accept(first);
    expect(receiver.accept(rest[1] ?? first).kind).toBe('error');
    expect(receiver.accept(segment(Uint8Array.of(1)).first)).toEqual({
      kind: 'message',
      message: Uint8Array.of(1),
    });
  });

  it('never throws on noise', () => {
    fc.assert(
      fc.property(fc.array(fc.uint8Array({ maxLength: 8 })), (frames) => {
        const receiver = new Reassembly();
        for (const frame of frames) receiver.accept(frame);
      }),
    );
  });

  it('refuses a message that does not fit', () => {
    expect(() => segment(new Uint8Array(4096))).toThrow(RangeError);
  });
});

describe('the slcan form of a frame', () => {
  it('gives every frame back', () => {
    fc.assert(
      fc.property(fc.nat({ max: 0x7ff }), fc.uint8Array({ maxLength: 8 }), (id, data) => {
        expect(decodeFrame(encodeFrame({ id, data }).slice(0, -1))).toEqual({ id, data });
      }),
    );
  });

  it.each(['', 't', 't12', 't1238', 't1239AABB', 't12320G', 'z', 'T00000123211'])(
    'does not take %j for a frame',
    (line) => {
      expect(decodeFrame(line)).toBeUndefined();
    },
  );
});
