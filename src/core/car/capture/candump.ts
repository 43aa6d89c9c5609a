import { fromHex } from '../can/frame';

/** One frame of a recording, as a log of CAN traffic has it. */
export interface LoggedFrame {
  /** Seconds, as the log counts them. */
  at: number;
  channel: string;
  /** Upper-case hexadecimal: three digits for an identifier of 11 bits, eight for one of 29. */
  id: string;
  data: Uint8Array;
}

const shape =
  /^\((\d+(?:\.\d+)?)\)\s+(\S+)\s+([0-9A-Fa-f]{3}|[0-9A-Fa-f]{8})#(?:(R\d?)|#[0-9A-Fa-f]([0-9A-Fa-f]*)|([0-9A-Fa-f]*))(?:\s+[RT])?$/;

/** Largest identifiers of both lengths (ISO 11898-1). */
const largest = { 3: 0x7ff, 8: 0x1fffffff } as const;
/** Most data bytes of a classical frame and of a CAN FD frame (ISO 11898-1). */
const most = { classical: 8, flexible: 64 } as const;

/**
 * A line of a candump log: `(seconds) channel ID#DATA`. Undefined for a remote frame, which carries nothing, and for a
 * blank line; a sentence where it is neither.
 */
export function parseLine(line: string): LoggedFrame | string | undefined {
  const text = line.trim();
  if (text === '') return undefined;
  const [, seconds, channel, id, remote, flexible, classical] = shape.exec(text) ?? [];
  if (seconds === undefined || channel === undefined || id === undefined)
    return 'expected (seconds) channel ID#DATA';
  if (Number.parseInt(id, 16) > largest[id.length as 3 | 8])
    return `no identifier is larger than ${largest[id.length as 3 | 8].toString(16).toUpperCase()}`;
  if (remote !== undefined) return undefined;
  const data = fromHex(flexible ?? classical ?? '');
  if (!data) return 'data are pairs of hexadecimal digits';
  const room = flexible === undefined ? most.classical : most.flexible;
  if (data.length > room) return `a frame holds at most ${room} bytes of data`;
  return { at: Number(seconds), channel, id: id.toUpperCase(), data };
}
