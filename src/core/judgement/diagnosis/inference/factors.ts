import type { CarEvidence, Evidence, PositionEvidence, WheelEvidence } from '../evidence';
import { Adder, type Assignment, type Sums, type System } from '../hypotheses';
import { priorsWith, type Priors } from '../learning';
import {
  type Answers,
  type Figures,
  type SensorAssumptions,
  answersOf,
  hearingParts,
  sensorParts,
  sensorStates,
  shownParts,
  tireParts,
  tireStates,
  turningStates,
} from '../likelihoods';
import { isDeaf } from '../hypotheses';
import { Contents, Memo } from './memo';
import {
  bareTire,
  lowCodeFactors,
  factorOf,
  ownReply,
  type Sensed,
  tireAssumptions,
  tireStatesIn,
  wheelAt,
} from './sensed-tire';
import { accumulate, type Factor, SensorSums } from './sensor-sums';

/**
 * The factors of the wheels: what all states of one add up to. Those that rest on the same are worked out once: most
 * serve again at another position, for another way the car can be, or when one observation is set aside.
 */
export class Factors {
  private readonly contents = new Contents();
  private readonly wheels = new Memo<readonly Factor[]>();
  private readonly factors = new Memo<Factor>();
  private readonly priorsIn = new Memo<Priors>();
  private readonly answers = new Memo<Answers>();
  private readonly sensors = new Memo<SensorSums>();
  private readonly tires = new Memo<Sums>();

  constructor(readonly priors: Priors) {}

  /** The factors of a wheel the lamp watches, its scan read one way: in a car of this kind, by the position it is taken to be at. */
  of(
    evidence: Evidence,
    { own, elsewhere }: Assignment,
    place: number,
  ): (system: System) => readonly Factor[] {
    const { positions, car } = evidence;
    // A wheel of an indirect system says how fast it turns, and stays where it is.
    if (positions.length === 0) return (system) => this.ofTurning(evidence, place, system);
    const wheel = wheelAt(evidence, place);
    const reply = own[place] ?? 0;
    const bits = elsewhere[place] ?? 0;
    const seen = [
      this.contents.of(wheel, sensorParts),
      this.contents.of(wheel, tireParts),
      this.contents.of(evidence, positionParts),
      this.contents.of(car, receptionParts),
      ...[reply, bits],
    ].join();
    return (system) =>
      this.wheels.get(`${seen},${system.kind},${Number(system.cooled)},${system.driveQuality}`, () =>
        positions.map((position, at) =>
          this.at({ evidence, place, wheel, position, reply, heldIsElsewhere: isBit(bits, at), system }),
        ),
      );
  }

  private at(sensed: SensorAt): Factor {
    const { evidence, wheel, position, reply, heldIsElsewhere, system } = sensed;
    const checkIns = checkInsOf(sensed, evidence.car.reception);
    const counted = checkIns ? `${checkIns.expected}/${checkIns.received}/${system.driveQuality}` : '';
    const ofSensor = `${this.contents.of(wheel, sensorParts)},${reply},${this.contents.of(position, hearingParts)},${Number(heldIsElsewhere)},${system.kind},${counted}`;
    const key = `${ofSensor},${this.contents.of(wheel, tireParts)},${Number(system.cooled)}`;
    return this.factors.get(key, () => {
      const sums = this.sensors.get(ofSensor, () => this.sensor(sensed, checkIns));
      return accumulate(sums.joinedWith((figures) => this.tire(sensed, figures)));
    });
  }

  /** The factor of a wheel of an indirect system. */
  private ofTurning(evidence: Evidence, place: number, system: System): readonly Factor[] {
    const wheel = wheelAt(evidence, place);
    const key = `turning,${this.contents.of(wheel, tireParts)},${this.contents.of(wheel, turningParts)},${Number(system.cooled)}`;
    return this.wheels.get(key, () => {
      const adder = new Adder();
      const add = turningStates(wheel, this.priors, adder.take);
      tireStatesIn(evidence, this.priors, place, bareTire(system), add);
      const factor = accumulate(adder.sums);
      return evidence.wheels.map(() => factor);
    });
  }

