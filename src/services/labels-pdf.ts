import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { groupedCode } from '../core/names/label';
import { qrModules } from '../core/names/label/qr';
import { placesOn, type LabelStock } from '../core/names/label/sheets';
import type { PrintedLabel } from './labels';

const pointsPerMm = 72 / 25.4;
const fontFile = (family: 'next' | 'mono'): string =>
  createRequire(import.meta.url).resolve(
    `@fontsource/atkinson-hyperlegible-${family}/files/atkinson-hyperlegible-${family}-latin-700-normal.woff`,
  );
/** Room around what is printed, mm: printers and knives are off by a millimetre or two. */
const marginMm = 2;
/** Text sizes for label heights: the code, and the lines beside it, pt per mm of height. */
const codePtPerMm = 0.38;
const linePtPerMm = 0.3;

/** Labels on their sheet or roll, each with its code as QR and as text, and what a person reads. */
export function labelsPdf(
  labels: readonly PrintedLabel[],
  stock: LabelStock,
  used: number,
): Promise<Uint8Array> {
  const { page, label: size } = stock;
  const document = new PDFDocument({
    size: [page.widthMm * pointsPerMm, page.heightMm * pointsPerMm],
    margin: 0,
    info: { Title: 'Labels', Creator: 'Hacienda' },
  });
  const chunks: Uint8Array[] = [];
  const done = new Promise<Uint8Array>((resolve, reject) => {
    document.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    document.on('end', () => resolve(Buffer.concat(chunks)));
    document.on('error', reject);
  });
  document.registerFont('text', fontFile('next')).registerFont('figures', fontFile('mono'));
  let on = 0;
  placesOn(stock, labels.length, used).forEach((place, at) => {
    for (; on < place.page; on += 1) document.addPage();
    const label = labels[at];
    if (!label) return;
    const [x, y] = [place.xMm + marginMm, place.yMm + marginMm].map((mm) => mm * pointsPerMm) as [
      number,
      number,
    ];
    const qrSide = Math.min(size.heightMm - 2 * marginMm, size.widthMm * 0.42) * pointsPerMm;
    drawQr(document, qrModules(label.code), x, y, qrSide);
    const left = x + qrSide + marginMm * pointsPerMm;
    const width = (place.xMm + size.widthMm - marginMm) * pointsPerMm - left;
    const codePt = Math.min(size.heightMm * codePtPerMm, width / 5.6);
    document
      .font('figures')
      .fontSize(codePt)
      .text(groupedCode(label.code), left, y, { width, lineBreak: false });
    document.font('text').fontSize(Math.min(size.heightMm * linePtPerMm, 13));
    let top = y + codePt * 1.3;
    for (const line of label.lines) {
      const height = document.heightOfString(line, { width });
      if (top + height > (place.yMm + size.heightMm - marginMm / 2) * pointsPerMm) break;
      document.text(line, left, top, { width });
      top += height;
    }
  });
  document.end();
  return done;
}

function drawQr(
  document: PDFKit.PDFDocument,
  matrix: readonly (readonly boolean[])[],
  x: number,
  y: number,
  side: number,
): void {
  const module = side / matrix.length;
  matrix.forEach((row, down) =>
    row.forEach((isDark, across) => {
      // A hair wider than it is: no light seam between two dark ones.
      if (isDark) document.rect(x + across * module, y + down * module, module * 1.02, module * 1.02);
    }),
  );
  document.fill('#000000');
}
