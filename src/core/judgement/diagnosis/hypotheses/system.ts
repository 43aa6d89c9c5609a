import { methodOf } from '../../../relearn/method';
import { isRightType } from '../../../sensor/type';
import { spareOn } from '../../../job/spare';
import { roadWheels } from '../../../names/wheel';
import type { CarEvidence, Context, PositionEvidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import type { Priors } from '../learning';
import { causeIndex } from './wheel-state';

/** What was seen of a wheel that speaks of the whole set. */
export type SetSeen = Pick<WheelEvidence, 'replies' | 'misses'>;
/** All that the ways the car can be rest on. */
interface SystemSeen {
  context: Context;
  wheels: readonly SetSeen[];
  positions: readonly Pick<PositionEvidence, 'held' | 'heardDriving'>[];
  car: CarEvidence;
}

/** One way the car as a whole can be. */
export interface System {
  /** Prior times the likelihood of what was seen of the car as a whole, but for the lamp. */
  weight: number;
  receiverFault: boolean;
  /** A relearn is done, and the car has not heard the sensors since. */
  pending: boolean;
  /** All tires went with the temperature since the last fill. */
  cooled: boolean;
  otherSet: readonly string[] | undefined;
  /** Which of the sets on file that is, counted from 1; 0: none. */
  otherSetNumber: number;
  /** The IDs of a set on file that is the one on the car, and which that is. */
  mounted: readonly string[] | undefined;
  mountedNumber: number;
  /** What is on the car: its own sensors, or a whole set of wheels that the car cannot hear for one reason. */
  set: WheelSet;
  driveQuality: number;
  baselineNotSet: boolean;
  wheelSpeedFault: boolean;
  /** The worst cause the car itself gives the lamp. */
  cause: number;
  /** Which sensors are on, which the car holds and whether it hears any, in one number: those alike in that have the same. */
  kind: number;
}

/** The car hears no sensor at all. */
export const isDeaf = ({ receiverFault, pending }: Pick<System, 'receiverFault' | 'pending'>): boolean =>
  receiverFault || pending;

const kindOf = (system: System): number =>
  ((system.otherSetNumber * (mostSets + 1) + system.mountedNumber) * wheelSets.length +
    wheelSets.indexOf(system.set)) *
    2 +
  Number(isDeaf(system));

/** Whole-set causes: all wheels alike, for one reason. `own-unheard`: the car's own, and it is the tool that wakes none. */
export const wheelSets = ['own', 'own-unheard', 'not-learned', 'without-sensors', 'another-family'] as const;
export type WheelSet = (typeof wheelSets)[number];

const usual: System = {
  weight: 1,
  receiverFault: false,
  pending: false,
  cooled: false,
  otherSet: undefined,
  otherSetNumber: 0,
  mounted: undefined,
  mountedNumber: 0,
  set: 'own',
  driveQuality: 1,
  baselineNotSet: false,
  wheelSpeedFault: false,
  cause: causeIndex.nothing,
  kind: 0,
};

/** All ways the car can be: every combination of what may be the matter with it. What nothing speaks of is left out. */
export function systemsOf(evidence: SystemSeen, priors: Priors): System[] {
  const { context, car } = evidence;
  // Where the small spare is on, a sensor is missed: that alone may light the lamp.
  const isMissed = spareOn(context.job) !== undefined && context.monitored.length < sensorsOf(context.job);
  let systems: System[] = [isMissed ? { ...usual, cause: causeIndex.malfunction } : { ...usual }];
  const split = (ways: readonly { share: number; way?: Partial<System> }[]) => {
    systems = systems.flatMap((system) =>
      ways.map(({ share, way }): System => {
        const cause = Math.max(system.cause, way?.cause ?? 0);
        return { ...system, ...way, weight: system.weight * share, cause };
      }),
    );
  };
  const either = (chance: number, way: Partial<System>) =>
    split([{ share: 1 - chance }, { share: chance, way }]);

  if (coolingExplains(context)) either(model.faults.car.wentWithTheCold, { cooled: true });
  switch (context.job.vehicle.tpms.kind) {
    case 'direct': {
      const malfunction = causeIndex.malfunction;
      either(priors.of['receiver-fault'], { receiverFault: true, cause: malfunction });
      const pending = pendingPrior(car);
      if (pending > 0) either(pending, { pending: true, cause: malfunction });
      const sets = setsOf(evidence, priors);
      const own = 1 - sets.reduce((sum, { share }) => sum + share, 0);
      split([{ share: own }, ...sets]);
      if (car.reception.length > 0) {
        split(
          model.reception.drives.map(({ quality, share }) => ({ share, way: { driveQuality: quality } })),
        );
      }
      break;
    }
    case 'indirect':
      either(baselinePrior(context, car, priors), { baselineNotSet: true, cause: indirectCause.baseline });
      either(priors.of['wheel-speed-sensor-fault'], {
        wheelSpeedFault: true,
        cause: indirectCause['wheel-speed'],
      });
      break;
    case 'none':
      break;
  }
  for (const system of systems) {
    system.weight *= carFactor(system, car);
    system.kind = kindOf(system);
  }
  return systems;
}

/** So many wheels of the car should have a sensor. */
const sensorsOf = ({ vehicle: { tpms } }: Context['job']): number =>
  tpms.kind === 'direct' ? (tpms.positions ?? roadWheels).length : 0;

/** The fall in temperature since the last fill takes a noticeable part of a tire's pressure. */
const coolingExplains = ({ cooledToKPa }: Context): boolean => cooledToKPa.some((kPa) => kPa !== undefined);

/** How likely the car has not yet heard its sensors since the last relearn. */
function pendingPrior({ relearn, relearnIsOld }: CarEvidence): number {
  if (relearnIsOld)
    return relearn?.outcome === 'failed' || relearn?.method === 'reset' ? 0 : model.faults.car.pendingLater;
  if (!relearn || relearn.outcome === 'failed' || relearn.method === 'reset') return 0;
  if (relearn.outcome === 'waiting-for-drive') return model.faults.car.pendingWhenSaid;
  return methodOf(relearn.method).sendsIds
    ? model.faults.car.pendingAfterWrite
    : model.faults.car.pendingAfterLearn;
}

/** Wheel sets on file that are not on the car: those none of whose sensors was heard. Each keeps its number. */
function otherSetsOf({ context, wheels }: SystemSeen): { ids: string[]; number: number }[] {
  const heard = new Set(wheels.flatMap(({ replies }) => replies.map(({ id }) => id)));
  const away = context.otherSets;
  // Where a set that was put away is on the car, what the records call the car's own is the other one.
  const own = away.some((set) => set.some((id) => heard.has(id))) ? context.records.map(({ id }) => id) : [];
  return [own, ...away.slice(0, mostSets)]
    .map((ids, at) => ({ ids, number: at + 1 }))
    .filter(({ ids }) => ids.length > 0 && !ids.some((id) => heard.has(id)));
}

/** Sets on file that may be the one on the car: the car holds one of their IDs. */
const mountedSets = (evidence: SystemSeen): { ids: string[]; number: number }[] =>
  evidence.context.otherSets
    .slice(0, mostSets)
    .map((ids, at) => ({ ids, number: at + 1 }))
    .map((set) => ({ ...set, count: heldOf(set.ids, evidence) }))
    .filter(({ count }) => count > 0)
    .sort((a, b) => b.count - a.count)
    .slice(0, mostMounted);

/** How many positions hold an ID of this set. */
const heldOf = (ids: readonly string[], { positions }: SystemSeen): number =>
  positions.filter(({ held }) => held != null && ids.includes(held)).length;

/** Of sets that the car holds in part no more than these can be the one on it. */
const mostMounted = 2;

/**
 * The whole-set causes that nothing seen rules out, each with its chance: a sensor that the car holds, or has heard, is
 * of a set that was learned; one that answers is there; and one of the car's own kind is no other family's.
 */
function wholeSets(
  { context, wheels, positions, car }: SystemSeen,
  priors: Priors,
): { set: WheelSet; share: number }[] {
  const held = new Set(positions.map((position) => position.held));
  const replies = wheels.flatMap((wheel) => wheel.replies);
  const tried = wheels.filter(({ misses }) => misses.length > 0).length;
  // A lamp that flashes says that the car misses them too.
  const isCalm = car.lamp?.state === 'off' || car.lamp?.state === 'steady';
  const unheard =
    isCalm && replies.length === 0 && tried >= leastSilent
      ? [{ set: 'own-unheard' as const, share: model.answers.toolWakesNone }]
      : [];
  const isKnown =
    positions.some(({ heardDriving }) => heardDriving) || replies.some(({ id }) => held.has(id));
  if (isKnown) return unheard;
  const ofFamily = replies.some((reply) => isRightType(context.job.vehicle.tpms, reply) === true);
  const whole = wheelSets.flatMap((set) => {
    if (set === 'own' || set === 'own-unheard') return [];
    const isRuledOut =
      (set === 'without-sensors' && replies.length > 0) || (set === 'another-family' && ofFamily);
    return isRuledOut ? [] : [{ set, share: priors.wholeSet[set] }];
  });
  return [...unheard, ...whole];
}

/** From so many silent wheels on, and none that answered, the tool is asked about. */
const leastSilent = 3;

/** The sets that may be on the car, or held by it, beside its own; one or the other, each with its chance. */
function setsOf(evidence: SystemSeen, priors: Priors): { share: number; way: Partial<System> }[] {
  const held = otherSetsOf(evidence);
  const mounted = mountedSets(evidence);
  const changed = priors.of['other-set-registered'];
  const isOn = model.faults.car.filedSetIsOn * (1 - changed);
  return [
    ...held.map(({ ids, number }) => ({
      share: changed / held.length,
      way: { otherSet: ids, otherSetNumber: number },
    })),
    ...mounted.map(({ ids, number }) => ({
      share: isOn / mounted.length,
      way: { mounted: ids, mountedNumber: number },
    })),
    ...wholeSets(evidence, priors).map(({ share, set }) => ({ share, way: { set } })),
  ];
}

/** More sets than this no vehicle has on file. */
const mostSets = 4;

/** An indirect system stores its reference anew after work; a storing on record settles it. */
function baselinePrior(context: Context, { relearn, storedTooSoon }: CarEvidence, priors: Priors): number {
  if (storedTooSoon) return model.faults.indirect.baselineTooSoon;
  if (relearn?.method === 'reset' && relearn.outcome === 'done') return model.faults.indirect.baselineStored;
  if (relearn?.method === 'reset') return model.faults.indirect.baselineFailed;
  const filledNow = context.filledNow ? model.faults.indirect.baselineAfterWork : 0;
  return Math.max(priors.of['baseline-not-set'], filledNow);
}

/** Likelihood of the codes that are about the car as a whole. */
function carFactor(system: System, { codes, lamp }: CarEvidence): number {
  const chances = (about: 'receiver' | 'wheel-speed' | 'baseline', cause: boolean) => {
    const code = codes.find((candidate) => candidate.about === about);
    const { cause: there, none } = model.codes[about];
    return code ? (cause ? there : none) ** code.weight : 1;
  };
  const othersLit = lamp?.otherLamps && lamp.otherLamps.length > 0;
  const { fault, none } = model.indirectLamp.othersLit;
  const others =
    lamp?.otherLamps === undefined
      ? 1
      : othersLit
        ? system.wheelSpeedFault
          ? fault
          : none
        : system.wheelSpeedFault
          ? 1 - fault
          : 1 - none;
  return (
    chances('receiver', system.receiverFault) *
    chances('wheel-speed', system.wheelSpeedFault) *
    chances('baseline', system.baselineNotSet) *
    others
  );
}

/** Causes of an indirect system, in the places of the direct ones: each system has five rows, the worst last. */
export const indirectCause = {
  nothing: causeIndex.nothing,
  'odd-radius': causeIndex['between-on-and-off'],
  baseline: causeIndex.intermittent,
  low: causeIndex.low,
  'wheel-speed': causeIndex.malfunction,
} as const;
