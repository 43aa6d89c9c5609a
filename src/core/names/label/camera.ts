import decodeQR from 'qr/decode.js';

/** A picture of the camera: RGBA, a byte each. */
export interface Frame {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

/** The text of the code that is seen; undefined where none is, or not all of it. */
export type Sight = string | undefined;

export function seenIn(frame: Frame): Sight {
  try {
    return decodeQR(frame);
  } catch {
    return undefined;
  }
}
