import type { Reply } from '../../job';
import { Bounds, SensorBounds, TireBounds } from './bounds';
import { Contents, Memo, type Key } from './memo';
import type { Context, Evidence, PositionEvidence, WheelEvidence } from '../evidence';
import {
  Adder,
  type Emit,
  type Permutation,
  type Sums,
  type System,
  type WheelSet,
  permutationsOf,
  totalOf,
} from '../hypotheses';
import { priorsWith, type Priors } from '../learning';
import {
  type Answers,
  type Figures,
  type Places,
  type SensorAssumptions,
  answersOf,
  keptFactor,
  placesOf,
  sensorStates,
  tireStates,
  turningStates,
} from '../likelihoods';
import {
  assumptionsOf,
  bareTire,
  factorOf,
  lowCodeFactors,
  nothingShown,
  type Placing,
  type Sensed,
  speaksOfHearing,
  tireAssumptions,
  tireStatesIn,
  wheelAt,
} from './placing';
import { accumulate, SensorSums, type Accuracy, type Factor } from './sensor-sums';

/**
 * Sums already worked out, by the content of the evidence they rest on: most of them serve again at another
 * position, for another way the car can be, or when one observation is set aside.
 */
export class Factors {
  private readonly contents = new Contents();
  private readonly bounds = new Memo<Bounds>();
  private readonly sensorBounds = new Memo<SensorBounds>();
  private readonly tireBounds = new Memo<TireBounds>();
  private readonly sensors = new Memo<SensorSums>();
  private readonly places = new Memo<Places>();
  private readonly tires = new Memo<Sums>();
  private readonly turning = new Memo<Factor>();
  private readonly alone = new Memo<Factor>();
  private readonly answers = new Memo<Answers>();
  private readonly bySet = new Map<WheelSet, Priors>();
  private orders: readonly Permutation[] | undefined;

  constructor(private readonly priors: Priors) {}

  permutations(context: Context): readonly Permutation[] {
    return (this.orders ??= permutationsOf(context, this.priors));
  }

  /** The factor of a wheel with a sensor. */
  ofSensor(placing: Placing): Factor {
    const { evidence, place, position, system } = placing;
    const assumed = assumptionsOf(placing);
    const reply = assumed.own?.kPa ?? undefined;
    const tire = (accuracy: Accuracy, figures: Figures) =>
      this.tire(evidence, place, {
        position,
        replyKPa: figures === 'none' ? undefined : reply,
        system,
        accuracy,
        heard: figures === 'car',
      });
    const sums = this.sensor(placing, assumed);
    const wheel = this.contents.ofTire(wheelAt(evidence, place));
    return sums.factors.get([wheel, this.contents.ofShown(position), system.cooled], () =>
      accumulate(sums.joinedWith(this.priors.of['sensor-inaccurate'], tire)),
    );
  }

