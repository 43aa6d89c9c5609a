import { damageSigns, type DamageSign } from '../../names/kinds';
import { readingAt } from '../gauge';
import { atWheel, trustedAt, type Job, type Placed, type Seen } from '../../job';
import { oneVisitMs } from '../../job/together';
import { handledKPa } from '../../job/history';
import { isLetOut } from '../../job/history/let-out';
import { seepagePerMonthKPa } from '../leak/seepage';
import { placardKPa, wheelsOf } from '../../job/placard';
import { roadWheels, type Position } from '../../names/wheel';

type Sign = Seen<'visual'>['sign'];

/** What was seen of a tire and that nobody has said anything of since. */
export interface Damage {
  wheel: Position;
  signs: DamageSign[];
  /** It was found low, and was filled since without a look for the leak. */
  found: FoundLow | undefined;
}

/** A tire that was low, and the others not: a leak until somebody looked, for filling proves nothing. */
export interface FoundLow {
  placed: Placed<'gauge'>;
  kPa: number;
  /** By so much more than the other road tires it was short of its placard, kPa. */
  lowerByKPa: number;
  /** So low that it may be hurt inside by the way it rolled. */
  nearFlat: boolean;
}

/** At half its cold pressure and less a tire may be hurt inside by the way it rolled (common practice). */
const nearFlatShare = 0.5;

/** This much shorter than the others, kPa, a tire is low by itself: three psi, more than seasons and gauges make (judgement). */
const lowAloneKPa = 20;

/** Where no other tire was gauged they are taken to be this short, kPa: two months of seeping (judgement). */
const usuallyShortKPa = 20;

/** So many fills, from the lowest reading up, are held against the other tires: nobody fills one tire oftener. */
const mostCompared = 5;

/** From this long after the fill on, a reading that is as high says that the tire holds: a day (common practice), hours. */
const holdsAfterHours = 20;

/** The wheels with damage that is not explained, in walking order. */
export const unexplainedDamage = (job: Job): Damage[] =>
  wheelsOf(job).flatMap((wheel) => {
    const damage = damageAt(job, wheel);
    return damage.signs.length > 0 || damage.found ? [damage] : [];
  });

/** What stands against a tire until it is repaired, its sensor renewed (a damaged stem), or it was said what it was. */
export function damageAt(job: Job, wheel: Position): Damage {
  const [settled, stemSettled] = settledMs(job, wheel);
  const seen = atWheel(job, 'visual', wheel).flatMap(({ seen: { sign, at } }) => {
    const since = sign === 'stem-damaged' ? Math.max(settled, stemSettled) : settled;
    return isDamage(sign) && Date.parse(at) > since ? [sign] : [];
  });
  return {
    wheel,
    signs: damageSigns.filter((sign) => seen.includes(sign)),
    found: foundLowAt(job, wheel, settled),
  };
}

const isDamage = (sign: Sign): sign is DamageSign => (damageSigns as readonly Sign[]).includes(sign);

/** It was seen flat, or read at half its cold pressure and less, and nobody has said anything of it since. */
export function isNearFlat(job: Job, wheel: Position): boolean {
  const placard = placardKPa(job, wheel);
  const [settled] = settledMs(job, wheel);
  return (
    damageAt(job, wheel).signs.includes('flat') ||
    (placard !== undefined &&
      trustedAt(job, wheel).some(
        ({ seen }) => Date.parse(seen.at) > settled && seen.kPa <= nearFlatShare * placard,
      ))
  );
}

