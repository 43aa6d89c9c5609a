import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

/** What Chromium takes for a camera: raw pictures in a file (YUV4MPEG2, 4:2:0). */
const size = { width: 640, height: 480 };

/**
 * Films the first thing of a page that a selector finds, as it is drawn, lying on a grey bench with a spot of grease on it.
 * `grease`: the share of its side that the spot covers, from its middle to the right.
 */
export async function film(page: Page, selector: string, file: string, grease = 0.12): Promise<void> {
  const luma = await page.evaluate(
    async ({ selector: what, width, height, spot }) => {
      const svg = document.querySelector(what);
      if (!svg) throw new Error('nothing to film');
      const copy = svg.cloneNode(true) as SVGElement;
      copy.setAttribute('width', '300');
      copy.setAttribute('height', '300');
      copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
      const image = new Image();
      image.src = `data:image/svg+xml;base64,${btoa(new XMLSerializer().serializeToString(copy))}`;
      await image.decode();
      const canvas = new OffscreenCanvas(width, height);
      const brush = canvas.getContext('2d');
      if (!brush) throw new Error('nothing to draw with');
      brush.fillStyle = '#8a8a8a';
      brush.fillRect(0, 0, width, height);
      brush.translate(180, 70);
      // Nobody holds it straight.
      brush.rotate(0.12);
      brush.fillStyle = 'white';
      brush.fillRect(-20, -20, 340, 340);
      brush.drawImage(image, 0, 0, 300, 300);
      brush.fillStyle = '#333333';
      brush.fillRect(150, 150, 300 * spot, 300 * spot);
      const { data } = brush.getImageData(0, 0, width, height);
      return Array.from({ length: width * height }, (_, at) => data[at * 4] ?? 0);
    },
    { selector, ...size, spot: grease },
  );
  const grey = Buffer.alloc((size.width * size.height) / 2, 128);
  const picture = Buffer.concat([Buffer.from('FRAME\n'), Buffer.from(luma), grey]);
  const head = Buffer.from(`YUV4MPEG2 W${size.width} H${size.height} F10:1 Ip A1:1 C420mpeg2\n`);
  writeFileSync(file, Buffer.concat([head, ...Array.from({ length: 10 }, () => picture)]));
}

/** What Chromium is started with to see that file as its camera. */
export const cameraArguments = (file: string): string[] => [
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  `--use-file-for-fake-video-capture=${file}`,
];
