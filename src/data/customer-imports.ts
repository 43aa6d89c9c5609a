import { QueryTypes } from 'sequelize';
import type { KnownCar, KnownCustomer, Plan } from '../core/records/customer-list/plan';
import { v7 as newId } from 'uuid';
import { database, type Tx } from './database';
import { CustomerImportedRow, CustomerImportRow, CustomerRow, VehicleRow } from './models';

/** Customers and cars in numbers, in and out again. */

export type { CustomerImportRow };

/** Lists come in one after the other. */
export const lockImports = (tx: Tx) =>
  database().query("SELECT pg_advisory_xact_lock(hashtext('hacienda customer list'))", { transaction: tx });

export const customersNamed = (tx: Tx, names: readonly string[]): Promise<KnownCustomer[]> =>
  database().query<KnownCustomer>(
    'SELECT id, name, phone FROM customers WHERE lower(name) = ANY($names) ORDER BY created_at',
    { bind: { names: names.map((name) => name.toLowerCase()) }, type: QueryTypes.SELECT, transaction: tx },
  );

export async function carsWith(
  tx: Tx,
  { plates, vins }: { plates: readonly string[]; vins: readonly string[] },
): Promise<KnownCar[]> {
  const rows = await database().query<{
    id: string;
    plate: string | null;
    vin: string | null;
    ownerId: string | null;
    owner: string | null;
  }>(
    `SELECT vehicles.id, plate, vin, customers.id AS "ownerId", customers.name AS owner FROM (
       SELECT id FROM vehicles WHERE plate = ANY($plates) UNION SELECT id FROM vehicles WHERE vin = ANY($vins)
     ) AS found JOIN vehicles USING (id) LEFT JOIN customers ON customers.id = customer_id
     WHERE merged_into IS NULL`,
    { bind: { plates: [...plates], vins: [...vins] }, type: QueryTypes.SELECT, transaction: tx },
  );
  return rows.map(({ ownerId, owner, ...car }) => ({
    ...car,
    owner: ownerId === null ? null : { id: ownerId, name: owner ?? '' },
  }));
}

/** So many go in at once. */
const atOnce = 500;

/** Puts all of a plan in. `onProgress` is told how much of it is in. */
export async function bringIn(
  tx: Tx,
  made: { key: string; name: string; by: string },
  plan: Plan,
  onProgress: (done: number) => void,
): Promise<void> {
  const customers = plan.customers.map((one) => ({ id: newId(), ...one }));
  const ownerId = (owner: Plan['cars'][number]['owner']): string => {
    const id = 'known' in owner ? owner.known : customers[owner.made]?.id;
    if (id === undefined) throw new Error('a plan names an owner it does not make');
    return id;
  };
  const cars = plan.cars.map(({ owner, ...car }) => ({
    id: newId(),
    ...car,
    profile: null,
    tpms: { kind: 'direct' as const },
    placard: [],
    customerId: ownerId(owner),
  }));
  await CustomerImportRow.create(
    { ...made, customers: customers.length, cars: cars.length, given: plan.given.length },
    { transaction: tx },
  );
  let done = 0;
  const inParts = async <Item>(items: readonly Item[], put: (part: Item[]) => Promise<unknown>) => {
    for (let at = 0; at < items.length; at += atOnce) {
      const part = items.slice(at, at + atOnce);
      await put(part);
      done += part.length;
      onProgress(done);
    }
  };
  const noted = (kind: CustomerImportedRow['kind'], part: readonly { id: string; owner?: string }[]) =>
    CustomerImportedRow.bulkCreate(
      part.map(({ id, owner }) => ({ importKey: made.key, kind, id, owner: owner ?? null })),
      { transaction: tx },
    );
  await inParts(customers, async (part) => {
    await CustomerRow.bulkCreate(part, { transaction: tx });
    await noted('customer', part);
  });
  await inParts(cars, async (part) => {
    await VehicleRow.bulkCreate(part, { transaction: tx });
    await noted('car', part);
  });
  const given = plan.given.map(({ car, owner }) => ({ id: car, owner: ownerId(owner) }));
  await inParts(given, async (part) => {
    await database().query(
      `UPDATE vehicles SET customer_id = owner FROM unnest($cars::uuid[], $owners::uuid[]) AS given (car, owner)
       WHERE vehicles.id = car AND customer_id IS NULL`,
      {
        bind: { cars: part.map(({ id }) => id), owners: part.map(({ owner }) => owner) },
        transaction: tx,
      },
    );
    await noted('given', part);
  });
}

export const findImport = (tx: Tx, key: string) =>
  CustomerImportRow.findByPk(key, { transaction: tx, lock: tx.LOCK.UPDATE });

const mostListed = 20;

export const listImports = (tx: Tx) =>
  CustomerImportRow.findAll({ order: [['at', 'DESC']], limit: mostListed, raw: true, transaction: tx });

/**
 * Takes out what a list brought, but for what was used since: a car that was booked in, has wheels or a label, and a customer
 * who has a car. Tells how many stay.
 */
export async function takeOut(tx: Tx, key: string): Promise<{ cars: number; customers: number }> {
  const run = (sql: string) => database().query(sql, { bind: { key }, transaction: tx });
  const rows = (kind: CustomerImportedRow['kind']) =>
    `(SELECT id FROM customer_import_rows WHERE import_key = $key AND kind = '${kind}')`;
  await run(
    `UPDATE vehicles SET customer_id = NULL FROM customer_import_rows AS given
     WHERE import_key = $key AND kind = 'given' AND vehicles.id = given.id AND customer_id = given.owner`,
  );
  await run(
    `DELETE FROM vehicles WHERE id IN ${rows('car')}
       AND NOT EXISTS (SELECT 1 FROM jobs WHERE vehicle_id = vehicles.id)
       AND NOT EXISTS (SELECT 1 FROM wheel_sets WHERE vehicle_id = vehicles.id)
       AND NOT EXISTS (SELECT 1 FROM labels WHERE vehicle_id = vehicles.id)
       AND NOT EXISTS (SELECT 1 FROM follow_ups WHERE vehicle_id = vehicles.id)
       AND NOT EXISTS (SELECT 1 FROM merges WHERE kept = vehicles.id OR gone = vehicles.id)`,
  );
  await run(
    `DELETE FROM customers WHERE id IN ${rows('customer')}
       AND NOT EXISTS (SELECT 1 FROM vehicles WHERE customer_id = customers.id)`,
  );
  const [left] = await database().query<{ cars: number; customers: number }>(
    `SELECT (SELECT count(*)::int FROM vehicles WHERE id IN ${rows('car')}) AS cars,
       (SELECT count(*)::int FROM customers WHERE id IN ${rows('customer')}) AS customers`,
    { bind: { key }, type: QueryTypes.SELECT, transaction: tx },
  );
  return left ?? { cars: 0, customers: 0 };
}
