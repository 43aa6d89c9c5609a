import type { Header } from '../../core/job';
import { notesOf, plateOf } from '../../core/job/header';
import type { Tx } from '../../data/database';
import * as doors from '../../data/doors';
import { deriveKey } from './common';

/** What told addresses hear of it, noted with the hand-over itself: a server that is lost right after it loses no news. */
export async function noteHandedOver(
  tx: Tx,
  job: { id: string; number: number; vehicleId: string; header: Header },
  { at, by, proved }: { at: Date; by: string; proved: boolean },
): Promise<void> {
  for (const { id: webhookId } of await doors.webhooksInUse(tx)) {
    const { label, vin } = job.header.vehicle;
    await doors.noteNews(tx, {
      key: deriveKey(job.id, `handed over, told to ${webhookId}`),
      webhookId,
      jobId: job.id,
      body: {
        type: 'job.handed-over',
        timestamp: at.toISOString(),
        data: {
          id: job.id,
          number: job.number,
          vehicle: { id: job.vehicleId, label, plate: plateOf(job.header), ...(vin && { vin }) },
          orderNumber: notesOf(job.header).orderNumber ?? null,
          handedOverBy: by,
          proved,
        },
      },
    });
  }
}
