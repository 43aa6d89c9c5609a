import { fromHex, toHex, type Frame } from './frame';

/**
 * CAN over a character stream in the open ASCII form that serial CAN adapters speak ("slcan"):
 * `tIIILDD…` + CR is a standard frame, `S6` sets 500 kbit/s, `O` opens and `C` closes the channel.
 * The adapter answers CR, or BEL for an error. From memory.
 */
export const commands = { bitrate500k: 'S6\r', open: 'O\r', close: 'C\r' } as const;
export const accepted = '\r';
export const refused = '\x07';

export function encodeFrame({ id, data }: Frame): string {
  return `t${id.toString(16).toUpperCase().padStart(3, '0')}${data.length}${toHex(data)}\r`;
}

/** The frame in one line (without its CR), or undefined where the line is not a well-formed frame. */
export function decodeFrame(line: string): Frame | undefined {
  const match = /^t([0-7][0-9A-Fa-f]{2})([0-8])([0-9A-Fa-f]*)$/.exec(line);
  if (!match?.[1] || !match[2] || match[3] === undefined) return undefined;
  const data = fromHex(match[3]);
  if (!data || data.length !== Number(match[2])) return undefined;
  return { id: Number.parseInt(match[1], 16), data };
}
