import type { Inconsistency } from '../../job/inconsistency';
import { allOf, atWheel, type Job, type Observation } from '../../job';
import { nearestTo, timelineOf } from '../../job/nearest';
import { once } from '../../job/once';
import { oneStopMs } from '../../job/together';
import { placardKPa } from '../../job/placard';
import { pressure, unitNamed } from '../../measure/units';
import type { Position } from '../../names/wheel';

/**
 * Figures that make no sense in kPa and good sense in another unit: somebody read psi or bar, and it was taken for kPa.
 * Nothing is judged by them, and nothing advised, until somebody says what they are.
 */
interface UnitSlips {
  /** Places of gauge readings among the observations. */
  gauges: readonly number[];
  /** Places of answers of sensors whose pressures are so. */
  replies: readonly number[];
  /** Places of what the car had, or its display showed. */
  shown: readonly number[];
  /** Places of lines of the placard. */
  placard: readonly number[];
  found: Inconsistency[];
}

/** No tire of a car is meant to be driven at less, kPa (practice); a placard below it is none. */
const leastPlacardKPa = 100;
const mostPlacardKPa = 700;
/** A tire that is gauged in another unit stands about its placard: a really flat one does not come out so. */
const aboutPlacard = { least: 0.75, most: 1.4 };
/** Where no placard is known a tire is taken to stand about this, kPa. */
const usualKPa = 235;

export const unitSlipsIn = once((job: Job): UnitSlips => {
  const placard = (job.placard ?? []).flatMap(({ coldKPa }, place) => {
    const unit = coldKPa < leastPlacardKPa ? unitOf(coldKPa, leastPlacardKPa, mostPlacardKPa) : undefined;
    return unit ? [{ place, unit, kPa: coldKPa, path: `placard.${place}.coldKPa` }] : [];
  });
  const ofKind = (kind: 'gauge' | 'live' | 'display') =>
    alike(job, (seen, place) =>
      seen.kind === kind && seen.kPa
        ? { wheel: seen.wheel, kPa: seen.kPa, path: `observations.${place}.kPa` }
        : undefined,
    );
  const together = ofKind('gauge');
  const gauges = together.length > 0 ? together : besideItsSensor(job);
  const shown = [...ofKind('live'), ...ofKind('display')];
  const replies = alike(job, (seen, place) => {
    const kPa = seen.kind === 'activation' ? seen.replies[0]?.kPa : undefined;
    return seen.kind === 'activation' && kPa != null
      ? { wheel: seen.wheel, kPa, path: `observations.${place}.replies.0.kPa` }
      : undefined;
  });
  return {
    gauges: gauges.map(({ place }) => place),
    replies: replies.map(({ place }) => place),
    shown: shown.map(({ place }) => place),
    placard: placard.map(({ place }) => place),
    found: [...placard, ...gauges, ...replies, ...shown].map(({ path, kPa, unit }) => ({
      path,
      message: `${kPa} kPa makes no sense here, ${kPa} ${unit} would: ask which it was, and type it again.`,
    })),
  };
});

/** The job without what is in doubt, and for each observation left its place in the job as it was. */
export const setAsideSlips = once((job: Job): { job: Job; places: number[] | undefined } => {
  const { gauges, replies, shown, placard, found } = unitSlipsIn(job);
  if (found.length === 0) return { job, places: undefined };
  const places = job.observations
    .map((_, place) => place)
    .filter((place) => !gauges.includes(place) && !shown.includes(place));
  const observations = places.flatMap((place): Observation[] => {
    const seen = job.observations[place];
    if (seen?.kind !== 'activation' || !replies.includes(place)) return seen ? [seen] : [];
    return [{ ...seen, replies: seen.replies.map((reply) => ({ ...reply, kPa: undefined })) }];
  });
  const left = job.placard?.filter((_, place) => !placard.includes(place));
  return { job: { ...job, ...(left && { placard: left }), observations }, places };
});

/** How many kPa one of each is. */
const perUnit = { psi: unitNamed(pressure, 'psi').toBase(1), bar: unitNamed(pressure, 'bar').toBase(1) };
type Unit = keyof typeof perUnit;

/** The unit in which a figure lies between these, kPa. */
const unitOf = (figure: number, leastKPa: number, mostKPa: number): Unit | undefined =>
  (Object.keys(perUnit) as Unit[]).find((unit) => {
    const kPa = figure * perUnit[unit];
    return kPa >= leastKPa && kPa <= mostKPa;
  });

interface Figure {
  wheel: Parameters<typeof placardKPa>[1];
  kPa: number;
  path: string;
}

/**
 * Figures of one kind that are so at two wheels and more, and at no fewer than are sensible: one wheel alone may well be
 * flat.
 */
function alike(job: Job, read: (seen: Observation, place: number) => Figure | undefined) {
  const figures = job.observations.flatMap((seen, place) => {
    const figure = read(seen, place);
    if (!figure) return [];
    const placard = placardKPa(job, figure.wheel);
    const about = placard !== undefined && placard >= leastPlacardKPa ? placard : usualKPa;
    const unit = unitOf(figure.kPa, aboutPlacard.least * about, aboutPlacard.most * about);
    return [{ ...figure, place, unit }];
  });
  const inDoubt = figures
    .flatMap(({ unit, ...figure }) => (unit ? [{ ...figure, unit }] : []))
    .filter((figure, _, all) => !isInsistedOn(figure, all));
  const wheels = new Set(inDoubt.map(({ wheel }) => wheel));
  const sensible = new Set(figures.filter(({ unit }) => !unit).map(({ wheel }) => wheel));
  return wheels.size >= 2 && wheels.size >= sensible.size ? inDoubt : [];
}

/** One wheel alone is so, and its own sensor says what that figure is in another unit: it is not flat. */
function besideItsSensor(job: Job) {
  const read = allOf(job, 'gauge').map(({ seen: { wheel, kPa, at }, index }) => {
    const replies = told(job, wheel);
    const said = nearestTo(replies, Date.parse(at), oneStopMs)?.kPa;
    const unit =
      said === undefined || kPa >= leastPlacardKPa || said < leastPlacardKPa
        ? undefined
        : unitOf(kPa, (1 - alikeShare) * said, (1 + alikeShare) * said);
    return { wheel, kPa, place: index, path: `observations.${index}.kPa`, unit };
  });
  return read
    .flatMap(({ unit, ...figure }) => (unit ? [{ ...figure, unit }] : []))
    .filter((figure) => !isInsistedOn(figure, read));
}

/** What the sensor of a wheel told of its pressure, where it answered alone. */
const told = once((job: Job, wheel: Position) =>
  timelineOf(
    atWheel(job, 'activation', wheel).flatMap(({ seen }) =>
      seen.replies.length === 1 && seen.replies[0]?.kPa ? [{ seen, kPa: seen.replies[0].kPa }] : [],
    ),
  ),
);

/** A sensor and a gauge of one tire differ by less of their figure (judgement). */
const alikeShare = 0.06;

/** Read once more at the same wheel, and typed as before: then it was meant. */
const isInsistedOn = (figure: Figure, all: readonly Figure[]): boolean =>
  all.filter(({ wheel, kPa }) => wheel === figure.wheel && Math.abs(kPa - figure.kPa) <= figure.kPa / 10)
    .length > 1;
