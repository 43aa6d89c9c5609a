import { unknownVehicle } from '../../contract/refusals';
import type { JobFilter } from '../../contract/memory';
import type { Job } from '../../core/job';
import { success, type Result } from '../../core/result';
import type { WheelSet } from '../../core/records/wheel-set';
import { inTransaction } from '../../data/database';
import { jobsOfVehicle } from '../../data/jobs';
import { findVehicleById } from '../../data/vehicles';
import { loadWheelSets } from '../../data/wheel-sets';
import { exportJob } from '../jobs';
import { listJobs } from '../search';

/** What the shop has, in open formats, to be taken elsewhere. */

/** Job files, one a line, the newest first; each is read when its turn comes, so that any number of them goes out. */
export async function* jobLines(filter: JobFilter): AsyncGenerator<string> {
  let after: Pick<JobFilter, 'beforeAt' | 'beforeId'> = {};
  for (;;) {
    const { jobs, more } = await listJobs({ ...filter, ...after });
    for (const { id } of jobs) {
      const job = await exportJob(id);
      if (job.ok) yield `${JSON.stringify(job.value)}\n`;
    }
    const last = jobs.at(-1);
    if (!more || !last) return;
    after = { beforeAt: last.openedAt, beforeId: last.id };
  }
}

/** All of one vehicle, for its owner or the next shop. */
interface VehicleFile {
  format: 'hacienda.vehicle/1';
  vehicle: {
    label: string;
    plate: string | null;
    vin: string | null;
    modelYear: number | null;
    tpms: object;
    placard: object;
  };
  wheelSets: Omit<WheelSet, 'id' | 'vehicleId' | 'version'>[];
  /** Job files, the newest first. */
  jobs: Job[];
}

/** Problem: `unknown-vehicle`. */
export async function exportVehicle(id: string): Promise<Result<VehicleFile>> {
  const found = await inTransaction(async (tx) => {
    const row = await findVehicleById(tx, id);
    if (!row) return undefined;
    const { label, plate, vin, modelYear, tpms, placard } = row;
    return {
      vehicle: { label, plate, vin, modelYear, tpms, placard },
      wheelSets: (await loadWheelSets(tx, id)).map(({ label: name, season, place, rack, wheels }) => ({
        label: name,
        season,
        place,
        rack,
        wheels,
      })),
      jobs: (await jobsOfVehicle(tx, id)).map((job) => job.id),
    };
  });
  if (!found) return unknownVehicle();
  const jobs: Job[] = [];
  for (const job of found.jobs) {
    const file = await exportJob(job);
    if (file.ok) jobs.push(file.value);
  }
  return success({ format: 'hacienda.vehicle/1', ...found, jobs });
}
