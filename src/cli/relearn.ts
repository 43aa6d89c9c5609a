import { createReadStream, readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { createInterface, type Interface } from 'node:readline';
import { issuesOf } from '../core/result/issues';
import type { Procedure } from '../core/relearn/procedure';
import { readProcedure } from '../core/relearn/procedure/problems';
import { advance, begin, openStep, presentWheel, type Run } from '../core/relearn/run';
import { eventSchema } from '../core/relearn/run/schema';
import { notJson } from './say';

/**
 * `relearn PROCEDURE EVENTS`: a procedure file, and its run as JSON Lines, `-` for standard input. One line per event on
 * standard output: where the run stands after it. What is no procedure, or no event, is named on standard error, a line
 * per problem with its path.
 */
export async function relearn(procedureName: string, eventsName: string): Promise<number> {
  const procedure = procedureFrom(procedureName);
  return procedure ? run(procedure, eventsName) : 1;
}

function procedureFrom(name: string): Procedure | undefined {
  const file = basename(name);
  let text = '';
  let document: unknown;
  try {
    text = readFileSync(name, 'utf8');
    document = JSON.parse(text);
  } catch (error) {
    complain(file, '', error instanceof SyntaxError ? notJson(text, error) : 'cannot be read');
    return undefined;
  }
  const read = readProcedure(document, new Date());
  if (read.ok) return read.procedure;
  for (const { path, message } of read.issues) complain(file, path, message);
  return undefined;
}

async function run(procedure: Procedure, eventsName: string): Promise<number> {
  const file = eventsName === '-' ? 'standard input' : basename(eventsName);
  let now = begin(procedure);
  let line = 0;
  try {
    for await (const text of linesOf(eventsName)) {
      line += 1;
      if (text.trim() === '') continue;
      const read = eventSchema.safeParse(JSON.parse(text));
      if (!read.success) {
        for (const { path, message } of issuesOf(read.error)) complain(`${file}:${line}`, path, message);
        return 1;
      }
      now = advance(procedure, now, read.data);
      process.stdout.write(`${JSON.stringify(lineOf(procedure, now, read.data.t))}\n`);
    }
  } catch (error) {
    if (error instanceof SyntaxError) complain(`${file}:${line}`, '', 'not JSON');
    else complain(file, '', 'cannot be read');
    return 1;
  }
  return 0;
}

const linesOf = (name: string): Interface =>
  createInterface({ input: name === '-' ? process.stdin : createReadStream(name), crlfDelay: Infinity });

function lineOf(procedure: Procedure, now: Run, t: number) {
  const { state, step, endedAt, differs, notKnown, notes } = now;
  const wheels = differs.length > 0 ? differs : notKnown;
  return {
    t,
    state,
    step: openStep(procedure, now) ? step : null,
    wheel: presentWheel(procedure, now) ?? endedAt ?? null,
    notes,
    ...(wheels.length > 0 && { wheels }),
  };
}

function complain(file: string, path: string, message: string): void {
  process.stderr.write(`${[file, path, message].filter(Boolean).join(': ').replaceAll('\n', ' ')}\n`);
}
