import type { PositionEvidence, WheelEvidence } from './evidence';
import type { HearingSeen, SensorSeen } from './sensor-states';
import type { ShownSeen, TireSeen } from './tire-states';

/** The figures and words something rests on, in one row: so it is written down and compared fastest. Lists stand with their lengths. */
type Content = (string | number | boolean | undefined)[];

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
      const { signs, misses, ageYears, recordedId, replies }: SensorSeen = wheel;
      const own: Content = [
        'sensor',
        wheel.wheel,
        ageYears,
        recordedId,
        signs.length,
        ...signs,
        misses.length,
        ...misses,
      ];
      // The pressures are the tire's.
      for (const { id, frequencyMHz, family, battery, rssiDbm } of replies)
        own.push(id, frequencyMHz, family, battery, rssiDbm);
      return own;
    });
  }

  /** What the states of its tire rest on; its lines and its placard are the car's. */
  ofTire(wheel: WheelEvidence): number {
    return this.numbered(this.tires, wheel, () => {
      const { gauge, gaugeBeforeScan, beforeFill, filledMs, scannedFirst, leak }: TireSeen = wheel;
      const own: Content = [
        'tire',
        wheel.wheel,
        gauge?.kPa,
        gauge?.sdKPa,
        gauge?.slip,
        filledMs,
        scannedFirst,
      ];
      own.push(gaugeBeforeScan?.kPa, gaugeBeforeScan?.sdKPa, leak.leaking, leak.sound, beforeFill.length);
      for (const { kPa, sdKPa, ms } of beforeFill) own.push(kPa, sdKPa, ms);
      for (const { kPa } of wheel.replies) own.push(kPa ?? undefined);
      return own;
    });
  }

  /** What hearing a sensor at a position rests on. */
  ofHearing(position: PositionEvidence): number {
    return this.numbered(this.hearings, position, () => {
      const { held, empty, codes, noCodes, shown }: HearingSeen = position;
      const own: Content = ['hearing', held ?? String(held), noCodes, shown.length, empty.length, ...empty];
      for (const { about, weight } of codes) own.push(about, weight);
      return own;
    });
  }

  /** What the car shows, and has stored, of a tire. */
  ofShown(position: PositionEvidence): number {
    return this.numbered(this.shows, position, () => {
      const { shown, codes, noCodes }: ShownSeen = position;
      const own: Content = ['shown', noCodes, shown.length];
      for (const { kPa, sdKPa, ms } of shown) own.push(kPa, sdKPa, ms);
      for (const { about, weight } of codes) own.push(about, weight);
      return own;
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
      ...wheel.signs,
    ]);
  }

  private numbered(known: WeakMap<object, number>, thing: object, content: () => Content): number {
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
