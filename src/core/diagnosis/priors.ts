import type { FindingCode } from '../assessment';
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

export function priorsFor(context: Context, experience?: Experience): Priors {
  const { kind, hoursAgo } = context.job.service ?? { kind: 'none' as const, hoursAgo: undefined };
  const factors: Factors = model.service[kind];
  // Where nobody said how long ago it was, it was lately: that is what is asked for.
  const fresh = 0.5 ** ((hoursAgo ?? 0) / model.serviceHalfLifeHours);
  const { wheel, tire, car, indirect } = model.faults;
  const by = (prior: number, fault: keyof typeof codeOf, factor = 1) => {
    const learned = prior * historyMayMoveBy(codeOf[fault], prior, experience);
    const worked = learned * (1 + (factor - 1) * fresh);
    return factor === 1 ? worked : Math.min(worked, Math.max(learned, model.mostByService));
  };
  const changed = kind !== 'none' && kind !== 'sensor-replaced';
  const baseline = changed
    ? indirect.baseline + (indirect.baselineAfterWork - indirect.baseline) * fresh
    : indirect.baseline;
  return {
    absent: by(wheel.absent, 'absent', factors.absent),
    wrongType: by(wheel.wrongType, 'wrongType', factors.wrongType),
    inaccurate: by(wheel.inaccurate, 'inaccurate'),
    intermittent: by(wheel.intermittent, 'intermittent'),
    unregistered: by(wheel.unregistered, 'unregistered', factors.unregistered),
    mistyped: by(wheel.mistyped, 'mistyped', factors.mistyped),
    leaking: by(tire.leaking, 'leaking', factors.leaking),
    receiver: by(car.receiver, 'receiver'),
    lampDark: by(car.lampDark, 'lampDark'),
    moved: by(car.moved, 'moved', factors.moved),
    otherSet: by(car.otherSet, 'otherSet', factors.otherSet),
    baseline: by(baseline, 'baseline'),
    wheelSpeedSensor: by(indirect.wheelSpeedSensor, 'wheelSpeedSensor'),
    oddRadius: by(indirect.oddRadius, 'oddRadius', factors.oddRadius),
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

/** Dead and ending now, by age: the hazard of the survival curve times how long each state is driven with. */
function batteryPriors(ageYears: number | undefined): { dead: number; ending: number } {
  const { dead, batteryEnding } = model.faults.wheel;
  if (ageYears === undefined) return { dead, ending: batteryEnding };
  const { shape, scaleYears, drivenWithDeadYears, endsForYears, otherCauses } = model.survival;
  const hazard = (shape / scaleYears) * (ageYears / scaleYears) ** (shape - 1);
  return {
    dead: Math.min(0.6, otherCauses + 1 - Math.exp(-hazard * drivenWithDeadYears)),
    ending: Math.min(0.6, 0.002 + 1 - Math.exp(-hazard * endsForYears)),
  };
}
