import { readdirSync, readFileSync } from 'node:fs';
import { assess } from '../src/core/diagnosis';
import type { Job } from '../src/core/job';
import { parseJob } from '../src/core/job/schema';

/**
 * `assess` over the worked examples, against reading the same jobs with JSON.parse: how many times the
 * cost of reading a job it takes to judge it. In turn within one minute.
 *
 * Run: npx tsx bench/assess.ts
 */
const folder = new URL('../tests/cases/', import.meta.url);
const texts = readdirSync(folder).map((name) =>
  JSON.stringify((JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as { job: unknown }).job),
);
const jobs = texts.map((text): Job => {
  const job = parseJob(JSON.parse(text));
  if (!job.ok) throw new Error(job.problem.message);
  return job.value;
});

const rounds = 20;
const repeats = 200;

function perCall(work: () => void): number {
  const started = performance.now();
  for (let n = 0; n < repeats; n += 1) work();
  return (performance.now() - started) / repeats / jobs.length;
}
const judge = () => jobs.forEach((job) => assess(job));
const read = () => texts.forEach((text) => JSON.parse(text) as unknown);

perCall(judge);
perCall(read);
const pairs = Array.from({ length: rounds }, () => ({ judge: perCall(judge), read: perCall(read) }));
const median = (values: number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;
const milliseconds = median(pairs.map((pair) => pair.judge));
process.stdout.write(
  `assess: ${Math.round(1000 / milliseconds)} a second, ${(milliseconds * 1000).toFixed(0)} µs each; ` +
    `${median(pairs.map((pair) => pair.judge / pair.read)).toFixed(1)} times reading the job with JSON.parse\n`,
);
