import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { LRUCache } from 'lru-cache';
import { Piscina } from 'piscina';
import type { Experience } from '../core/diagnosis';
import type { Job } from '../core/job';
import { busyJudging, judgedTooLong } from '../contract/refusals';
import { success, type Result } from '../core/result';
import type { Judged, JudgeTask } from '../core/judging';

/**
 * Judging on the server: in threads, so that the event loop is free for others, and once for what a verdict rests
 * on. Nothing of it is stored.
 */
type What = JudgeTask['what'];

/** The thread's code: bundled beside the built server; as it stands where the server itself is run from its sources. */
const thread =
  process.env.NODE_ENV === 'production'
    ? { filename: join(process.cwd(), 'dist/judge.mjs'), execArgv: [] }
    : { filename: join(process.cwd(), 'src/workers/judge.ts'), execArgv: ['--import', 'tsx'] };

/** More waiting than this are turned away: they would not be served before whoever asks has given up. */
const mostWaiting = 256;

let threads: Piscina<JudgeTask, unknown> | undefined;
const pool = () =>
  (threads ??= new Piscina({
    ...thread,
    minThreads: 1,
    maxThreads: Math.max(1, availableParallelism() - 1),
    maxQueue: mostWaiting,
    idleTimeout: 60_000,
  }));

async function run<Kind extends What>(
  what: Kind,
  job: Job,
  experience: Experience | undefined,
  signal?: AbortSignal,
): Promise<Judged<Kind>> {
  const task: JudgeTask = { what, job, ...(experience && { experience }) };
  return (await pool().run(task, { ...(signal && { signal }) })) as Judged<Kind>;
}

/** Verdicts worked out lately, by what they rest on. */
const remembered = new LRUCache<string, Promise<unknown>>({ max: 2000 });

/** The same for the same name, which must say all the verdict rests on; worked out once, however many ask at a time. */
export function judgedOnce<Kind extends What>(
  name: string,
  what: Kind,
  facts: () => Promise<{ job: Job; experience: Experience | undefined }>,
): Promise<Judged<Kind>> {
  const key = `${what} ${name}`;
  let verdict = remembered.get(key) as Promise<Judged<Kind>> | undefined;
  if (!verdict) {
    verdict = facts().then(({ job, experience }) => run(what, job, experience));
    remembered.set(key, verdict);
    // What failed is tried again.
    verdict.catch(() => remembered.delete(key));
  }
  return verdict;
}

/** Longer than any valid job takes. */
const patienceMs = 5000;

/** Judges a job that nobody has on file. Problems: `too-long`, `busy`. */
export async function assessFile(job: Job): Promise<Result<Judged<'assessment'>>> {
  const signal = AbortSignal.timeout(patienceMs);
  try {
    return success(await run('assessment', job, undefined, signal));
  } catch (error) {
    if (signal.aborted) {
      return judgedTooLong();
    }
    if (error instanceof Error && /queue/i.test(error.message)) return busyJudging();
    throw error;
  }
}
