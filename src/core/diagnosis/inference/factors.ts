import type { Reply } from '../../job';
import { Contents, Memo } from './memo';
import type { Context, Evidence, PositionEvidence, WheelEvidence } from '../evidence';
import {
  Adder,
  type Assignment,
  type Emit,
  type Permutation,
  type Sums,
  type System,
  type WheelSet,
  assignmentsOf,
  heardNothing,
  permutationsOf,
  systemsOf,
} from '../hypotheses';
import { priorsWith, type Priors } from '../learning';
import {
  type HearingAtMost,
  type Held,
  type Places,
  answersOf,
  hearingAtMost,
  heldFactors,
  keptFactor,
  placesOf,
  tireStates,
  tireWeight,
  turningStates,
} from '../likelihoods';
import { PlacedSensor, type InSet, type SensorPlace, type SharedSums } from './placed-sensor';
import { PlacedTire } from './placed-tire';
import { PlacedWheel } from './placed-wheel';
import {
  type Accuracy,
  bareTire,
  factorOf,
  highestDensityOf,
  lowCodeFactors,
  nothingShown,
  ownReply,
  type Sensed,
  tireAssumptions,
  tireStatesIn,
  wheelAt,
} from './sensed-tire';
import { accumulate, type Factor } from './sensor-sums';

/** Every way to read the scans, and every way the car can be. */
export interface Alternatives {
  assignments: readonly Assignment[];
  systems: readonly System[];
}

/**
 * Sums already worked out, by the content of the evidence they rest on: most of them serve again at another
 * position, for another way the car can be, or when one observation is set aside.
 */
export class Factors {
  private readonly contents = new Contents();
  private readonly wheels = new Memo<PlacedWheel>();
  private readonly sensors = new Memo<PlacedSensor>();
  private readonly placedTires = new Memo<PlacedTire>();
  private readonly places = new Memo<Places>();
  private readonly tires = new Memo<Sums>();
  private readonly turning = new Memo<Factor>();
  private readonly alone = new Memo<Factor>();
  private readonly sets = new Memo<Map<WheelSet, InSet>>();
  private readonly hearings = new WeakMap<PositionEvidence, HearingAtMost>();
  private readonly held = new Memo<Memo<Held>>();
  private readonly assignments = new Memo<readonly Assignment[]>();
  private readonly systems = new Memo<readonly System[]>();
  private readonly bySet = new Map<WheelSet, Priors>();
  private orders: readonly Permutation[] | undefined;

  /** How a sensor that gives figures may read. */
  private readonly accuracies: readonly { accuracy: Accuracy; share: number }[];

  constructor(private readonly priors: Priors) {
    const off = priors.of['sensor-inaccurate'];
    this.accuracies = [
      { accuracy: 'sound', share: 1 - off },
      { accuracy: 'off', share: off },
    ];
  }

  permutations(context: Context): readonly Permutation[] {
    return (this.orders ??= permutationsOf(context, this.priors));
  }

  /** Every way to read the scans, and every way the car can be. */
  alternativesOf(evidence: Evidence): Alternatives {
    const { context, wheels, positions, car } = evidence;
    const direct = context.job.vehicle.tpms.kind === 'direct';
    const held = positions.map((position) => this.contents.ofHeld(position));
    const scans = wheels.map((wheel) => this.contents.ofScan(wheel));
    const sets = wheels.map((wheel) => this.contents.ofSet(wheel));
    const isHeardDriving = positions.some(({ heardDriving }) => heardDriving);
    return {
      assignments: this.assignments.get([...held, ...scans], () =>
        direct ? assignmentsOf(evidence, this.priors) : [heardNothing(wheels.length)],
      ),
      systems: this.systems.get([this.contents.ofCar(car), isHeardDriving, ...held, ...sets], () =>
        systemsOf(evidence, this.priors),
      ),
    };
  }

