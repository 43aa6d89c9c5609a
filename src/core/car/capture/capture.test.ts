import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toHex } from '../can/frame';
import { segment } from '../can/isotp';
import { Listener, meaningOf, parseLine, type Told } from '.';

/** What is told of a log, line by line; a line that is none is a sentence. */
function heardOf(log: string): (Told | string)[] {
  const listener = new Listener();
  const told = log.split('\n').flatMap((line): (Told | string)[] => {
    const frame = parseLine(line);
    return typeof frame === 'string' ? [frame] : frame ? listener.hear(frame) : [];
  });
  return [...told, ...listener.end()];
}
const frame = (at: number, id: string, data: string) => `(${at.toFixed(6)}) can0 ${id}#${data}`;
const problems = (log: string) =>
  heardOf(log).map((told) =>
    typeof told === 'string' || !('problem' in told) ? told : [told.at, told.problem],
  );

describe('a line of a candump log', () => {
  it('is a frame with its time, channel, identifier and data', () => {
    expect(parseLine('(1700000000.123456) can0 7a3#0322F190AAAAAAAA')).toEqual({
      at: 1700000000.123456,
      channel: 'can0',
      id: '7A3',
      data: Uint8Array.from([0x03, 0x22, 0xf1, 0x90, 0xaa, 0xaa, 0xaa, 0xaa]),
    });
    expect(parseLine('(1.5) vcan1 18DB33F1##10322F190')).toMatchObject({ id: '18DB33F1' });
  });

  it('is nothing where it is blank or a remote frame', () => {
    for (const line of ['', '   ', '(1.0) can0 7A3#R', '(1.0) can0 7A3#R8'])
      expect(parseLine(line)).toBeUndefined();
  });

  it('is told where it is none', () => {
    const wrong = [
      'can0 7A3#00',
      '(1.0) can0 7A3 00',
      '(1.0) can0 7A3#0',
      '(1.0) can0 7A3#000102030405060708',
      '(1.0) can0 FFF#00',
      '(1.0) can0 3FFFFFFF#00',
      `(1.0) can0 7A3##0${'00'.repeat(65)}`,
    ];
    for (const line of wrong) expect(typeof parseLine(line), line).toBe('string');
  });
});

describe('a message', () => {
  it('of one frame is read, whatever the padding', () => {
    expect(heardOf(frame(1, '7A3', '0322F190AAAAAAAA'))).toEqual([
      {
        at: 1,
        channel: 'can0',
        id: '7A3',
        data: '22F190',
        service: '22',
        kind: 'request',
        identifiers: ['F190'],
      },
    ]);
  });

  it('of several frames bears the time of its first, and stands where it became whole', () => {
    const log = [
      frame(1, '7AB', '100A62F190010203'),
      frame(1.01, '7A3', '3000000000000000'),
      frame(1.02, '7A3', '023E80'),
      frame(1.03, '7AB', '2104050607AAAAAA'),
    ].join('\n');
    expect(heardOf(log)).toMatchObject([
      { at: 1.02, data: '3E80', service: '3E' },
      { at: 1, data: '62F19001020304050607', kind: 'positive', identifiers: ['F190'] },
    ]);
  });

  it('of any length comes together from what our own sender makes of it', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 4095 }), (message) => {
        const { first, rest } = segment(message);
        const log = [first, ...rest]
          .map((data, place) => frame(place / 100, '18DA10F1', toHex(data)))
          .join('\n');
        expect(heardOf(log)).toMatchObject([{ at: 0, data: toHex(message) }]);
      }),
      { numRuns: 100 },
    );
  });

  it('of CAN FD has its length in the second byte, and its first frame may count with 32 bits', () => {
    const single = `(1.0) can0 7A3##1000A${'2EF19001020304050607'}${'CC'.repeat(4)}`;
    expect(heardOf(single)).toMatchObject([
      { data: '2EF19001020304050607', service: '2E', identifiers: ['F190'] },
    ]);
    const log = [
      frame(1, '7A3', '1000000000143601'),
      frame(1.1, '7A3', '2102030405060708'),
      frame(1.2, '7A3', '22090A0B0C0D0E0F'),
      frame(1.3, '7A3', '2310111213'),
    ];
    expect(heardOf(log.join('\n'))).toMatchObject([{ data: '360102030405060708090A0B0C0D0E0F10111213' }]);
  });

  it('of trouble codes names each with its failure type and status (ISO 15031-6 text)', () => {
    const message = Uint8Array.from([0x59, 0x02, 0xff, 0x5b, 0x31, 0x00, 0x2f, 0xc1, 0x23, 0x16, 0x08]);
    expect(meaningOf(message)).toEqual({
      service: '19',
      kind: 'positive',
      codes: [
        { code: 'C1B31', failureType: '00', status: '2F' },
        { code: 'U0123', failureType: '16', status: '08' },
      ],
    });
  });

  it('of refusal names what was asked and why not; of no service known is data alone', () => {
    expect(meaningOf(Uint8Array.from([0x7f, 0x22, 0x78]))).toEqual({
      service: '22',
      kind: 'negative',
      responseCode: '78',
    });
    expect(heardOf(frame(1, '123', '0201020000000000'))).toEqual([
      { at: 1, channel: 'can0', id: '123', data: '0102' },
    ]);
  });
});

