import { setting } from '../settings';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shortestPassphrase } from '../core/records/passphrase';
import { addPerson, hasAnybody, listPeople } from '../services/people';
import { fillYears } from '../services/years';
import { pauseAfter } from '../server/pause';
import { loadDemo } from './demo-data';
import { home, startInstance, type Instance } from './instance';
import { backUpDaily } from './keep';
import { say, Trouble } from './say';
import { daysAfter } from '../core/measure/calendar/spans';

export const usualPort = 4317;

/** The demo: an invented shop, simulated cars and devices; with ten years of so many cars in its memory. */
export const demo = (vehicles: number) =>
  serve({
    demo: true,
    folder: join(home, 'demo'),
    prepare: async (folder) => {
      say('Booking in the demo’s cars …');
      await loadDemo(folder);
      if (vehicles > 0) await loadYears(folder, vehicles);
    },
  });

const yearsBack = 10;

/** Once, up to a month before it was asked for; a load that was cut short is taken up again, with the same cars. */
async function loadYears(folder: string, vehicles: number): Promise<void> {
  const [until, loaded] = ['years-until', 'years-loaded'].map((name) => join(folder, name)) as [
    string,
    string,
  ];
  if (existsSync(loaded)) return;
  if (!existsSync(until)) writeFileSync(until, daysAfter(Date.now(), -30).toISOString());
  const to = new Date(readFileSync(until, 'utf8'));
  const from = new Date(to);
  from.setFullYear(from.getFullYear() - yearsBack);
  const people = (await listPeople()).map(({ name }) => name);
  say(`Ten years of ${vehicles} cars …`);
  await fillYears({ vehicles, seed: 1, from, to, people }, (done) => say(`${done} of ${vehicles} cars`));
  writeFileSync(loaded, String(vehicles));
}

/** The shop's own, by so many server processes: nothing is shown that it did not enter. `DATABASE_URL` names a server that exists. */
export const start = (processes: number) =>
  serve({
    demo: false,
    folder: join(home, 'shop'),
    prepare: firstManager,
    processes,
    ...shopOfChain(),
    ...(setting('DATABASE_URL') && { databaseUrl: setting('DATABASE_URL') as string }),
  });

/** `HACIENDA_SHOP`: its name among the shops of a database; `HACIENDA_CHAIN=1`: its managers look into the others. */
export function shopOfChain(): { shop?: string; headOffice?: boolean } {
  const shop = setting('HACIENDA_SHOP');
  const headOffice = setting('HACIENDA_CHAIN') ?? false;
  if (shop !== undefined) return { shop, headOffice };
  if (headOffice) throw new Trouble('HACIENDA_CHAIN needs the head office’s own name in HACIENDA_SHOP.');
  return {};
}

async function serve(options: Omit<Parameters<typeof startInstance>[0], 'port'>): Promise<number> {
  const port = setting('PORT') ?? usualPort;
  const asked = new Promise<void>((resolve) => {
    process.once('SIGINT', resolve);
    process.once('SIGTERM', resolve);
  });
  say('Starting the database …');
  const instance = await startInstance({ ...options, port });
  const endBackups = backupsOf(instance);
  say('Ctrl-C stops it.');
  say(instance.address);
  await keepRunning(instance, asked);
  endBackups();
  await instance.stop();
  return 0;
}

/** `HACIENDA_BACKUPS=FOLDER`: a backup there each night at three, or at the hour of `HACIENDA_BACKUP_HOUR`. */
function backupsOf({ databaseUrl }: Instance): () => void {
  const folder = setting('HACIENDA_BACKUPS');
  return folder ? backUpDaily(databaseUrl, folder, setting('HACIENDA_BACKUP_HOUR') ?? 3) : () => undefined;
}

/** Starts a server that ended by itself again, until somebody asks to stop. What was stored is safe meanwhile. */
async function keepRunning(instance: Instance, asked: Promise<void>): Promise<void> {
  let isAsked = false;
  void asked.then(() => (isAsked = true));
  const pause = (ms: number) => Promise.race([asked, new Promise((resolve) => setTimeout(resolve, ms))]);
  let inARow = 0;
  while (!isAsked) {
    const startedAt = Date.now();
    const { server } = instance;
    if (server.exitCode === null && server.signalCode === null) {
      await Promise.race([asked, new Promise((resolve) => server.once('exit', resolve))]);
      if (isAsked) return;
    }
    say('The server ended by itself. What was stored is safe; it is started again.');
    const { pauseMs, next } = pauseAfter(Date.now() - startedAt, inARow);
    inARow = next;
    await pause(pauseMs);
    if (!isAsked) await instance.restartServer().catch((error: unknown) => say(String(error)));
  }
}

/** A shop's first run needs somebody who may let others in. */
async function firstManager(): Promise<void> {
  if (await hasAnybody()) return;
  const named = setting('HACIENDA_MANAGER_NAME');
  if (!named && !process.stdin.isTTY) {
    throw new Trouble(
      'There is no account yet. Start it once in a terminal, or set HACIENDA_MANAGER_NAME and HACIENDA_MANAGER_PASSPHRASE.',
    );
  }
  // Only here: it is not needed at any other start.
  const { input, password } = await import('@inquirer/prompts');
  const name = named ?? (await input({ message: 'Name of the first manager', required: true }));
  const passphrase =
    setting('HACIENDA_MANAGER_PASSPHRASE') ??
    (await password({
      message: `Passphrase (at least ${shortestPassphrase} characters)`,
      mask: true,
      validate: (text) => text.length >= shortestPassphrase || 'Longer, please: a few words do well.',
    }));
  const added = await addPerson({ name: name.trim(), role: 'manager', passphrase });
  if (!added.ok) throw new Trouble(added.problem.message);
}
