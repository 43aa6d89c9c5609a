import type pg from 'pg';
import { connectedTo } from './client';

/** What a backup is held against: how many rows each table has, and a sum over all of them. */
export type Sums = Record<string, { rows: number; sum: string }>;

/** Texts of moments and numbers must be the same in both sessions that are compared. */
const sameWords =
  "SET TIME ZONE 'UTC'; SET datestyle = 'ISO, YMD'; SET extra_float_digits = 1; SET statement_timeout = 0";

/** The sums of every table, by whatever session this is. */
async function sumsIn(client: pg.Client): Promise<Sums> {
  const { rows: tables } = await client.query<{ schema: string; table: string }>(
    `SELECT schemaname AS schema, tablename AS table FROM pg_tables
     WHERE schemaname = 'public' OR starts_with(schemaname, 'shop_') ORDER BY schemaname, tablename`,
  );
  const sums: Sums = {};
  for (const { schema, table } of tables) {
    const name = schema === 'public' ? table : `${schema}.${table}`;
    // A sum does not ask for an order; the hash of a row is that of all it says.
    const { rows } = await client.query<{ rows: string; sum: string }>(
      `SELECT count(*) AS rows, coalesce(sum(hashtextextended(one::text, 0)::numeric), 0)::text AS sum
       FROM ${client.escapeIdentifier(schema)}.${client.escapeIdentifier(table)} AS one`,
    );
    sums[name] = { rows: Number(rows[0]?.rows), sum: rows[0]?.sum ?? '' };
  }
  return sums;
}

/** The sums of a database as it is now. */
export const sumsOf = (url: string): Promise<Sums> =>
  connectedTo(url, async (client) => {
    await client.query(sameWords);
    return sumsIn(client);
  });

/** The sums of a database at one moment, and whatever work is done with that moment: `snapshot` names it for others. */
export const atOneMoment = <Value>(
  url: string,
  work: (snapshot: string) => Promise<Value>,
): Promise<{ sums: Sums; value: Value }> =>
  connectedTo(url, async (client) => {
    await client.query(sameWords);
    await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
    const { rows } = await client.query<{ snapshot: string }>('SELECT pg_export_snapshot() AS snapshot');
    const value = await work(rows[0]?.snapshot ?? '');
    const sums = await sumsIn(client);
    await client.query('COMMIT');
    return { sums, value };
  });

/** Tables of which one has other rows than the other says, in words; empty where all agree. */
export function differences(wanted: Sums, found: Sums): string[] {
  const names = [...new Set([...Object.keys(wanted), ...Object.keys(found)])].sort();
  return names.flatMap((name) => {
    const [one, other] = [wanted[name], found[name]];
    if (one && other && one.rows === other.rows && one.sum === other.sum) return [];
    return [`${name}: ${one?.rows ?? 'no table'} rows in the backup, ${other?.rows ?? 'no table'} restored`];
  });
}

/** An empty database beside the one of an address; its address. One of that name is removed first. */
export const emptyDatabase = (url: string, name: string): Promise<string> =>
  connectedTo(besides(url, 'postgres'), async (client) => {
    await client.query(`DROP DATABASE IF EXISTS ${client.escapeIdentifier(name)} WITH (FORCE)`);
    await client.query(`CREATE DATABASE ${client.escapeIdentifier(name)}`);
    return besides(url, name);
  });

export const dropDatabase = (url: string, name: string): Promise<void> =>
  connectedTo(besides(url, 'postgres'), async (client) => {
    await client.query(`DROP DATABASE IF EXISTS ${client.escapeIdentifier(name)} WITH (FORCE)`);
  });

/** Puts a database in the place of that of an address, which is kept under another name. */
export const takePlace = (url: string, fresh: string, before: string): Promise<void> =>
  connectedTo(besides(url, 'postgres'), async (client) => {
    const name = new URL(url).pathname.slice(1);
    const called = (one: string) => client.escapeIdentifier(one);
    await client.query(`DROP DATABASE IF EXISTS ${called(before)} WITH (FORCE)`);
    await client.query(`ALTER DATABASE ${called(name)} RENAME TO ${called(before)}`);
    await client.query(`ALTER DATABASE ${called(fresh)} RENAME TO ${called(name)}`);
  });

function besides(url: string, name: string): string {
  const other = new URL(url);
  other.pathname = `/${name}`;
  return other.href;
}
