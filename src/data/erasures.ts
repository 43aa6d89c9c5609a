import { QueryTypes } from 'sequelize';
import { database, type Tx } from './database';

/** What is known of a customer, out of every record; what is known of their cars' wheels stays, and is nobody's. */

export interface Erased {
  cars: number;
  jobs: number;
}

const run = async (tx: Tx, sql: string, bind: Record<string, unknown>) =>
  database().query<Record<string, unknown>>(sql, { bind, type: QueryTypes.SELECT, transaction: tx });

export async function findCustomer(tx: Tx, id: string): Promise<{ id: string; name: string } | undefined> {
  const [row] = await database().query<{ id: string; name: string }>(
    'SELECT id, name FROM customers WHERE id = $id FOR UPDATE',
    { bind: { id }, type: QueryTypes.SELECT, transaction: tx },
  );
  return row;
}

export async function openJobNumbers(tx: Tx, customerId: string): Promise<number[]> {
  const rows = await run(
    tx,
    `SELECT number FROM jobs JOIN vehicles ON vehicles.id = vehicle_id
     WHERE customer_id = $customerId AND state = 'open' ORDER BY number`,
    { customerId },
  );
  return rows.map(({ number }) => Number(number));
}

export async function findErasure(tx: Tx, key: string): Promise<Erased | undefined> {
  const [row] = await run(tx, 'SELECT cars, jobs FROM erasures WHERE key = $key', { key });
  return row && { cars: Number(row.cars), jobs: Number(row.jobs) };
}

/** Fields of a job's corrections that may say whose car it is, or which. */
const personal = [
  'customer',
  'complaint',
  'orderNumber',
  'plate',
  'vin',
  'label',
  'replacement',
  'bench',
  'followUp',
];

/** What a car of this kind is called, without what tells it from others. */
const plainLabel = `coalesce((SELECT label FROM profiles WHERE name = vehicles.profile), split_part(label, ',', 1))`;

export async function eraseCustomer(
  tx: Tx,
  customer: { id: string },
  made: { key: string; by: string },
): Promise<Erased> {
  const cars = (await run(tx, 'SELECT id FROM vehicles WHERE customer_id = $id', { id: customer.id })).map(
    ({ id }) => String(id),
  );
  const erased = await eraseCars(tx, cars, made);
  await run(tx, 'DELETE FROM customer_import_rows WHERE id = $id OR owner = $id', { id: customer.id });
  await run(tx, 'DELETE FROM customers WHERE id = $id', { id: customer.id });
  return erased;
}

/** What tells these cars from others of their kind, and what was said at their visits; and that this was done. */
export async function eraseCars(
  tx: Tx,
  cars: readonly string[],
  made: { key: string; by: string },
): Promise<Erased> {
  const jobs = (await run(tx, 'SELECT id FROM jobs WHERE vehicle_id = ANY($cars)', { cars })).map(({ id }) =>
    String(id),
  );
  await run(
    tx,
    `UPDATE jobs SET header = jsonb_set(
       header #- '{vehicle,plate}' #- '{vehicle,vin}' #- '{visit,customer}' #- '{visit,orderNumber}'
         #- '{visit,complaint}' #- '{visit,signature}' #- '{visit,bench}' #- '{replacement,note}',
       '{vehicle,label}', to_jsonb((SELECT ${plainLabel} FROM vehicles WHERE vehicles.id = vehicle_id)))
       || CASE WHEN header -> 'visit' ->> 'unproved' IS NULL THEN '{}'::jsonb ELSE jsonb_build_object('visit',
         (header -> 'visit') - 'customer' - 'orderNumber' - 'complaint' - 'signature' - 'bench'
         || '{"unproved": "deleted with the customer’s data"}') END
     WHERE id = ANY($jobs)`,
    { jobs },
  );
  await run(
    tx,
    `UPDATE job_edits SET changes = (
       SELECT coalesce(jsonb_agg(CASE WHEN change ->> 'field' ~ $personal
         THEN change || '{"from": null, "to": null}' ELSE change END), '[]')
       FROM jsonb_array_elements(changes) AS change)
     WHERE job_id = ANY($jobs)`,
    { jobs, personal: `(${personal.join('|')})` },
  );
  await run(tx, `UPDATE follow_ups SET note = '', word = '' WHERE vehicle_id = ANY($cars)`, { cars });
  await run(tx, `DELETE FROM labels WHERE of = 'key' AND vehicle_id = ANY($cars)`, { cars });
  await run(tx, `UPDATE merges SET plate = NULL, vin = NULL WHERE kept = ANY($cars) OR gone = ANY($cars)`, {
    cars,
  });
  await run(
    tx,
    `UPDATE webhook_deliveries SET body = body #- '{data,vehicle,plate}' #- '{data,vehicle,vin}'
       #- '{data,vehicle,label}' #- '{data,orderNumber}' WHERE job_id = ANY($jobs)`,
    { jobs },
  );
  // Looks are written a moment late: those on their way wait here, and are then written as after this.
  await run(tx, 'LOCK TABLE looks IN SHARE ROW EXCLUSIVE MODE', {});
  await run(
    tx,
    `UPDATE looks SET words = NULL WHERE words IS NOT NULL AND (vehicle_id = ANY($cars) OR job_id = ANY($jobs)
       OR what = 'find')`,
    { cars, jobs },
  );
  await run(
    tx,
    `UPDATE vehicles SET plate = NULL, vin = NULL, customer_id = NULL, label = ${plainLabel}
     WHERE id = ANY($cars)`,
    { cars },
  );
  await run(tx, 'INSERT INTO erasures (key, by, cars, jobs) VALUES ($key, $by, $cars, $jobs)', {
    key: made.key,
    by: made.by,
    cars: cars.length,
    jobs: jobs.length,
  });
  return { cars: cars.length, jobs: jobs.length };
}

/** Nothing of a car is under way: it was not here since then, nobody is to look at it, and no wheels of it are in the rack. */
const isLongAway = `NOT EXISTS (SELECT FROM jobs WHERE vehicle_id = vehicles.id
    AND (state = 'open' OR greatest(opened_at, handed_over_at, cancelled_at) >= $before))
  AND NOT EXISTS (SELECT FROM wheel_sets WHERE vehicle_id = vehicles.id AND place = 'shop')
  AND NOT EXISTS (SELECT FROM follow_ups WHERE vehicle_id = vehicles.id AND ended_at IS NULL AND due_on >= $before)`;

/** A customer on file since before then, none of whose cars was here since; another process takes another one. */
export async function customerLongAway(tx: Tx, before: Date): Promise<{ id: string } | undefined> {
  const [row] = await run(
    tx,
    `SELECT id FROM customers WHERE created_at < $before
       AND NOT EXISTS (SELECT FROM vehicles WHERE customer_id = customers.id AND NOT (${isLongAway}))
     LIMIT 1 FOR UPDATE SKIP LOCKED`,
    { before },
  );
  return row && { id: String(row.id) };
}

/** Cars of nobody that are on file with what tells them from others, and were not here since then. */
export async function carsLongAway(tx: Tx, before: Date, most: number): Promise<string[]> {
  const rows = await run(
    tx,
    `SELECT id FROM vehicles WHERE customer_id IS NULL AND (plate IS NOT NULL OR vin IS NOT NULL)
       AND updated_at < $before AND ${isLongAway}
     LIMIT $most FOR UPDATE SKIP LOCKED`,
    { before, most },
  );
  return rows.map(({ id }) => String(id));
}
