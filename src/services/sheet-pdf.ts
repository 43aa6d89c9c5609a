import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { lampWords } from '../core/job/words';
import { allOf, type Job } from '../core/job';
import { checkWords, visitWords } from '../core/visit/proof/words';
import { success, type Result } from '../core/result';
import { groupedId } from '../core/names/sensor-id';
import type { Sheet } from '../core/visit/sheet';
import { declinedWords, doneWords, foundWords, turnedOutWords, watchWords } from '../core/visit/sheet/words';
import type { ShopSettings } from '../core/records/shop';
import { dayAndTime, type Place } from '../core/measure/calendar';
import { regions } from '../core/measure/region';
import { distance, figureAsTyped, format, pressure, type Notation } from '../core/measure/units';
import { notesOf, plateOf } from '../core/job/header';
import { judgedJob, type VisitView } from '../contract/views';
import { sheetOfJob, viewJob } from './jobs';
import { shopSettings } from './shop';

/** The fonts of the app, as it ships them. */
const fontFile = (weight: 400 | 700): string =>
  createRequire(import.meta.url).resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
  );

const margin = 42;
/** Text sizes, pt, from the usual one down: the largest at which all of it stands on one page. */
const sizes = [10.5, 10, 9.5, 9, 8.5, 8, 7.5, 7, 6.5, 6];

/**
 * The customer's sheet as a PDF of one page, A4 or Letter as the shop chose: what was found, what was done, before and
 * after, what to watch and by when, what was declined; IDs small at the end. Problem: `unknown-job`.
 */
export async function sheetPdf(id: string, units: Notation): Promise<Result<Uint8Array>> {
  const view = await viewJob(id);
  if (!view.ok) return view;
  const sheet = await sheetOfJob(view.value);
  const parts: Parts = {
    view: view.value,
    job: judgedJob(view.value),
    sheet,
    units,
    shop: await shopSettings(),
  };
  for (const size of sizes) {
    const { bytes, pages } = await draw(parts, size);
    if (pages === 1 || size === sizes.at(-1)) return success(bytes);
  }
  throw new Error('there is always a smallest size');
}

interface Parts {
  view: VisitView;
  job: Job;
  sheet: Sheet;
  units: Notation;
  shop: ShopSettings;
}

async function draw(parts: Parts, size: number): Promise<{ bytes: Uint8Array; pages: number }> {
  const { view, job, shop } = parts;
  const document = new PDFDocument({
    size: regions[shop.region].paper === 'Letter' ? 'LETTER' : 'A4',
    margin,
    info: { Title: titleOf(view, job), Creator: 'Hacienda', Author: shop.name },
  });
  let pages = 1;
  document.on('pageAdded', () => (pages += 1));
  const chunks: Buffer[] = [];
  const done = new Promise<void>((resolve) => document.on('end', resolve));
  document.on('data', (chunk: Buffer) => chunks.push(chunk));
  document.registerFont('text', fontFile(400));
  document.registerFont('bold', fontFile(700));
  write(new Pen(document, size), parts);
  document.end();
  await done;
  return { bytes: new Uint8Array(Buffer.concat(chunks)), pages };
}

const titleOf = ({ number }: VisitView, job: Job): string =>
  [plateOf(job), `sheet of job ${number}`].filter(Boolean).join(', ');

function write(pen: Pen, { view, job, sheet, units, shop }: Parts): void {
  const notes = notesOf(job);
  const leftAt = new Date(notes.handedOverAt ?? Date.now());
  const kPa = (value: number | undefined, typed?: unknown) =>
    value === undefined ? '–' : figureAsTyped(pressure, value, units, typed);
  if (shop.name) pen.line([shop.name, shop.address].filter(Boolean).join('  ·  '), 'text', 0.9);
  pen.line(`${job.vehicle.label ?? ''}  ${plateOf(job)}`.trim(), 'bold', 1.7);
  pen.line(
    [
      job.vehicle.vin && `VIN ${job.vehicle.vin}`,
      job.vehicle.odometerKm !== undefined && format(distance, job.vehicle.odometerKm, units),
      notes.customer && `for ${notes.customer}`,
      notes.orderNumber && `order ${notes.orderNumber}`,
      `job ${view.number}`,
      `in ${day(notes.openedAt, units)} by ${notes.openedBy ?? '–'}`,
      notes.handedOverAt && `out ${day(notes.handedOverAt, units)} by ${notes.handedOverBy ?? '–'}`,
    ]
      .filter(Boolean)
      .join(', '),
  );
  pen.rule();
  pen.line(`${visitWords(view.state, sheet)}.`, 'bold', 1.35);
  if (notes.unproved) pen.labelled('Why it leaves as it is', notes.unproved);
  if (notes.complaint) pen.labelled('The customer says', notes.complaint);
  pen.labelled('What was found', foundWords(sheet, job));
  pen.labelled('What was done', doneWords(sheet, job, units));
  if (sheet.turnedOut.length > 0) pen.labelled('What it turned out to be', turnedOutWords(sheet));
  for (const doubt of sheet.doubtful) pen.line(doubt);

  pen.heading('Before and after');
  const lamps = allOf(job, 'lamp').map(({ seen }) => lampWords[seen.state]);
  pen.table(
    ['Wheel', `Placard, ${units.pressure}`, 'Before', 'After'],
    [
      ...sheet.wheels.map(({ wheel, placardKPa, before, after }) => [
        wheel,
        kPa(placardKPa),
        kPa(before.kPa, before.typed),
        kPa(after.kPa, after.typed),
      ]),
      ['Lamp', '', lamps.at(0) ?? 'not looked at', lamps.at(-1) ?? '–'],
    ],
  );
  pen.heading('Proof');
  for (const { state, text } of sheet.proof.checks) pen.line(`${checkWords[state]}: ${text}`);
  pen.list('Not done', declinedWords(job));
  pen.list('To watch', [...watchWords(job, sheet, leftAt, units), ...sheet.cautions]);
  pen.sign(notes.signature?.strokes);
  const ids = sheet.wheels.filter(({ before, after, heard }) => before.id ?? after.id ?? heard);
  if (ids.length > 0) {
    const shown = (id: string | null | undefined) =>
      id === undefined ? '–' : id === null ? 'none' : groupedId(id);
    pen.table(
      ['Sensor IDs', 'Car had', 'Car holds', 'Sensor heard'],
      ids.map(({ wheel, before, after, heard }) => [wheel, shown(before.id), shown(after.id), shown(heard)]),
      0.75,
    );
  }
}