  /** The factor of a wheel the lamp does not watch: only its tire. */
  ofTire(evidence: Evidence, place: number, system: System): Factor {
    const wheel = wheelAt(evidence, place);
    const key = `alone,${this.contents.of(wheel, tireParts)},${Number(system.cooled)}`;
    return this.factors.get(key, () => {
      const adder = new Adder();
      tireStatesIn(evidence, this.priors, place, bareTire(system), (weight, findings) => {
        adder.take(weight, findings, 0);
      });
      return accumulate(adder.sums);
    });
  }

  private sensor(sensed: SensorAt, checkIns: SensorAssumptions['checkIns']): SensorSums {
    const { evidence, wheel, position, reply, system } = sensed;
    const { context } = evidence;
    const priors = this.priorsIn.get(system.set, () => priorsWith(this.priors, system.set));
    const key = `${this.contents.of(wheel, sensorParts)},${reply},${system.set}`;
    const answers = this.answers.get(key, () => {
      // Where it is the tool that wakes none, its silence says nothing of them.
      const seen = system.set === 'own-unheard' ? { ...wheel, misses: [], missedBefore: [] } : wheel;
      return answersOf(context, priors, seen, ownReply(wheel, reply));
    });
    const sums = new SensorSums();
    sensorStates(context, priors, wheel, position, assumptionsOf(sensed, checkIns), sums, answers);
    return sums;
  }

  /** The states of its tire, summed up by what the sensor's figures are to it. */
  private tire({ evidence, place, wheel, position, reply, system }: SensorAt, figures: Figures): Sums {
    const shown = this.contents.of(position, figures === 'car' ? shownParts : codeParts);
    const key = `${this.contents.of(wheel, tireParts)},${figures === 'none' ? 0 : reply},${shown},${Number(system.cooled)},${figures}`;
    return this.tires.get(key, () => {
      const replyKPa = figures === 'none' ? undefined : (ownReply(wheel, reply)?.kPa ?? undefined);
      const sensed: Sensed = { position, replyKPa, system, figures };
      const codes = lowCodeFactors(sensed);
      const adder = new Adder();
      for (const { accuracy, share } of this.accuraciesOf(figures))
        tireStates(
          wheel,
          tireAssumptions(evidence, this.priors, place, sensed, accuracy),
          (weight, findings, cause) => {
            adder.take(share * weight * factorOf(codes, findings), findings, cause);
          },
        );
      return adder.sums;
    });
  }

  /** How its sensor may read. One that is gone reads nothing, wrong or right. */
  private accuraciesOf(figures: Figures) {
    const off = figures === 'none' ? 0 : this.priors.of['sensor-inaccurate'];
    return [
      { accuracy: 'sound' as const, share: 1 - off },
      ...(off > 0 ? [{ accuracy: 'off' as const, share: off }] : []),
    ];
  }
}

/** The sensor of a wheel where the car has the wheel at one position. */
interface SensorAt {
  evidence: Evidence;
  place: number;
  wheel: WheelEvidence;
  position: PositionEvidence;
  /** Which of the replies is its own, from 1; 0: none of them. */
  reply: number;
  /** The ID held at the position is another wheel's. */
  heldIsElsewhere: boolean;
  system: System;
}

/** What is assumed of it. */
export function assumptionsOf(
  { wheel, reply, heldIsElsewhere, system }: SensorAt,
  checkIns: SensorAssumptions['checkIns'],
): SensorAssumptions {
  const { otherSet, mounted, driveQuality } = system;
  const own = ownReply(wheel, reply);
  return { own, heldIsElsewhere, deaf: isDeaf(system), otherSet, mounted, driveQuality, checkIns };
}

/** What was counted of its check-ins. A sensor nothing answered for has the ID the car holds there, else the one on record. */
export function checkInsOf(
  { wheel, position, reply }: Pick<SensorAt, 'wheel' | 'position' | 'reply'>,
  reception: CarEvidence['reception'],
): SensorAssumptions['checkIns'] {
  if (reception.length === 0) return undefined;
  const heard = ownReply(wheel, reply)?.id;
  const id = heard ?? (wheel.replies.length === 0 ? (position.held ?? wheel.recordedId) : undefined);
  return id === undefined ? undefined : reception.find((counts) => counts.id === id);
}

const codeParts = ['codes', 'noCodes'] as const;
const positionParts = ['positions'] as const;
const receptionParts = ['reception'] as const;
const turningParts = ['turns', 'signs'] as const;
const isBit = (bits: number, at: number): boolean => (bits & (1 << at)) !== 0;
