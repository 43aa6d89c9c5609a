import pg from 'pg';
import { v7 as newKey } from 'uuid';
import { startCluster, wipe } from '../src/cli/cluster';
import { closeDatabase, database } from '../src/data/database';
import { migrate } from '../src/data/migrations';

/**
 * News of changed jobs to their limit: changes a second from eight connections, one notice each by the database, heard by
 * as many listening connections as there would be server processes. How many came, and how late, beside the same changes
 * with nobody listening.
 *
 * Run: npx tsx bench/news.ts
 */
const seconds = 5;
const writers = 8;

const folder = '/tmp/hacienda-news';
const cluster = await startCluster(folder, { processes: 4 });
process.env.DATABASE_URL = cluster.url;
try {
  await migrate();
  await database().query(`INSERT INTO vehicles (id, label, tpms, placard) VALUES ($1, 'x', '{}', '[]')`, {
    bind: [newKey()],
  });
  for (let n = 0; n < 200; n += 1)
    await database().query(
      `INSERT INTO jobs (id, key, vehicle_id, state, version, header, opened_by, opened_at)
       SELECT $1, $2, id, 'open', 1, '{}', 'x', now() FROM vehicles`,
      { bind: [newKey(), newKey()] },
    );
  const { ids } = await one<{ ids: string[] }>('SELECT array_agg(id) AS ids FROM jobs');
  for (const listeners of [0, 2, 8, 32]) {
    const delays: number[] = [];
    let sent = 0;
    const sentAt = new Map<string, number>();
    const clients = await Promise.all(Array.from({ length: listeners }, () => connect()));
    for (const client of clients) {
      client.on('notification', ({ payload = '' }) =>
        delays.push(performance.now() - (sentAt.get(payload) ?? 0)),
      );
      await client.query('LISTEN hacienda_jobs');
    }
    const until = performance.now() + seconds * 1000;
    await Promise.all(
      Array.from({ length: writers }, async (_, writer) => {
        const client = await connect();
        for (let n = writer; performance.now() < until; n += writers) {
          const id = ids[n % ids.length] ?? '';
          sentAt.set(id, performance.now());
          await client.query('UPDATE jobs SET version = version WHERE id = $1', [id]);
          sent += 1;
        }
        await client.end();
      }),
    );
    await new Promise((resolve) => setTimeout(resolve, 1000));
    for (const client of clients) await client.end();
    delays.sort((a, b) => a - b);
    const at = (share: number) => (delays[Math.floor(share * delays.length)] ?? Number.NaN).toFixed(1);
    process.stdout.write(
      `${listeners} listening: ${(sent / seconds).toFixed(0)} changes a second, ${delays.length} of ${sent * listeners} heard, p50 ${at(0.5)} ms, p99 ${at(0.99)} ms\n`,
    );
  }
} finally {
  await closeDatabase();
  await cluster.stop();
  wipe(folder);
}

async function connect(): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  return client;
}

async function one<Row extends object>(sql: string): Promise<Row> {
  const client = await connect();
  const { rows } = await client.query<Row>(sql);
  await client.end();
  if (!rows[0]) throw new Error('nothing there');
  return rows[0];
}
