import type { Reply } from '../job';
import { Contents, Memo } from './contents';
import type { Context, Evidence, PositionEvidence, WheelEvidence } from './evidence';
import { model } from './model';
import { highestNormalDensity } from './normal';
import type { Reading } from './own-ids';
import { positionMaps, type PositionMap } from './position-maps';
import type { Priors } from './priors';
import {
  answersOf,
  codeFactor,
  sensorAtMost,
  sensorStates,
  type Answers,
  type Figures,
  type SensorAssumptions,
} from './sensor-states';
import { accumulate, SensorSums, type Accuracy, type Cell } from './sensor-sums';
import { Adder, bit, totalOf, type Emit, type Sums, type Wanted } from './states';
import { cooledKPa, type System } from './systems';
import { keptFactor, placesOf, tireStates, type Places, type TireAssumptions } from './tire-states';
import { turningStates } from './turning-states';

/** A wheel, taken to be at one position of the car, while the car is one way and the scans are read one way. */
export interface Placing {
  evidence: Evidence;
  place: number;
  position: PositionEvidence;
  reading: Reading;
  system: System;
}

/**
 * Sums already worked out, by the content of the evidence they rest on: most of them serve again at another
 * position, for another way the car can be, or when one observation is set aside.
 */
export class Cells {
  private readonly contents = new Contents();
  private readonly sensors = new Memo<SensorSums>();
  private readonly places = new Memo<Places>();
  private readonly tires = new Memo<Sums>();
  private readonly alone = new Memo<Cell>();
  private readonly answers = new Memo<Answers>();
  private readonly bounds = new Memo<{ silent: number; alive: number }>();
  private readonly totals = new Memo<{ none: number; tool: number }>();
  private orders: readonly PositionMap[] | undefined;

  constructor(private readonly priors: Priors) {}

  maps(context: Context): readonly PositionMap[] {
    return (this.orders ??= positionMaps(context, this.priors));
  }

  /** The cell of a wheel with a sensor. */
  ofSensor(placing: Placing, wanted: Wanted): Cell {
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
    return sums.cells.get(wheel, this.contents.ofShown(position), Number(system.cooled), () =>
      accumulate(sums.joinedWith(this.priors.of['sensor-inaccurate'], wanted, tire), wanted),
    );
  }

  /**
   * No less than the weight of the cell of a wheel with a sensor, for less work: the most the sensor can add up
   * to, times the tire without what the car shows of it, times the most that any pressure could make of that.
   */
  mostAt(placing: Placing): number {
    const { evidence, place, position, reading, system } = placing;
    const bare = this.bareTotals(evidence, place, reading, system);
    const wheel = wheelAt(evidence, place);
    const assumed = assumptionsOf(placing);
    const { silent, alive } = this.bounds.get(
      this.contents.ofSensor(wheel),
      this.contents.ofPosition(position),
      this.restOfSensor(placing, assumed),
      () => {
        const worth = highestDensityOf(position);
        const answers = this.answersOf(placing, assumed);
        return sensorAtMost(evidence.context, this.priors, wheel, position, assumed, worth, answers);
      },
    );
    return silent * bare.none + alive * bare.tool;
  }

