import type { Reply } from '../../job';
import type { CarEvidence, Context, PositionEvidence, WheelEvidence } from '../evidence';
import { type System, type WheelSet, isDeaf } from '../hypotheses';
import type { Priors } from '../learning';
import {
  type Answers,
  type HearingAtMost,
  type Held,
  type SensorAssumptions,
  sensorAtMost,
  sensorStates,
} from '../likelihoods';
import { SensorSums } from './sensor-sums';

/** No less than what a sensor that gives no figures, and one that does, add up to. */
type SensorAtMost = ReturnType<typeof sensorAtMost>;

/** The sensor of a wheel, with one of its replies taken as its own, where the car has the wheel at one position. */
export interface SensorPlace {
  context: Context;
  wheel: WheelEvidence;
  position: PositionEvidence;
  /** Undefined: none of its replies. */
  own: Reply | undefined;
}

/** What a sensor is like in a set of wheels, and how it answers the tool. */
export interface InSet {
  priors: Priors;
  answers: Answers;
}

/** What several places of a sensor share. */
export interface SharedSums {
  hearing: HearingAtMost;
  held: (heldIsElsewhere: boolean, system: System) => Held;
  inSet: (set: WheelSet) => InSet;
  /** Numbers what was counted of its check-ins by content, from 1. */
  numberOf: (checkIns: NonNullable<SensorAssumptions['checkIns']>, driveQuality: number) => number;
}

/**
 * What a sensor at a place adds up to, in every way the car can be: at most, for little work, and all its states
 * summed. Worked out when first asked for.
 */
export class PlacedSensor {
  // By kind of system and whose the held ID is, in one number: maps of maps cost more than they spare here.
  private readonly most = new Map<number, SensorAtMost>();
  private mostOfAll: { systems: readonly System[]; most: SensorAtMost } | undefined;
  private readonly summed = new Map<number, SensorSums>();

  constructor(
    readonly at: SensorPlace,
    private readonly shared: SharedSums,
    /** The number, by content, of what the car shows at the position. */
    readonly shown: number,
  ) {}

  /** No less than the weight of its states. */
  atMost(heldIsElsewhere: boolean, system: System): SensorAtMost {
    const key = (system.kind << 1) | Number(heldIsElsewhere);
    let most = this.most.get(key);
    if (!most) {
      const { priors, answers } = this.shared.inSet(system.set);
      const held = this.shared.held(heldIsElsewhere, system);
      const assumed = { deaf: isDeaf(system), otherSet: system.otherSet };
      this.most.set(key, (most = sensorAtMost(priors, held, this.shared.hearing, assumed, answers)));
    }
    return most;
  }

  /** The same in any of these systems, whosever the held ID is. */
  atMostIn(systems: readonly System[]): SensorAtMost {
    if (this.mostOfAll?.systems === systems) return this.mostOfAll.most;
    const most = { silent: 0, alive: 0 };
    for (const system of systems) {
      const here = this.atMost(false, system);
      const elsewhere = this.atMost(true, system);
      most.silent = Math.max(most.silent, here.silent, elsewhere.silent);
      most.alive = Math.max(most.alive, here.alive, elsewhere.alive);
    }
    this.mostOfAll = { systems, most };
    return most;
  }

  sums(heldIsElsewhere: boolean, system: System, reception: CarEvidence['reception']): SensorSums {
    const checkIns = reception.length > 0 ? checkInsOf(this.at, reception) : undefined;
    const counted = checkIns ? this.shared.numberOf(checkIns, system.driveQuality) : 0;
    const key = (counted << 12) | (system.kind << 1) | Number(heldIsElsewhere);
    let sums = this.summed.get(key);
    if (!sums) this.summed.set(key, (sums = this.sum(heldIsElsewhere, system, reception)));
    return sums;
  }

  private sum(heldIsElsewhere: boolean, system: System, reception: CarEvidence['reception']): SensorSums {
    const { context, wheel, position } = this.at;
    const { priors, answers } = this.shared.inSet(system.set);
    const sums = new SensorSums();
    const assumed = assumptionsOf(this.at, heldIsElsewhere, system, reception);
    sensorStates(context, priors, wheel, position, assumed, sums, answers);
    return sums;
  }
}

/** What is assumed of a sensor at a place in one system. */
export function assumptionsOf(
  place: SensorPlace,
  heldIsElsewhere: boolean,
  system: System,
  reception: CarEvidence['reception'],
): SensorAssumptions {
  const { otherSet, mounted, driveQuality } = system;
  return {
    own: place.own,
    heldIsElsewhere,
    deaf: isDeaf(system),
    otherSet,
    mounted,
    driveQuality,
    checkIns: checkInsOf(place, reception),
  };
}

/** What was counted of its check-ins. A sensor nothing answered for has the ID the car holds there, else the one on record. */
function checkInsOf(
  { wheel, position, own }: SensorPlace,
  reception: CarEvidence['reception'],
): SensorAssumptions['checkIns'] {
  const id = own?.id ?? (wheel.replies.length === 0 ? (position.held ?? wheel.recordedId) : undefined);
  return id === undefined ? undefined : reception.find((counts) => counts.id === id);
}
