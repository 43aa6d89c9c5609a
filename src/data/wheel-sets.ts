import { col, fn, Op, QueryTypes, where } from 'sequelize';
import type { SetWheel, WheelSet } from '../core/records/wheel-set';
import type { StoredSet } from '../core/records/table/lists';
import { database, type Tx } from './database';
import { WheelRow, WheelSetRow } from './models';

/** The sets of a vehicle with their wheels, by their label. */
export async function loadWheelSets(tx: Tx, vehicleId: string): Promise<WheelSet[]> {
  const sets = await WheelSetRow.findAll({
    where: { vehicleId },
    order: [['label', 'ASC']],
    transaction: tx,
  });
  return withWheels(tx, sets);
}

export async function findWheelSet(tx: Tx, id: string): Promise<WheelSet | undefined> {
  const row = await WheelSetRow.findByPk(id, { transaction: tx, lock: tx.LOCK.UPDATE });
  return row ? (await withWheels(tx, [row]))[0] : undefined;
}

async function withWheels(tx: Tx, sets: readonly WheelSetRow[]): Promise<WheelSet[]> {
  const wheels = await WheelRow.findAll({
    where: { wheelSetId: sets.map(({ id }) => id) },
    order: [['id', 'ASC']],
    raw: true,
    transaction: tx,
  });
  return sets.map(({ id, vehicleId, label, season, place, rack, version }) => ({
    id,
    vehicleId,
    label,
    season,
    place,
    rack,
    version,
    wheels: wheels.filter(({ wheelSetId }) => wheelSetId === id).map(wheelFrom),
  }));
}

const wheelFrom = ({ wheel, sensorId, newOn, treadMm, dot, size }: WheelRow): SetWheel => ({
  wheel,
  sensorId,
  newOn: newOn && String(newOn),
  treadMm,
  dot,
  size,
});

/** Stores a set as it now is, its wheels too. A change of one that is there counts its version up. */
export async function saveWheelSet(tx: Tx, set: Omit<WheelSet, 'version'>): Promise<void> {
  const { id, vehicleId, label, season, place, rack, wheels } = set;
  const row = await WheelSetRow.findByPk(id, { transaction: tx });
  if (row)
    await row.update(
      { vehicleId, label, season, place, rack, version: row.version + 1 },
      { transaction: tx },
    );
  else await WheelSetRow.create({ id, vehicleId, label, season, place, rack }, { transaction: tx });
  await WheelRow.destroy({ where: { wheelSetId: id }, transaction: tx });
  await WheelRow.bulkCreate(
    wheels.map(({ newOn, ...wheel }) => ({
      wheelSetId: id,
      ...wheel,
      newOn: newOn ? new Date(newOn) : null,
    })),
    { transaction: tx },
  );
}

/** The sets that hold a sensor, by its canonical ID. */
export async function wheelSetsWith(tx: Tx, sensorId: string): Promise<WheelSet[]> {
  const held = await WheelRow.findAll({
    where: where(fn('canonical_id', col('sensor_id')), sensorId),
    attributes: ['wheelSetId'],
    raw: true,
    transaction: tx,
  });
  const ids = [...new Set(held.map(({ wheelSetId }) => wheelSetId))];
  return withWheels(tx, await WheelSetRow.findAll({ where: { id: ids }, transaction: tx }));
}

/** Another set that lies in a place of the store. */
export const setInRack = (tx: Tx, rack: string, besides: string) =>
  WheelSetRow.findOne({ where: { place: 'shop', rack, id: { [Op.ne]: besides } }, transaction: tx });

/** Those that lie in the shop, by their place. */
export const storedSets = (tx: Tx): Promise<StoredSet[]> =>
  database().query<StoredSet>(
    `SELECT rack, wheel_sets.label, season, count(wheels.id)::int AS wheels, vehicles.label AS vehicle,
       coalesce(vehicles.plate, '') AS plate, customers.name AS customer
     FROM wheel_sets JOIN vehicles ON vehicles.id = vehicle_id LEFT JOIN customers ON customers.id = customer_id
     LEFT JOIN wheels ON wheel_set_id = wheel_sets.id
     WHERE place = 'shop' GROUP BY wheel_sets.id, vehicles.id, customers.id ORDER BY rack NULLS LAST, wheel_sets.label`,
    { type: QueryTypes.SELECT, transaction: tx },
  );
