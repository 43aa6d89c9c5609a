import type { z } from 'zod';
import type { Position } from '../wheel';
import type {
  carWriteSchema,
  climateSchema,
  codeSchema,
  fittedSchema,
  headerSchema,
  jobSchema,
  loadCaseSchema,
  observationSchema,
  placardSchema,
  repairsSchema,
  replySchema,
  serviceSchema,
  takenBackSchema,
  tpmsSchema,
} from './schema';

/** Types only, so that a page can use them without carrying the schemas along: those are in `./schema`. */
export type Job = z.infer<typeof jobSchema>;
export type Header = z.infer<typeof headerSchema>;
export type Tpms = z.infer<typeof tpmsSchema>;
export type Placard = z.infer<typeof placardSchema>;
export type LoadCase = z.infer<typeof loadCaseSchema>;
export type Fitted = z.infer<typeof fittedSchema>;
export type Repairs = z.infer<typeof repairsSchema>;
export type Service = z.infer<typeof serviceSchema>;
export type Climate = z.infer<typeof climateSchema>;
export type Observation = z.infer<typeof observationSchema>;
export type ObservationKind = Observation['kind'];
export type Seen<Kind extends ObservationKind> = Extract<Observation, { kind: Kind }>;
export type Reply = z.infer<typeof replySchema>;
export type CarWrite = z.infer<typeof carWriteSchema>;
export type TakenBack = z.infer<typeof takenBackSchema>;
export type Code = z.infer<typeof codeSchema>;

/** What was done to the car lately, the first named first; empty where it was nothing, or nobody said. */
export function doneLately({ service }: Pick<Job, 'service'>): Pick<Service, 'kind' | 'hoursAgo'>[] {
  if (!service) return [];
  const { also = [], ...first } = service;
  return [first, ...also].filter(({ kind }) => kind !== 'none');
}

/** Whether any of these was done lately. */
export const wasDone = (job: Pick<Job, 'service'>, ...kinds: Service['kind'][]): boolean =>
  doneLately(job).some(({ kind }) => kinds.includes(kind));

/** An observation with its place in the job, which is how evidence points at it. */
export interface Placed<Kind extends ObservationKind> {
  index: number;
  seen: Seen<Kind>;
}

/** All observations of one kind, in the order seen. */
export function allOf<Kind extends ObservationKind>(job: Job, kind: Kind): Placed<Kind>[] {
  const all: Placed<Kind>[] = [];
  for (let index = 0; index < job.observations.length; index += 1) {
    const seen = job.observations[index];
    if (seen?.kind === kind) all.push({ index, seen: seen as Seen<Kind> });
  }
  return all;
}

/** Kinds of observation that are made at one wheel, or of one position. */
export type WheelKind = 'gauge' | 'activation' | 'visual' | 'wheelspeed' | 'live' | 'display';

/** All observations of one kind at one wheel, oldest first; of two at one time, the one recorded later is last. */
export function atWheel<Kind extends WheelKind>(job: Job, kind: Kind, wheel: Position): Placed<Kind>[] {
  const all: Placed<Kind>[] = [];
  for (let index = 0; index < job.observations.length; index += 1) {
    const seen = job.observations[index];
    if (seen?.kind === kind && (seen as { wheel: Position }).wheel === wheel) {
      all.push({ index, seen: seen as Seen<Kind> });
    }
  }
  return all.length > 1 ? all.sort((a, b) => timeOf(a) - timeOf(b)) : all;
}

const timeOf = ({ seen }: { seen: { at: string } }): number => Date.parse(seen.at);

/** The latest by time; of two at one time, the one recorded later. */
export function latest<Item extends { index: number; seen: { at: string } }>(
  items: readonly Item[],
): Item | undefined {
  return items.reduce<Item | undefined>(
    (best, item) => (best && Date.parse(best.seen.at) > Date.parse(item.seen.at) ? best : item),
    undefined,
  );
}

/** Outdoor height in metres; sea level where nobody said. */
export const altitudeOf = (job: Job): number => job.climate?.altitudeM ?? 0;
