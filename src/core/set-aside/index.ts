import type { Inconsistency } from '../assessment';
import { gaugeOffIn, type GaugeOff } from '../gauge-off';
import type { Job } from '../job';
import { once } from '../job/once';
import { setAsideSlips, unitSlipsIn } from '../unit-slip';

/**
 * Figures that nothing is judged by, and nothing advised, until somebody says what they are: typed in another unit, or
 * read with an instrument that is off.
 */
export interface SetAside {
  /** The job without them. */
  job: Job;
  /** For each observation left its place in the job as it was; undefined where all are left. */
  places: number[] | undefined;
  gaugeOff: GaugeOff | undefined;
  /** What is asked about them. */
  asked: Inconsistency[];
}

/** From this chance on an instrument is taken to be off (contract of the assessment). */
const taken = 0.5;

export const setAside = once((asked: Job): SetAside => {
  const { job, places } = setAsideSlips(asked);
  const slips = unitSlipsIn(asked).found;
  const off = gaugeOffIn(job);
  const placeOf = (place: number): number => places?.[place] ?? place;
  const gaugeOff = off && { ...off, places: off.places.map(placeOf) };
  if (!off || off.chance < taken) return { job, places, gaugeOff, asked: slips };
  const left = job.observations.map((_, place) => place).filter((place) => !off.places.includes(place));
  return {
    job: { ...job, observations: left.flatMap((place) => job.observations[place] ?? []) },
    places: left.map(placeOf),
    gaugeOff,
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
