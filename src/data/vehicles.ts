import { Op, type Attributes } from 'sequelize';
import type { Tx } from './database';
import { ProfileRow, VehicleRow } from './models';

type VehicleValues = Pick<
  VehicleRow,
  'vin' | 'plate' | 'label' | 'modelYear' | 'profile' | 'tpms' | 'placard'
>;

/** A vehicle as its row says it. */
export type VehicleFacts = Attributes<VehicleRow>;

/** By VIN first; a plate can move to another car. Both in their canonical form. */
export async function findVehicle(
  tx: Tx,
  by: { vin?: string; plate?: string },
): Promise<VehicleRow | undefined> {
  const vehicle =
    (by.vin && (await VehicleRow.findOne({ where: { vin: by.vin }, transaction: tx }))) ||
    (by.plate && (await VehicleRow.findOne({ where: { plate: by.plate }, transaction: tx })));
  return vehicle || undefined;
}

export const findVehicleById = (tx: Tx, id: string) => VehicleRow.findByPk(id, { transaction: tx });

/** Stores the vehicle; a plate that was another's moves here. */
export async function saveVehicle(tx: Tx, id: string, values: VehicleValues): Promise<VehicleRow> {
  if (values.plate) {
    await VehicleRow.update(
      { plate: null },
      { where: { plate: values.plate, id: { [Op.ne]: id } }, transaction: tx },
    );
  }
  const [row] = await VehicleRow.upsert({ id, ...values, updatedAt: new Date() }, { transaction: tx });
  return row;
}

export const listProfiles = (tx: Tx) => ProfileRow.findAll({ order: [['label', 'ASC']], transaction: tx });
export const findProfile = (tx: Tx, name: string) => ProfileRow.findByPk(name, { transaction: tx });
type ProfileValues = Pick<
  ProfileRow,
  'name' | 'label' | 'fromYear' | 'toYear' | 'tpms' | 'placard' | 'receiver'
>;
export const saveProfile = (tx: Tx, values: ProfileValues) => ProfileRow.upsert(values, { transaction: tx });

export const setTires = (tx: Tx, id: string, tires: Partial<Pick<VehicleRow, 'placard' | 'fitted'>>) =>
  VehicleRow.update({ ...tires, updatedAt: new Date() }, { where: { id }, transaction: tx });
