import { canonicalId } from '../../names/sensor-id';
import { fitWeibull, kaplanMeier, type Lifetime, type Step, type Weibull } from '../../measure/survival';
import { judged } from '../../measure/figure';
import type { LifeCurve } from '.';

/** From so many ends on a shop's own curve is taken instead of common practice. */
export const endsForOwnCurve = judged(
  10,
  'with ten ends the scale is known to about a tenth; with fewer the curve of common practice is the better guess',
);

/** What one visit says of one sensor whose age is on file. */
export interface SeenAtAge {
  sensorId: string;
  ageYears: number;
  /** It turned out to be silent, or its battery to be ending, once somebody had it in hand. */
  ended: boolean;
  /** What it is of: the part it was fitted as, and what it sends on; missing where nobody knows. */
  part?: string | undefined;
  carrier?: string | undefined;
}

/** The sensors of one part, or of one carrier. */
interface LivesOf {
  by: 'part' | 'carrier';
  name: string;
  sensors: number;
  ended: number;
  /** The share alive at some ages, with its 95 % band; null beyond what was seen. */
  alive: ({ at: number; survival: number; low: number; high: number } | null)[];
}

/** Ages that tell early, usual and late ends apart, years. */
export const agesCompared = [4, 6, 8, 10] as const;

/** How long the sensors of a shop lasted. */
export interface SensorLives {
  sensors: number;
  ended: number;
  /** The share alive by age, years. */
  steps: Step[];
  /** The curve through it; null with too few ends to tell one. */
  fit: Weibull | null;
  /** Each part and carrier of which enough were seen, the most seen first. */
  groups: LivesOf[];
}

/**
 * One life a sensor: from the age it was first seen at to the age at which it ended, or was last seen to go on. One that was
 * seen at one age only tells nothing: had it ended before, nobody here would know.
 */
export function lifetimesOf(seen: readonly SeenAtAge[]): Lifetime[] {
  const lives = new Map<string, Required<Lifetime>>();
  for (const { sensorId, ageYears, ended } of seen) {
    const id = canonicalId(sensorId);
    const life = lives.get(id);
    lives.set(id, {
      from: Math.min(life?.from ?? ageYears, ageYears),
      to: Math.max(life?.to ?? ageYears, ageYears),
      ended: (life?.ended ?? false) || ended,
    });
  }
  return [...lives.values()].filter(({ from, to }) => to > from);
}

export function livesOf(seen: readonly SeenAtAge[]): SensorLives {
  const lives = lifetimesOf(seen);
  return {
    sensors: lives.length,
    ended: lives.filter(({ ended }) => ended).length,
    steps: kaplanMeier(lives),
    fit: fitWeibull(lives) ?? null,
    groups: [...groupsBy('part', seen), ...groupsBy('carrier', seen)],
  };
}

/** Fewer lives than this tell one from another by chance alone (judgement). */
const fewestInGroup = 10;

function groupsBy(by: LivesOf['by'], seen: readonly SeenAtAge[]): LivesOf[] {
  const groups = new Map<string, SeenAtAge[]>();
  for (const one of seen) {
    const name = one[by];
    if (name === undefined) continue;
    const group = groups.get(name);
    if (group) group.push(one);
    else groups.set(name, [one]);
  }
  return [...groups]
    .map(([name, those]): LivesOf => {
      const lives = lifetimesOf(those);
      const steps = kaplanMeier(lives);
      const oldest = Math.max(...lives.map(({ to }) => to));
      return {
        by,
        name,
        sensors: lives.length,
        ended: lives.filter(({ ended }) => ended).length,
        alive: agesCompared.map((at) => {
          if (at > oldest) return null;
          const step = steps.findLast((one) => one.at <= at);
          const { survival, low, high } = step ?? { survival: 1, low: 1, high: 1 };
          return { at, survival, low, high };
        }),
      };
    })
    .filter(({ sensors }) => sensors >= fewestInGroup)
    .sort((a, b) => b.sensors - a.sensors);
}

/** The shop's own curve, where enough of its sensors ended to tell one. */
export const ownCurve = ({ fit }: Pick<SensorLives, 'fit'>): LifeCurve | undefined =>
  fit && fit.ended >= endsForOwnCurve.value
    ? { shape: fit.shape, scaleYears: fit.scale, ended: fit.ended }
    : undefined;
