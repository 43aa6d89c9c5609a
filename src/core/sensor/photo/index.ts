/** Pictures as they are kept: JPEG without what a camera wrote into it, such as where it was taken. */

/** At most so many bytes. */
export const mostPhotoBytes = 300_000;

/**
 * Whether a JPEG carries a camera's notes: an APP1 segment, which holds Exif (place among it) or XMP. Segments as in
 * ISO/IEC 10918-1 annex B, from memory. What is no JPEG carries none.
 */
export function hasCameraNotes(bytes: Uint8Array): boolean {
  let at = 2;
  while (bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    // From here on it is picture.
    if (marker === startOfScan) return false;
    if (marker === app1) return true;
    at += 2 + (((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0));
  }
  return false;
}
const app1 = 0xe1;
const startOfScan = 0xda;

/** Starts as a JPEG does. */
export const isJpeg = (bytes: Uint8Array): boolean => bytes[0] === 0xff && bytes[1] === 0xd8;
