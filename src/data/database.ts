import pg from 'pg';
import { Sequelize, UniqueConstraintError, type Transaction } from 'sequelize';
import { defineModels } from './models';

export type Tx = Transaction;

let connected: Sequelize | undefined;

/** The address of the database, from `DATABASE_URL`. Throws where it is not set: the start command sets it. */
export function databaseUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; start the app with ./hacienda');
  return url;
}

/** The one connection pool of this process. */
export function database(): Sequelize {
  if (!connected) {
    connected = new Sequelize(databaseUrl(), {
      dialect: 'postgres',
      logging: false,
      pool: { max: 10, min: 1, idle: 30_000, acquire: 10_000 },
      define: { underscored: true, timestamps: false },
    });
    defineModels(connected);
  }
  return connected;
}

/**
 * One transaction per use case: all of it is stored, or none. Of two that store the same thing at the same
 * time, a double press, the later one is done once more: now it finds what the other stored.
 */
export async function inTransaction<Value>(work: (tx: Tx) => Promise<Value>): Promise<Value> {
  try {
    return await database().transaction(work);
  } catch (error) {
    if (error instanceof UniqueConstraintError) return database().transaction(work);
    throw error;
  }
}

export async function closeDatabase(): Promise<void> {
  await connected?.close();
  connected = undefined;
}

/** Whether the database answers. */
export async function databaseAnswers(): Promise<boolean> {
  try {
    await database().query('SELECT 1');
    return true;
  } catch {
    return false;
  }
}

/** Makes a database on a server where there is none of that name. */
export async function ensureDatabase(serverUrl: string, name: string): Promise<void> {
  const client = new pg.Client({ connectionString: serverUrl });
  await client.connect();
  try {
    const found = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [name]);
    if (found.rowCount === 0) await client.query(`CREATE DATABASE ${client.escapeIdentifier(name)}`);
  } finally {
    await client.end();
  }
}
