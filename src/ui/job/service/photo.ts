import { mostPhotoBytes } from '../../../core/sensor/photo';

/** Longest side of a kept picture, px: an ID stays readable. */
const longestPx = 1280;
const qualities = [0.8, 0.6, 0.45, 0.3];

/**
 * A picture drawn anew, scaled down to at most 300 kB: what the camera wrote into the file, the place among it, does not
 * go along. Undefined where the file is no picture, or cannot be made that small.
 */
export async function smallPhoto(file: File): Promise<string | undefined> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    return undefined;
  }
  const scale = Math.min(1, longestPx / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return qualities
    .map((quality) => canvas.toDataURL('image/jpeg', quality))
    .find((url) => (url.length * 3) / 4 <= mostPhotoBytes);
}