  /** The weight of a tire without any figure of a sensor, and with that of its reply. */
  private bareTotals(
    evidence: Evidence,
    place: number,
    reading: Reading,
    system: System,
  ): { none: number; tool: number } {
    const wheel = wheelAt(evidence, place);
    const own = reading.own[place];
    const rest = Number(system.cooled) | (replyNumber(wheel, own) << 1);
    return this.totals.get(this.contents.ofTire(wheel), 0, rest, () => {
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

  /** The cell of a wheel of an indirect system. */
  ofTurning(evidence: Evidence, place: number, system: System): Cell {
    const wheel = wheelAt(evidence, place);
    return this.alone.get(this.contents.ofTurning(wheel), 0, Number(system.cooled), () => {
      const adder = new Adder();
      const add = turningStates(wheel, this.priors, (weight, findings, cause) => {
        adder.add(weight, findings, cause);
      });
      tireStatesIn(evidence, this.priors, place, bareTire(system), add);
      return accumulate(adder.sums);
    });
  }

  /** The cell of a wheel the lamp does not watch: only its tire. */
  ofTire(evidence: Evidence, place: number, system: System): Cell {
    const wheel = this.contents.ofTire(wheelAt(evidence, place));
    return this.alone.get(wheel, 1, Number(system.cooled), () => {
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
    const rest = this.restOfSensor(placing, assumed);
    return this.sensors.get(this.contents.ofSensor(wheel), this.contents.ofHearing(position), rest, () => {
      const sums = new SensorSums();
      const answers = this.answersOf(placing, assumed);
      sensorStates(evidence.context, this.priors, wheel, position, assumed, sums, answers);
      return sums;
    });
  }

  private answersOf({ evidence, place }: Placing, { own }: SensorAssumptions): Answers {
    const wheel = wheelAt(evidence, place);
    return this.answers.get(this.contents.ofSensor(wheel), 0, replyNumber(wheel, own), () =>
      answersOf(evidence.context, this.priors, wheel, own),
    );
  }

  /** What the states of a sensor rest on beside the wheel and the position. */
  private restOfSensor({ evidence, place, position, system }: Placing, assumed: SensorAssumptions): number {
    const own = replyNumber(wheelAt(evidence, place), assumed.own);
    const counted = assumed.checkIns ? this.contents.ofCounts(assumed.checkIns) : 0;
    const quality = counted > 0 ? Math.round(system.driveQuality * 20) : 0;
    return (
      Number(assumed.heldIsElsewhere) |
      (Number(assumed.deaf && speaksOfHearing(position)) << 1) |
      (own << 2) |
      (system.otherSetNumber << 6) |
      (quality << 10) |
      (counted << 15)
    );
  }

  private tire(evidence: Evidence, place: number, sensed: Sensed): Sums {
    const { position, heard } = sensed;
    const shows = heard && position !== undefined && position.shown.length > 0;
    const hasLowCode = position !== undefined && (position.noCodes || position.codes.length > 0);
    const wheel = wheelAt(evidence, place);
    return this.tires.get(
      this.contents.ofTire(wheel),
      position && (hasLowCode || shows) ? this.contents.ofShown(position) : nowhere,
      (this.restOf(evidence, place, sensed) << 1) | Number(heard && (hasLowCode || shows)),
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
    return this.places.get(
      this.contents.ofTire(wheel),
      nowhere,
      this.restOf(evidence, place, sensed) >> 1,
      () =>
        placesOf(wheel, {
          ...tireAssumptions(evidence, this.priors, place, sensed),
          shown: nothingShown,
        }),
    );
  }

  /** … and by what the car shows of it: that is of this visit, or it was kept from before and says nothing. */
  private shownPlaces(evidence: Evidence, place: number, sensed: Sensed, position: PositionEvidence): Places {
    const wheel = wheelAt(evidence, place);
    const rest = this.restOf(evidence, place, sensed) >> 1;
    return this.places.get(this.contents.ofTire(wheel), this.contents.ofShown(position), rest, () => {
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
    });
  }

  private restOf(evidence: Evidence, place: number, { replyKPa, system, accuracy }: Sensed): number {
    const { replies } = wheelAt(evidence, place);
    const reply = replyKPa === undefined ? 0 : replies.findIndex(({ kPa }) => kPa === replyKPa) + 1;
    return Number(system.cooled) | (Number(accuracy === 'off') << 1) | (reply << 2);
  }
}

/** The place of a reply among those of its wheel, from 1; 0: none. */
const replyNumber = ({ replies }: WheelEvidence, reply: Reply | undefined): number =>
  reply ? replies.indexOf(reply) + 1 : 0;

interface CodeFactors {
  low: number;
  other: number;
}

const factorOf = ({ low, other }: CodeFactors, findings: number): number =>
  (findings & bit['tire-low']) === 0 ? other : low;

/** The car has stored a code for low pressure here, or none: the factor for a low tire, and for another. */
function lowCodeFactors({ position, heard }: Sensed): CodeFactors {
  return position
    ? {
        low: codeFactor(position, 'low-pressure', heard),
        other: codeFactor(position, 'low-pressure', false),
      }
    : { low: 1, other: 1 };
}

/** In place of the content of a position, where the position says nothing. */
const nowhere = 0;

/** The most that any pressure could make of what the car shows at a position: the product of the highest densities. */
function highestDensityOf({ shown }: PositionEvidence): number {
  let highest = 1;
  for (const { sdKPa } of shown)
    highest *= Math.max(highestNormalDensity(sdKPa ** 2), 1 / model.noise.anyKPa);
  return highest;
}

/** What a cell takes for granted about the sensor whose figures speak of its tire. */
export interface Sensed {
  position: PositionEvidence | undefined;
  replyKPa: number | undefined;
  system: System;
  accuracy: Accuracy;
  heard: boolean;
}

const bareTire = (system: System): Sensed => ({
  position: undefined,
  replyKPa: undefined,
  system,
  accuracy: 'sound',
  heard: false,
});

/** The states of a tire in a cell, with what the car shows of it where the car hears its sensor. */
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

function tireAssumptions(
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

const nothingShown: PositionEvidence['shown'] = [];

export function assumptionsOf({ evidence, place, position, reading, system }: Placing): SensorAssumptions {
  const { wheels, car } = evidence;
  const { own } = reading;
  const held = position.held ?? undefined;
  const reply = own[place];
  const unheard = wheels[place]?.replies.length === 0;
  const id = reply?.id ?? (unheard ? (held ?? wheels[place]?.recordedId) : undefined);
  return {
    own: reply,
    heldIsElsewhere: isElsewhere(held, place, reading),
    deaf: isDeaf(system),
    otherSet: system.otherSet,
    driveQuality: system.driveQuality,
    checkIns: id === undefined ? undefined : car.reception.find((counts) => counts.id === id),
  };
}

function wheelAt({ wheels }: Evidence, place: number): WheelEvidence {
  const wheel = wheels[place];
  if (!wheel) throw new RangeError(`no wheel ${place}`);
  return wheel;
}

/** The car hears no sensor at all. */
const isDeaf = ({ receiverFault, pending }: System): boolean => receiverFault || pending;

/** The ID held at a position is that of another wheel's sensor. */
const isElsewhere = (held: string | null | undefined, place: number, { own }: Reading): boolean =>
  held != null && own.some((other, at) => at !== place && other?.id === held);

/** Whether anything at a position depends on the car hearing its sensor: where nothing does, deaf or not is one. */
const speaksOfHearing = ({ shown, empty, codes, noCodes }: PositionEvidence): boolean =>
  shown.length > 0 || empty.length > 0 || codes.length > 0 || noCodes;
