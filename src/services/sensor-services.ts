import type { BodyOf } from '../contract';
import { closedJob, keyInUse, noPhoto, noSpare, photoWithNotes, unknownJob } from '../contract/refusals';
import { hasCameraNotes, isJpeg } from '../core/sensor/photo';
import { wheelsOf } from '../core/job/placard';
import type { Result } from '../core/result';
import type { SensorService } from '../core/job/schemas/sensor-service';
import type { VisitView } from '../contract/views';
import { inJobTransaction, inTransaction } from '../data/database';
import * as jobs from '../data/jobs';
import { addService, findService } from '../data/sensor-services';
import { viewIn } from './jobs';
import { refuseUnless, type Person } from './people';

const dataUrl = 'data:image/jpeg;base64,';

/**
 * Keeps how a sensor was serviced. The same key again changes nothing; of one wheel the last holds. Problems:
 * `not-allowed`, `unknown-job`, `handed-over`, `no-such-wheel`, `key-in-use`, and `invalid-input` for a picture that is
 * none or says where it was taken.
 */
export function serviceSensor(
  id: string,
  asked: BodyOf<'serviceSensor'>,
  who: Person,
): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    const there = await findService(tx, asked.key);
    if (there) return there.jobId === id ? viewIn(tx, id) : keyInUse();
    if (row.state !== 'open') return closedJob(row.state);
    if (!wheelsOf(row.header).includes(asked.wheel)) return noSpare();
    if (asked.photo !== undefined) {
      const bytes = Buffer.from(asked.photo.slice(dataUrl.length), 'base64');
      if (!isJpeg(bytes)) return noPhoto();
      if (hasCameraNotes(bytes)) return photoWithNotes();
    }
    const now = Date.now();
    const at = new Date(Math.min(Date.parse(asked.at ?? '') || now, now)).toISOString();
    const service: SensorService = { ...asked, at, by: who.name };
    await addService(tx, id, service);
    return viewIn(tx, id);
  });
}

/** The picture of a service; undefined where there is none. */
export async function photoOf(key: string): Promise<Uint8Array | undefined> {
  const row = await inTransaction((tx) => findService(tx, key));
  return row?.photo ? Buffer.from(row.photo.slice(dataUrl.length), 'base64') : undefined;
}
