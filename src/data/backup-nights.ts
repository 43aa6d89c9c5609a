import { QueryTypes } from 'sequelize';
import { database } from './database';

/** How a night's backup went. */
export interface BackupNight {
  at: Date;
  /** Why there is none of that night, in words; null where there is one. */
  failed: string | null;
}

/** So many nights are remembered. */
const keptNights = 60;

export async function noteNight(failed: string | null): Promise<void> {
  await database().query('INSERT INTO backup_nights (failed) VALUES ($failed)', { bind: { failed } });
  await database().query(
    `DELETE FROM backup_nights WHERE at NOT IN
       (SELECT at FROM backup_nights ORDER BY at DESC LIMIT ${keptNights})`,
  );
}

export async function lastNight(): Promise<BackupNight | undefined> {
  const [night] = await database().query<BackupNight>(
    'SELECT at, failed FROM backup_nights ORDER BY at DESC LIMIT 1',
    { type: QueryTypes.SELECT },
  );
  return night;
}
