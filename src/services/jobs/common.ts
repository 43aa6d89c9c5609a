import { v5 as derivedId } from 'uuid';
import { closedJob, stale as staleJob } from '../../contract/refusals';
import type { Issue, Result } from '../../core/result';
import * as jobs from '../../data/jobs';
import type { Tx } from '../../data/database';

/** What the use cases of a job share. */

/** Names keys that are derived from other keys or from a file's content. */
const keySpace = '6c1f0a5e-3b52-5c1d-9d53-0c8a9d0b7e21';

export const deriveKey = (key: string, part: string) => derivedId(`${key} ${part}`, keySpace);

/** Problem: `stale`, with what others changed since. */
export async function stale(tx: Tx, jobId: string, version: number): Promise<Result<never>> {
  const edits = await jobs.editsSince(tx, jobId, version);
  const changed: Issue[] = edits.flatMap(({ by, changes }) =>
    changes.map(({ field, from, to }) => ({
      path: field,
      message: `${by} changed it from ${JSON.stringify(from ?? null)} to ${JSON.stringify(to ?? null)}`,
    })),
  );
  return staleJob(changed);
}

/** Nothing is recorded on a job that is closed. Problems: `handed-over`, `cancelled`. */
export const refuseClosed = ({ state }: Pick<jobs.JobRow, 'state'>): Result<never> | undefined =>
  state === 'open' ? undefined : closedJob(state);

/** A sensor's age and a sensor's birthday are told by this. */
