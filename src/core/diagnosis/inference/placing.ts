import { highestNormalDensity } from '../../normal';
import type { Evidence, PositionEvidence, WheelEvidence } from '../evidence';
import { type Assignment, bit, cooledKPa, type Emit, type System } from '../hypotheses';
import type { Priors } from '../learning';
import { codeFactor, type SensorAssumptions, tireStates, type TireAssumptions } from '../likelihoods';
import { model } from '../model';
import type { Accuracy } from './sensor-sums';

/** A wheel, taken to be at one position of the car, while the car is one way and the scans are read one way. */
export interface Placing {
  evidence: Evidence;
  place: number;
  position: PositionEvidence;
  assignment: Assignment;
  system: System;
}

/** What a code the car has stored, or has not, weighs. */
export interface CodeFactors {
  low: number;
  other: number;
}

/** What the codes weigh for a tire with these findings. */
export const factorOf = ({ low, other }: CodeFactors, findings: number): number =>
  (findings & bit['tire-low']) === 0 ? other : low;

/** The car has stored a code for low pressure here, or none: the factor for a low tire, and for another. */
export function lowCodeFactors({ position, heard }: Sensed): CodeFactors {
  return position
    ? {
        low: codeFactor(position, 'low-pressure', heard),
        other: codeFactor(position, 'low-pressure', false),
      }
    : { low: 1, other: 1 };
}

/** The most that any pressure could make of what the car shows at a position: the product of the highest densities. */
export function highestDensityOf({ shown }: PositionEvidence): number {
  let highest = 1;
  for (const { sdKPa } of shown)
    highest *= Math.max(highestNormalDensity(sdKPa ** 2), 1 / model.noise.anyKPa);
  return highest;
}

/** What a factor takes for granted about the sensor whose figures speak of its tire. */
export interface Sensed {
  position: PositionEvidence | undefined;
  replyKPa: number | undefined;
  system: System;
  accuracy: Accuracy;
  heard: boolean;
}

/** A tire of which no sensor says anything. */
export const bareTire = (system: System): Sensed => ({
  position: undefined,
  replyKPa: undefined,
  system,
  accuracy: 'sound',
  heard: false,
});

/** The states of a tire in a factor, with what the car shows of it where the car hears its sensor. */
export function tireStatesIn(
  evidence: Evidence,
  priors: Priors,
  place: number,
  sensed: Sensed,
  emit: Emit,
): void {
  const factors = lowCodeFactors(sensed);
  tireStates(
    wheelAt(evidence, place),
    tireAssumptions(evidence, priors, place, sensed),
    (weight, findings, cause) => {
      emit(weight * factorOf(factors, findings), findings, cause);
    },
  );
}

/** What is assumed of a tire while its sensor is taken to be so. */
export function tireAssumptions(
  { context }: Evidence,
  priors: Priors,
  place: number,
  { position, replyKPa, system, accuracy, heard }: Sensed,
): TireAssumptions {
  return {
    accuracy,
    cooled: system.cooled,
    cooledToKPa: cooledKPa(context, place),
    replyKPa,
    shown: heard && position ? position.shown : nothingShown,
    leakingPrior: priors.of['tire-leaking'],
  };
}

export const nothingShown: PositionEvidence['shown'] = [];

/** What is assumed of a wheel's sensor where the wheel is placed so. A sensor nothing answered for has the ID the car holds there, else the one on record. */
export function assumptionsOf({ evidence, place, position, assignment, system }: Placing): SensorAssumptions {
  const { wheels, car } = evidence;
  const { own } = assignment;
  const held = position.held ?? undefined;
  const reply = own[place];
  const unheard = wheels[place]?.replies.length === 0;
  const id = reply?.id ?? (unheard ? (held ?? wheels[place]?.recordedId) : undefined);
  return {
    own: reply,
    heldIsElsewhere: isElsewhere(held, place, assignment),
    deaf: isDeaf(system),
    otherSet: system.otherSet,
    mounted: system.mounted,
    driveQuality: system.driveQuality,
    checkIns: id === undefined ? undefined : car.reception.find((counts) => counts.id === id),
  };
}

/** The evidence of the wheel at a place in walking order; throws a RangeError where the car has none. */
export function wheelAt({ wheels }: Evidence, place: number): WheelEvidence {
  const wheel = wheels[place];
  if (!wheel) throw new RangeError(`no wheel ${place}`);
  return wheel;
}

/** The car hears no sensor at all. */
export const isDeaf = ({ receiverFault, pending }: System): boolean => receiverFault || pending;

/** The ID held at a position is that of another wheel's sensor. */
export const isElsewhere = (held: string | null | undefined, place: number, { own }: Assignment): boolean =>
  held != null && own.some((other, at) => at !== place && other?.id === held);

/** Whether anything at a position depends on the car hearing its sensor: where nothing does, deaf or not is one. */
export const speaksOfHearing = ({ shown, empty, battery, codes, noCodes }: PositionEvidence): boolean =>
  battery !== undefined || shown.length > 0 || empty.length > 0 || codes.length > 0 || noCodes;
