import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { assess, assessBriefly } from '../src/core/judgement/diagnosis';
import type { Job } from '../src/core/job';
import { parseJob } from '../src/core/job/schema';
import { fullJob } from './full-job';

/**
 * `assess` over the worked examples, against reading the same jobs with JSON.parse: how many times the cost
 * of reading a job it takes to judge it, in turn within one minute. Then the time of single assessments of
 * full jobs, and whether memory stays flat over many.
 *
 * Run, from the project's folder, made as the judging threads of the server are, and with so much room as they have:
 *   npx esbuild bench/assess.ts --bundle --platform=node --format=esm --outfile=dist/bench/assess.mjs
 *   node --expose-gc --max-semi-space-size=21 dist/bench/assess.mjs [calls for the memory check, 20,000 where not said]
 */
const folder = 'tests/cases';
const texts = readdirSync(folder).map((name) =>
  JSON.stringify((JSON.parse(readFileSync(join(folder, name), 'utf8')) as { job: unknown }).job),
);
const jobs = texts.map((text): Job => {
  const job = parseJob(JSON.parse(text));
  if (!job.ok) throw new Error(job.problem.message);
  return job.value;
});

const rounds = 20;
const repeats = 10;

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

/** Each call by itself: the median, and the slowest hundredth. */
function single(name: string, all: readonly Job[], work: (job: Job) => unknown = assess): void {
  const times = all.flatMap((job) =>
    Array.from({ length: 400 }, () => {
      const started = performance.now();
      work(job);
      return performance.now() - started;
    }).slice(200),
  );
  const sorted = times.sort((a, b) => a - b);
  const at = (share: number) => (sorted[Math.floor(share * sorted.length)] ?? Number.NaN).toFixed(2);
  process.stdout.write(`${name}: p50 ${at(0.5)} ms, p99 ${at(0.99)} ms over ${sorted.length} calls
`);
}
single(
  'four wheels, a dozen readings and more',
  jobs.filter(({ observations }) => observations.length >= 12),
);
single('five wheels, all there is to see, in order', [fullJob(false)]);
single('five wheels, all there is to see, in trouble', [fullJob(true)]);
single('the same, verdict alone', [fullJob(true)], assessBriefly);

const calls = Number(process.argv[2] ?? 20_000);
const heapMB = () => {
  globalThis.gc?.();
  return process.memoryUsage().heapUsed / 1e6;
};
const marks: string[] = [];
for (let n = 0; n < calls; n += 1) {
  const job = jobs[n % jobs.length];
  if (job) assess(job);
  if (n % Math.ceil(calls / 5) === Math.ceil(calls / 5) - 1) marks.push(heapMB().toFixed(1));
}
process.stdout.write(`heap over ${calls} calls, MB: ${marks.join(', ')}\n`);
