import { describe, expect, it } from 'vitest';
import { hasCameraNotes, isJpeg } from '.';

const segment = (marker: number, ...body: number[]) => [0xff, marker, 0, body.length + 2, ...body];
const jpeg = (...segments: number[][]) =>
  Uint8Array.from([0xff, 0xd8, ...segments.flat(), 0xff, 0xda, 0, 2, 0xff, 0xe1]);

// Segment layout: ISO/IEC 10918-1 annex B; APP0 is JFIF, APP1 Exif. From memory.
describe('a picture', () => {
  it('carries no camera notes as a browser draws it: JFIF, tables, picture', () => {
    expect(hasCameraNotes(jpeg(segment(0xe0, 74, 70, 73, 70, 0), segment(0xdb, 0, 1)))).toBe(false);
  });

  it('carries them where a camera wrote Exif, wherever it stands before the picture', () => {
    expect(hasCameraNotes(jpeg(segment(0xe1, 69, 120, 105, 102, 0, 0)))).toBe(true);
    expect(hasCameraNotes(jpeg(segment(0xe0, 74), segment(0xdb, 0), segment(0xe1, 69)))).toBe(true);
  });

  it('is told by its first bytes, and one that is cut off is looked through to its end', () => {
    expect(isJpeg(jpeg())).toBe(true);
    expect(isJpeg(Uint8Array.from([0x89, 0x50]))).toBe(false);
    expect(hasCameraNotes(Uint8Array.from([0xff, 0xd8, 0xff]))).toBe(false);
    expect(hasCameraNotes(new Uint8Array())).toBe(false);
  });
});
