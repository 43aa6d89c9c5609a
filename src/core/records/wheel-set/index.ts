import { canonicalId } from '../../names/sensor-id';
import type { Tpms } from '../../job';
import { inWalkingOrder, type Position } from '../../names/wheel';

/** A set of wheels: where it is, and what is known of each of its wheels and tires. */
export interface WheelSet {
  id: string;
  vehicleId: string;
  /** As the shop calls it: unlike the others of the car. */
  label: string;
  season: Season;
  place: Place;
  /** Where in the shop's store it lies. */
  rack: string | null;
  /** Counts changes; a change names the version it was made on. */
  version: number;
  wheels: SetWheel[];
}

export const seasons = ['summer', 'winter', 'all-season', 'spare'] as const;
export type Season = (typeof seasons)[number];

/** On the car, in the shop's store, at the customer's, or scrapped or sold. */
export const places = ['car', 'shop', 'customer', 'gone'] as const;
export type Place = (typeof places)[number];

export interface SetWheel {
  /** The position it is for, or was at last. Null: not said. */
  wheel: Position | null;
  /** Null: a wheel without a sensor, or one nobody heard. */
  sensorId: string | null;
  /** When the sensor was new, as well as is known: a day, YYYY-MM-DD. */
  newOn: string | null;
  /** The least depth of the tread, mm. */
  treadMm: number | null;
  /** Week and year the tire was made, as its sidewall ends: four digits. */
  dot: string | null;
  /** As its sidewall says. */
  size: string | null;
}

/** The wheels of a set in walking order, those nobody gave a place last. */
export const inOrderOfWalk = (wheels: readonly SetWheel[]): SetWheel[] => {
  const at = (wheel: Position) => wheels.filter((one) => one.wheel === wheel);
  const named = inWalkingOrder(wheels.flatMap(({ wheel }) => (wheel ? [wheel] : [])));
  return [...named.flatMap(at), ...wheels.filter(({ wheel }) => wheel === null)];
};

/** What has to follow when another set goes onto a car, and why. */
export type AfterSwap =
  /** The car holds two sets: it hears the new one by itself. */
  | { needs: 'read'; sets: number }
  /** The IDs have to be taught or written. */
  | { needs: 'teach'; wheels: Position[] }
  /** The reference of an indirect system is stored anew, once pressures are right. */
  | { needs: 'reset' }
  /** Nothing monitors these tires. */
  | { needs: 'nothing' };

/** Wheels of a set that ought to have a sensor of a known ID and have none on file: woken before anything is taught. */
export const wheelsWithoutId = (set: Pick<WheelSet, 'wheels'>, monitored: readonly Position[]): Position[] =>
  monitored.filter((wheel) => !set.wheels.some((one) => one.wheel === wheel && one.sensorId));

/** What follows from putting a set on a car that is monitored so. */
export function afterSwap(set: Pick<WheelSet, 'wheels'>, tpms: Pick<Tpms, 'kind' | 'holdsSets'>): AfterSwap {
  switch (tpms.kind) {
    case 'none':
      return { needs: 'nothing' };
    case 'indirect':
      return { needs: 'reset' };
    case 'direct': {
      const sets = tpms.holdsSets ?? 1;
      if (sets > 1) return { needs: 'read', sets };
      return {
        needs: 'teach',
        wheels: inWalkingOrder(
          set.wheels.flatMap(({ wheel, sensorId }) => (wheel && sensorId ? [wheel] : [])),
        ),
      };
    }
  }
}

/** IDs that stand at two wheels of a set: one of the two was typed wrongly. Canonical. */
export function idsTwice(wheels: readonly Pick<SetWheel, 'sensorId'>[]): string[] {
  const ids = wheels.flatMap(({ sensorId }) => (sensorId ? [canonicalId(sensorId)] : []));
  return [...new Set(ids.filter((id, at) => ids.indexOf(id) !== at))];
}

/** A label like this that no set of the car has yet. */
export function freeLabel(wanted: string, sets: readonly Pick<WheelSet, 'label'>[]): string {
  const taken = new Set(sets.map(({ label }) => label));
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n += 1) if (!taken.has(`${wanted} ${n}`)) return `${wanted} ${n}`;
}

/** The set most of whose sensors were heard on the car: whatever the records say, that one is on it. */
export function setHeard(sets: readonly WheelSet[], heard: readonly { id: string }[]): WheelSet | undefined {
  const ids = new Set(heard.map(({ id }) => canonicalId(id)));
  const count = ({ wheels }: WheelSet) =>
    wheels.filter(({ sensorId }) => sensorId !== null && ids.has(canonicalId(sensorId))).length;
  return sets.find((set) => set.place !== 'gone' && count(set) * 2 > heard.length);
}