/** The reading at which a tire was found lowest beside the others, where it was filled since, and not read as high a day later. */
function foundLowAt(job: Job, wheel: Position, settled: number): FoundLow | undefined {
  const placard = placardKPa(job, wheel);
  if (placard === undefined || wheel === 'SP') return undefined;
  const readings = trustedAt(job, wheel).filter(({ seen }) => Date.parse(seen.at) > settled);
  const filled = readings
    .slice(1)
    .flatMap((after, before): Placed<'gauge'>[] => {
      const placed = readings[before];
      const isFill = placed !== undefined && after.seen.kPa - placed.seen.kPa > handledKPa;
      return isFill && !isHeld(readings, after) && !isSoft(job, placed, readings[before - 1]) ? [placed] : [];
    })
    .sort((a, b) => a.seen.kPa - b.seen.kPa);
  const found = filled.slice(0, mostCompared).map((placed): FoundLow => {
    const { kPa } = placed.seen;
    const lowerByKPa = placard - nowKPa(job, placed) - shortElsewhere(job, wheel, placed);
    return { placed, kPa, lowerByKPa, nearFlat: kPa <= nearFlatShare * placard };
  });
  return found
    .filter(({ lowerByKPa }) => lowerByKPa > lowAloneKPa)
    .sort((a, b) => b.lowerByKPa - a.lowerByKPa)[0];
}

/** What was read after air had been let out to teach the car is not how the tire was found. */
const isSoft = (job: Job, { seen }: Placed<'gauge'>, before: Placed<'gauge'> | undefined): boolean =>
  isLetOut(
    job,
    seen.wheel,
    before ? Date.parse(before.seen.at) : Number.NEGATIVE_INFINITY,
    Date.parse(seen.at),
  );

const nowKPa = (job: Job, { seen }: Placed<'gauge'>): number =>
  (job.climate?.nowC === undefined ? undefined : readingAt(job, seen, job.climate.nowC)) ?? seen.kPa;

/** How short of placard the other road tires were as they were found on that visit, kPa: the middle one of them. */
function shortElsewhere(job: Job, wheel: Position, { seen: { at } }: Placed<'gauge'>): number {
  const apart = ({ seen }: Placed<'gauge'>) => Math.abs(Date.parse(seen.at) - Date.parse(at));
  const short = roadWheels
    .flatMap((other) => {
      const readings = trustedAt(job, other).sort((a, b) => apart(a) - apart(b));
      const onVisit = readings.filter((one) => apart(one) < oneVisitMs);
      // Others are filled on the way round: their lowest is what they were found at.
      const found = (onVisit.length > 0 ? onVisit : readings.slice(0, 1)).map((one) => nowKPa(job, one));
      const placard = placardKPa(job, other);
      return other === wheel || found.length === 0 || placard === undefined
        ? []
        : [placard - Math.min(...found)];
    })
    .sort((a, b) => a - b);
  return short[Math.floor((short.length - 1) / 2)] ?? usuallyShortKPa;
}

/** A reading a day or more after the fill found no less than seeps through rubber meanwhile, and no fill came between. */
function isHeld(readings: readonly Placed<'gauge'>[], filled: Placed<'gauge'>): boolean {
  const hours = ({ seen }: Placed<'gauge'>) => (Date.parse(seen.at) - Date.parse(filled.seen.at)) / 3_600_000;
  const later = readings.filter((one) => hours(one) > 0);
  const refilled = later.findIndex(
    ({ seen }, place) => seen.kPa - (later[place - 1] ?? filled).seen.kPa > handledKPa,
  );
  return (refilled < 0 ? later : later.slice(0, refilled)).some((one) => {
    const seeped = (hours(one) / 24 / 30) * seepagePerMonthKPa.most;
    return hours(one) >= holdsAfterHours && filled.seen.kPa - one.seen.kPa <= handledKPa / 2 + seeped;
  });
}

/** When it was last said what there was at a wheel: of the tire, and of its stem alone; ms. */
function settledMs(job: Job, wheel: Position): [tire: number, stem: number] {
  const repaired = (job.repairs ?? []).filter((repair) => repair.wheel === wheel).map(({ at }) => at);
  const said = (job.confirmations ?? [])
    .filter(({ parts }) => parts.some((part) => part.part === 'tire' && part.wheel === wheel))
    .map(({ at }) => at);
  const renewed = (job.sensorServices ?? [])
    .filter((service) => service.wheel === wheel && service.done.includes('stem'))
    .map(({ at }) => at);
  const last = (times: readonly string[]) =>
    Math.max(Number.NEGATIVE_INFINITY, ...times.map((at) => Date.parse(at)));
  return [last([...repaired, ...said]), last(renewed)];
}
