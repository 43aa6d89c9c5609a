import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../../src/cli/free-port';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { placesOf, runningCluster, wipe } from '../../src/cli/cluster';
import { root } from '../../src/cli/instance';
import { backUpTonight, outdated } from '../../src/cli/keep';
import { differences } from '../../src/data/keeping';
import { Client } from '../support/shop';
import { hacienda as runHacienda } from '../support/hacienda';

const home = mkdtempSync(join(tmpdir(), 'hacienda-keep-'));
const folder = join(home, 'demo');
const file = join(home, 'night.backup');
/** Where the schedule keeps its nights; the hour of the first is never reached here. */
const nights = join(home, 'nights');
let shop: { address: string; process: ChildProcess };
/** What the server said of itself since it was started. */
let log = '';

const environment: NodeJS.ProcessEnv = {
  ...process.env,
  HACIENDA_HOME: home,
  DATABASE_URL: '',
  HACIENDA_BACKUPS: nights,
};

/** Runs `./hacienda` on that home; `passphrase` seals and opens its backups. */
async function haciendaWith(passphrase: string, ...parameters: string[]) {
  const { status, stdout, stderr } = await runHacienda(parameters, {
    cwd: home,
    env: { ...environment, HACIENDA_BACKUP_PASSPHRASE: passphrase },
  });
  return { status, text: stdout + stderr };
}

const hacienda = (...parameters: string[]) => haciendaWith('', ...parameters);

