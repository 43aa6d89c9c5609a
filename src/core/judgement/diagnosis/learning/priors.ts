import { commonness, faults, type Fault, type FindingCode } from '../../../catalogue/finding';
import { doneLately, type Service } from '../../../job';
import type { Position } from '../../../names/wheel';
import type { Context } from '../evidence';
import { historyMayMoveBy, type Experience } from './experience';
import { model } from '../model';

/** Chances before anything was seen, for this car: the catalogue's, by the work done, the shop's own outcomes, and age. */
export interface Priors {
  /** Of one part, or of the car where it has one: all but what goes by the age of the sensor. */
  of: Readonly<Record<Exclude<Fault, AgingFault>, number>>;
  /** That a whole set of wheels is on that the car does not hear, by why. */
  wholeSet: Readonly<Record<keyof typeof model.wholeSets.none, number>>;
  /** By the sensor's age in years. */
  battery: (ageYears: number | undefined) => { dead: number; ending: number };
}

type AgingFault = 'sensor-silent' | 'sensor-battery-low';

const isAging = (code: Fault): code is AgingFault =>
  code === 'sensor-silent' || code === 'sensor-battery-low';
const isFault = (code: FindingCode): code is Fault => (faults as readonly FindingCode[]).includes(code);
const plainFaults = faults.filter((code): code is Exclude<Fault, AgingFault> => !isAging(code));

/** The chance of a fault of a plain part; undefined for what is no fault of a part. */
export const plainChance = (code: FindingCode): number | undefined =>
  isFault(code) ? commonness(code).prior : undefined;

export function priorsFor(context: Context, experience?: Experience): Priors {
  const work = doneLately(context.job).map(({ kind, hoursAgo }) => ({
    kind,
    // Where nobody said how long ago it was, it was lately: that is what is asked for.
    fresh: 0.5 ** ((hoursAgo ?? 0) / model.serviceHalfLifeHours),
  }));
  /** By how much all that was done makes it likelier: what each adds, as of causes that are rare. */
  const factorOf = (after: (kind: Service['kind']) => number) =>
    work.reduce((factor, { kind, fresh }) => factor + (after(kind) - 1) * fresh, 1);
  const afterWork = (learned: number, factor: number) =>
    factor === 1 ? learned : Math.min(learned * factor, Math.max(learned, model.mostByService));
  const moved = (code: Fault) => historyMayMoveBy(code, commonness(code).prior, experience);
  const chance = (code: Fault): number => {
    const { prior, after } = commonness(code);
    const learned = prior * moved(code);
    const worked = afterWork(learned, factorOf(after));
    if (context.taught === 'no' || !settledByTeaching.has(code)) return worked;
    const left = learned + (worked - learned) * model.taught.leaves;
    return code === 'id-not-registered' && context.taught === 'unread'
      ? Math.max(left, model.taught.didNotTake)
      : left;
  };
  const of = Object.fromEntries(plainFaults.map((code) => [code, chance(code)])) as Priors['of'];
  const baseline = Math.max(
    baselineAfter('none', 0),
    ...work.map(({ kind, fresh }) => baselineAfter(kind, fresh)),
  );
  const taught = context.taught === 'no' ? 1 : model.taught.leaves;
  const ofSet = (why: keyof Priors['wholeSet'], left = 1) =>
    work.reduce(
      (chance, { kind, fresh }) =>
        chance + (model.wholeSets[setsWork(kind)][why] - model.wholeSets.none[why]) * fresh,
      model.wholeSets.none[why],
    ) * left;
  return {
    of: {
      ...of,
      'baseline-not-set': baseline * historyMayMoveBy('baseline-not-set', baseline, experience),
    },
    wholeSet: {
      'not-learned': ofSet('not-learned', taught),
      'without-sensors': ofSet('without-sensors'),
      'another-family': ofSet('another-family'),
    },
    battery: (ageYears) => {
      const { dead, ending } = batteryPriors(ageYears);
      const broken = dead * moved('sensor-silent');
      const worked = broken * factorOf(commonness('sensor-silent').after);
      return {
        dead: Math.min(worked, Math.max(broken, model.mostByService)),
        ending: ending * moved('sensor-battery-low'),
      };
    },
  };
}

/** The work that brings other wheels, or other sensors in all of them. */
const setsWork = (work: Service['kind']): Exclude<keyof typeof model.wholeSets, 'all'> =>
  work === 'wheels-swapped' || work === 'tires-fitted' || work === 'sensor-replaced' ? work : 'none';

/** The same car with a whole set of wheels on it: then what is the matter is the rule, wheel by wheel. */
export function priorsWith(priors: Priors, set: 'own' | 'own-unheard' | keyof Priors['wholeSet']): Priors {
  const { all } = model.wholeSets;
  switch (set) {
    case 'own':
    case 'own-unheard':
      return priors;
    case 'not-learned':
      return { ...priors, of: { ...priors.of, 'id-not-registered': all.share, 'id-mistyped': 0 } };
    case 'without-sensors':
      return { ...priors, of: { ...priors.of, 'sensor-absent': all.share } };
    case 'another-family':
      return {
        ...priors,
        of: {
          ...priors.of,
          'sensor-wrong-type': all.share,
          'id-not-registered': all.share,
          'id-mistyped': 0,
        },
      };
  }
}

/** What work makes likelier, and the relearn after it puts right. */
const settledByTeaching: ReadonlySet<Fault> = new Set([
  'id-not-registered',
  'id-mistyped',
  'positions-swapped',
  'other-set-registered',
]);

/** An indirect system wants its reference stored anew after any work on tires or wheels. */
function baselineAfter(work: NonNullable<Context['job']['service']>['kind'], fresh: number): number {
  const { prior } = commonness('baseline-not-set');
  const changed = work !== 'none' && work !== 'sensor-replaced';
  return changed ? prior + (model.faults.indirect.baselineAfterWork - prior) * fresh : prior;
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
    return isFault(code) && !isAging(code) ? priors.of[code] : 0;
  };
}

/** Dead and ending now, by age: the hazard of the survival curve times how long each state is driven with. */
function batteryPriors(ageYears: number | undefined): { dead: number; ending: number } {
  if (ageYears === undefined) {
    return { dead: commonness('sensor-silent').prior, ending: commonness('sensor-battery-low').prior };
  }
  const { shape, scaleYears, drivenWithDeadYears, endsForYears, otherCauses, endsEarly, mostNow } =
    model.survival;
  const hazard = (shape / scaleYears) * (ageYears / scaleYears) ** (shape - 1);
  return {
    dead: Math.min(mostNow, otherCauses + 1 - Math.exp(-hazard * drivenWithDeadYears)),
    ending: Math.min(mostNow, endsEarly + 1 - Math.exp(-hazard * endsForYears)),
  };
}
