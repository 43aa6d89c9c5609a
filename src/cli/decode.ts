import { Listener, parseLine } from '../core/car/capture';
import { linesThrough } from './lines';

/**
 * `decode FILE…`: candump logs, `-` for standard input. One line per message that ISO 15765-2 puts together, and per frame
 * that fits nowhere, on standard output. A line that is no frame is named on standard error, and the rest is read.
 * @returns 1 where a line was none, or a file cannot be read
 */
export async function decode(files: readonly string[]): Promise<number> {
  let isClean = true;
  for (const file of files) {
    const listener = new Listener();
    const isRead = await linesThrough(file, (line) => {
      const frame = parseLine(line);
      if (typeof frame === 'string') return { out: [], complaint: frame };
      return { out: frame ? listener.hear(frame) : [] };
    });
    for (const told of listener.end()) process.stdout.write(`${JSON.stringify(told)}\n`);
    isClean &&= isRead;
  }
  return isClean ? 0 : 1;
}