  /** No less than the weights of the factors of a wheel whose own reply is this. */
  boundsOf(evidence: Evidence, place: number, own: Reply | undefined): Bounds {
    const wheel = wheelAt(evidence, place);
    const reply = replyNumber(wheel, own);
    const positions = this.contents.ofPositions(evidence.positions);
    const sensor = this.contents.ofSensor(wheel);
    const tire = this.contents.ofTire(wheel);
    return this.bounds.get([positions, sensor, tire, reply], () => {
      const sensors = evidence.positions.map((position) =>
        this.sensorBounds.get(
          [this.contents.ofHearing(position), this.contents.ofShown(position), sensor, reply],
          () => {
            return new SensorBounds(evidence.context, wheel, position, own, (set) => ({
              priors: this.priorsIn(set),
              answers: this.answersOf(evidence, place, own, set),
            }));
          },
        ),
      );
      const tires = this.tireBounds.get(
        [tire, reply],
        () => new TireBounds(this.priors, own, (bare) => totalOf(this.tire(evidence, place, bare))),
      );
      return new Bounds(sensors, tires);
    });
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

  private sensor(placing: Placing, assumed: SensorAssumptions): SensorSums {
    const { evidence, place, position } = placing;
    const wheel = wheelAt(evidence, place);
    return this.sensors.get(this.keyOfSensor(placing, assumed), () => {
      const sums = new SensorSums();
      const { set } = placing.system;
      const answers = this.answersOf(evidence, place, assumed.own, set);
      sensorStates(evidence.context, this.priorsIn(set), wheel, position, assumed, sums, answers);
      return sums;
    });
  }

  private answersOf(evidence: Evidence, place: number, own: Reply | undefined, set: WheelSet): Answers {
    const wheel = wheelAt(evidence, place);
    return this.answers.get([this.contents.ofSensor(wheel), replyNumber(wheel, own), set], () =>
      answersOf(evidence.context, this.priorsIn(set), wheel, own),
    );
  }

  private priorsIn(set: WheelSet): Priors {
    const known = this.bySet.get(set) ?? priorsWith(this.priors, set);
    this.bySet.set(set, known);
    return known;
  }

  /** All that the states of a sensor rest on. */
  private keyOfSensor(
    { evidence, place, position, system }: Placing,
    { own, heldIsElsewhere, deaf, checkIns }: SensorAssumptions,
  ): Key {
    const wheel = wheelAt(evidence, place);
    return [
      this.contents.ofHearing(position),
      this.contents.ofSensor(wheel),
      replyNumber(wheel, own),
      heldIsElsewhere,
      deaf && speaksOfHearing(position),
      system.otherSetNumber,
      system.mountedNumber,
      system.set,
      checkIns ? this.contents.ofCheckIns(checkIns, system.driveQuality) : 0,
    ];
  }

  private tire(evidence: Evidence, place: number, sensed: Sensed): Sums {
    const { position, heard, system, accuracy } = sensed;
    const shows = heard && position !== undefined && position.shown.length > 0;
    const shown = shows ? this.contents.ofShown(position) : 0;
    const wheel = wheelAt(evidence, place);
    const codes = lowCodeFactors(sensed);
    return this.tires.get(
      [
        this.contents.ofTire(wheel),
        shown,
        codes.low,
        codes.other,
        replyAt(wheel, sensed),
        system.cooled,
        accuracy,
      ],
      () => {
        const adder = new Adder();
        const assumed = tireAssumptions(evidence, this.priors, place, sensed);
        const places = shows
          ? this.shownPlaces(evidence, place, sensed, position)
          : this.plainPlaces(evidence, place, sensed);
        const add: Emit = (weight, findings, cause) => {
          adder.add(weight * factorOf(codes, findings), findings, cause);
        };
        tireStates(wheel, assumed, add, places);
        return adder.sums;
      },
    );
  }

  /** Where a tire's pressure lies by itself and by its own reply: the same whether or not all went with the cold. */
  private plainPlaces(evidence: Evidence, place: number, sensed: Sensed): Places {
    const wheel = wheelAt(evidence, place);
    return this.places.get([this.contents.ofTire(wheel), 0, replyAt(wheel, sensed), sensed.accuracy], () =>
      placesOf(wheel, {
        ...tireAssumptions(evidence, this.priors, place, sensed),
        shown: nothingShown,
      }),
    );
  }

  /** The same by what the car shows of it too: that is of this visit, or it was kept from before and says nothing. */
  private shownPlaces(evidence: Evidence, place: number, sensed: Sensed, position: PositionEvidence): Places {
    const wheel = wheelAt(evidence, place);
    return this.places.get(
      [this.contents.ofTire(wheel), this.contents.ofShown(position), replyAt(wheel, sensed), sensed.accuracy],
      () => {
        const plain = this.plainPlaces(evidence, place, sensed);
        const assumed = tireAssumptions(evidence, this.priors, place, sensed);
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

/** The place of a reply among those of its wheel, from 1; 0: none. */
const replyNumber = ({ replies }: WheelEvidence, reply: Reply | undefined): number =>
  reply ? replies.indexOf(reply) + 1 : 0;

/** Which reply the sensor's own figure of its tire stands in; -1: it has none. */
const replyAt = ({ replies }: WheelEvidence, { replyKPa }: Sensed): number =>
  replyKPa === undefined ? -1 : replies.findIndex(({ kPa }) => kPa === replyKPa);
