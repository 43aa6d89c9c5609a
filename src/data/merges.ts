import { Op } from 'sequelize';
import type { Tx } from './database';
import { JobRow, MergeRow, RunRow, VehicleRow } from './models';

/** Two records of one car: what went over, so that it can go back. */

export const findMerge = (tx: Tx, key: string) =>
  MergeRow.findByPk(key, { transaction: tx, lock: tx.LOCK.UPDATE });

/** Those of a vehicle that stand, the last first. */
export const mergesOf = (tx: Tx, kept: string) =>
  MergeRow.findAll({
    where: { kept, undoneAt: { [Op.is]: null } },
    order: [['at', 'DESC']],
    transaction: tx,
  });

export const addMerge = (
  tx: Tx,
  values: Pick<MergeRow, 'key' | 'kept' | 'gone' | 'jobs' | 'sets' | 'plate' | 'vin' | 'by'>,
) => MergeRow.create(values, { transaction: tx });

/** Both, locked in one order whoever asks, so that two who merge at once do not wait for each other. */
export async function lockVehicles(tx: Tx, one: string, other: string) {
  const rows = await VehicleRow.findAll({
    where: { id: [one, other] },
    order: [['id', 'ASC']],
    transaction: tx,
    lock: tx.LOCK.UPDATE,
  });
  const found = (id: string) => rows.find((row) => row.id === id);
  return [found(one), found(other)] as const;
}

export const jobIdsOf = async (tx: Tx, vehicleId: string): Promise<string[]> =>
  (await JobRow.findAll({ where: { vehicleId }, attributes: ['id'], transaction: tx })).map(({ id }) => id);

/** Moves visits, with what was led through on them. */
export async function moveJobs(tx: Tx, ids: readonly string[], vehicleId: string): Promise<void> {
  await JobRow.update({ vehicleId }, { where: { id: [...ids] }, transaction: tx });
  await RunRow.update({ vehicleId }, { where: { jobId: [...ids] }, transaction: tx });
}
