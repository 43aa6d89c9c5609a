import type { PositionEvidence, WheelEvidence } from './evidence';
import type { HearingSeen, SensorSeen } from './sensor-states';
import type { ShownSeen, TireSeen } from './tire-states';

/** Numbers evidence by the part of its content that something rests on: what is equal there has one number. */
export class Contents {
  private readonly numbers = new Map<string, number>();
  private readonly sensors = new WeakMap<object, number>();
  private readonly tires = new WeakMap<object, number>();
  private readonly hearings = new WeakMap<object, number>();
  private readonly shows = new WeakMap<object, number>();
  private readonly positions = new WeakMap<object, number>();
  private readonly counts = new WeakMap<object, number>();
  private readonly turnings = new WeakMap<object, number>();

  /** What the states of its sensor rest on. */
  ofSensor(wheel: WheelEvidence): number {
    return this.numbered(this.sensors, wheel, () => {
      const { signs, misses, ageYears, recordedId }: SensorSeen = wheel;
      // The pressures are the tire's.
      const replies = wheel.replies.map((reply) => ({ ...reply, kPa: null }));
      return ['sensor', wheel.wheel, signs, misses, ageYears, recordedId, replies];
    });
  }

  /** What the states of its tire rest on; its lines and its placard are the car's. */
  ofTire(wheel: WheelEvidence): number {
    return this.numbered(this.tires, wheel, () => {
      const { gauge, gaugeBeforeScan, beforeFill, filledMs, scannedFirst, leak }: TireSeen = wheel;
      const replies = wheel.replies.map(({ kPa }) => kPa);
      return ['tire', wheel.wheel, gauge, gaugeBeforeScan, beforeFill, filledMs, scannedFirst, leak, replies];
    });
  }

  /** What hearing a sensor at a position rests on. */
  ofHearing(position: PositionEvidence): number {
    return this.numbered(this.hearings, position, () => {
      const { held, empty, codes, noCodes }: HearingSeen = position;
      return ['hearing', held ?? String(held), empty, codes, noCodes, position.shown.length];
    });
  }

  /** What the car shows, and has stored, of a tire. */
  ofShown(position: PositionEvidence): number {
    return this.numbered(this.shows, position, () => {
      const { shown, codes, noCodes }: ShownSeen = position;
      return ['shown', shown, codes, noCodes];
    });
  }

  /** All that the car says of a position. */
  ofPosition(position: PositionEvidence): number {
    return this.numbered(this.positions, position, () => [
      'position',
      this.ofHearing(position),
      this.ofShown(position),
    ]);
  }

  /** What was counted of a sensor's check-ins. */
  ofCounts(counts: { expected: number; received: number }): number {
    return this.numbered(this.counts, counts, () => ['counts', counts.expected, counts.received]);
  }

  /** What the states of a wheel of an indirect system rest on. */
  ofTurning(wheel: WheelEvidence): number {
    return this.numbered(this.turnings, wheel, () => [
      'turning',
      this.ofTire(wheel),
      wheel.turns,
      wheel.signs,
    ]);
  }

  private numbered(known: WeakMap<object, number>, thing: object, content: () => unknown): number {
    let number = known.get(thing);
    if (number === undefined) {
      const text = JSON.stringify(content());
      number = this.numbers.get(text) ?? this.numbers.size + 1;
      this.numbers.set(text, number);
      known.set(thing, number);
    }
    return number;
  }
}

/** Things made once for each pair of contents and whatever else they rest on, as a number. */
export class Memo<Thing> {
  private readonly things = new Map<number, Map<number, Thing>>();

  get(one: number, other: number, rest: number, make: () => Thing): Thing {
    const pair = one * mostContents + other;
    let ofPair = this.things.get(pair);
    if (!ofPair) this.things.set(pair, (ofPair = new Map<number, Thing>()));
    let thing = ofPair.get(rest);
    if (!thing) ofPair.set(rest, (thing = make()));
    return thing;
  }
}

/** Pairs of fewer contents than this have numbers of their own. */
const mostContents = 2 ** 20;
