import { atWheel, type Job, type Placed, type Seen } from '../job';
import { handledKPa } from '../history';
import { placardKPa, wheelsOf } from '../placard';
import type { Position } from '../wheel';

/** Signs seen at a wheel that do not go away by filling it. */
export const damageSigns = ['flat', 'object', 'sidewall', 'stem-damaged'] as const satisfies readonly Sign[];
export type DamageSign = (typeof damageSigns)[number];
type Sign = Seen<'visual'>['sign'];

/** What was seen of a tire and that nobody has said anything of since. */
export interface Damage {
  wheel: Position;
  signs: DamageSign[];
  /** It was found with so little air, kPa, and filled since. */
  foundAtKPa: number | undefined;
}

/** At half its cold pressure and less a tire may be hurt inside by the way it rolled (common practice). */
export const nearFlatShare = 0.5;

/** The wheels with damage that is not explained, in walking order. */
export const unexplainedDamage = (job: Job): Damage[] =>
  wheelsOf(job).flatMap((wheel) => {
    const damage = damageAt(job, wheel);
    return damage.signs.length > 0 || damage.foundAtKPa !== undefined ? [damage] : [];
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
    foundAtKPa: nearFlatAt(job, wheel, settled)?.seen.kPa,
  };
}

/** The reading at which a tire was found near flat, that was filled since and of which nobody has said what it was. */
export const nearFlatFound = (job: Job, wheel: Position): Placed<'gauge'> | undefined =>
  nearFlatAt(job, wheel, settledMs(job, wheel)[0]);

const isDamage = (sign: Sign): sign is DamageSign => (damageSigns as readonly Sign[]).includes(sign);

/** What a trusted gauge found near flat, before the tire was filled. */
function nearFlatAt(job: Job, wheel: Position, settled: number): Placed<'gauge'> | undefined {
  const placard = placardKPa(job, wheel);
  const readings = atWheel(job, 'gauge', wheel).filter(({ seen }) => seen.trusted !== false);
  const now = readings.at(-1)?.seen.kPa;
  if (placard === undefined || now === undefined) return undefined;
  return readings.find(
    ({ seen }) =>
      seen.kPa <= nearFlatShare * placard &&
      seen.kPa < now - handledKPa &&
      now > nearFlatShare * placard &&
      Date.parse(seen.at) > settled,
  );
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
