import { toHex } from '../can/frame';
import type { LoggedFrame } from './candump';
import { meaningOf, type Meaning } from './message';

export { parseLine, type LoggedFrame } from './candump';
export { meaningOf, type Meaning } from './message';

/** Where something was seen. */
interface Place {
  /** Seconds: of a message its first frame, of a problem the frame at which it shows. */
  at: number;
  channel: string;
  id: string;
}

/** What a frame that fits nowhere is, or why a message never became whole. */
export type Problem = 'sequence' | 'interrupted' | 'stray' | 'cut-off' | 'malformed';

/** A message that was put together, with what it means where that is known, or what did not come together. */
export type Told = Place & (({ data: string } & Partial<Meaning>) | { problem: Problem });

/** A message under way. */
interface Open extends Place {
  lastAt: number;
  wanted: number;
  sequence: number;
  parts: Uint8Array[];
  length: number;
}

/** Between two frames of one message at most this passes, s (N_Cr of ISO 15765-2). */
const longestPauseS = 1;
/** Data behind the first frame of 12 bits of length, and behind one of 32 (ISO 15765-2). */
const headOfFirst = 2;
const headOfLongFirst = 6;
/** A classical frame has so many bytes; what is longer is CAN FD, whose single frame has its length in the second byte. */
const classical = 8;
/** A message that fits a single frame of a classical bus is never split. */
const leastSplit = 8;

/**
 * Listens to recorded frames and puts together what ISO 15765-2 splits: normal addressing, identifiers of 11 and 29 bits,
 * classical and CAN FD frames, first frames with 32 bits of length. It holds what is under way and no more, so a recording
 * may be of any length. Flow control is transport, and no message. From memory.
 */
export class Listener {
  /** By channel and identifier, the longest without a frame first. */
  private readonly under = new Map<string, Open>();

  /** What this frame completes or shows, in order. */
  hear(frame: LoggedFrame): Told[] {
    return [...this.cutOff(frame.at), ...this.read(frame)];
  }

  /** The recording ends: what is still under way never became whole. */
  end(): Told[] {
    return this.cutOff(Number.POSITIVE_INFINITY);
  }

  private cutOff(at: number): Told[] {
    const told: Told[] = [];
    for (const [key, open] of this.under) {
      if (at - open.lastAt <= longestPauseS) break;
      this.under.delete(key);
      told.push({ at: open.lastAt, channel: open.channel, id: open.id, problem: 'cut-off' });
    }
    return told;
  }

  private read(frame: LoggedFrame): Told[] {
    switch ((frame.data[0] ?? 0xff) >> 4) {
      case 0:
        return this.single(frame);
      case 1:
        return this.first(frame);
      case 2:
        return this.consecutive(frame);
      case 3:
        return [];
      default:
        return [problemAt(frame, 'malformed')];
    }
  }

  private single(frame: LoggedFrame): Told[] {
    const { data } = frame;
    const [control = 0, second = 0] = data;
    const isLong = control === 0 && data.length > classical;
    const length = isLong ? second : control & 0x0f;
    const head = isLong ? 2 : 1;
    if (length === 0 || length > data.length - head) return [problemAt(frame, 'malformed')];
    return [...this.interrupted(frame), messageAt(frame, data.slice(head, head + length))];
  }

  private first(frame: LoggedFrame): Told[] {
    const { data, at, channel, id } = frame;
    const [control = 0, second = 0] = data;
    const short = ((control & 0x0f) << 8) | second;
    const [a = 0, b = 0, c = 0, d = 0] = data.slice(headOfFirst);
    const wanted = short === 0 ? ((a << 24) | (b << 16) | (c << 8) | d) >>> 0 : short;
    const head = short === 0 ? headOfLongFirst : headOfFirst;
    if (data.length < classical || wanted < leastSplit || wanted <= data.length - head)
      return [problemAt(frame, 'malformed')];
    const told = this.interrupted(frame);
    const parts = [data.slice(head)];
    this.keep({ at, channel, id, lastAt: at, wanted, sequence: 1, parts, length: data.length - head });
    return told;
  }

  private consecutive(frame: LoggedFrame): Told[] {
    const { data, at } = frame;
    const open = this.under.get(keyOf(frame));
    if (!open) return [problemAt(frame, 'stray')];
    this.under.delete(keyOf(frame));
    if (((data[0] ?? 0) & 0x0f) !== open.sequence) return [problemAt(frame, 'sequence')];
    open.parts.push(data.slice(1));
    open.length += data.length - 1;
    if (open.length >= open.wanted) return [messageAt(open, joined(open.parts, open.wanted))];
    this.keep({ ...open, lastAt: at, sequence: (open.sequence + 1) % 16 });
    return [];
  }

  private keep(open: Open): void {
    this.under.set(keyOf(open), open);
  }

  private interrupted(frame: LoggedFrame): Told[] {
    return this.under.delete(keyOf(frame)) ? [problemAt(frame, 'interrupted')] : [];
  }
}

const keyOf = ({ channel, id }: Pick<Place, 'channel' | 'id'>): string => `${channel} ${id}`;

const problemAt = ({ at, channel, id }: Place, problem: Problem): Told => ({ at, channel, id, problem });

const messageAt = ({ at, channel, id }: Place, message: Uint8Array): Told => ({
  ...{ at, channel, id, data: toHex(message) },
  ...meaningOf(message),
});

function joined(parts: readonly Uint8Array[], wanted: number): Uint8Array {
  const message = new Uint8Array(wanted);
  let at = 0;
  for (const part of parts) {
    const rest = part.subarray(0, wanted - at);
    message.set(rest, at);
    at += rest.length;
  }
  return message;
}
