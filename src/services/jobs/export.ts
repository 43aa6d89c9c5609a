import { unknownJob } from '../../contract/refusals';
import type { Job } from '../../core/job';
import { toJobFile } from '../../core/job/record';
import { success, type Result } from '../../core/result';
import { inTransaction } from '../../data/database';
import { photosOf } from '../../data/sensor-services';
import { loadGauges } from '../../data/gauges';
import * as jobs from '../../data/jobs';

/** The job as an open job file, with nothing left out but pictures that nobody asked for, and the gauges it was read with. Problem: `unknown-job`. */
export function exportJob(id: string, withPhotos = false): Promise<Result<Job>> {
  return inTransaction(async (tx) => {
    const stored = await jobs.loadJob(tx, id);
    if (!stored) return unknownJob();
    const photos = withPhotos ? await photosOf(tx, id) : new Map<string, string>();
    const job = toJobFile({
      ...stored.record,
      services: stored.record.services.map((service) => {
        const photo = photos.get(service.key);
        return photo === undefined ? service : { ...service, photo };
      }),
    });
    const used = new Set(
      [...job.observations, ...(job.history ?? [])].flatMap((seen) =>
        seen.kind === 'gauge' && seen.gauge ? [seen.gauge] : [],
      ),
    );
    const own = (await loadGauges(tx)).filter((gauge) => used.has(gauge.id));
    const others = (job.gauges ?? []).filter((gauge) => own.every((known) => known.id !== gauge.id));
    const gauges = [...own, ...others];
    return success(gauges.length > 0 ? { ...job, gauges } : job);
  });
}
