import type { HeaderChanges } from '../../contract';
import { closedJob, unknownJob } from '../../contract/refusals';
import type { Header } from '../../core/job';
import type { Result } from '../../core/result';
import { notesOf } from '../../core/visit/notes';
import type { VisitView } from '../../core/visit/view';
import { inTransaction, type Tx } from '../../data/database';
import * as jobs from '../../data/jobs';
import { announce } from '../../data/notifications';
import * as vehicles from '../../data/vehicles';
import type { Person } from '../people';
import { stale } from './common';
import { viewIn } from './view';

/** Header fields that are changed as they stand. */
const plainFields = [
  'placard',
  'loadCase',
  'fitted',
  'repairs',
  'replacement',
  'service',
  'climate',
] as const;

/**
 * Corrects what a person entered about the visit. Problems: `unknown-job`, `handed-over`, and `stale`,
 * with what others changed since, when the job is no longer at `version`.
 */
export function editJob(
  id: string,
  edit: { key: string; version: number; changes: HeaderChanges },
  who: Person,
): Promise<Result<VisitView>> {
  return inTransaction(async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if ((await jobs.findEdit(tx, edit.key))?.jobId === id) return viewIn(tx, id);
    if (row.state === 'handed-over') return closedJob();
    if (row.version !== edit.version) return stale(tx, id, edit.version);
    const before = row.header;
    const { odometerKm, complaint, replacement, ...plain } = edit.changes;
    const after = {
      ...before,
      ...plain,
      ...(replacement && {
        replacement: { ...replacement, at: new Date().toISOString(), by: who.name },
      }),
      vehicle: { ...before.vehicle, ...(odometerKm !== undefined && { odometerKm }) },
      ...(complaint !== undefined && { visit: { ...notesOf(before), complaint } }),
    };
    const changes = [
      ...plainFields.map((field) => ({
        field,
        from: before[field],
        to: after[field],
      })),
      { field: 'odometerKm', from: before.vehicle.odometerKm, to: after.vehicle.odometerKm },
      { field: 'complaint', from: notesOf(before).complaint, to: notesOf(after).complaint },
    ].filter(({ from, to }) => JSON.stringify(from) !== JSON.stringify(to));
    if (changes.length > 0) {
      await jobs.saveEdit(tx, row, { key: edit.key, by: who.name, changes }, { header: after });
      await rememberTires(tx, row.vehicleId, after);
      await announce(tx, id);
    }
    return viewIn(tx, id);
  });
}

/** Placard and tires belong to the vehicle: what was read today is there next time. */
async function rememberTires(tx: Tx, vehicleId: string, { placard, fitted }: Header): Promise<void> {
  await vehicles.setTires(tx, vehicleId, { ...(placard && { placard }), ...(fitted && { fitted }) });
}
