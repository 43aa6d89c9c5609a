import { execFile } from 'node:child_process';
import { chownSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { freePort } from '../../src/cli/free-port';
import pg from 'pg';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { postgresPrograms, startCluster, wipe } from '../../src/cli/cluster';

/** The way of docs/operating.md, done by machine: a standby on loopback, the first one lost, the other promoted. */
const programs = postgresPrograms();
/** Tried again, it has folders of its own: what the first try killed may still lie in the others. */
let first: string;
let second: string;
beforeEach(() => {
  first = mkdtempSync(join(tmpdir(), 'hacienda-first-'));
  second = mkdtempSync(join(tmpdir(), 'hacienda-second-'));
});
afterEach(async () => {
  await run('pg_ctl', '-D', join(second, 'cluster'), '-m', 'immediate', 'stop').catch(() => undefined);
  wipe(first);
  rmSync(second, { recursive: true, force: true });
});

const execute = promisify(execFile);
const owner = async () => {
  if (process.getuid?.() !== 0) return {};
  const [uid, gid] = await Promise.all(['-u', '-g'].map((flag) => execute('id', [flag, 'postgres'])));
  return { uid: Number(uid?.stdout), gid: Number(gid?.stdout) };
};
const run = async (program: string, ...parameters: string[]) =>
  execute(join(programs, program), parameters, { ...(await owner()), cwd: '/' });
const connected = async (connectionString: string) => {
  const client = new pg.Client({ connectionString });
  client.on('error', () => undefined);
  await client.connect();
  return client;
};

describe('a standby', () => {
  it('has all that was acknowledged when the first server is lost', async () => {
    const data = join(second, 'cluster');
    const cluster = await startCluster(first);
    const { port, password, host } = new URL(cluster.url);
    const main = await connected(cluster.url);
    const { rows } = await main.query<{ data_directory: string }>('SHOW data_directory');
    const { uid, gid } = await owner();
    mkdirSync(data, { mode: 0o700, recursive: true });
    for (const path of [second, data]) if (uid !== undefined && gid !== undefined) chownSync(path, uid, gid);
    const from = `host=127.0.0.1 port=${port} user=hacienda password=${password} application_name=standby`;
    await run('pg_basebackup', '-D', data, '-R', '-c', 'fast', '-X', 'stream', '-d', from);
    const standbyPort = await freePort();
    const settings = `-p ${standbyPort} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=60`;
    await run('pg_ctl', '-D', data, '-w', '-l', join(data, 'log'), '-o', settings, 'start');
    // From here on a commit is acknowledged once the standby has it.
    await main.query(`ALTER SYSTEM SET synchronous_standby_names = 'standby'`);
    await main.query('SELECT pg_reload_conf()');
    const isSynchronous = async () =>
      (await main.query(`SELECT 1 FROM pg_stat_replication WHERE sync_state = 'sync'`)).rowCount === 1;
    while (!(await isSynchronous())) await new Promise((resolve) => setTimeout(resolve, 50));

    await main.query('CREATE TABLE readings (n int PRIMARY KEY)');
    let acknowledged = 0;
    const writing = (async () => {
      for (let n = 1; ; n += 1) {
        await main.query('INSERT INTO readings VALUES ($1)', [n]);
        acknowledged = n;
      }
    })().catch(() => undefined);
    // Killed in the midst of them, however many a machine writes in a second.
    await expect.poll(() => acknowledged, { timeout: 30_000, interval: 5 }).toBeGreaterThan(100);
    const pid = Number(
      readFileSync(join(rows[0]?.data_directory ?? '', 'postmaster.pid'), 'utf8').split('\n')[0],
    );
    process.kill(pid, 'SIGKILL');
    await writing;
    await main.end().catch(() => undefined);

    await run('pg_ctl', '-D', data, '-w', 'promote');
    const after = await connected(
      `postgres://hacienda:${password}@${host.split(':')[0]}:${standbyPort}/hacienda`,
    );
    const kept = await after.query<{ count: number; most: number }>(
      'SELECT count(*)::int AS count, max(n) AS most FROM readings',
    );
    // One more may be there: it was stored, and its answer did not come through.
    expect(kept.rows[0]?.most).toBeGreaterThanOrEqual(acknowledged);
    expect(kept.rows[0]?.most).toBeLessThanOrEqual(acknowledged + 1);
    expect(kept.rows[0]?.count).toBe(kept.rows[0]?.most);
    // And it takes new ones.
    await after.query('ALTER SYSTEM RESET synchronous_standby_names');
    await after.query('SELECT pg_reload_conf()');
    await after.query('INSERT INTO readings VALUES (0)');
    await after.end();
  }, 60_000);
});
