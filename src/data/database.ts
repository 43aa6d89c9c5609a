import { setting } from '../settings';
import { AsyncLocalStorage } from 'node:async_hooks';
import pg from 'pg';
import {
  ConnectionAcquireTimeoutError,
  ConnectionError,
  DatabaseError,
  Sequelize,
  UniqueConstraintError,
  type Transaction,
} from 'sequelize';
import { defineModels } from './models';
import { preparing } from './prepared';
import { ownSchema, pathOf } from './shops';

export type Tx = Transaction;

/** The pools of this process: of its own shop, and of those that were looked into. */
const pools = new Map<string, Sequelize>();

/** The schema of the shop that is looked into just now, where it is not this process's own. */
const lookedInto = new AsyncLocalStorage<string | undefined>();

/** The schema that everything is asked of just now. */
export const schemaNow = (): string => lookedInto.getStore() ?? ownSchema();

/** Asks another shop of the chain, whose database lets nothing be changed this way. */
export const inSchema = <Value>(schema: string, work: () => Value): Value =>
  lookedInto.run(schema === ownSchema() ? undefined : schema, work);

/** Asks this process's own shop, whichever is looked into. */
export const inOwnShop = <Value>(work: () => Value): Value => lookedInto.run(undefined, work);

/** The address of the database, from `DATABASE_URL`. Throws where it is not set: the start command sets it. */
export function databaseUrl(): string {
  const url = setting('DATABASE_URL');
  if (!url) throw new Error('DATABASE_URL is not set; start the app with ./hacienda');
  return url;
}

/** The connection pool of this process, or of the shop that is looked into. */
export function database(): Sequelize {
  const schema = schemaNow();
  const there = pools.get(schema);
  if (there) return there;
  const isOwn = schema === ownSchema();
  const pool = new Sequelize(databaseUrl(), {
    dialect: 'postgres',
    dialectModule: preparing,
    logging: false,
    pool: { max: isOwn ? 10 : 3, min: isOwn ? 1 : 0, idle: 30_000, acquire: 5_000 },
    // Nobody waits for ever for somebody else's row: a wait ends, and is told.
    dialectOptions: {
      lock_timeout: 3_000,
      statement_timeout: 8_000,
      idle_in_transaction_session_timeout: 15_000,
      ...pathOf(schema, isOwn ? 'own' : 'read-only'),
    },
    define: { underscored: true, timestamps: false },
  });
  // The models ask through the transaction they are given, whosever pool it is of.
  if (isOwn) defineModels(pool);
  pools.set(schema, pool);
  return pool;
}

/**
 * One transaction per use case: all of it is stored, or none. Of two that store the same thing at the same
 * time, a double press, the later one is done once more: now it finds what the other stored.
 */
export async function inTransaction<Value>(work: (tx: Tx) => Promise<Value>): Promise<Value> {
  try {
    return await database().transaction(work);
  } catch (error) {
    if (isDouble(error)) return database().transaction(work);
    throw error;
  }
}

/** Whether an error says that something is there already under the same key. */
export const isDouble = (error: unknown): boolean => error instanceof UniqueConstraintError;

/** States of PostgreSQL in which it takes nothing just now (PostgreSQL 15 manual, appendix A). */
const passing = new Set([
  '53300', // too many connections
  '55P03', // a lock was not had in time
  '57014', // a statement took too long
  '57P01', // it is stopped
  '57P02', // it crashed
  '57P03', // it is starting
  '40001', // two changes crossed
  '40P01', // two waited for each other
]);

/** Whether an error says that the database is away or held up: what was asked is not done, and may be tried again. */
export function isPassing(error: unknown): boolean {
  if (
    error instanceof HeldUp ||
    error instanceof ConnectionError ||
    error instanceof ConnectionAcquireTimeoutError
  )
    return true;
  const { parent } = error instanceof DatabaseError ? error : { parent: error };
  const { code, message } = (parent ?? {}) as { code?: unknown; message?: unknown };
  if (typeof code === 'string' && (passing.has(code) || /^(ECONN|EPIPE)/.test(code))) return true;
  return typeof message === 'string' && /connection (terminated|ended)/i.test(message);
}

/** The name of the rule of the database that an error says was broken. */
export function brokenRule(error: unknown): string | undefined {
  const from = error instanceof DatabaseError ? (error.parent as { constraint?: unknown }) : undefined;
  return typeof from?.constraint === 'string' ? from.constraint : undefined;
}

/** A connection for what may take long: a migration of a large shop. Whoever asks for it closes it. */
export const patientDatabase = (): Sequelize =>
  new Sequelize(databaseUrl(), {
    dialect: 'postgres',
    logging: false,
    pool: { max: 2, min: 0 },
    dialectOptions: pathOf(ownSchema(), 'own'),
  });

/** Those of one job take turns: a job that is held up holds one connection, and the others serve the shop. */
const turns = new Map<string, { last: Promise<unknown>; waiting: number }>();
/** So many wait for one job; more are told to come back. */
const mostWaiting = 30;
/** So long anybody waits for a turn, ms. */
const patienceMs = 4_000;

/** As `inTransaction`, one after the other for each job in this process. Throws `HeldUp` where too many wait. */
export const inJobTransaction = <Value>(jobId: string, work: (tx: Tx) => Promise<Value>): Promise<Value> =>
  inJobTurn(jobId, () => inTransaction(work));

/** One after the other for each job in this process, without a transaction. Throws likewise. */
export async function inJobTurn<Value>(jobId: string, work: () => Promise<Value>): Promise<Value> {
  const turn = turns.get(jobId) ?? { last: Promise.resolve(), waiting: 0 };
  if (turn.waiting >= mostWaiting) throw new HeldUp();
  turn.waiting += 1;
  turns.set(jobId, turn);
  const giveUpAt = Date.now() + patienceMs;
  const mine = turn.last.then(() => {
    // Whoever waited behind one that could not get through would wait as long again, each.
    if (Date.now() > giveUpAt) throw new HeldUp();
    return work();
  });
  turn.last = mine.catch(() => undefined);
  try {
    return await mine;
  } finally {
    turn.waiting -= 1;
    if (turn.waiting === 0 && turns.get(jobId) === turn) turns.delete(jobId);
  }
}

/** Too many wait for the same thing. */
export class HeldUp extends Error {}

export async function closeDatabase(): Promise<void> {
  const closing = [...pools.values()];
  pools.clear();
  await Promise.all(closing.map((pool) => pool.close()));
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
