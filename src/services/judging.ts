import { setting } from '../settings';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { LRUCache } from 'lru-cache';
import pLimit from 'p-limit';
import { Piscina } from 'piscina';
import type { Assessment } from '../core/judgement/assessment';
import type { Experience } from '../core/judgement/diagnosis';
import type { Job } from '../core/job';
import { busyJudging, judgedTooLong } from '../contract/refusals';
import type { Result } from '../core/result';
import { HeldUp } from '../data/database';
import { judgementSeconds } from './measures';
import type { Judged, JudgeTask } from '../contract/judging';

/**
 * Judging on the server: in threads, so that the event loop is free for others, and once for what a verdict rests
 * on. Nothing of it is stored.
 */
type What = JudgeTask['what'];
type Options = NonNullable<ConstructorParameters<typeof Piscina>[0]>;

/** Jobs of the shop, and files of anybody, which are read in the thread too. */
export type Task = JudgeTask | { what: 'file'; text: string };

/** The thread's code: bundled beside the built server; as it stands where the server itself is run from its sources. */
const thread =
  process.env.NODE_ENV === 'production'
    ? { filename: join(process.cwd(), 'dist/judge.mjs'), execArgv: [] }
    : { filename: join(process.cwd(), 'src/workers/judge.ts'), execArgv: ['--import', 'tsx'] };

/** Room for what a judgement makes and drops: a thirtieth quicker than with what a thread has by itself, in turn with it. */
const resourceLimits = { maxYoungGenerationSizeMb: 64 };

/** More waiting than this are turned away: they would not be served before whoever asks has given up. */
const mostWaiting = 256;

/** Of this process; the server may run several. */
const cores = Math.floor(availableParallelism() / (setting('HACIENDA_PROCESSES') ?? 1));

/** The shop's own jobs are judged apart, so that nobody's files stand in their way. */
const ofJobs = poolOf({
  maxThreads: Math.max(1, cores - 1),
  maxQueue: mostWaiting,
  // The next one is at hand when one is done: a busy event loop takes a while to hear of it.
  concurrentTasksPerWorker: 8,
});
const ofFiles = poolOf({ maxThreads: 1 });

/** Made when it is first needed: a test, or a command, may never judge. */
function poolOf(
  size: Pick<Options, 'maxThreads' | 'maxQueue' | 'concurrentTasksPerWorker'>,
): () => Piscina<Task, unknown> {
  let threads: Piscina<Task, unknown> | undefined;
  return () =>
    (threads ??= new Piscina({ ...thread, ...size, resourceLimits, minThreads: 1, idleTimeout: 60_000 }));
}

async function run<Kind extends What>(
  what: Kind,
  job: Job,
  experience: Experience | undefined,
): Promise<Judged<Kind>> {
  const task: JudgeTask = { what, job, ...(experience && { experience }) };
  const done = judgementSeconds.startTimer({ what });
  try {
    return (await ofJobs().run(task)) as Judged<Kind>;
  } catch (error) {
    // More wait than may: whoever asks is told to come back, as where the database is held up.
    throw error instanceof Error && /task queue/i.test(error.message) ? new HeldUp() : error;
  } finally {
    done();
  }
}

/** What was worked out last of each job, with all it rests on: of what it rested on before, nobody asks again. */
const remembered = new LRUCache<string, { name: string; verdict: Promise<unknown> }>({ max: 600 });

/**
 * The same for a job under the same name, which must say all the verdict rests on; worked out once, however many ask at a
 * time.
 */
export function judgedOnce<Kind extends What>(
  { id, name }: { id: string; name: string },
  what: Kind,
  facts: () => Promise<{ job: Job; experience: Experience | undefined }>,
): Promise<Judged<Kind>> {
  const key = `${what} ${id}`;
  const known = remembered.get(key);
  if (known?.name === name) return known.verdict as Promise<Judged<Kind>>;
  const verdict = facts().then(({ job, experience }) => run(what, job, experience));
  const entry = { name, verdict };
  remembered.set(key, entry);
  // What failed is tried again.
  verdict.catch(() => remembered.get(key) === entry && remembered.delete(key));
  return verdict;
}

/** Longer than any valid job takes; longer than anybody's file waits for its turn, ms. */
const patienceMs = 2000;
const turnMs = 500;

const inTurn = pLimit(1);

/** Judges a job file of anybody. Problems: `invalid-job`, `too-long`, `busy`. */
export async function assessFile(text: string): Promise<Result<Assessment>> {
  const cameAt = Date.now();
  return inTurn(async () => {
    if (Date.now() - cameAt > turnMs) return busyJudging();
    const signal = AbortSignal.timeout(patienceMs);
    try {
      return (await ofFiles().run({ what: 'file', text }, { signal })) as Result<Assessment>;
    } catch (error) {
      if (signal.aborted) return judgedTooLong();
      throw error;
    }
  });
}
