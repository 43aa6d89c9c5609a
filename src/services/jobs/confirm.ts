import { unknownJob } from '../../contract/refusals';
import type { RepairOutcome } from '../../core/job/repair-outcome';
import type { Result } from '../../core/result';
import type { VisitView } from '../../contract/views';
import { inJobTransaction } from '../../data/database';
import * as jobs from '../../data/jobs';
import { confirmIn } from '../confirmations';
import type { Person } from '../people';
import { viewIn } from './view';

/**
 * Says what the parts of the car turned out to be, once somebody had them in hand; at any time, also after
 * it left. Nothing at all takes back what was said. Problems: `unknown-job` and those of `confirmIn`.
 */
export function confirm(
  id: string,
  asked: { key: string; parts: RepairOutcome[] },
  who: Person,
): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    const stored = await confirmIn(tx, row, asked, who);
    if (!stored.ok) return stored;
    return viewIn(tx, id);
  });
}
