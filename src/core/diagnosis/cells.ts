import type { Context, Evidence, PositionEvidence, WheelEvidence } from './evidence';
import type { Reading } from './own-ids';
import { positionMaps, type PositionMap } from './position-maps';
import type { Priors } from './priors';
import {
  codeFactor,
  figureKinds,
  sensorStates,
  type Figures,
  type SensorAssumptions,
  type SensorSink,
} from './sensor-states';
import {
  Adder,
  allRows,
  causeCount,
  causeIndex,
  emptySums,
  isSound,
  rows,
  soundRow,
  type Emit,
  type Sums,
  type TireSink,
  type Wanted,
} from './states';
import { cooledKPa, type System } from './systems';
import { tireStates } from './tire-states';
import { turningStates } from './turning-states';

/**
 * A cell: one wheel, taken to be at one position of the car, while the car is one way and the scans are read
 * one way. Its sums over all states of the wheel, accumulated over the causes from the least to the worst:
 * entry k of a row is the weight of the states with cause k or less.
 */
export type Cell = Sums;

/** Sums already worked out, by the evidence they rest on: most of them serve again when one observation is set aside. */
export class Cells {
  private readonly byWheel = new WeakMap<WheelEvidence, WeakMap<object, Map<number, Sums>>>();
  private readonly nowhere = {};

  private readonly sensorSums = new SensorSums();
  private orders: readonly PositionMap[] | undefined;

  constructor(private readonly priors: Priors) {}

  maps(context: Context): readonly PositionMap[] {
    return (this.orders ??= positionMaps(context, this.priors));
  }

  /** The cell of a wheel with a sensor. */
  ofSensor(
    evidence: Evidence,
    place: number,
    position: PositionEvidence,
    reading: Reading,
    system: System,
    wanted: Wanted,
  ): Cell {
    const wheel = wheelAt(evidence, place);
    const assumed = sensorAssumptions(evidence, place, position, reading, system);
    return this.remember(wheel, position, keyOf(wheel, position, assumed, system, evidence), () => {
      const sums = this.sensorSums.cleared();
      sensorStates(evidence.context, this.priors, wheel, position, assumed, sums);
      const reply = assumed.own?.kPa ?? undefined;
      const cell = sums.joinedWith(this.priors.inaccurate, wanted, (accuracy, figures) =>
        this.tire(
          evidence,
          place,
          position,
          figures === 'none' ? undefined : reply,
          system,
          accuracy,
          figures === 'car',
        ),
      );
      return accumulate(cell, wanted);
    });
  }

  /** The cell of a wheel of an indirect system. */
  ofTurning(evidence: Evidence, place: number, system: System): Cell {
    const wheel = wheelAt(evidence, place);
    return this.remember(wheel, this.nowhere, turningKey | Number(system.cooled), () => {
      const adder = new Adder();
      const add = turningStates(wheel, this.priors, (weight, findings, cause) => {
        adder.add(weight, findings, cause);
      });
      tireStatesIn(evidence, this.priors, place, bareTire(system), { add, addOff: neverOff });
      return accumulate(adder.sums);
    });
  }

  /** The cell of a wheel the lamp does not watch: only its tire. */
  ofTire(evidence: Evidence, place: number, system: System): Cell {
    return this.remember(wheelAt(evidence, place), this.nowhere, tireKey | Number(system.cooled), () => {
      const adder = new Adder();
      const add: Emit = (weight, findings) => {
        adder.add(weight, findings, 0);
      };
      tireStatesIn(evidence, this.priors, place, bareTire(system), { add, addOff: neverOff });
      return accumulate(adder.sums);
    });
  }

