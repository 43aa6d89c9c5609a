import type { Service } from '../job';
import type { Chance } from './chance';

/**
 * How cars really are, in a population of ours: figures of its own, of another shape than the engine's, and
 * pushed off further by a factor each, so that the engine is judged by a world it does not know. All of it
 * is invented.
 */
export const world = {
  wheel: {
    dead: 0.022,
    deadPerYearOver6: 0.03,
    absent: 0.005,
    wrongType: 0.004,
    inaccurate: 0.013,
    intermittent: 0.014,
    ending: 0.02,
    unregistered: 0.006,
    mistyped: 0.002,
    leaking: 0.04,
    low: 0.03,
    slack: 0.3,
    over: 0.05,
  },
  car: {
    receiver: 0.006,
    lampDark: 0.004,
    moved: 0.012,
    otherSetOnFile: 0.3,
    otherSetHeld: 0.04,
    cold: 0.35,
  },
  indirect: { baseline: 0.05, baselineAfterWork: 0.35, wheelSpeed: 0.012, odd: 0.012 },
  services: [
    { item: 'none', weight: 0.5 },
    { item: 'tires-fitted', weight: 0.16 },
    { item: 'rotation', weight: 0.12 },
    { item: 'wheels-swapped', weight: 0.09 },
    { item: 'sensor-replaced', weight: 0.08 },
    { item: 'repair', weight: 0.05 },
  ] satisfies { item: Service['kind']; weight: number }[],
  /** What the work does, as factors on the above. */
  work: {
    'tires-fitted': { dead: 3, leaking: 1.7, moved: 5, unregistered: 3 },
    rotation: { moved: 28 },
    'wheels-swapped': { absent: 8, unregistered: 4, moved: 9, otherSetHeld: 8, wrongType: 3 },
    'sensor-replaced': { wrongType: 9, unregistered: 24, mistyped: 14, dead: 1.5 },
    repair: { leaking: 2, dead: 1.5, moved: 2 },
    none: {},
  } as Record<Service['kind'], Partial<Record<string, number>>>,
  seen: {
    gaugeSd: 1.8,
    gaugeWildShare: 0.01,
    gaugeWildSd: 5,
    sensorSd: 2.3,
    answers: 0.93,
    answersAgain: 0.78,
    neighbour: 0.025,
    objectInLeak: 0.35,
    codeIfUnheard: 0.55,
    codeIfHeard: 0.008,
    missedDriving: 0.03,
    flaggedEnding: 0.75,
    lampSaysMalfunction: 0.8,
    lampSaysLow: 0.82,
    lampSaysIntermittent: 0.38,
    lampSaysBaseline: 0.55,
    lampFalse: 0.03,
  },
  /** Cars whose lamp is off come in for other work: so many of them are looked at. */
  lookedAtWithLampOff: 0.3,
} as const;

/** One car's own luck: every figure of the world off by up to this factor, anew for each block of cars. */
const mostOff = 1.5;

/** A factor for each figure that asks, drawn once: between 1/1.5 and 1.5, evenly in its logarithm. */
export function pushedOff(chance: Chance): (figure: string) => number {
  const factors = new Map<string, number>();
  return (figure) => {
    let factor = factors.get(figure);
    if (factor === undefined) {
      factor = mostOff ** chance.between(-1, 1);
      factors.set(figure, factor);
    }
    return factor;
  };
}
