import type { Reply } from '../../../job';
import type { Evidence, PositionEvidence, WheelEvidence } from '../evidence';
import { bit, type Emit, type System } from '../hypotheses';
import type { Priors } from '../learning';
import { codeFactor, type Figures, tireStates, type TireAssumptions } from '../likelihoods';

/** What a code the car has stored, or has not, weighs. */
interface CodeFactors {
  low: number;
  other: number;
}

/** What the codes weigh for a tire with these findings. */
export const factorOf = ({ low, other }: CodeFactors, findings: number): number =>
  (findings & bit['tire-low']) === 0 ? other : low;

/** The car has stored a code for low pressure here, or none: the factor for a low tire, and for another. */
export function lowCodeFactors({ position, figures }: Sensed): CodeFactors {
  return position
    ? {
        low: codeFactor(position, 'low-pressure', figures === 'car'),
        other: codeFactor(position, 'low-pressure', false),
      }
    : { low: 1, other: 1 };
}

/** What a factor takes for granted about the sensor whose figures speak of its tire. */
export interface Sensed {
  position: PositionEvidence | undefined;
  replyKPa: number | undefined;
  system: System;
  figures: Figures;
}

/** A sensor reads as it should, or it is off. */
type Accuracy = TireAssumptions['accuracy'];

/** A tire of which no sensor says anything. */
export const bareTire = (system: System): Sensed => ({
  position: undefined,
  replyKPa: undefined,
  system,
  figures: 'none',
});

/** The states of a tire in a factor, with what the car shows of it where the car hears its sensor. */
export function tireStatesIn(
  evidence: Evidence,
  priors: Priors,
  place: number,
  sensed: Sensed,
  emit: Emit,
  accuracy: Accuracy = 'sound',
): void {
  const factors = lowCodeFactors(sensed);
  tireStates(
    wheelAt(evidence, place),
    tireAssumptions(evidence, priors, place, sensed, accuracy),
    (weight, findings, cause) => {
      emit(weight * factorOf(factors, findings), findings, cause);
    },
  );
}

/** What is assumed of a tire while its sensor is taken to be so, and to read like that. */
export function tireAssumptions(
  { context }: Evidence,
  priors: Priors,
  place: number,
  { position, replyKPa, system, figures }: Sensed,
  accuracy: Accuracy = 'sound',
): TireAssumptions {
  return {
    accuracy,
    cooled: system.cooled,
    cooledToKPa: context.cooledToKPa[place],
    replyKPa,
    shown: figures === 'car' && position ? position.shown : nothingShown,
    leakingPrior: priors.of['tire-leaking'],
  };
}

const nothingShown: PositionEvidence['shown'] = [];

/** The evidence of the wheel at a place in walking order; throws a RangeError where the car has none. */
export function wheelAt({ wheels }: Evidence, place: number): WheelEvidence {
  const wheel = wheels[place];
  if (!wheel) throw new RangeError(`no wheel ${place}`);
  return wheel;
}

/** The reply of a wheel that has this number in an assignment. */
export const ownReply = ({ replies }: WheelEvidence, number = 0): Reply | undefined => replies[number - 1];
