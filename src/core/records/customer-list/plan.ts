import type { ListEntry, RefusedRow } from '.';

/** What bringing a list in would do to what is on file: nothing that is there is changed, but for cars nobody owned. */

export interface KnownCustomer {
  id: string;
  name: string;
  phone: string | null;
}

export interface KnownCar {
  id: string;
  plate: string | null;
  vin: string | null;
  owner: { id: string; name: string } | null;
}

/** Somebody on file, or the one of the new customers at this place. */
export type Owner = { known: string } | { made: number };

export interface Plan {
  customers: Pick<ListEntry, 'name' | 'phone' | 'email'>[];
  cars: (NonNullable<ListEntry['vehicle']> & { owner: Owner })[];
  /** Cars on file that nobody owned. */
  given: { car: string; owner: Owner }[];
  /** Rows of which all is on file already. */
  onFile: number;
  /** Rows whose car is somebody else's here. */
  refused: RefusedRow[];
}

const digitsOf = (phone: string | null): string => (phone ?? '').replace(/\D/g, '');

/** The same name, and no other phone. */
const isSame = (one: { name: string; phone: string | null }, other: { name: string; phone: string | null }) =>
  one.name.toLowerCase() === other.name.toLowerCase() &&
  (one.phone === null || other.phone === null || digitsOf(one.phone) === digitsOf(other.phone));

export function planOf(
  entries: readonly ListEntry[],
  customers: readonly KnownCustomer[],
  cars: readonly KnownCar[],
): Plan {
  const plan: Plan = { customers: [], cars: [], given: [], onFile: 0, refused: [] };
  const byName = groupBy(customers, ({ name }) => name.toLowerCase());
  const byVin = new Map(cars.flatMap((car) => (car.vin ? [[car.vin, car] as const] : [])));
  const byPlate = new Map(cars.flatMap((car) => (car.plate ? [[car.plate, car] as const] : [])));
  const made = new Map<string, number[]>();

  const ownerOf = (entry: ListEntry): Owner => {
    const known = byName.get(entry.name.toLowerCase())?.find((one) => isSame(one, entry));
    if (known) return { known: known.id };
    const places = made.get(entry.name.toLowerCase()) ?? [];
    const before = places.find((at) => {
      const one = plan.customers[at];
      return one !== undefined && isSame(one, entry);
    });
    if (before !== undefined) return { made: before };
    const { name, phone, email } = entry;
    const place = plan.customers.push({ name, phone, email }) - 1;
    made.set(name.toLowerCase(), [...places, place]);
    return { made: place };
  };

  for (const entry of entries) {
    const { vehicle } = entry;
    const car =
      vehicle &&
      ((vehicle.vin ? byVin.get(vehicle.vin) : undefined) ??
        (vehicle.plate ? byPlate.get(vehicle.plate) : undefined));
    if (car?.owner && car.owner.name.toLowerCase() !== entry.name.toLowerCase()) {
      const reason = `this vehicle is ${car.owner.name}’s here: change that first, or leave the row out`;
      plan.refused.push({ row: entry.row, reason });
      continue;
    }
    const newBefore = plan.customers.length;
    const owner: Owner = car?.owner ? { known: car.owner.id } : ownerOf(entry);
    if (vehicle && !car) plan.cars.push({ ...vehicle, owner });
    else if (car && !car.owner) plan.given.push({ car: car.id, owner });
    else if (plan.customers.length === newBefore) plan.onFile += 1;
  }
  return plan;
}

function groupBy<Item>(items: readonly Item[], keyOf: (item: Item) => string): Map<string, Item[]> {
  const groups = new Map<string, Item[]>();
  for (const item of items) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
  return groups;
}
