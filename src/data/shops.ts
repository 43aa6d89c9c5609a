import { setting } from '../settings';
import { connectedTo } from './client';

/**
 * Several shops in one database: each has a schema of its own, in which its server process does all it does, and finds
 * nothing of the others. A shop alone has the usual one.
 */

const alone = 'public';
/** What they share: what the database was extended with. */
const shared = 'extensions';
const mark = 'shop_';

/** Of this process: by `HACIENDA_SHOP`. Throws where that is no name. */
export function ownSchema(): string {
  const name = setting('HACIENDA_SHOP');
  return name === undefined ? alone : mark + name;
}

export const schemaOfShop = (name: string): string => mark + name;

/** How a connection is told where to look. */
export const pathOf = (schema: string, how: 'own' | 'read-only'): { options?: string } => {
  const parts = [
    ...(schema === alone ? [] : [`-c search_path=${schema},${shared}`]),
    ...(how === 'own' ? [] : ['-c default_transaction_read_only=on']),
  ];
  return parts.length > 0 ? { options: parts.join(' ') } : {};
};

/** Makes room for a shop of a chain. Throws where the database holds a shop alone: that one's tables would be found by all. */
export async function prepareSchema(url: string, schema = ownSchema()): Promise<void> {
  if (schema === alone) return;
  await connectedTo(url, async (client) => {
    await client.query('BEGIN');
    await client.query("SELECT pg_advisory_xact_lock(hashtext('hacienda shops'))");
    const { rows } = await client.query<{ there: boolean }>(
      "SELECT to_regclass('public.jobs') IS NOT NULL AS there",
    );
    if (rows[0]?.there)
      throw new Error('This database holds a shop alone. Name another for the chain in DATABASE_URL.');
    await client.query(`CREATE SCHEMA IF NOT EXISTS ${shared}`);
    await client.query(`CREATE EXTENSION IF NOT EXISTS pg_trgm SCHEMA ${shared}`);
    await client.query(`CREATE SCHEMA IF NOT EXISTS ${client.escapeIdentifier(schema)}`);
    await client.query('COMMIT');
  });
}

/** The shops of a chain, by name. */
export const shopsIn = (url: string): Promise<string[]> =>
  connectedTo(url, async (client) => {
    const { rows } = await client.query<{ name: string }>(
      'SELECT substr(nspname, $1) AS name FROM pg_namespace WHERE starts_with(nspname, $2) ORDER BY name',
      [mark.length + 1, mark],
    );
    return rows.map(({ name }) => name);
  });
