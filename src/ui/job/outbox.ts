import type { HeaderChanges } from '../../contract';
import type { Job, Observation } from '../../core/job';
import { observationKinds } from '../../core/visit/observation';
import type { Problem, Result } from '../../core/result';
import { notesOf } from '../../core/job/header';
import type { Serviced } from '../../core/sensor/service';
import type { VisitView } from '../../contract/views';
import { ask } from '../api';
import { shopTime } from '../clock';
import { createOutbox, type Kept, type Outbox } from '../outbox';

/** A reading, a correction of the visit or the service of a sensor, on its way to the job. */
export type Waiting = WaitingReading | WaitingEdit | WaitingService;
interface WaitingReading extends Kept {
  observation: Observation;
  replaces?: string;
}
interface WaitingEdit extends Kept {
  changes: HeaderChanges;
  /** The version of the job it was made on. */
  version: number;
}

interface WaitingService extends Kept {
  service: Serviced;
}

/** What of a job the shop has not confirmed yet. */
export const outboxOfJob = (
  jobId: string,
  onStored: (view: VisitView) => void,
  onWaiting?: (problem: Problem) => void,
  person?: Kept['by'],
): Outbox<Waiting> =>
  createOutbox<Waiting, VisitView>({
    place: `job ${jobId}`,
    person,
    isItem: (found) =>
      ('observation' in found && isObservation(found.observation)) ||
      ('changes' in found && typeof found.changes === 'object' && 'version' in found) ||
      ('service' in found && typeof found.service === 'object'),
    send: (item) =>
      'observation' in item
        ? sendReading(jobId, item)
        : 'service' in item
          ? ask('serviceSensor', {
              id: jobId,
              as: item.by?.id,
              body: { key: item.key, ...item.service },
              queued,
            })
          : sendEdit(jobId, item),
    onStored,
    ...(onWaiting && { onWaiting }),
  });

/** All of these wait here, and are tried again from here. */
const queued = true;

const sendReading = (
  jobId: string,
  { key, observation, replaces, by }: WaitingReading,
): Promise<Result<VisitView>> =>
  ask('record', {
    id: jobId,
    as: by?.id,
    body: { key, observation, ...(replaces && { replaces }) },
    queued,
  });

/** A correction made on an older version still holds where nobody else changed the same meanwhile. */
async function sendEdit(
  jobId: string,
  { key, changes, version, by }: WaitingEdit,
): Promise<Result<VisitView>> {
  const edit = (on: number) =>
    ask('editJob', { id: jobId, as: by?.id, body: { key, version: on, changes }, queued });
  const first = await edit(version);
  if (first.ok || first.problem.code !== 'stale') return first;
  const touched = new Set((first.problem.issues ?? []).map(({ path }) => path));
  if (fieldsOf(changes).some((field) => touched.has(field))) return first;
  const fresh = await ask('job', { id: jobId });
  return fresh.ok ? edit(fresh.value.version) : fresh;
}

const fieldsOf = ({ vehicle, ...changes }: HeaderChanges): string[] => [
  ...Object.keys(changes),
  ...Object.keys(vehicle ?? {}),
];

const isObservation = (found: unknown): boolean =>
  typeof found === 'object' &&
  found !== null &&
  'kind' in found &&
  observationKinds.some((kind) => kind === found.kind) &&
  'at' in found &&
  typeof found.at === 'string';

/** The job with what is on its way: as it will be once the shop has it. */
export function withWaiting(job: Job, waiting: readonly Waiting[]): Job {
  const coming = waiting.filter(({ refused }) => refused === undefined);
  const readings = coming.flatMap((item) =>
    'observation' in item && !job.observations.some((seen) => seen.key === item.key) ? [item] : [],
  );
  const edits = coming.flatMap((item) => ('changes' in item ? [item.changes] : []));
  const services = coming.flatMap((item) =>
    'service' in item && !job.sensorServices?.some(({ key }) => key === item.key)
      ? [{ key: item.key, ...item.service, by: item.by?.name }]
      : [],
  );
  if (readings.length + edits.length + services.length === 0) return job;
  const replaced = new Set(readings.map(({ replaces }) => replaces));
  return edits.reduce(withChanges, {
    ...job,
    ...(services.length > 0 && { sensorServices: [...(job.sensorServices ?? []), ...services] }),
    observations: [
      ...job.observations.filter(({ key }) => key === undefined || !replaced.has(key)),
      ...readings.map(({ key, observation }) => ({ ...observation, key })),
    ],
  });
}

/** A correction as far as this device can tell; a kind of vehicle is looked up by the shop. */
function withChanges(job: Job, changes: HeaderChanges): Job {
  const { odometerKm, complaint, customer, orderNumber, replacement, vehicle, notesTakenBack, ...plain } =
    changes;
  const { modelYear, ...car } = vehicle ?? {};
  return {
    ...job,
    ...plain,
    ...(replacement && { replacement: { ...replacement, at: shopTime() } }),
    vehicle: {
      ...job.vehicle,
      ...car,
      ...(modelYear != null && { modelYear }),
      ...(odometerKm !== undefined && { odometerKm }),
      tpms: { ...job.vehicle.tpms, ...car.tpms },
    },
    visit: {
      ...notesOf(job),
      ...(complaint !== undefined && { complaint }),
      ...(customer !== undefined && { customer }),
      ...(orderNumber !== undefined && { orderNumber }),
      ...(notesTakenBack && {
        bench: notesOf(job).bench?.filter(({ at }) => !notesTakenBack.includes(at)),
      }),
    },
  };
}
