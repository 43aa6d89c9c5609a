/** A classical CAN frame with an 11-bit identifier, up to 8 data bytes (ISO 11898-1). */
export interface Frame {
  id: number;
  data: Uint8Array;
}

const pairs = Array.from({ length: 256 }, (_, byte) => byte.toString(16).toUpperCase().padStart(2, '0'));

/** Bytes as upper-case hex without blanks, and back. */
export function toHex(bytes: Uint8Array): string {
  let hex = '';
  for (const byte of bytes) hex += pairs[byte];
  return hex;
}

export function fromHex(hex: string): Uint8Array | undefined {
  if (!/^(?:[0-9A-Fa-f]{2})*$/.test(hex)) return undefined;
  return Uint8Array.from(hex.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
}
