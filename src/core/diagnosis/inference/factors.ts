import type { Reply } from '../../job';
import { Contents, Memo, type Key } from './memo';
import type { Context, Evidence, PositionEvidence, WheelEvidence } from '../evidence';
import {
  Adder,
  type Emit,
  type Permutation,
  type Assignment,
  type Sums,
  type System,
  permutationsOf,
  totalOf,
} from '../hypotheses';
import type { Priors } from '../learning';
import {
  type Answers,
  type Figures,
  type Places,
  type SensorAssumptions,
  answersOf,
  keptFactor,
  placesOf,
  sensorAtMost,
  sensorStates,
  tireStates,
  turningStates,
} from '../likelihoods';
import {
  assumptionsOf,
  bareTire,
  factorOf,
  highestDensityOf,
  isDeaf,
  isElsewhere,
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
  private readonly rows = new Memo<AtMost>();
  private readonly sensors = new Memo<SensorSums>();
  private readonly places = new Memo<Places>();
  private readonly tires = new Memo<Sums>();
  private readonly turning = new Memo<Factor>();
  private readonly alone = new Memo<Factor>();
  private readonly answers = new Memo<Answers>();
  private readonly totals = new Memo<{ none: number; tool: number }>();
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

  /**
   * By position, no less than the weight of the factor of a wheel with a sensor, for less work: the most the sensor
   * can add up to, times the tire without what the car shows of it, times the most that any pressure could make
   * of that.
   */
  mostInRow(evidence: Evidence, place: number, assignment: Assignment, system: System): readonly number[] {
    const elsewhere = evidence.positions.map(({ held }) => isElsewhere(held, place, assignment));
    const own = assignment.own[place];
    const { silent, alive } = this.sensorAtMost(evidence, place, own, elsewhere, system);
    const { none, tool } = this.bareTotals(evidence, place, own, system);
    return silent.map((weight, at) => weight * none + (alive[at] ?? 0) * tool);
  }

  /** No less than the weight of the factor of a wheel whose own reply is this, at any position and in any system. */
  mostOf(evidence: Evidence, place: number, own: Reply | undefined, systems: readonly System[]): number {
    const anywhere = [false, true].map((is) => evidence.positions.map(() => is));
    let most = 0;
    for (const system of systems) {
      const { none, tool } = this.bareTotals(evidence, place, own, system);
      for (const elsewhere of anywhere) {
        const { silent, alive } = this.sensorAtMost(evidence, place, own, elsewhere, system);
        for (let at = 0; at < silent.length; at += 1)
          most = Math.max(most, (silent[at] ?? 0) * none + (alive[at] ?? 0) * tool);
      }
    }
    return most;
  }

  /** By position, no less than what a sensor that gives no figures, and one that does, add up to. */
  private sensorAtMost(
    evidence: Evidence,
    place: number,
    own: Reply | undefined,
    elsewhere: readonly boolean[],
    system: System,
  ): AtMost {
    const { positions, context } = evidence;
    const wheel = wheelAt(evidence, place);
    return this.rows.get(
      [
        this.contents.ofPositions(positions),
        this.contents.ofSensor(wheel),
        replyNumber(wheel, own),
        elsewhere.map(Number).join(''),
        isDeaf(system),
        system.otherSetNumber,
      ],
      () => {
        const answers = this.answersOf(evidence, place, own);
        const bounds = positions.map((position, at) => {
          const heldIsElsewhere = elsewhere[at] ?? false;
          const assumed = { own, heldIsElsewhere, deaf: isDeaf(system), otherSet: system.otherSet };
          const worth = highestDensityOf(position);
          return sensorAtMost(context, this.priors, wheel, position, assumed, worth, answers);
        });
        return { silent: bounds.map(({ silent }) => silent), alive: bounds.map(({ alive }) => alive) };
      },
    );
  }

  /** The weight of a tire without any figure of a sensor, and with that of its reply. */
  private bareTotals(
    evidence: Evidence,
    place: number,
    own: Reply | undefined,
    system: System,
  ): { none: number; tool: number } {
    const wheel = wheelAt(evidence, place);
    return this.totals.get([this.contents.ofTire(wheel), system.cooled, replyNumber(wheel, own)], () => {
      const of = (replyKPa: number | undefined, accuracy: Accuracy) =>
        totalOf(this.tire(evidence, place, { ...bareTire(system), replyKPa, accuracy }));
      const inaccurate = this.priors.of['sensor-inaccurate'];
      const reply = own?.kPa ?? undefined;
      const none = of(undefined, 'sound');
      // Without a figure, how well it reads weighs nothing.
      const tool =
        reply === undefined ? none : (1 - inaccurate) * of(reply, 'sound') + inaccurate * of(reply, 'off');
      return { none, tool };
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
      const answers = this.answersOf(evidence, place, assumed.own);
      sensorStates(evidence.context, this.priors, wheel, position, assumed, sums, answers);
      return sums;
    });
  }

  private answersOf(evidence: Evidence, place: number, own: Reply | undefined): Answers {
    const wheel = wheelAt(evidence, place);
    return this.answers.get([this.contents.ofSensor(wheel), replyNumber(wheel, own)], () =>
      answersOf(evidence.context, this.priors, wheel, own),
    );
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
      checkIns ? this.contents.ofCheckIns(checkIns, system.driveQuality) : 0,
    ];
  }

  private tire(evidence: Evidence, place: number, sensed: Sensed): Sums {
    const { position, heard } = sensed;
    const shows = heard && position !== undefined && position.shown.length > 0;
    const hasLowCode = position !== undefined && (position.noCodes || position.codes.length > 0);
    const wheel = wheelAt(evidence, place);
    const speaks = hasLowCode || shows;
    const shown = position && speaks ? this.contents.ofShown(position) : 0;
    return this.tires.get(
      [
        this.contents.ofTire(wheel),
        shown,
        replyAt(wheel, sensed),
        heard && speaks,
        sensed.system.cooled,
        sensed.accuracy,
      ],
      () => {
        const adder = new Adder();
        const assumed = tireAssumptions(evidence, this.priors, place, sensed);
        const places = shows
          ? this.shownPlaces(evidence, place, sensed, position)
          : this.plainPlaces(evidence, place, sensed);
        const factors = lowCodeFactors(sensed);
        const add: Emit = (weight, findings, cause) => {
          adder.add(weight * factorOf(factors, findings), findings, cause);
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

/** By position. */
interface AtMost {
  silent: readonly number[];
  alive: readonly number[];
}

/** The place of a reply among those of its wheel, from 1; 0: none. */
const replyNumber = ({ replies }: WheelEvidence, reply: Reply | undefined): number =>
  reply ? replies.indexOf(reply) + 1 : 0;

/** Which reply the sensor's own figure of its tire stands in; -1: it has none. */
const replyAt = ({ replies }: WheelEvidence, { replyKPa }: Sensed): number =>
  replyKPa === undefined ? -1 : replies.findIndex(({ kPa }) => kPa === replyKPa);
