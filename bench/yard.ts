import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import { v7 as newKey } from 'uuid';
import { Client, openShop } from '../tests/support/shop';
import { fullJob } from './full-job';
import { median, round } from './rounds';

/**
 * The Yard with 200 open jobs, warm, against a bare node:http server that makes the same query with pg and sends its
 * rows: what judging adds where nothing changed. Then how late the server's event loop is (it says so itself) while 20
 * screens watch a job and one types.
 *
 * Run: npx tsx bench/yard.ts   (after `npx astro build`)
 */
const open = 200;
const rounds = 15;
const screens = 20;

const shop = await openShop();
const ines = await Client.signIn(shop.address);
const job = fullJob(true);
for (let n = 0; n < open; n += 1) {
  const file = { ...job, vehicle: { ...job.vehicle, plate: `BENCH ${n}` }, visit: { key: newKey() } };
  await ines.post('/api/jobs/import', file);
}

const pool = new pg.Pool({ connectionString: shop.databaseUrl, max: 10 });
const { rows: sessions } = await pool.query<{ token_hash: string }>(
  'SELECT token_hash FROM sessions LIMIT 1',
);
const bare = createServer((_, response) => {
  void (async () => {
    const session = await pool.query<{ technician_id: string }>(
      'SELECT * FROM sessions WHERE token_hash = $1 AND expires_at > now()',
      [sessions[0]?.token_hash],
    );
    await pool.query('SELECT * FROM technicians WHERE id = $1', [session.rows[0]?.technician_id]);
    await pool.query('SELECT settings FROM shop');
    const found = await pool.query(
      `SELECT id, number, state, opened_at, opened_by, handed_over_at, revision,
         (SELECT revision FROM surroundings) AS surroundings,
         (SELECT max(seq) FROM confirmations WHERE confirmations.at < jobs.opened_at) AS learned,
         header->'vehicle' AS vehicle, header->'visit' AS visit
       FROM jobs WHERE state = 'open' ORDER BY opened_at DESC LIMIT 200`,
    );
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify(found.rows));
  })();
});
await new Promise<void>((resolve) => bare.listen(0, '127.0.0.1', resolve));
const bareAddress = `http://127.0.0.1:${(bare.address() as AddressInfo).port}/`;

const ours = () => ines.fetch('/api/yard');
const theirs = () => fetch(bareAddress);
const cold = performance.now();
await (await ours()).arrayBuffer();
const coldMs = performance.now() - cold;
await round(ours);
await round(theirs);
const pairs: { ours: number; bare: number }[] = [];
for (let n = 0; n < rounds; n += 1) pairs.push({ ours: await round(ours), bare: await round(theirs) });
process.stdout.write(
  `yard of ${open}: first ${coldMs.toFixed(0)} ms; warm ${median(pairs.map((pair) => pair.ours)).toFixed(2)} ms, ` +
    `bare query ${median(pairs.map((pair) => pair.bare)).toFixed(2)} ms; ratio ${median(pairs.map((pair) => pair.ours / pair.bare)).toFixed(2)}\n`,
);

// Twenty screens on one job, fetching it whenever they hear of a change; one hand typing.
const [watched] = await ines.get<{ id: string }[]>('/api/yard');
const id = watched?.id ?? '';
const stop = new AbortController();
const watching = Array.from({ length: screens }, async () => {
  const events = await ines.fetch(`/api/jobs/${id}/events`, { signal: stop.signal });
  const decoder = new TextDecoder();
  for await (const chunk of events.body as unknown as AsyncIterable<Uint8Array>)
    if (decoder.decode(chunk).includes('event: change'))
      await (await ines.fetch(`/api/jobs/${id}`)).arrayBuffer();
}).map((screen) => screen.catch(() => undefined));
const beats = setInterval(() => void ours().then((answer) => answer.arrayBuffer()), 750);
const before = await ines.get<{ eventLoopP99Ms: number }>('/api/health');
for (let n = 0; n < 60; n += 1) {
  const observation = {
    kind: 'gauge',
    at: new Date().toISOString(),
    wheel: (['LF', 'RF', 'RR', 'LR'] as const)[n % 4],
    kPa: 225 + (n % 9),
    tire: 'cold',
  };
  await ines.post(`/api/jobs/${id}/observations`, { key: newKey(), observation });
  await new Promise((resolve) => setTimeout(resolve, 250));
}
const after = await ines.get<{ eventLoopP99Ms: number }>('/api/health');
process.stdout.write(
  `event loop while ${screens} screens watch and one types: p99 ${after.eventLoopP99Ms} ms (before: ${before.eventLoopP99Ms})\n`,
);
clearInterval(beats);
stop.abort();
await Promise.all(watching);
bare.close();
await pool.end();
await shop.close();
