import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import type { YardLine } from '../src/contract/views';
import { Client, openShop } from '../tests/support/shop';
import { median, round } from './rounds';

/**
 * The job sheet's endpoint against a bare node:http server that makes the same queries with pg and sends
 * the rows: what the app adds on top. Both in turn within one minute; the ratio is what counts.
 *
 * Run: npx tsx bench/job-sheet.ts
 */
const rounds = 15;

const shop = await openShop();
const ines = await Client.signIn(shop.address);
const [line] = (await ines.get<YardLine[]>('/api/yard')).filter(({ plate }) => plate === 'KUR 125');
if (!line) throw new Error('the demo has this car');
const id = line.id;

const pool = new pg.Pool({ connectionString: shop.databaseUrl, max: 10 });
const { rows } = await pool.query<{ token_hash: string }>('SELECT token_hash FROM sessions LIMIT 1');
const token = rows[0]?.token_hash;
const bare = createServer((_, response) => {
  void (async () => {
    const session = await pool.query<{ technician_id: string }>(
      'SELECT * FROM sessions WHERE token_hash = $1 AND expires_at > now()',
      [token],
    );
    await pool.query('SELECT * FROM technicians WHERE id = $1', [session.rows[0]?.technician_id]);
    const job = await pool.query<{ header: { vehicle: { profile: string } } }>(
      'SELECT * FROM jobs WHERE id = $1',
      [id],
    );
    const observations = await pool.query('SELECT * FROM observations WHERE job_id = $1 ORDER BY seq', [id]);
    const writes = await pool.query('SELECT * FROM car_writes WHERE job_id = $1 ORDER BY seq', [id]);
    const profile = await pool.query('SELECT * FROM profiles WHERE name = $1', [
      job.rows[0]?.header.vehicle.profile,
    ]);
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify([job.rows, observations.rows, writes.rows, profile.rows]));
  })();
});
await new Promise<void>((resolve) => bare.listen(0, '127.0.0.1', resolve));
const bareAddress = `http://127.0.0.1:${(bare.address() as AddressInfo).port}/`;

const ours = () => ines.fetch(`/api/jobs/${id}`);
const theirs = () => fetch(bareAddress);
await round(ours);
await round(theirs);
const pairs: { ours: number; bare: number }[] = [];
for (let n = 0; n < rounds; n += 1) pairs.push({ ours: await round(ours), bare: await round(theirs) });

const ratios = pairs.map((pair) => pair.ours / pair.bare);
process.stdout.write(
  `job sheet ${median(pairs.map((pair) => pair.ours)).toFixed(2)} ms, bare ${median(pairs.map(({ bare: ms }) => ms)).toFixed(2)} ms a request; ` +
    `ratio ${median(ratios).toFixed(2)} (${Math.min(...ratios).toFixed(2)} to ${Math.max(...ratios).toFixed(2)} over ${rounds} pairs)\n`,
);
bare.close();
await pool.end();
await shop.close();
