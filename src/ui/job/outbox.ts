import type { Observation } from '../../core/job';
import { observationKinds } from '../../core/observation';
import type { Problem } from '../../core/result';
import type { VisitView } from '../../core/visit/view';
import { ask } from '../api';
import { createOutbox, type Kept, type Outbox } from '../outbox';

/** A reading on its way to the job. */
export interface Waiting extends Kept {
  observation: Observation;
  replaces?: string;
}

/** The readings of a job that the shop has not confirmed yet. */
export const outboxOfJob = (
  jobId: string,
  onStored: (view: VisitView) => void,
  onWaiting?: (problem: Problem) => void,
): Outbox<Waiting> =>
  createOutbox<Waiting, VisitView>({
    place: `hacienda.outbox.${jobId}`,
    isItem: (found) => 'observation' in found && isObservation(found.observation),
    send: ({ key, observation, replaces }) =>
      ask('record', { id: jobId, body: { key, observation, ...(replaces && { replaces }) } }),
    onStored,
    ...(onWaiting && { onWaiting }),
  });

const isObservation = (found: unknown): boolean =>
  typeof found === 'object' &&
  found !== null &&
  'kind' in found &&
  observationKinds.some((kind) => kind === found.kind) &&
  'at' in found &&
  typeof found.at === 'string';
