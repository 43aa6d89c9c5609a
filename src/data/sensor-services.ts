import { sensorServiceSchema, type SensorService } from '../core/job/schemas/sensor-service';
import type { Tx } from './database';
import { SensorServiceRow } from './models';

/** As it stands in the job file; its picture is fetched apart. */
export const serviceFrom = ({ key, body }: Pick<SensorServiceRow, 'key' | 'body'>): SensorService =>
  sensorServiceSchema.parse({ ...body, key });

export const findService = (tx: Tx, key: string) => SensorServiceRow.findByPk(key, { transaction: tx });

export const addService = (tx: Tx, jobId: string, { photo, ...service }: SensorService) =>
  SensorServiceRow.create(
    {
      key: service.key,
      jobId,
      body: { ...service, ...(photo !== undefined && { hasPhoto: true }) },
      photo: photo ?? null,
    },
    { transaction: tx },
  );

/** The pictures of a job, by the keys of their services. */
export async function photosOf(tx: Tx, jobId: string): Promise<Map<string, string>> {
  const rows = await SensorServiceRow.findAll({
    where: { jobId },
    attributes: ['key', 'photo'],
    raw: true,
    transaction: tx,
  });
  return new Map(rows.flatMap(({ key, photo }) => (photo === null ? [] : [[key, photo]])));
}
