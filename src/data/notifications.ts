import { EventEmitter } from 'node:events';
import pg from 'pg';
import { databaseUrl, type Tx } from './database';

/**
 * News of changed jobs across all server processes, by PostgreSQL LISTEN/NOTIFY. The database itself sends a notice when
 * a change is committed, never before: which job it was, or nothing where it is something that every job is judged by.
 * Readers fetch the rest.
 */
const channel = 'hacienda_jobs';

/** That a session ended, an account changed or the shop was set otherwise. Not the ID of any job. */
const ofPeople = 'people';

const news = new EventEmitter();
news.setMaxListeners(0);
let listening: Promise<void> | undefined;
let isListening = false;
/** The connection that listens; it is ended to be made anew, or for good. */
let listener: pg.Client | undefined;
let isClosed = false;

/** Whether what the database tells is heard just now. */
export const newsComeThrough = (): boolean => isListening;

/**
 * Who changes people, their sessions or the shop's settings says so in its own process at once: the database's word of it
 * takes a moment, and what is asked next comes after it.
 */
export const peopleChanged = (tx: Tx): void => void tx.afterCommit(() => void news.emit('people'));

/** Calls back on each notice: with the job, or with nothing when notices may have been missed. */
export function onChange(callback: (jobId: string | undefined) => void): () => void {
  listening ??= listen();
  news.on('change', callback);
  return () => news.off('change', callback);
}

/** Calls back when somebody may have lost a right, or have another, and when news of it may have been missed. */
export function onPeople(callback: () => void): () => void {
  listening ??= listen();
  news.on('people', callback);
  return () => news.off('people', callback);
}

/** Listens no more, for good. */
export async function closeNews(): Promise<void> {
  isClosed = true;
  await listener?.end().catch(() => undefined);
}

async function listen(): Promise<void> {
  for (let attempt = 0; !isClosed; attempt += 1) {
    const client = new pg.Client({ connectionString: databaseUrl(), keepAlive: true });
    listener = client;
    try {
      await client.connect();
      client.on('notification', ({ payload }) =>
        payload === ofPeople ? news.emit('people') : news.emit('change', payload || undefined),
      );
      await client.query(`LISTEN ${channel}`);
      isListening = true;
      // Whoever asked before this process listened may have missed a notice: at the first connection too.
      news.emit('people');
      news.emit('change', undefined);
      await new Promise<void>((resolve) => {
        client.on('error', () => resolve());
        client.on('end', () => resolve());
      });
    } catch {
      // The database is away: try again, slower each time.
    }
    isListening = false;
    news.emit('people');
    if (isClosed) return;
    await client.end().catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, Math.min(5000, 200 * 2 ** Math.min(attempt, 5))));
  }
}