  private tire(
    evidence: Evidence,
    place: number,
    position: PositionEvidence,
    replyKPa: number | undefined,
    system: System,
    accuracy: Accuracy,
    heard: boolean,
  ): Sums {
    const wheel = wheelAt(evidence, place);
    const hasLowCode = position.noCodes || position.codes.length > 0;
    const shows = (heard && position.shown.length > 0) || hasLowCode;
    const key =
      sensedKey |
      Number(system.cooled) |
      (Number(accuracy === 'off') << 1) |
      (Number(shows && heard) << 2) |
      (replyPlace(wheel, replyKPa) << 3);
    return this.remember(wheel, shows ? position : this.nowhere, key, () => {
      const adder = new Adder();
      tireStatesIn(evidence, this.priors, place, { position, replyKPa, system, accuracy, heard }, adder);
      return adder.sums;
    });
  }

  private remember(wheel: WheelEvidence, position: object, key: number, make: () => Sums): Sums {
    let byPosition = this.byWheel.get(wheel);
    if (!byPosition) this.byWheel.set(wheel, (byPosition = new WeakMap()));
    let byKey = byPosition.get(position);
    if (!byKey) byPosition.set(position, (byKey = new Map<number, Sums>()));
    let sums = byKey.get(key);
    if (!sums) byKey.set(key, (sums = make()));
    return sums;
  }
}

type Accuracy = 'sound' | 'off';
const turningKey = 1 << 27;
const tireKey = 1 << 28;
const sensedKey = 1 << 29;

/** What a cell takes for granted about the sensor whose figures speak of its tire. */
export interface Sensed {
  position: PositionEvidence | undefined;
  replyKPa: number | undefined;
  system: System;
  accuracy: Accuracy;
  heard: boolean;
}

/** A tire taken without a sensor has none that is off. */
const neverOff = (): void => undefined;

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
  { position, replyKPa, system, accuracy, heard }: Sensed,
  sink: TireSink,
): void {
  const assumed = {
    accuracy,
    cooledToKPa: system.cooled ? cooledKPa(evidence.context, place) : undefined,
    replyKPa,
    shown: heard && position ? position.shown : nothingShown,
    lowCode: position
      ? {
          low: codeFactor(position, 'low-pressure', heard),
          other: codeFactor(position, 'low-pressure', false),
        }
      : { low: 1, other: 1 },
    leakingPrior: priors.leaking,
  };
  tireStates(wheelAt(evidence, place), assumed, sink);
}

const nothingShown: PositionEvidence['shown'] = [];

