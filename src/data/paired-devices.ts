import type { Tx } from './database';
import { PairedDeviceRow, TechnicianRow } from './models';
import { Op } from 'sequelize';

export type { PairedDeviceRow };

export const findPaired = (tx: Tx, tokenHash: string) =>
  PairedDeviceRow.findOne({ where: { tokenHash, unpairedAt: null }, transaction: tx });

export const listPaired = (tx: Tx) =>
  PairedDeviceRow.findAll({ where: { unpairedAt: null }, order: [['pairedAt', 'ASC']], transaction: tx });

export const addPaired = (tx: Tx, values: Pick<PairedDeviceRow, 'id' | 'tokenHash' | 'name' | 'pairedBy'>) =>
  PairedDeviceRow.create(values, { transaction: tx });

/** Who may sign in with a PIN. */
export const withPin = (tx: Tx) =>
  TechnicianRow.findAll({
    where: { active: true, pinHash: { [Op.ne]: null } },
    order: [['name', 'ASC']],
    transaction: tx,
  });
