import type { RunView } from '../../contract';
import { unknownRun } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { plateOf } from '../../core/job/header';
import { unnamedVehicle } from '../../core/job/words';
import { fillFirst } from '../../core/visit/teaching/air';
import { inTransaction, type Tx } from '../../data/database';
import * as jobs from '../../data/jobs';
import { loadShop } from '../../data/shop';
import * as runs from '../../data/runs';
import { atHand, practiceBay } from '../devices';
import { receiverOf } from '../vehicles';

/** A run with all that happened in it. Problem: `unknown-run`. */
export const viewRun = (key: string): Promise<Result<RunView>> =>
  inTransaction(async (tx) => {
    const row = await runs.findRun(tx, key);
    return row ? success(await runViewIn(tx, row)) : unknownRun();
  });

export async function runViewIn(tx: Tx, row: runs.RunRow): Promise<RunView> {
  const { jobId, key, startedAt } = row;
  const { procedure, by = '', events } = runs.recordOf(row, await runs.eventsOfRun(tx, key));
  const job = await jobs.findJob(tx, jobId);
  if (!job) throw new Error(`run ${key} belongs to no job`);
  const { vehicle } = job.header;
  const { idDigits } = vehicle.tpms;
  return {
    key,
    jobId,
    jobNumber: job.number,
    vehicle: { label: vehicle.label ?? unnamedVehicle, plate: plateOf(job.header) },
    procedure,
    startedAt: startedAt.toISOString(),
    by,
    events,
    elapsedS: secondsSince(startedAt),
    closed: job.state !== 'open',
    devices: {
      ...atHand(job.header, await receiverOf(tx, job.header), await loadShop(tx)),
      // Hands need no lead.
      practice: practiceBay() !== undefined && vehicle.vin !== undefined,
    },
    fillFirst: fillFirst(job.header, procedure),
    ...(idDigits !== undefined && { idDigits }),
  };
}

/** By the shop's clock, to the millisecond. */
export const secondsSince = (startedAt: Date): number => (Date.now() - startedAt.getTime()) / 1000;
