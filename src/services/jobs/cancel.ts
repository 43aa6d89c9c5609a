import { closedJob, runUnderWay, unknownJob } from '../../contract/refusals';
import type { Result } from '../../core/result';
import { notesOf } from '../../core/job/header';
import type { VisitView } from '../../contract/views';
import { inJobTransaction } from '../../data/database';
import * as jobs from '../../data/jobs';
import type { Person } from '../people';
import { openRunIn } from '../runs/start';
import { stale } from './common';
import { viewIn } from './view';

interface Asked {
  key: string;
  version: number;
}

/**
 * Cancels a job: a car that left, one booked in twice. All that was recorded stays, and it can be opened again.
 * Problems: `unknown-job`, `handed-over`, `stale`, `run-under-way`.
 */
export function cancelJob(
  id: string,
  asked: Asked & { reason: string },
  who: Person,
): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if (row.state === 'cancelled') return viewIn(tx, id);
    if (row.state === 'handed-over') return closedJob(row.state);
    if (row.version !== asked.version) return stale(tx, id, asked.version);
    const run = await openRunIn(tx, row.vehicleId);
    if (run?.jobId === id) return runUnderWay(run.by);
    const cancelledAt = new Date();
    const cancelled = { at: cancelledAt.toISOString(), by: who.name, reason: asked.reason };
    await jobs.saveEdit(
      tx,
      row,
      {
        key: asked.key,
        by: who.name,
        changes: [{ field: 'state', from: 'open', to: `cancelled: ${asked.reason}` }],
      },
      {
        header: { ...row.header, visit: { ...notesOf(row.header), cancelled } },
        state: 'cancelled',
        cancelledAt,
      },
    );
    return viewIn(tx, id);
  });
}

/** Opens a cancelled job again. One that was handed over stays closed: the car is booked in anew. Problems: `unknown-job`, `handed-over`, `stale`. */
export function reopenJob(id: string, asked: Asked, who: Person): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if (row.state === 'open') return viewIn(tx, id);
    if (row.state === 'handed-over') return closedJob(row.state);
    if (row.version !== asked.version) return stale(tx, id, asked.version);
    const { cancelled, ...visit } = notesOf(row.header);
    await jobs.saveEdit(
      tx,
      row,
      {
        key: asked.key,
        by: who.name,
        changes: [{ field: 'state', from: `cancelled: ${cancelled?.reason ?? ''}`, to: 'open' }],
      },
      { header: { ...row.header, visit }, state: 'open', cancelledAt: null },
    );
    return viewIn(tx, id);
  });
}
