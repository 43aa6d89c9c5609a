import type { CarEvidence, PositionEvidence, WheelEvidence } from '../evidence';
import { type HeldSeen, type ScanSeen, type SetSeen, isDoubtful } from '../hypotheses';
import type { HearingSeen, SensorSeen, ShownSeen, TireSeen } from '../likelihoods';

/**
 * The figures and words something rests on, in one row, what it is first: so it is told from others fastest. Lists stand
 * with their lengths, so that no content begins like the whole of another.
 */
type Content = (string | number | boolean | undefined)[];

/** Numbers evidence by the part of its content that something rests on: what is equal there has one number. */
export class Contents {
  private readonly numbers = new Memo<number>();
  private last = 0;
  private readonly sensors = new WeakMap<object, number>();
  private readonly tires = new WeakMap<object, number>();
  private readonly hearings = new WeakMap<object, number>();
  private readonly shows = new WeakMap<object, number>();
  private readonly allPositions = new WeakMap<object, number>();
  private readonly scans = new WeakMap<object, number>();
  private readonly sets = new WeakMap<object, number>();
  private readonly helds = new WeakMap<object, number>();
  private readonly cars = new WeakMap<object, number>();
  private readonly turnings = new WeakMap<object, number>();

  /** What the states of its sensor rest on. */
  ofSensor(wheel: WheelEvidence): number {
    return this.numbered(this.sensors, wheel, () => {
      const { signs, misses, missedBefore, ageYears, recordedId, replies }: SensorSeen = wheel;
      const own: Content = [
        'sensor',
        wheel.wheel,
        ageYears,
        recordedId,
        signs.length,
        ...signs,
        misses.length,
        ...misses,
        missedBefore.length,
        ...missedBefore,
        replies.length,
      ];
      // The pressures are the tire's.
      for (const { id, frequencyMHz, family, battery, rssiDbm } of replies)
        own.push(id, frequencyMHz, family, battery, rssiDbm);
      return own;
    });
  }

  /** What the ways to read the scan of a wheel rest on. */
  ofScan(wheel: WheelEvidence): number {
    return this.numbered(this.scans, wheel, () => {
      const { monitored, replies }: ScanSeen = wheel;
      const own: Content = ['scan', wheel.wheel, monitored, isDoubtful(wheel), replies.length];
      for (const { id, kPa, frequencyMHz, family, rssiDbm } of replies)
        own.push(id, kPa ?? undefined, frequencyMHz, family, rssiDbm);
      return own;
    });
  }

  /** What a scan says of the set of wheels that is on. */
  ofSet(wheel: WheelEvidence): number {
    return this.numbered(this.sets, wheel, () => {
      const { replies, misses }: SetSeen = wheel;
      const own: Content = ['set', misses.length, replies.length];
      for (const { id, frequencyMHz, family } of replies) own.push(id, frequencyMHz, family);
      return own;
    });
  }

  /** The ID held at a position. */
  ofHeld(position: PositionEvidence): number {
    return this.numbered(this.helds, position, () => {
      const { held }: HeldSeen = position;
      return ['held', held ?? String(held)];
    });
  }

  /** What was seen of the car as a whole, by itself: it is seldom seen alike twice. */
  ofCar(car: CarEvidence): number {
    return this.numbered(this.cars, car, () => ['car', this.last]);
  }

  /** What the states of its tire rest on; its lines and its placard are the car's. */
  ofTire(wheel: WheelEvidence): number {
    return this.numbered(this.tires, wheel, () => {
      const {
        gauge,
        stopDoubtKPa,
        replyDoubtKPa,
        gaugeBeforeScan,
        beforeFill,
        filledMs,
        filledNow,
        gaugeIsOld,
        scannedFirst,
        leak,
      }: TireSeen = wheel;
      const own: Content = [
        'tire',
        wheel.wheel,
        gauge?.kPa,
        gauge?.sdKPa,
        gauge?.slip,
        stopDoubtKPa,
        replyDoubtKPa,
        filledMs,
        filledNow,
        gaugeIsOld,
        scannedFirst,
      ];
      own.push(gaugeBeforeScan?.kPa, gaugeBeforeScan?.sdKPa, leak.leaking, leak.sound, beforeFill.length);
      for (const { kPa, sdKPa, ms } of beforeFill) own.push(kPa, sdKPa, ms);
      own.push(wheel.replies.length);
      for (const { kPa } of wheel.replies) own.push(kPa ?? undefined);
      return own;
    });
  }

  /** What hearing a sensor at a position rests on. */
  ofHearing(position: PositionEvidence): number {
    return this.numbered(this.hearings, position, () => {
      const { held, empty, battery, codes, noCodes, shown }: HearingSeen = position;
      const own: Content = [
        'hearing',
        held ?? String(held),
        battery,
        noCodes,
        shown.length,
        codes.length,
        empty.length,
        ...empty,
      ];
      for (const { about, weight } of codes) own.push(about, weight);
      return own;
    });
  }

  /** What the car shows, and has stored, of a tire. */
  ofShown(position: PositionEvidence): number {
    return this.numbered(this.shows, position, () => {
      const { shown, codes, noCodes }: ShownSeen = position;
      const own: Content = ['shown', noCodes, shown.length, codes.length];
      for (const { kPa, sdKPa, ms } of shown) own.push(kPa, sdKPa, ms);
      for (const { about, weight } of codes) own.push(about, weight);
      return own;
    });
  }

  /** All that the car says of all its positions. */
  ofPositions(positions: readonly PositionEvidence[]): number {
    return this.numbered(this.allPositions, positions, () => [
      'positions',
      positions.length,
      ...positions.flatMap((position) => [this.ofHearing(position), this.ofShown(position)]),
    ]);
  }

  /** What was counted of a sensor's check-ins on a drive of this quality. */
  ofCheckIns({ expected, received }: { expected: number; received: number }, quality: number): number {
    return this.numberOf(['counts', expected, received, quality]);
  }

  /** What the states of a wheel of an indirect system rest on. */
  ofTurning(wheel: WheelEvidence): number {
    return this.numbered(this.turnings, wheel, () => [
      'turning',
      this.ofTire(wheel),
      wheel.turns,
      wheel.signs.length,
      ...wheel.signs,
    ]);
  }

  private numbered(known: WeakMap<object, number>, thing: object, content: () => Content): number {
    let number = known.get(thing);
    if (number === undefined) {
      number = this.numberOf(content());
      known.set(thing, number);
    }
    return number;
  }

  private numberOf(content: Content): number {
    return this.numbers.get(content, () => (this.last += 1));
  }
}

/** All that a thing rests on, each value whole. */
export type Key = readonly (number | string | boolean | null | undefined)[];

/** Things made once for each key; no key of one memo begins like the whole of another. */
export class Memo<Thing> {
  private readonly root: Branch<Thing> = new Map();

  get(key: Key, make: () => Thing): Thing {
    let branch = this.root;
    const last = key.length - 1;
    for (let at = 0; at < last; at += 1) {
      let next = branch.get(key[at]) as Branch<Thing> | undefined;
      if (!next) branch.set(key[at], (next = new Map()));
      branch = next;
    }
    let thing = branch.get(key[last]) as Thing | undefined;
    if (thing === undefined) branch.set(key[last], (thing = make()));
    return thing;
  }
}

type Branch<Thing> = Map<Key[number], Branch<Thing> | Thing>;
