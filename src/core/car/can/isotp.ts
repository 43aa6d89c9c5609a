/**
 * ISO 15765-2 transport over classical CAN with normal addressing, from memory: messages up to 4095
 * bytes in single, first and consecutive frames, with flow control. Pure state machines: a frame in,
 * frames and perhaps a message out. Timing is the caller's.
 */
const longestMessage = 4095;
const padding = 0xcc;

/** What a receiver wants done after a frame. */
type Received =
  | { kind: 'message'; message: Uint8Array }
  /** Send this flow control frame and go on. */
  | { kind: 'flow-control'; data: Uint8Array }
  | { kind: 'more' }
  | { kind: 'error'; reason: string };

const pad = (bytes: readonly number[]): Uint8Array => {
  const data = new Uint8Array(8).fill(padding);
  data.set(bytes);
  return data;
};

/** Clear to send, no block limit, no separation time. */
const clearToSend = pad([0x30, 0, 0]);

/**
 * Splits a message of 1 to 4095 bytes. `first` goes out at once; `rest` only after the receiver's flow
 * control. Throws RangeError on another length: the caller made it.
 */
export function segment(message: Uint8Array): { first: Uint8Array; rest: Uint8Array[] } {
  const { length } = message;
  if (length === 0 || length > longestMessage)
    throw new RangeError(`a message of ${length} bytes does not fit`);
  if (length <= 7) return { first: pad([length, ...message]), rest: [] };
  const rest: Uint8Array[] = [];
  for (let at = 6, sequence = 1; at < length; at += 7, sequence = (sequence + 1) % 16) {
    rest.push(pad([0x20 | sequence, ...message.subarray(at, at + 7)]));
  }
  return { first: pad([0x10 | (length >> 8), length & 0xff, ...message.subarray(0, 6)]), rest };
}

/** The sender's side of flow control. */
export function readFlowControl(data: Uint8Array): 'clear-to-send' | 'wait' | 'overflow' | undefined {
  const [control = 0] = data;
  if (control >> 4 !== 3) return undefined;
  return control === 0x30 ? 'clear-to-send' : control === 0x31 ? 'wait' : 'overflow';
}

/** Puts a message together from its frames. One message at a time; a new first frame starts over. */
export class Reassembly {
  private parts: number[] = [];
  private wanted = 0;
  private sequence = 0;

  accept(data: Uint8Array): Received {
    const [control = 0] = data;
    switch (control >> 4) {
      case 0: {
        const length = control & 0x0f;
        if (length === 0 || length > data.length - 1) return this.fail('single frame with a wrong length');
        this.wanted = 0;
        return { kind: 'message', message: data.slice(1, 1 + length) };
      }
      case 1: {
        const length = ((control & 0x0f) << 8) | (data[1] ?? 0);
        if (length < 8 || data.length < 8) return this.fail('first frame with a wrong length');
        this.wanted = length;
        this.sequence = 1;
        this.parts = [...data.slice(2)];
        return { kind: 'flow-control', data: clearToSend };
      }
      case 2: {
        if (this.wanted === 0) return { kind: 'more' };
        if ((control & 0x0f) !== this.sequence) return this.fail('a consecutive frame is missing');
        this.sequence = (this.sequence + 1) % 16;
        this.parts.push(...data.slice(1));
        if (this.parts.length < this.wanted) return { kind: 'more' };
        const message = Uint8Array.from(this.parts.slice(0, this.wanted));
        this.wanted = 0;
        return { kind: 'message', message };
      }
      default:
        return { kind: 'more' };
    }
  }

  private fail(reason: string): Received {
    this.wanted = 0;
    return { kind: 'error', reason };
  }
}
