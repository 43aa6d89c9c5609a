import { allOf, type Job, type Reply } from '../../job';
import { canonicalId, slipBetween } from '../../names/sensor-id';
import type { ProgrammingMode } from '../../sensor/programming';
import { inOrder, type Visit } from '../vehicle';
import type { Position } from '../../names/wheel';
import { programmingVerdict, sensorWrites } from '../../job/car-write';

/** One ID from box to bin, over all vehicles it was met at. */

/** One time the ID was met. */
export type Meeting = Met & { at: string; vehicleId: string; jobId: string; number: number };

type Met =
  /** The tool heard it at a wheel. */
  | { how: 'heard'; wheel: Position; reply: Reply }
  /** The car held it for a position. */
  | { how: 'held'; wheel: Position }
  /** A sensor was programmed with it. */
  | {
      how: 'programmed';
      wheel: Position | undefined;
      mode: ProgrammingMode;
      part: string | undefined;
      took: 'worked' | 'failed' | 'unknown' | 'refused';
    }
  /** It was printed on the sensor that went into a wheel. */
  | { how: 'printed'; wheel: Position; part: string | undefined };

/** Every time an ID was met, oldest first; of the same way at the same wheel on one visit the last. */
export function meetingsOf(id: string, visits: readonly Visit[]): Meeting[] {
  const wanted = canonicalId(id);
  return inOrder(visits).flatMap(({ id: jobId, number, vehicleId, job }) => {
    const met = metOn(job).filter((one) => canonicalId(one.id) === wanted);
    const lastOfEach = new Map(met.map((one) => [`${one.met.how} ${one.met.wheel ?? ''}`, one]));
    return [...lastOfEach.values()]
      .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
      .map(({ at, met: how }): Meeting => ({ ...how, at, vehicleId, jobId, number }));
  });
}

interface MetId {
  id: string;
  at: string;
  met: Met;
}

/** All IDs that were met on a visit, and how. */
function metOn(job: Job): MetId[] {
  return [
    ...allOf(job, 'activation').flatMap(({ seen: { at, wheel, replies } }) =>
      replies.map((reply): MetId => ({ id: reply.id, at, met: { how: 'heard', wheel, reply } })),
    ),
    ...allOf(job, 'registry').flatMap(({ seen: { at, entries } }) =>
      entries.flatMap(({ wheel, id }): MetId[] =>
        id === null ? [] : [{ id, at, met: { how: 'held', wheel } }],
      ),
    ),
    ...sensorWrites(job).map((write): MetId => {
      const { wheel, mode, part, asked, askedAt } = write;
      return {
        id: asked.id,
        at: askedAt,
        met: { how: 'programmed', wheel, mode, part, took: programmingVerdict(write) },
      };
    }),
    ...(job.sensorServices ?? []).flatMap(({ wheel, part, printedId, at }): MetId[] =>
      printedId === undefined ? [] : [{ id: printedId, at, met: { how: 'printed', wheel, part } }],
    ),
  ];
}

/**
 * Why one ID was met at two vehicles. `set-moved`: its companions came along, so it is the same set of wheels.
 * `sensor-moved`: it left the one for good before it came to the other. `clone`: a sensor was programmed with it, so there
 * may be two that send it. `slip`: a vehicle only holds it, where one of its own sensors is one slip away. `held-only`: a
 * vehicle only holds it, and nothing of its own is like it. `two-send-it`: heard at both in turn, and nobody knows why.
 */
export type Shared =
  | { why: 'set-moved'; companions: string[] }
  | { why: 'sensor-moved'; from: string; to: string }
  | { why: 'clone'; at: string }
  | { why: 'slip'; holder: string; ownId: string }
  | { why: 'held-only'; holder: string }
  | { why: 'two-send-it' };

/** So many IDs that moved together are a set, not a chance. */
const companionsOfASet = 2;

/**
 * What explains that an ID was met at two vehicles; undefined where it was not.
 */
export function whyShared(
  id: string,
  visits: readonly Visit[],
  one: string,
  other: string,
): Shared | undefined {
  const met = meetingsOf(id, visits);
  const [atOne, atOther] = [one, other].map((vehicle) =>
    met.filter(({ vehicleId }) => vehicleId === vehicle),
  );
  if (!atOne?.length || !atOther?.length) return undefined;
  const heardOf = (meetings: Meeting[]) => meetings.filter(({ how }) => how === 'heard');
  const [heardAtOne, heardAtOther] = [heardOf(atOne), heardOf(atOther)];
  const companions = heardTogether(id, visits, one, other);
  if (companions.length >= companionsOfASet) return { why: 'set-moved', companions };
  const cloned = met.find(
    (meeting) => meeting.how === 'programmed' && meeting.mode !== 'new' && meeting.took !== 'refused',
  );
  if (cloned) return { why: 'clone', at: cloned.at };
  const [silent, holder] = heardAtOther.length === 0 ? [atOther, other] : [atOne, one];
  if (heardAtOne.length === 0 || heardAtOther.length === 0) {
    const ownId = silent.every(({ how }) => how === 'held') ? likeIt(id, visits, holder) : undefined;
    return ownId === undefined ? { why: 'held-only', holder } : { why: 'slip', holder, ownId };
  }
  const isAfter = (later: Meeting[], earlier: Meeting[]) => timeOf(earlier.at(-1)) < timeOf(later[0]);
  if (isAfter(heardAtOther, heardAtOne)) return { why: 'sensor-moved', from: one, to: other };
  if (isAfter(heardAtOne, heardAtOther)) return { why: 'sensor-moved', from: other, to: one };
  return { why: 'two-send-it' };
}

const timeOf = (meeting: Meeting | undefined): number => (meeting ? Date.parse(meeting.at) : Number.NaN);

/** The other IDs that were heard at both vehicles. */
function heardTogether(id: string, visits: readonly Visit[], one: string, other: string): string[] {
  const heardAt = (vehicle: string) =>
    new Set(
      visits
        .filter(({ vehicleId }) => vehicleId === vehicle)
        .flatMap(({ job }) =>
          metOn(job).flatMap(({ id: met, met: { how } }) => (how === 'heard' ? [canonicalId(met)] : [])),
        ),
    );
  const there = heardAt(other);
  return [...heardAt(one)].filter((met) => met !== canonicalId(id) && there.has(met));
}

/** A sensor of a vehicle whose ID is one slip away from this one. */
function likeIt(id: string, visits: readonly Visit[], vehicle: string): string | undefined {
  for (const { vehicleId, job } of visits) {
    if (vehicleId !== vehicle) continue;
    const own = metOn(job).find(
      ({ id: met, met: { how } }) => how === 'heard' && (slipBetween(met, id) ?? slipBetween(id, met)),
    );
    if (own) return canonicalId(own.id);
  }
  return undefined;
}
