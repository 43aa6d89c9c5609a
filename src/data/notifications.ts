import { EventEmitter } from 'node:events';
import pg from 'pg';
import { database, databaseUrl, type Tx } from './database';

/**
 * News of changed jobs across all server processes, by PostgreSQL LISTEN/NOTIFY. The database itself sends a notice when
 * a change is committed, never before: which job it was, or nothing where it is something that every job is judged by.
 * Readers fetch the rest.
 */
const channel = 'hacienda_jobs';

/** That somebody's session or account ended: whoever listens under it looks again whether it may. */
export async function announcePeople(tx: Tx): Promise<void> {
  await database().query('SELECT pg_notify($channel, $news)', {
    bind: { channel, news: ofPeople },
    transaction: tx,
  });
}

/** Not the ID of any job. */
const ofPeople = 'people';

const news = new EventEmitter();
news.setMaxListeners(0);
let listening: Promise<void> | undefined;

/** Calls back on each notice: with the job, or with nothing when notices may have been missed. */
export function onChange(callback: (jobId: string | undefined) => void): () => void {
  listening ??= listen();
  news.on('change', callback);
  return () => news.off('change', callback);
}

/** Calls back when somebody may have lost the right to listen. */
export function onPeople(callback: () => void): () => void {
  listening ??= listen();
  news.on('people', callback);
  return () => news.off('people', callback);
}

async function listen(): Promise<void> {
  for (let attempt = 0; ; attempt += 1) {
    const client = new pg.Client({ connectionString: databaseUrl(), keepAlive: true });
    try {
      await client.connect();
      client.on('notification', ({ payload }) =>
        payload === ofPeople ? news.emit('people') : news.emit('change', payload || undefined),
      );
      await client.query(`LISTEN ${channel}`);
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
    await client.end().catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, Math.min(5000, 200 * 2 ** Math.min(attempt, 5))));
  }
}
