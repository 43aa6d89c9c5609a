import { Op } from 'sequelize';
import type { Tx } from './database';
import { ProfileRow, SensorRow, VehicleRow, WheelSetRow } from './models';
import type { Position } from '../core/wheel';

export type VehicleValues = Pick<
  VehicleRow,
  'vin' | 'plate' | 'label' | 'modelYear' | 'profile' | 'tpms' | 'placard'
>;

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

export interface StoredSet {
  label: string;
  fitted: boolean;
  sensors: { sensorId: string; wheel: Position | null; newOn: string | null }[];
}

export async function loadWheelSets(tx: Tx, vehicleId: string): Promise<StoredSet[]> {
  const sets = await WheelSetRow.findAll({
    where: { vehicleId },
    order: [['label', 'ASC']],
    transaction: tx,
  });
  const sensors = await SensorRow.findAll({
    where: { wheelSetId: sets.map(({ id }) => id) },
    order: [['id', 'ASC']],
    raw: true,
    transaction: tx,
  });
  return sets.map(({ id, label, fitted }) => ({
    label,
    fitted,
    sensors: sensors
      .filter(({ wheelSetId }) => wheelSetId === id)
      .map(({ sensorId, wheel, newOn }) => ({ sensorId, wheel, newOn: newOn ? String(newOn) : null })),
  }));
}

/** Replaces what a wheel set is known to hold. */
export async function saveWheelSet(tx: Tx, vehicleId: string, newId: string, set: StoredSet): Promise<void> {
  const [row] = await WheelSetRow.findOrCreate({
    where: { vehicleId, label: set.label },
    defaults: { id: newId, vehicleId, label: set.label, fitted: set.fitted },
    transaction: tx,
  });
  await row.update({ fitted: set.fitted }, { transaction: tx });
  await SensorRow.destroy({ where: { wheelSetId: row.id }, transaction: tx });
  await SensorRow.bulkCreate(
    set.sensors.map(({ sensorId, wheel, newOn }) => ({
      wheelSetId: row.id,
      sensorId,
      wheel,
      newOn: newOn ? new Date(newOn) : null,
    })),
    { transaction: tx },
  );
}

export const listProfiles = (tx: Tx) => ProfileRow.findAll({ order: [['label', 'ASC']], transaction: tx });
export const findProfile = (tx: Tx, name: string) => ProfileRow.findByPk(name, { transaction: tx });
export type ProfileValues = Pick<
  ProfileRow,
  'name' | 'label' | 'fromYear' | 'toYear' | 'tpms' | 'placard' | 'receiver'
>;
export const saveProfile = (tx: Tx, values: ProfileValues) => ProfileRow.upsert(values, { transaction: tx });

export const setTires = (tx: Tx, id: string, tires: Partial<Pick<VehicleRow, 'placard' | 'fitted'>>) =>
  VehicleRow.update({ ...tires, updatedAt: new Date() }, { where: { id }, transaction: tx });
