import type { z } from 'zod';
import type { Position } from '../names/wheel';
import { once } from './once';
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
export const allOf = <Kind extends ObservationKind>(job: Job, kind: Kind): readonly Placed<Kind>[] =>
  (placesOf(job).get(kind)?.all ?? none) as readonly Placed<Kind>[];

/** Kinds of observation that are made at one wheel, or of one position. */
type WheelKind = 'gauge' | 'activation' | 'visual' | 'wheelspeed' | 'live' | 'display';

/** All observations of one kind at one wheel, oldest first; of two at one time, the one recorded later is last. */
export const atWheel = <Kind extends WheelKind>(
  job: Job,
  kind: Kind,
  wheel: Position,
): readonly Placed<Kind>[] => (placesOf(job).get(kind)?.at.get(wheel) ?? none) as readonly Placed<Kind>[];

/** The gauge readings of a wheel that count: of gauges that are trusted, oldest first. */
export const trustedAt = (job: Job, wheel: Seen<'gauge'>['wheel']): Placed<'gauge'>[] =>
  atWheel(job, 'gauge', wheel).filter(({ seen }) => seen.trusted !== false);

const none: readonly never[] = [];

/** The observations of one kind: all of them, and those at each wheel. */
interface OfKind {
  all: Placed<ObservationKind>[];
  at: Map<unknown, Placed<ObservationKind>[]>;
}

/** A job is gone through once: its observations are asked for by kind and wheel all the time. */
const placesOf = once((job: Job): ReadonlyMap<ObservationKind, OfKind> => {
  const kinds = new Map<ObservationKind, OfKind>();
  job.observations.forEach((seen, index) => {
    let ofKind = kinds.get(seen.kind);
    if (!ofKind) kinds.set(seen.kind, (ofKind = { all: [], at: new Map() }));
    const placed = { index, seen };
    ofKind.all.push(placed);
    const { wheel } = seen as { wheel?: unknown };
    const there = ofKind.at.get(wheel);
    if (there) there.push(placed);
    else if (wheel !== undefined) ofKind.at.set(wheel, [placed]);
  });
  for (const { at } of kinds.values())
    for (const placed of at.values()) if (placed.length > 1) placed.sort((a, b) => timeOf(a) - timeOf(b));
  return kinds;
});

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