  /** A wheel with a sensor, with the reply of this number taken as its own; 0: none of them. */
  wheel(evidence: Evidence, place: number, reply = 0): PlacedWheel {
    const wheel = wheelAt(evidence, place);
    const own = ownReply(wheel, reply);
    const positions = this.contents.ofPositions(evidence.positions);
    const sensor = this.contents.ofSensor(wheel);
    const tire = this.contents.ofTire(wheel);
    return this.wheels.get([sensor, tire, reply, positions], () => {
      const sensors = evidence.positions.map((position) =>
        this.sensors.get(
          [sensor, reply, this.contents.ofHearing(position), this.contents.ofShown(position)],
          () => this.sensor({ context: evidence.context, wheel, position, own }),
        ),
      );
      const placedTire = this.placedTires.get(
        [tire, reply],
        () =>
          new PlacedTire(
            tire,
            own,
            (sensed) => this.tire(evidence, place, sensed),
            (sensed) => this.tireWeight(evidence, place, sensed),
          ),
      );
      return new PlacedWheel(sensors, placedTire);
    });
  }

  private sensor(at: SensorPlace): PlacedSensor {
    const shared: SharedSums = {
      hearing: this.hearingAt(at.position),
      held: this.heldAt(at),
      inSet: this.inSets(at),
      numberOf: (checkIns, driveQuality) => this.contents.ofCheckIns(checkIns, driveQuality),
    };
    return new PlacedSensor(at, shared, this.contents.ofShown(at.position));
  }

  /** The factor of a wheel of an indirect system. */
  ofTurning(evidence: Evidence, place: number, system: System): Factor {
    const wheel = wheelAt(evidence, place);
    return this.turning.get([this.contents.ofTurning(wheel), system.cooled], () => {
      const adder = new Adder();
      const add = turningStates(wheel, this.priors, (weight, findings, cause) => {
        adder.add(weight, findings, cause);
      });
      tireStatesIn(evidence, this.priors, place, bareTire(system), add);
      return accumulate(adder.sums);
    });
  }

  /** The factor of a wheel the lamp does not watch: only its tire. */
  ofTire(evidence: Evidence, place: number, system: System): Factor {
    const wheel = this.contents.ofTire(wheelAt(evidence, place));
    return this.alone.get([wheel, system.cooled], () => {
      const adder = new Adder();
      const add: Emit = (weight, findings) => {
        adder.add(weight, findings, 0);
      };
      tireStatesIn(evidence, this.priors, place, bareTire(system), add);
      return accumulate(adder.sums);
    });
  }

  private hearingAt(position: PositionEvidence): HearingAtMost {
    let known = this.hearings.get(position);
    if (!known) this.hearings.set(position, (known = hearingAtMost(position, highestDensityOf(position))));
    return known;
  }

  /** How well the ID held at a position goes with a wheel there: by whether it is another wheel's, and by the set on the car. */
  private heldAt({ context, wheel, position, own }: SensorPlace): SharedSums['held'] {
    const known = this.held.get([position.held, own?.id, wheel.recordedId], () => new Memo());
    return (heldIsElsewhere, { otherSet, otherSetNumber, mounted, mountedNumber }) =>
      known.get([otherSetNumber, mountedNumber, heldIsElsewhere], () =>
        heldFactors(context, wheel, position, { own, heldIsElsewhere, otherSet, mounted }),
      );
  }

  /** What a sensor is like in a set of wheels: the same wherever the car has it. */
  private inSets({ context, wheel, own }: SensorPlace): SharedSums['inSet'] {
    const known = this.sets.get([this.contents.ofSensor(wheel), replyNumber(wheel, own)], () => new Map());
    return (set) => {
      let inSet = known.get(set);
      if (!inSet) {
        const priors = this.priorsIn(set);
        // Where it is the tool that wakes none, its silence says nothing of them.
        const heard = set === 'own-unheard' ? { ...wheel, misses: [], missedBefore: [] } : wheel;
        known.set(set, (inSet = { priors, answers: answersOf(context, priors, heard, own) }));
      }
      return inSet;
    };
  }

  private priorsIn(set: WheelSet): Priors {
    let priors = this.bySet.get(set);
    if (!priors) this.bySet.set(set, (priors = priorsWith(this.priors, set)));
    return priors;
  }