/** Starts the demo as a person does. */
async function open(): Promise<typeof shop> {
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const started = spawn(join(root, 'hacienda'), ['demo'], {
    env: { ...environment, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  log = '';
  started.stderr.on('data', (words: Buffer) => (log += words.toString()));
  await new Promise<void>((resolve, reject) => {
    started.stdout.on('data', (words: Buffer) => words.toString().includes(address) && resolve());
    started.once('exit', (status) => reject(new Error(`the demo ended (${status})`)));
  });
  return { address, process: started };
}

async function close(): Promise<void> {
  if (shop.process.exitCode !== null) return;
  shop.process.kill('SIGINT');
  await once(shop.process, 'exit');
}

/** What a person sees of the shop: its Yard, all its jobs, a car found again, what is due, what it learned. */
async function figures(): Promise<object> {
  const boss = await Client.signIn(shop.address, 'manager');
  const at = (path: string) => boss.get<unknown>(path);
  return {
    jobs: await at('/api/jobs'),
    found: await at('/api/find?q=731'),
    sensor: await at('/api/find?q=5A0E6C41'),
    due: await at('/api/follow-ups'),
    figures: await at('/api/figures'),
    gauges: await at('/api/gauges'),
    people: await at('/api/people'),
  };
}

beforeAll(async () => {
  shop = await open();
});
afterAll(async () => {
  await close();
  wipe(folder);
  for (const place of [...placesOf(home), home]) rmSync(place, { recursive: true, force: true });
});

describe('the log', () => {
  it('has what was refused by its route, and neither what was asked for nor what was answered', async () => {
    const asked = '01939d2e-7c1a-7000-8000-00000000abcd';
    const refused = await fetch(`${shop.address}/api/jobs/${asked}?who=Quorum`);
    expect(refused.status).toBe(401);
    await fetch(`${shop.address}/api/health`);
    await expect.poll(() => log).toContain('"status":401');
    const lines = log.split('\n').filter((line) => line.includes('"msg":"request"'));
    expect(lines.map((line) => JSON.parse(line) as unknown)).toMatchObject([
      { method: 'GET', route: '/api/jobs/{id}', status: 401 },
    ]);
    for (const word of [asked, 'Quorum']) expect(log).not.toContain(word);
  });
});

describe('backup and restore', () => {
  let before: object;

  it('back up a running shop, restored on trial and compared', async () => {
    before = await figures();
    const made = await hacienda('backup', 'night.backup', '--demo');
    expect(made.text).toMatch(/Backed up \d+ rows of \d+ tables .* restored on trial and compared/);
    expect(made.status).toBe(0);
    expect(existsSync(`${file}.partial`)).toBe(false);
    const sealed = await haciendaWith('four valves and a core', 'backup', 'sealed.backup', '--demo');
    expect(sealed.text).toMatch(/restored on trial and compared/);
    // It begins as what it is, and tells nothing more; a dump begins with these letters, and names its tables.
    const bytes = readFileSync(join(home, 'sealed.backup'));
    expect(bytes.subarray(0, 17).toString()).toBe('hacienda-sealed/1');
    for (const told of ['PGDMP', 'technicians', 'KUR 417']) expect(bytes.includes(told)).toBe(false);
    expect(readFileSync(file).includes('technicians')).toBe(true);
    expect(existsSync(join(home, 'sealed.backup.partial.open'))).toBe(false);
    // Connections that ended while the commands ran are noticed first.
    await new Promise((resolve) => setTimeout(resolve, 100));
    // The shop goes on, and nothing of the trial is left.
    expect(await figures()).toEqual(before);
  });

  it('do not restore over a running shop, nor without being told to', async () => {
    expect(await hacienda('restore', 'night.backup', '--demo', '--yes')).toMatchObject({ status: 1 });
    await close();
    expect((await hacienda('restore', 'night.backup', '--demo')).text).toMatch(/Nothing was restored/);
    expect((await hacienda('restore', 'nowhere.backup', '--demo', '--yes')).text).toMatch(
      /There is no .*nowhere/,
    );
    expect((await hacienda('restore', '--demo')).text).toMatch(/missing required argument 'file'/);
  });

  it('bring everything back after all of it was wiped, of a sealed file by its passphrase alone: the same figures', async () => {
    wipe(folder);
    const restore = (passphrase: string) =>
      haciendaWith(passphrase, 'restore', 'sealed.backup', '--demo', '--yes');
    expect((await restore('')).text).toMatch(/is sealed. Give its passphrase.*Nothing was changed/);
    expect((await restore('four valves and a cap')).text).toMatch(/cannot be opened.*Nothing was changed/);
    const restored = await restore('four valves and a core');
    expect(existsSync(join(home, 'sealed.backup.open'))).toBe(false);
    expect(restored.text).toMatch(/Restored/);
    expect(restored.status).toBe(0);
    shop = await open();
    expect(await figures()).toEqual(before);
  });

  it('refuse a file that is torn, and leave the shop as it is', async () => {
    await close();
    const whole = readFileSync(file);
    writeFileSync(file, whole.subarray(0, Math.floor(whole.length / 2)));
    const torn = await hacienda('restore', 'night.backup', '--demo', '--yes');
    expect(torn.text).toMatch(/nothing was changed/i);
    expect(torn.status).toBe(1);
    writeFileSync(file, whole);
    // A backup whose sums are of another night.
    const sums = `${file}.sums.json`;
    writeFileSync(sums, readFileSync(sums, 'utf8').replace(/"rows": (\d+)/, '"rows": 1$1'));
    expect((await hacienda('restore', 'night.backup', '--demo', '--yes')).text).toMatch(
      /Nothing was changed/,
    );
    shop = await open();
    expect(await figures()).toEqual(before);
  });
});

describe('a schedule of backups', () => {
  it('keeps the last fortnight, and what others put there', () => {
    const days = Array.from({ length: 16 }, (_, n) => `hacienda-2026-11-${String(n + 10)}.backup`);
    const names = [...days, ...days.map((day) => `${day}.sums.json`), 'hacienda-by-hand.backup', 'notes.txt'];
    expect(outdated(names)).toEqual([
      'hacienda-2026-11-10.backup',
      'hacienda-2026-11-10.backup.sums.json',
      'hacienda-2026-11-11.backup',
      'hacienda-2026-11-11.backup.sums.json',
    ]);
    expect(outdated(days.slice(0, 14))).toEqual([]);
  });

  it('whose folder is away tells so, to whoever watches and to a manager, and goes on the next night', async () => {
    const url = runningCluster(folder);
    vi.stubEnv('DATABASE_URL', url);
    const health = async () =>
      (await (await fetch(`${shop.address}/api/health`)).json()) as { backup?: string };
    const boss = await Client.signIn(shop.address, 'manager');
    const ines = await Client.signIn(shop.address);
    const yard = async (who: Client) => (await who.fetch('/')).text();
    expect(await health()).toMatchObject({ backup: 'to-come' });
    // Somebody put a file where the folder was: it can neither be made nor read.
    rmSync(nights, { recursive: true, force: true });
    writeFileSync(nights, 'no folder');
    await backUpTonight(url, nights);
    expect(await health()).toMatchObject({ ok: true, backup: 'failed' });
    expect(await yard(boss)).toContain('backup failed');
    expect(await yard(ines)).not.toContain('backup failed');
    rmSync(nights);
    await backUpTonight(url, nights);
    expect(await health()).toMatchObject({ backup: 'good' });
    expect(await yard(boss)).not.toContain('backup failed');
    vi.unstubAllEnvs();
  });

  it('tells a table that differs, by rows or by what they say', () => {
    const one = { jobs: { rows: 2, sum: '17' }, people: { rows: 1, sum: '4' } };
    expect(differences(one, one)).toEqual([]);
    expect(differences(one, { ...one, jobs: { rows: 2, sum: '18' } })).toHaveLength(1);
    expect(differences(one, { jobs: one.jobs })).toEqual(['people: 1 rows in the backup, no table restored']);
  });
});
