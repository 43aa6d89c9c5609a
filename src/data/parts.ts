import { QueryTypes } from 'sequelize';
import type { Part } from '../core/sensor/part';
import { partSchema } from '../core/sensor/part/schema';
import { database, type Tx } from './database';
import { PartRow } from './models';

export async function listParts(tx: Tx): Promise<Part[]> {
  const rows = await PartRow.findAll({ order: [['name', 'ASC']], raw: true, transaction: tx });
  return rows.map(({ body }) => partSchema.parse(body));
}

export async function findPart(tx: Tx, name: string): Promise<Part | undefined> {
  const row = await PartRow.findByPk(name, { transaction: tx });
  return row ? partSchema.parse(row.body) : undefined;
}

export const savePart = (tx: Tx, by: string, part: Part) =>
  PartRow.upsert({ name: part.name, body: part, at: new Date(), by }, { transaction: tx });

/** Whether an ID, canonical, was ever met: heard, held by a car, programmed, printed, or put on file. */
export async function idIsKnown(tx: Tx, id: string): Promise<boolean> {
  const [found] = await database().query<{ known: boolean }>(
    'SELECT EXISTS (SELECT FROM sensor_ids WHERE sensor_id = $id) AS known',
    { bind: { id }, type: QueryTypes.SELECT, transaction: tx },
  );
  return found?.known ?? false;
}
