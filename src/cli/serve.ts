import { setting } from '../settings';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { shortestPassphrase } from '../core/records/passphrase';
import { addPerson, hasAnybody, listPeople } from '../services/people';
import { fillYears } from '../services/years';
import { pauseAfter } from '../server/pause';
import { loadDemo } from './demo-data';
import { home, startInstance, type Instance } from './instance';
import { backUpDaily } from './keep';
import { say, Trouble } from './say';

export const usualPort = 4317;

/** The demo: an invented shop, simulated cars and devices; `--years=N`: with ten years of so many cars in its memory. */
export const demo = (parameters: readonly string[] = []) => {
  const vehicles = yearsIn(parameters);
  return serve({
    demo: true,
    folder: join(home, 'demo'),
    prepare: async (folder) => {
      await loadDemo(folder);
      if (vehicles > 0) await loadYears(folder, vehicles);
    },
  });
};

/** `--years=3000`: so many vehicles; none where nothing is said. */
function yearsIn([asked, ...more]: readonly string[]): number {
  if (asked === undefined) return 0;
  const vehicles = more.length === 0 ? Number(/^--years=(\d+)$/.exec(asked)?.[1]) : Number.NaN;
  if (!(vehicles >= 1 && vehicles <= 200_000))
    throw new Trouble('demo takes --years=3000 for ten years of so many cars, up to 200000.');
  return vehicles;
}

const yearsBack = 10;

/** Once, up to a month before it was asked for; a load that was cut short is taken up again, with the same cars. */
async function loadYears(folder: string, vehicles: number): Promise<void> {
  const [until, loaded] = ['years-until', 'years-loaded'].map((name) => join(folder, name)) as [
    string,
    string,
  ];
  if (existsSync(loaded)) return;
  if (!existsSync(until)) writeFileSync(until, new Date(Date.now() - 30 * 86_400_000).toISOString());
  const to = new Date(readFileSync(until, 'utf8'));
  const from = new Date(to);
  from.setFullYear(from.getFullYear() - yearsBack);
  const people = (await listPeople()).map(({ name }) => name);
  say(`Ten years of ${vehicles} cars …`);
  await fillYears({ vehicles, seed: 1, from, to, people });
  writeFileSync(loaded, String(vehicles));
}

/** The shop's own: nothing is shown that it did not enter. `DATABASE_URL` names a server that exists. */
export const start = (parameters: readonly string[] = []) =>
  serve({
    demo: false,
    folder: join(home, 'shop'),
    prepare: firstManager,
    processes: processesIn(parameters),
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

/** `--processes`: as many server processes as the machine has cores; `--processes=3`: so many. One where nothing is said. */
function processesIn(parameters: readonly string[]): number {
  const [asked, ...more] = parameters;
  if (asked === undefined) return 1;
  const said = more.length === 0 ? /^--processes(?:=(\d+))?$/.exec(asked) : null;
  const processes = said ? Number(said[1] ?? availableParallelism()) : Number.NaN;
  if (!(processes >= 1 && processes <= 64))
    throw new Trouble('start takes --processes, or --processes=2 for so many server processes.');
  return processes;
}

async function serve(options: Omit<Parameters<typeof startInstance>[0], 'port'>): Promise<number> {
  const port = setting('PORT') ?? usualPort;
  const asked = new Promise<void>((resolve) => {
    process.once('SIGINT', resolve);
    process.once('SIGTERM', resolve);
  });
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