export function sensorAssumptions(
  { wheels, car }: Evidence,
  place: number,
  position: PositionEvidence,
  { own }: Reading,
  system: System,
): SensorAssumptions {
  const held = position.held ?? undefined;
  const reply = own[place];
  const unheard = wheels[place]?.replies.length === 0;
  const id = reply?.id ?? (unheard ? (held ?? wheels[place]?.recordedId) : undefined);
  return {
    own: reply,
    heldIsElsewhere: held !== undefined && own.some((other, at) => at !== place && other?.id === held),
    deaf: system.receiverFault || system.pending,
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

const replyPlace = ({ replies }: WheelEvidence, kPa: number | undefined): number =>
  kPa === undefined ? 0 : replies.findIndex((reply) => reply.kPa === kPa) + 1;

/** Whether anything at a position depends on the car hearing its sensor: where nothing does, deaf or not is one. */
const speaksOfHearing = ({ shown, empty, codes, noCodes }: PositionEvidence): boolean =>
  shown.length > 0 || empty.length > 0 || codes.length > 0 || noCodes;

function keyOf(
  wheel: WheelEvidence,
  position: PositionEvidence,
  assumed: SensorAssumptions,
  system: System,
  { car }: Evidence,
): number {
  const own = assumed.own ? wheel.replies.indexOf(assumed.own) + 1 : 0;
  // Counts of check-ins come and go with one observation: they belong to the key.
  const counted = assumed.checkIns ? 1 + car.reception.indexOf(assumed.checkIns) : 0;
  const quality = counted > 0 ? Math.round(system.driveQuality * 20) : 0;
  return (
    Number(assumed.heldIsElsewhere) |
    (Number(assumed.deaf && speaksOfHearing(position)) << 1) |
    (Number(system.cooled) << 2) |
    (Math.min(own, 7) << 3) |
    (system.otherSetNumber << 6) |
    (quality << 10) |
    (Math.min(counted, 31) << 15)
  );
}

/**
 * Joins the states of a sensor with those of its tire, without listing every pair: sensor states of one
 * cause, whose figures mean the same to the tire, share one set of tire states, and are summed first.
 */
class SensorSums implements SensorSink {
  private readonly sums = new Float64Array(causeCount * figureKinds.length * groupSize);
  private readonly used: boolean[] = [];

  /** The same room again, empty. */
  cleared(): this {
    this.sums.fill(0);
    this.used.length = 0;
    return this;
  }

  add(weight: number, findings: number, cause: number, figures: number): void {
    const { sums } = this;
    const group = cause * figureKinds.length + figures;
    const at = group * groupSize;
    this.used[group] = true;
    sums[at] = (sums[at] ?? 0) + weight;
    if (isSound(findings)) sums[at + soundRow] = (sums[at + soundRow] ?? 0) + weight;
    for (let rest = findings; rest !== 0; rest &= rest - 1) {
      const row = at + 32 - Math.clz32(rest & -rest);
      sums[row] = (sums[row] ?? 0) + weight;
    }
  }

  joinedWith(inaccurate: number, wanted: Wanted, tire: (accuracy: Accuracy, figures: Figures) => Sums): Sums {
    const cell = emptySums();
    for (let group = 0; group < this.used.length; group += 1) {
      if (!this.used[group]) continue;
      const figures = figureKinds[group % figureKinds.length] ?? 'none';
      const cause = Math.floor(group / figureKinds.length);
      // A sensor that is gone reads nothing, wrong or right.
      const off = figures === 'none' ? 0 : inaccurate;
      this.join(cell, group * groupSize, cause, tire('sound', figures), 1 - off, wanted);
      if (off > 0) this.join(cell, group * groupSize, cause, tire('off', figures), off, wanted);
    }
    return cell;
  }

  private join(cell: Sums, at: number, ofSensor: number, tire: Sums, share: number, wanted: Wanted): void {
    const { sums } = this;
    const total = share * (sums[at] ?? 0);
    for (const cause of tireCauses) {
      const all = tire[cause] ?? 0;
      if (all === 0) continue;
      const worst = Math.max(cause, ofSensor);
      cell[worst] = (cell[worst] ?? 0) + total * all;
      if (wanted.sound) {
        const slot = soundRow * causeCount + worst;
        const sound = share * (sums[at + soundRow] ?? 0) * (tire[soundRow * causeCount + cause] ?? 0);
        cell[slot] = (cell[slot] ?? 0) + sound;
      }
      for (const row of wanted.tire) {
        const slot = row * causeCount + worst;
        cell[slot] = (cell[slot] ?? 0) + total * (tire[row * causeCount + cause] ?? 0);
      }
      const part = share * all;
      for (const row of wanted.sensor) {
        const slot = row * causeCount + worst;
        cell[slot] = (cell[slot] ?? 0) + part * (sums[at + row] ?? 0);
      }
    }
  }
}

const groupSize = rows;

/** What a tire by itself can give the lamp cause for. */
const tireCauses = [causeIndex.nothing, causeIndex['between-on-and-off'], causeIndex.low];

/** From the weight of each cause to the weight of each cause or a lesser one. */
function accumulate(sums: Sums, wanted: Wanted = allRows): Cell {
  accumulateRow(sums, 0);
  if (wanted.sound) accumulateRow(sums, soundRow);
  for (const row of wanted.tire) accumulateRow(sums, row);
  for (const row of wanted.sensor) accumulateRow(sums, row);
  return sums;
}

function accumulateRow(sums: Sums, row: number): void {
  for (let at = row * causeCount + 1; at < (row + 1) * causeCount; at += 1)
    sums[at] = (sums[at] ?? 0) + (sums[at - 1] ?? 0);
}
