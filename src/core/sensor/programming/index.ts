import type { Job } from '../../job';
import { programmedFor, sensorWrites } from '../../job/car-write';
import { ledgerOf, type Ledger } from '../../job/ledger';
import { canonicalId, sameId } from '../../names/sensor-id';
import { walkingOrder, type Position } from '../../names/wheel';

/** A clone has the old sensor's ID, so that the car needs no relearn; one with a new ID must be taught. */
export const programmingModes = ['clone', 'new', 'typed'] as const;
export type ProgrammingMode = (typeof programmingModes)[number];

/** Where the ID of the old sensor is known from, the surest first. */
export interface OldId {
  id: string;
  from: 'scan' | 'car' | 'record';
}

/** What there is to clone at a wheel; each ID once. */
export function oldIdsAt(job: Job, wheel: Position, ledger: Ledger = ledgerOf(job)): OldId[] {
  const scan = ledger.sensor[wheel];
  const found: OldId[] = [
    ...(scan?.kind === 'heard' ? [{ id: scan.reply.id, from: 'scan' as const }] : []),
    ...(ledger.registered[wheel] ? [{ id: ledger.registered[wheel], from: 'car' as const }] : []),
    ...(job.sensors ?? []).flatMap((sensor) =>
      sensor.wheel === wheel ? [{ id: sensor.id, from: 'record' as const }] : [],
    ),
  ];
  return found.filter(({ id }, at) => found.findIndex((other) => sameId(other.id, id)) === at);
}

/** Another wheel at which an ID is already: the car holds it there, it was heard there, or a sensor was programmed with it. */
export function idIsAt(
  job: Job,
  id: string,
  besides: Position,
  ledger: Ledger = ledgerOf(job),
): Position | undefined {
  return walkingOrder.find((wheel) => {
    if (wheel === besides) return false;
    const scan = ledger.sensor[wheel];
    const here = [
      ledger.registered[wheel],
      scan?.kind === 'heard' ? scan.reply.id : undefined,
      programmedFor(job, wheel)?.asked.id,
    ];
    return here.some((held) => held != null && sameId(held, id));
  });
}

/** All IDs that were met on a visit, canonical: none of them may be a new one. */
export function idsMet(job: Job): Set<string> {
  const { sensors = [], otherSets = [], observations } = job;
  return new Set(
    [
      ...sensors.map(({ id }) => id),
      ...otherSets.flatMap(({ ids }) => ids),
      ...sensorWrites(job).map(({ asked }) => asked.id),
      ...observations.flatMap((seen) => {
        switch (seen.kind) {
          case 'activation':
            return seen.replies.map(({ id }) => id);
          case 'registry':
            return seen.entries.flatMap(({ id }) => (id === null ? [] : [id]));
          case 'reception':
            return [seen.id];
          default:
            return [];
        }
      }),
    ].map(canonicalId),
  );
}

/**
 * A new ID of so many hexadecimal digits that is not among those taken. `random` gives a whole number from 0 to below its
 * argument. The first digit is never 0: a display may leave that out.
 */
export function newSensorId(
  digits: number,
  taken: (id: string) => boolean,
  random: (below: number) => number,
): string {
  for (;;) {
    const id = Array.from({ length: digits }, (_, at) =>
      (at === 0 ? 1 + random(15) : random(16)).toString(16),
    )
      .join('')
      .toUpperCase();
    if (!taken(id)) return id;
  }
}
