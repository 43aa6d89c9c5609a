import { QueryTypes } from 'sequelize';
import { database, inTransaction } from './database';

/** Much at once, straight into the tables: for benches and for trying, never for what somebody recorded. */

/** A table and the columns a bulk of rows fills, with their types. */
const tables = {
  customers: 'id uuid, name text',
  vehicles:
    'id uuid, vin text, plate text, label text, model_year integer, profile text, tpms jsonb, placard jsonb, customer_id uuid',
  wheel_sets: 'id uuid, vehicle_id uuid, label text, season text, place text, rack text',
  wheels: 'wheel_set_id uuid, sensor_id text, wheel text, new_on date',
  jobs: `id uuid, key uuid, vehicle_id uuid, state text, version integer, header jsonb, opened_by text, opened_at timestamptz,
    handed_over_at timestamptz, handed_over_by text`,
  observations:
    'key uuid, job_id uuid, kind text, at timestamptz, body jsonb, recorded_by text, recorded_at timestamptz',
  confirmations: 'key uuid, job_id uuid, at timestamptz, by text, parts jsonb',
} as const;
type BulkTable = keyof typeof tables;

/** Rows of each table, in the order they are to be filled. */
export type Bulk = { [Table in BulkTable]: Record<string, unknown>[] };

export const emptyBulk = (): Bulk => ({
  customers: [],
  vehicles: [],
  wheel_sets: [],
  wheels: [],
  jobs: [],
  observations: [],
  confirmations: [],
});

/** Fills the tables; rows that are there already stay as they are. The triggers of single records do not run. */
export function fill(bulk: Bulk): Promise<void> {
  return inTransaction(async (transaction) => {
    await database().query("SET LOCAL session_replication_role = 'replica'", { transaction });
    for (const [table, columns] of Object.entries(tables) as [BulkTable, string][]) {
      const names = columns.split(',').map((column) => column.trim().split(' ')[0] ?? '');
      await database().query(
        `INSERT INTO ${table} (${names.join()}) SELECT ${names.join()}
         FROM jsonb_to_recordset($rows::jsonb) AS filled (${columns}) ON CONFLICT DO NOTHING`,
        { bind: { rows: JSON.stringify(bulk[table]) }, transaction },
      );
    }
  });
}

/** What the triggers would have kept: which IDs were met where. And the planner learns how large the tables are. */
export async function indexMet(): Promise<void> {
  await inTransaction(async (transaction) => {
    for (const step of [
      // However long it takes.
      'SET LOCAL statement_timeout = 0',
      `CREATE TEMPORARY TABLE met ON COMMIT DROP AS
         SELECT canonical_id((m).sensor_id) AS id, (m).job_id, (m).how, (m).at FROM (
           SELECT met_in_observation(job_id, kind, at, body) AS m FROM observations WHERE kind IN ('activation', 'registry')
         ) AS one`,
      `INSERT INTO sensor_ids SELECT id FROM met UNION SELECT canonical_id(sensor_id) FROM wheels WHERE sensor_id IS NOT NULL
       ON CONFLICT DO NOTHING`,
      'INSERT INTO sightings SELECT id, job_id, how, max(at) FROM met GROUP BY 1, 2, 3 ON CONFLICT DO NOTHING',
      'ANALYZE',
    ])
      await database().query(step, { transaction });
  });
}

/** How many rows a table has. */
export async function countOf(table: BulkTable | 'sightings' | 'sensor_ids'): Promise<number> {
  const [found] = await database().query<{ count: string }>(`SELECT count(*) FROM ${table}`, {
    type: QueryTypes.SELECT,
  });
  return Number(found?.count ?? 0);
}
