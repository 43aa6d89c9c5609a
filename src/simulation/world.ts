import type { Service } from '../core/job';
import type { Befell } from './befell';
import type { Chance } from './chance';

/**
 * How cars really are, in populations of ours: figures of their own, of another shape than the engine's, and pushed off
 * further by a factor each, so that the engine is judged by a world it does not know. All of it is invented. What the
 * engine's stakes and chances were chosen by is the one world; what is reported of it comes from the other, whose figures
 * nobody looked at while choosing.
 */
const fitting = {
  wheel: {
    dead: 0.022,
    deadPerYearOver6: 0.03,
    absent: 0.005,
    wrongType: 0.004,
    inaccurate: 0.013,
    /** Of those that read wrong: they say the same whatever the tire stands at. */
    stuck: 0.3,
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
    /** Just driven in: the tires are warm. */
    drivenIn: 0.25,
  },
  indirect: { baseline: 0.05, baselineAfterWork: 0.35, wheelSpeed: 0.012, odd: 0.012 },
  services: [
    { item: 'none', weight: 0.5 },
    { item: 'tires-fitted', weight: 0.16 },
    { item: 'rotation', weight: 0.12 },
    { item: 'wheels-swapped', weight: 0.09 },
    { item: 'sensor-replaced', weight: 0.08 },
    { item: 'repair', weight: 0.05 },
  ] as { item: Service['kind']; weight: number }[],
  /** Chances that a whole set is on that the car does not hear, by why. */
  wholeSets: {
    none: { 'not-learned': 0.004, 'without-sensors': 0.003, 'another-family': 0.001 },
    'wheels-swapped': { 'not-learned': 0.12, 'without-sensors': 0.06, 'another-family': 0.02 },
    'sensor-replaced': { 'not-learned': 0.03, 'without-sensors': 0, 'another-family': 0.006 },
  },
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
};

export type World = typeof fitting & { befell?: Befell };
export const worldNames = [
  'fitting',
  'reporting',
  'plain',
  'fitting-befallen',
  'reporting-befallen',
] as const;
export type WorldName = (typeof worldNames)[number];

const reporting: World = {
  wheel: {
    dead: 0.027,
    deadPerYearOver6: 0.024,
    absent: 0.004,
    wrongType: 0.005,
    inaccurate: 0.017,
    /** Of those that read wrong: they say the same whatever the tire stands at. */
    stuck: 0.4,
    intermittent: 0.011,
    ending: 0.025,
    unregistered: 0.007,
    mistyped: 0.003,
    leaking: 0.033,
    low: 0.04,
    slack: 0.26,
    over: 0.06,
  },
  car: {
    receiver: 0.008,
    lampDark: 0.003,
    moved: 0.015,
    otherSetOnFile: 0.4,
    otherSetHeld: 0.03,
    cold: 0.45,
    /** Just driven in: the tires are warm. */
    drivenIn: 0.4,
  },
  indirect: { baseline: 0.04, baselineAfterWork: 0.42, wheelSpeed: 0.015, odd: 0.01 },
  services: [
    { item: 'none', weight: 0.45 },
    { item: 'tires-fitted', weight: 0.2 },
    { item: 'rotation', weight: 0.12 },
    { item: 'wheels-swapped', weight: 0.09 },
    { item: 'sensor-replaced', weight: 0.08 },
    { item: 'repair', weight: 0.05 },
  ] as { item: Service['kind']; weight: number }[],
  /** Chances that a whole set is on that the car does not hear, by why. */
  wholeSets: {
    none: { 'not-learned': 0.003, 'without-sensors': 0.004, 'another-family': 0.0005 },
    'wheels-swapped': { 'not-learned': 0.18, 'without-sensors': 0.04, 'another-family': 0.03 },
    'sensor-replaced': { 'not-learned': 0.02, 'without-sensors': 0, 'another-family': 0.008 },
  },
  /** What the work does, as factors on the above. */
  work: {
    'tires-fitted': { dead: 3.6, leaking: 1.5, moved: 4, unregistered: 2.5 },
    rotation: { moved: 22 },
    'wheels-swapped': { absent: 8, unregistered: 4, moved: 9, otherSetHeld: 8, wrongType: 3 },
    'sensor-replaced': { wrongType: 9, unregistered: 24, mistyped: 14, dead: 1.5 },
    repair: { leaking: 2, dead: 1.5, moved: 2 },
    none: {},
  } as Record<Service['kind'], Partial<Record<string, number>>>,
  seen: {
    gaugeSd: 1.5,
    gaugeWildShare: 0.015,
    gaugeWildSd: 5,
    sensorSd: 2,
    answers: 0.95,
    answersAgain: 0.82,
    neighbour: 0.03,
    objectInLeak: 0.3,
    codeIfUnheard: 0.6,
    codeIfHeard: 0.006,
    missedDriving: 0.025,
    flaggedEnding: 0.65,
    lampSaysMalfunction: 0.76,
    lampSaysLow: 0.86,
    lampSaysIntermittent: 0.42,
    lampSaysBaseline: 0.6,
    lampFalse: 0.025,
  },
  /** Cars whose lamp is off come in for other work: so many of them are looked at. */
  lookedAtWithLampOff: 0.35,
};

/** The one it was fitted to, without stuck sensors, whole sets and warm tires: to hold against runs from before there were any. */
const plain: World = {
  ...fitting,
  wheel: { ...fitting.wheel, stuck: 0 },
  car: { ...fitting.car, drivenIn: 0 },
  wholeSets: {
    none: { 'not-learned': 0, 'without-sensors': 0, 'another-family': 0 },
    'wheels-swapped': { 'not-learned': 0, 'without-sensors': 0, 'another-family': 0 },
    'sensor-replaced': { 'not-learned': 0, 'without-sensors': 0, 'another-family': 0 },
  },
};

/**
 * Either world once more, where leaks began since the tires were last read, low tires were filled on the way, gauges are
 * off and small spares are on.
 */
const befallen = {
  fitting: { readBefore: 0.5, filledOnTheWay: 0.25, gaugeOff: 0.02, spareOn: 0.008 },
  reporting: { readBefore: 0.6, filledOnTheWay: 0.3, gaugeOff: 0.03, spareOn: 0.012 },
};

export const worlds: Readonly<Record<WorldName, World>> = {
  fitting,
  reporting,
  plain,
  'fitting-befallen': { ...fitting, befell: befallen.fitting },
  'reporting-befallen': { ...reporting, befell: befallen.reporting },
};

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
