import type { Inconsistency } from '../../job/inconsistency';
import { gaugeOffIn, type GaugeOff } from '../gauge-off';
import type { Job, Observation } from '../../job';
import { once } from '../../job/once';
import { setAsideSlips, unitSlipsIn } from '../unit-slip';
import { dayMs } from '../../measure/calendar/spans';

/**
 * What nothing is judged by, and nothing advised: figures typed in another unit, or read with an instrument that is off,
 * until somebody says what they are; and what was seen so long ago that it says little of today.
 */
interface SetAside {
  /** The job without them. */
  job: Job;
  /** For each observation left its place in the job as it was; undefined where all are left. */
  places: number[] | undefined;
  /** An instrument that is likely to be off. */
  gaugeOff: GaugeOff | undefined;
  /** Places in the job of what was read with it, where that is taken to be so. */
  readAgain: readonly number[];
  /** What is asked about them. */
  asked: Inconsistency[];
}

/** From this chance on an instrument is taken to be off (contract of the assessment). */
const taken = 0.5;

export const setAside = once((asked: Job): SetAside => {
  const doubted = withoutDoubtful(asked);
  const { job, isOld } = withoutOld(doubted.job);
  if (job === doubted.job) return doubted;
  const places = doubted.job.observations.flatMap((seen, place) =>
    isOld(seen) ? [] : [doubted.places?.[place] ?? place],
  );
  return { ...doubted, job, places };
});

/**
 * What was seen so many days before the last look at the car is of another visit (judgement: last month says little of
 * today); what is of its moment alone, sooner: the car is driven in between.
 */
const oldAfterDays = { others: 14, lamp: 7, live: 2, display: 2 };

/**
 * Without what is of another visit. Its gauge readings stay as history, to tell a leak by; damage stands until somebody
 * says what it was, and a stem is what it is.
 */
function withoutOld(job: Job): { job: Job; isOld: (seen: Observation) => boolean } {
  const ms = job.observations.map(({ at }) => Date.parse(at));
  const last = ms.reduce((latest, one) => Math.max(latest, one), Number.NEGATIVE_INFINITY);
  const isOld = (seen: Observation): boolean => {
    const { kind, at } = seen;
    const afterDays =
      kind === 'lamp' || kind === 'live' || kind === 'display' ? oldAfterDays[kind] : oldAfterDays.others;
    return Date.parse(at) < last - afterDays * dayMs && !stands(seen);
  };
  if (!job.observations.some(isOld)) return { job, isOld };
  const gauged = job.observations.flatMap((seen) => (seen.kind === 'gauge' && isOld(seen) ? [seen] : []));
  return {
    job: {
      ...job,
      observations: job.observations.filter((seen) => !isOld(seen)),
      history: [...(job.history ?? []), ...gauged],
    },
    isOld,
  };
}

/** It does not go away with time. */
const stands = (seen: Observation): boolean =>
  seen.kind === 'visual' && seen.sign !== 'flat' && seen.sign !== 'odd-size';

/** Without figures that are in doubt alone, however old: for what is told of a visit from its beginning. */
export const withoutDoubtful = once((asked: Job): SetAside => {
  const { job, places } = setAsideSlips(asked);
  const slips = unitSlipsIn(asked).found;
  const off = gaugeOffIn(job);
  const placeOf = (place: number): number => places?.[place] ?? place;
  const gaugeOff = off && { ...off, places: off.places.map(placeOf) };
  if (!off || off.chance < taken) return { job, places, gaugeOff, readAgain: [], asked: slips };
  const left = job.observations.map((_, place) => place).filter((place) => !off.places.includes(place));
  return {
    job: { ...job, observations: left.flatMap((place) => job.observations[place] ?? []) },
    places: left.map(placeOf),
    gaugeOff,
    readAgain: gaugeOff?.places ?? [],
    asked: [...slips, ...(gaugeOff ? [askedOf(gaugeOff)] : [])],
  };
});

function askedOf({ places, against }: GaugeOff): Inconsistency {
  const beside = against === 'sensors' ? 'every sensor' : 'another gauge';
  return {
    path: `observations.${places[0] ?? 0}.kPa`,
    message: `The gauge reads beside ${beside} by as much at each wheel: read them again with another one.`,
  };
}
