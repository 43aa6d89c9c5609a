import Papa from 'papaparse';
import { issuesOf } from '../core/result/issues';
import { receptionsOf, telegramSchema, type Telegram } from '../core/sensor/reception';
import { linesThrough } from './lines';
import { notJson } from './say';

/**
 * `reception FILE`: what a radio receiver heard on a drive, JSON Lines or CSV with a header line, `-` for standard input.
 * One line per sensor on standard output. A line that is no telegram is named on standard error, and the rest is read.
 * @returns 1 where a line was none, or the file cannot be read
 */
export async function reception(file: string): Promise<number> {
  const telegrams: Telegram[] = [];
  let header: readonly string[] | undefined;
  const take = (line: string): string | undefined => {
    if (line.trim() === '') return undefined;
    const cells = line.trimStart().startsWith('{') ? undefined : (Papa.parse<string[]>(line).data[0] ?? []);
    if (cells && !header) {
      header = cells.map((name) => name.trim());
      return header.includes('at') && header.includes('id') ? undefined : 'expected a header with at and id';
    }
    const read = cells ? fromCells(header ?? [], cells) : fromJson(line);
    if (typeof read === 'string') return read;
    const parsed = telegramSchema.safeParse(read);
    if (parsed.success) telegrams.push(parsed.data);
    return parsed.success ? undefined : wordsOf(parsed.error);
  };
  const isClean = await linesThrough(file, (line) => {
    const complaint = take(line);
    return { out: [], ...(complaint !== undefined && { complaint }) };
  });
  for (const one of receptionsOf(telegrams)) process.stdout.write(`${JSON.stringify(one)}\n`);
  return isClean ? 0 : 1;
}

const wordsOf = (error: Parameters<typeof issuesOf>[0]): string =>
  issuesOf(error)
    .map(({ path, message }) => (path ? `${path}: ${message}` : message))
    .join('; ');

function fromJson(line: string): object | string {
  try {
    return JSON.parse(line) as object;
  } catch (error) {
    return notJson(line, error);
  }
}

/** Columns that are figures; the others are text. */
const figures: ReadonlySet<string> = new Set(['kPa', 'tempC', 'rssiDbm', 'speedKmh']);

/** An empty cell is not known. */
const fromCells = (header: readonly string[], cells: readonly string[]): object =>
  Object.fromEntries(
    header.flatMap((name, place) => {
      const cell = cells[place]?.trim() ?? '';
      return cell === '' ? [] : [[name, figures.has(name) ? Number(cell) : cell]];
    }),
  );