  private tire(evidence: Evidence, place: number, sensed: Sensed): Sums {
    const { position, figures, system } = sensed;
    const shows = figures === 'car' && position !== undefined && position.shown.length > 0;
    const shown = shows ? this.contents.ofShown(position) : 0;
    const wheel = wheelAt(evidence, place);
    const codes = lowCodeFactors(sensed);
    return this.tires.get(
      [
        this.contents.ofTire(wheel),
        replyAt(wheel, sensed),
        codes.low,
        codes.other,
        shown,
        system.cooled,
        figures === 'none',
      ],
      () => {
        const adder = new Adder();
        for (const { accuracy, share } of this.accuraciesOf(sensed)) {
          const assumed = tireAssumptions(evidence, this.priors, place, sensed, accuracy);
          const places = shows
            ? this.shownPlaces(evidence, place, sensed, accuracy, position)
            : this.plainPlaces(evidence, place, sensed, accuracy);
          const add: Emit = (weight, findings, cause) => {
            adder.add(share * weight * factorOf(codes, findings), findings, cause);
          };
          tireStates(wheel, assumed, add, places);
        }
        return adder.sums;
      },
    );
  }

  /** What a tire weighs of which the car shows nothing. */
  private tireWeight(evidence: Evidence, place: number, sensed: Sensed): number {
    const wheel = wheelAt(evidence, place);
    let total = 0;
    for (const { accuracy, share } of this.accuraciesOf(sensed)) {
      const assumed = tireAssumptions(evidence, this.priors, place, sensed, accuracy);
      total += share * tireWeight(wheel, assumed, this.plainPlaces(evidence, place, sensed, accuracy));
    }
    return total;
  }

  /** How its sensor may read. One that is gone reads nothing, wrong or right. */
  private accuraciesOf({ figures }: Sensed): readonly { accuracy: Accuracy; share: number }[] {
    return figures === 'none' ? alwaysSound : this.accuracies;
  }

  /** Where a tire's pressure lies by itself and by its own reply: the same whether or not all went with the cold. */
  private plainPlaces(evidence: Evidence, place: number, sensed: Sensed, accuracy: Accuracy): Places {
    const wheel = wheelAt(evidence, place);
    return this.places.get([this.contents.ofTire(wheel), replyAt(wheel, sensed), accuracy, 0], () =>
      placesOf(wheel, {
        ...tireAssumptions(evidence, this.priors, place, sensed, accuracy),
        shown: nothingShown,
      }),
    );
  }

  /** The same by what the car shows of it too: that is of this visit, or it was kept from before and says nothing. */
  private shownPlaces(
    evidence: Evidence,
    place: number,
    sensed: Sensed,
    accuracy: Accuracy,
    position: PositionEvidence,
  ): Places {
    const wheel = wheelAt(evidence, place);
    return this.places.get(
      [this.contents.ofTire(wheel), replyAt(wheel, sensed), accuracy, this.contents.ofShown(position)],
      () => {
        const plain = this.plainPlaces(evidence, place, sensed, accuracy);
        const assumed = tireAssumptions(evidence, this.priors, place, sensed, accuracy);
        const kept = keptFactor(position.shown);
        const places = placesOf(wheel, { ...assumed, noneKept: true });
        places.forEach((shares, curve) => {
          const ofKept = plain[curve] ?? [];
          for (let at = 0; at < shares.length; at += 1)
            shares[at] = (shares[at] ?? 0) + kept * (ofKept[at] ?? 0);
        });
        return places;
      },
    );
  }
}

const alwaysSound = [{ accuracy: 'sound', share: 1 }] as const;

/** The place of a reply among those of its wheel, from 1; 0: none. */
const replyNumber = ({ replies }: WheelEvidence, reply: Reply | undefined): number =>
  reply ? replies.indexOf(reply) + 1 : 0;

/** Which reply the sensor's own figure of its tire stands in; -1: it has none. */
const replyAt = ({ replies }: WheelEvidence, { replyKPa }: Sensed): number =>
  replyKPa === undefined ? -1 : replies.findIndex(({ kPa }) => kPa === replyKPa);
