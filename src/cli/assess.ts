import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { createInterface } from 'node:readline';
import { assess } from '../core/judgement/diagnosis';
import { asJudged } from '../core/tire/gauge';
import { parseJob } from '../core/job/schema';
import { notJson } from './say';

/**
 * `assess FILE…`: one job file per argument, `-` for standard input with one job per line. One
 * assessment per line on standard output; what is not a job file is named on standard error.
 */
export async function assessFiles(names: readonly string[]): Promise<number> {
  let failures = 0;
  for (const name of names) {
    if (name === '-') {
      let line = 0;
      for await (const text of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
        line += 1;
        if (text.trim() !== '' && !assessText(`line ${line}`, text)) failures += 1;
      }
    } else if (!assessFile(name)) failures += 1;
  }
  return failures === 0 ? 0 : 1;
}

function assessFile(name: string): boolean {
  let text: string;
  try {
    text = readFileSync(name, 'utf8');
  } catch {
    return complain(basename(name), 'cannot be read');
  }
  return assessText(basename(name), text);
}

function assessText(name: string, text: string): boolean {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    return complain(name, notJson(text, error));
  }
  const job = parseJob(document);
  if (!job.ok) {
    const [issue] = job.problem.issues ?? [];
    return complain(
      name,
      issue ? [issue.path, issue.message].filter(Boolean).join(': ') : job.problem.message,
    );
  }
  process.stdout.write(`${JSON.stringify(assess(asJudged(job.value, [])))}\n`);
  return true;
}

function complain(name: string, what: string): false {
  process.stderr.write(`${name}: ${what.replaceAll('\n', ' ')}\n`);
  return false;
}
