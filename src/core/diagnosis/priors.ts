import type { FindingCode } from '../assessment';
import type { Position } from '../wheel';
import type { Context } from './evidence';
import { historyMayMoveBy, type Experience } from './experience';
import { model } from './model';
import type { service as serviceFigures } from './model/service';
import type { Numbers } from './model/figure';

type Factors = Numbers<typeof serviceFigures.none>;

/** Chances before anything was seen, for this car: the model's, by the work done, the shop's own outcomes, and age. */
export interface Priors {
  absent: number;
  wrongType: number;
  inaccurate: number;
  intermittent: number;
  unregistered: number;
  mistyped: number;
  leaking: number;
  receiver: number;
  lampDark: number;
  moved: number;
  otherSet: number;
  baseline: number;
  wheelSpeedSensor: number;
  oddRadius: number;
  /** By the sensor's age in years. */
  battery: (ageYears: number | undefined) => { dead: number; ending: number };
}

/** What each of the model's faults is called when it is found: how a shop's outcomes find their prior. */
const codeOf = {
  absent: 'sensor-absent',
  wrongType: 'sensor-wrong-type',
  inaccurate: 'sensor-inaccurate',
  intermittent: 'sensor-intermittent',
  unregistered: 'id-not-registered',
  mistyped: 'id-mistyped',
  leaking: 'tire-leaking',
  receiver: 'receiver-fault',
  lampDark: 'system-disabled',
  moved: 'positions-swapped',
  otherSet: 'other-set-registered',
  baseline: 'baseline-not-set',
  wheelSpeedSensor: 'wheel-speed-sensor-fault',
  oddRadius: 'rolling-radius-off',
} as const satisfies Record<string, FindingCode>;

const faults = Object.keys(codeOf) as (keyof typeof codeOf)[];

const { wheel, tire, car, indirect } = model.faults;
/** By the model, for a part of no known age on a car with no work done lately. */
const plain: Record<keyof typeof codeOf, number> = {
  absent: wheel.absent,
  wrongType: wheel.wrongType,
  inaccurate: wheel.inaccurate,
  intermittent: wheel.intermittent,
  unregistered: wheel.unregistered,
  mistyped: wheel.mistyped,
  leaking: tire.leaking,
  receiver: car.receiver,
  lampDark: car.lampDark,
  moved: car.moved,
  otherSet: car.otherSet,
  baseline: indirect.baseline,
  wheelSpeedSensor: indirect.wheelSpeedSensor,
  oddRadius: indirect.oddRadius,
};

/** The model's chance of a fault of a plain part; undefined where the model has no such fault. */
export function plainChance(code: FindingCode): number | undefined {
  if (code === 'sensor-silent') return wheel.dead;
  if (code === 'sensor-battery-low') return wheel.batteryEnding;
  const fault = faults.find((name) => codeOf[name] === code);
  return fault && plain[fault];
}

export function priorsFor(context: Context, experience?: Experience): Priors {
  const { kind, hoursAgo } = context.job.service ?? { kind: 'none' as const, hoursAgo: undefined };
  const factors: Factors = model.service[kind];
  // Where nobody said how long ago it was, it was lately: that is what is asked for.
  const fresh = 0.5 ** ((hoursAgo ?? 0) / model.serviceHalfLifeHours);
  const by = (fault: keyof typeof codeOf, factor = 1, prior = plain[fault]) => {
    const learned = prior * historyMayMoveBy(codeOf[fault], prior, experience);
    const worked = learned * (1 + (factor - 1) * fresh);
    return factor === 1 ? worked : Math.min(worked, Math.max(learned, model.mostByService));
  };
  const changed = kind !== 'none' && kind !== 'sensor-replaced';
  const baseline = changed
    ? indirect.baseline + (indirect.baselineAfterWork - indirect.baseline) * fresh
    : indirect.baseline;
  return {
    absent: by('absent', factors.absent),
    wrongType: by('wrongType', factors.wrongType),
    inaccurate: by('inaccurate'),
    intermittent: by('intermittent'),
    unregistered: by('unregistered', factors.unregistered),
    mistyped: by('mistyped', factors.mistyped),
    leaking: by('leaking', factors.leaking),
    receiver: by('receiver'),
    lampDark: by('lampDark'),
    moved: by('moved', factors.moved),
    otherSet: by('otherSet', factors.otherSet),
    baseline: by('baseline', 1, baseline),
    wheelSpeedSensor: by('wheelSpeedSensor'),
    oddRadius: by('oddRadius', factors.oddRadius),
    battery: (ageYears) => {
      const { dead, ending } = batteryPriors(ageYears);
      const broken = dead * historyMayMoveBy('sensor-silent', wheel.dead, experience);
      const worked = broken * (1 + (factors.dead - 1) * fresh);
      return {
        dead: Math.min(worked, Math.max(broken, model.mostByService)),
        ending: ending * historyMayMoveBy('sensor-battery-low', wheel.batteryEnding, experience),
      };
    },
  };
}

/** The chance of a fault of one part of this car before anything was seen, by the model alone. */
export function chancesFor(context: Context): (code: FindingCode, wheel?: Position) => number {
  const priors = priorsFor(context);
  const others = context.job.otherSets ?? [];
  return (code, wheel) => {
    const battery = priors.battery(context.records.find((sensor) => sensor.wheel === wheel)?.ageYears);
    if (code === 'sensor-silent') return battery.dead;
    if (code === 'sensor-battery-low') return battery.ending;
    // Only a set on file can be the one the car holds.
    if (code === 'other-set-registered' && others.length === 0) return 0;
    const fault = faults.find((name) => codeOf[name] === code);
    return fault ? priors[fault] : 0;
  };
}

/** Dead and ending now, by age: the hazard of the survival curve times how long each state is driven with. */
function batteryPriors(ageYears: number | undefined): { dead: number; ending: number } {
  const { dead, batteryEnding } = model.faults.wheel;
  if (ageYears === undefined) return { dead, ending: batteryEnding };
  const { shape, scaleYears, drivenWithDeadYears, endsForYears, otherCauses, endsEarly, mostNow } =
    model.survival;
  const hazard = (shape / scaleYears) * (ageYears / scaleYears) ** (shape - 1);
  return {
    dead: Math.min(mostNow, otherCauses + 1 - Math.exp(-hazard * drivenWithDeadYears)),
    ending: Math.min(mostNow, endsEarly + 1 - Math.exp(-hazard * endsForYears)),
  };
}