describe('what does not come together', () => {
  const first = frame(1, '7AB', '101462F190010203');

  it('is a frame with the wrong number: the message is given up', () => {
    expect(
      problems(
        [first, frame(1.1, '7AB', '22AABBCCDDEEFF00'), frame(1.2, '7AB', '23AABBCCDDEEFF00')].join('\n'),
      ),
    ).toEqual([
      [1.1, 'sequence'],
      [1.2, 'stray'],
    ]);
  });

  it('is a message that another interrupts: the new one is read', () => {
    expect(problems([first, frame(1.1, '7AB', '037F2278')].join('\n'))).toMatchObject([
      [1.1, 'interrupted'],
      { data: '7F2278' },
    ]);
  });

  it('is cut off after more than a second, or where the recording ends', () => {
    expect(problems([first, frame(1.9, '7AB', '2104050607080910')].join('\n'))).toEqual([[1.9, 'cut-off']]);
    expect(
      problems(
        [first, frame(2, '7AB', '2104050607080910'), frame(3.01, '123', '0201020000000000')].join('\n'),
      ),
    ).toMatchObject([[2, 'cut-off'], { id: '123' }]);
    expect(problems([first, frame(2.5, '7AB', '2104050607080910')].join('\n'))).toEqual([
      [1, 'cut-off'],
      [2.5, 'stray'],
    ]);
  });

  it('is a frame that the transport cannot be, and leaves what is under way', () => {
    for (const data of ['00', '', '0801020304050607', '0512', '4000', 'F000', '1005AABBCCDDEEFF', '10146201'])
      expect(problems(frame(1, '7AB', data)), data).toEqual([[1, 'malformed']]);
    expect(
      problems(
        [frame(1, '7AB', '100A62F190010203'), frame(1.1, '7AB', '40'), frame(1.2, '7AB', '2104050607')].join(
          '\n',
        ),
      ),
    ).toMatchObject([[1.1, 'malformed'], { data: '62F19001020304050607' }]);
  });

  it('never ends the listening, whatever the frames', () => {
    const anyFrame = fc.record({
      at: fc.double({ min: 0, max: 100, noNaN: true }),
      channel: fc.constantFrom('can0', 'can1'),
      id: fc.constantFrom('7AB', '18DA10F1'),
      data: fc.uint8Array({ maxLength: 64 }),
    });
    fc.assert(
      fc.property(fc.array(anyFrame, { maxLength: 60 }), (frames) => {
        const listener = new Listener();
        for (const one of frames) listener.hear(one);
        listener.end();
        expect(listener.end()).toEqual([]);
      }),
    );
  });
});
