import pg from 'pg';
import { openShop, type Shop } from './shop';

/** Names the server and the database that every shop of a browser test is a copy of. */
export const patternVariable = 'PATTERN_DATABASE';

let copies = 0;

/** A shop as the pattern is, of its own: its database, its simulated devices, its server. */
export async function copyOfShop({ devices }: { devices: boolean }): Promise<Shop> {
  const pattern = new URL(process.env[patternVariable] ?? '');
  const name = `copy_${process.pid}_${(copies += 1)}`;
  await onServer(pattern, `CREATE DATABASE ${name} TEMPLATE ${pattern.pathname.slice(1)}`);
  const drop = () => onServer(pattern, `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  const databaseUrl = Object.assign(new URL(pattern), { pathname: `/${name}` }).href;
  try {
    const shop = await openShop({ devices, databaseUrl, prepare: () => Promise.resolve() });
    return { ...shop, close: () => shop.close().finally(drop) };
  } catch (error) {
    await drop();
    throw error;
  }
}

async function onServer(pattern: URL, sql: string): Promise<void> {
  const client = new pg.Client({
    connectionString: Object.assign(new URL(pattern), { pathname: '/postgres' }).href,
  });
  await client.connect();
  await client.query(sql).finally(() => client.end());
}
