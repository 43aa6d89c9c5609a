import { seenIn, type Frame, type Sight } from '../core/names/label/camera';

/** Looks for a QR code in pictures of the camera, away from the screen. */
self.addEventListener('message', ({ data: frame }: MessageEvent<Frame>) => {
  self.postMessage(seenIn(frame) satisfies Sight);
});
