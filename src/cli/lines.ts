import { once } from 'node:events';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { createInterface } from 'node:readline';

/** So many lines are written, and told of, at a time. */
const atATime = 2000;

/**
 * Reads text line by line (`-`: standard input) and writes what follows from each, as JSON Lines: as fast as it is taken,
 * so that a file of any length needs no room. On a terminal it says how far it is.
 * @returns whether the file could be read, and no line was complained of
 */
export async function linesThrough(
  name: string,
  take: (line: string, number: number) => { out: readonly object[]; complaint?: string },
): Promise<boolean> {
  const isInput = name === '-';
  const file = isInput ? 'standard input' : basename(name);
  const complain = (message: string) => process.stderr.write(`${message}\n`);
  const size = isInput ? undefined : (await stat(name).catch(() => undefined))?.size;
  if (!isInput && size === undefined) {
    complain(`${file}: cannot be read`);
    return false;
  }
  let isClean = true;
  let [number, read] = [0, 0];
  const out: string[] = [];
  const flush = async () => {
    if (out.length > 0 && !process.stdout.write(`${out.splice(0).join('\n')}\n`))
      await once(process.stdout, 'drain');
  };
  try {
    const source = isInput ? process.stdin : createReadStream(name);
    for await (const line of createInterface({ input: source, crlfDelay: Infinity })) {
      number += 1;
      read += line.length + 1;
      const told = take(line, number);
      for (const one of told.out) out.push(JSON.stringify(one));
      if (told.complaint !== undefined) {
        isClean = false;
        complain(`${file}:${number}: ${told.complaint}`);
      }
      if (out.length >= atATime) await flush();
      if (process.stderr.isTTY && number % (atATime * 10) === 0)
        process.stderr.write(`\r${number} lines${size ? `, ${Math.round((100 * read) / size)} %` : ''}`);
    }
    await flush();
  } catch (error) {
    // Whoever takes the lines has had enough.
    if (error instanceof Error && 'code' in error && error.code === 'EPIPE') return isClean;
    complain(`${file}: cannot be read`);
    isClean = false;
  }
  if (process.stderr.isTTY && number >= atATime * 10) process.stderr.write('\n');
  return isClean;
}
