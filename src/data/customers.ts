import { v7 as newId } from 'uuid';
import type { ListedCustomer } from '../core/records/table/lists';
import { database, type Tx } from './database';
import { CustomerRow, VehicleRow } from './models';
import { fn, col, QueryTypes, where } from 'sequelize';

/** The customer of this name, new where there is none. */
async function customerNamed(tx: Tx, name: string): Promise<CustomerRow> {
  const known = await CustomerRow.findOne({
    where: where(fn('lower', col('name')), name.toLowerCase()),
    order: [['createdAt', 'ASC']],
    transaction: tx,
  });
  return known ?? CustomerRow.create({ id: newId(), name, phone: null, email: null }, { transaction: tx });
}

/** Whose car it is, as it was said last; nobody said where the name is empty. */
export async function setOwner(tx: Tx, vehicleId: string, name: string | undefined): Promise<void> {
  const said = name?.trim();
  if (!said) return;
  const { id: customerId } = await customerNamed(tx, said);
  await VehicleRow.update({ customerId }, { where: { id: vehicleId }, transaction: tx });
}

/** All of them by name, each with their plates. */
export async function listCustomers(tx: Tx): Promise<ListedCustomer[]> {
  const rows = await database().query<Omit<ListedCustomer, 'lastVisitAt'> & { lastVisitAt: Date | null }>(
    `SELECT name, phone, email, coalesce(string_agg(plate, ', ' ORDER BY plate), '') AS plates,
       max((SELECT max(opened_at) FROM jobs WHERE vehicle_id = vehicles.id)) AS "lastVisitAt"
     FROM customers LEFT JOIN vehicles ON customer_id = customers.id GROUP BY customers.id ORDER BY lower(name)`,
    { type: QueryTypes.SELECT, transaction: tx },
  );
  return rows.map(({ lastVisitAt, ...row }) => ({
    ...row,
    lastVisitAt: lastVisitAt && lastVisitAt.toISOString(),
  }));
}
