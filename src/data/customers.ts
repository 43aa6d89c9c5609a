import { v7 as newId } from 'uuid';
import type { Tx } from './database';
import { CustomerRow, VehicleRow } from './models';
import { fn, col, where } from 'sequelize';

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