/** In the shop's own time, whoever has it printed. */
const day = (at: string | undefined, place: Place): string => (at ? dayAndTime(at, place) : '–');

/** Writes down the page, from the top, in one column. */
class Pen {
  constructor(
    private readonly document: InstanceType<typeof PDFDocument>,
    private readonly size: number,
  ) {
    document.font('text').fontSize(size);
  }

  private get width(): number {
    return this.document.page.width - 2 * margin;
  }

  line(text: string, font: 'text' | 'bold' = 'text', scale = 1): void {
    this.document.font(font).fontSize(this.size * scale);
    this.document.text(text, margin, this.document.y, { width: this.width });
    this.document.y += this.size * 0.15;
  }

  heading(text: string): void {
    this.document.y += this.size * 0.5;
    this.line(text, 'bold');
  }

  labelled(label: string, text: string): void {
    this.document.font('bold').fontSize(this.size);
    this.document.text(`${label}: `, margin, this.document.y, { width: this.width, continued: true });
    this.document.font('text').text(text);
    this.document.y += this.size * 0.15;
  }

  list(heading: string, items: readonly string[]): void {
    if (items.length === 0) return;
    this.heading(heading);
    for (const item of items) this.line(`–  ${item}`);
  }

  rule(): void {
    const { y } = this.document;
    this.document
      .moveTo(margin, y + 3)
      .lineTo(margin + this.width, y + 3)
      .stroke();
    this.document.y = y + this.size * 0.8;
  }

  /** Columns of one width; a row that does not fit the page goes to the next with all it has. */
  table(head: readonly string[], rows: readonly (readonly string[])[], scale = 1): void {
    const column = this.width / head.length;
    for (const [place, row] of [head, ...rows].entries()) {
      this.document.font(place === 0 ? 'bold' : 'text').fontSize(this.size * scale);
      const height = Math.max(
        ...row.map((cell) => this.document.heightOfString(cell || ' ', { width: column - 6 })),
      );
      if (this.document.y + height > this.document.page.height - margin) this.document.addPage();
      const { y } = this.document;
      row.forEach((cell, at) => this.document.text(cell, margin + at * column, y, { width: column - 6 }));
      this.document.y = y + height + this.size * 0.2;
    }
  }

  /** What the customer drew, or the line to draw on. Strokes are in thousandths of the width of their field. */
  sign(strokes: readonly (readonly number[])[] | undefined): void {
    const width = 180;
    const height = 54;
    this.document.y += this.size * 0.5;
    if (this.document.y + height > this.document.page.height - margin) this.document.addPage();
    const { y } = this.document;
    this.document.font('text').fontSize(this.size);
    this.document.text('Customer', margin, y + height - this.size * 1.2);
    const left = margin + 70;
    this.document
      .moveTo(left, y + height)
      .lineTo(left + width, y + height)
      .stroke();
    for (const stroke of strokes ?? []) {
      for (let at = 0; at + 1 < stroke.length; at += 2) {
        const x = left + ((stroke[at] ?? 0) / 1000) * width;
        const down = y + ((stroke[at + 1] ?? 0) / 1000) * width;
        if (at === 0) this.document.moveTo(x, down);
        else this.document.lineTo(x, down);
      }
      this.document.stroke();
    }
    this.document.y = y + height + this.size * 0.6;
  }
}
