import { setting } from '../settings';
import type { ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { request as secureRequest, type RequestOptions } from 'node:https';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { closeDatabase } from '../data/database';
import { migrate } from '../data/migrations';
import { startCluster, type Cluster } from './cluster';
import { firstLine, isPortFree, startPart, stopPart } from './run';
import { Trouble } from './say';

export const root = fileURLToPath(new URL('../..', import.meta.url));

/** Where demo and shop keep their data. */
export const home = setting('HACIENDA_HOME') ?? join(root, '.hacienda');

interface InstanceOptions {
  /** Where data, locks and logs of this instance live. */
  folder: string;
  port: number;
  /** The invented shop, with simulated devices where not said otherwise. */
  demo: boolean;
  devices?: boolean;
  /** The simulated cars, where not those of the demo. */
  cars?: string;
  /** A server that exists already, instead of a cluster of our own. */
  databaseUrl?: string;
  /** Runs once the database is up to date, before anything is served. */
  prepare: (folder: string) => Promise<void>;
  environment?: Record<string, string>;
  /** Its name in the database of a chain, and whether it is the head office. */
  shop?: string;
  headOffice?: boolean;
  /** Server processes behind the address; one where not said. */
  processes?: number;
}

/** One running app: its database, its stand-ins and its server. */
export interface Instance {
  address: string;
  databaseUrl: string;
  environment: Record<string, string>;
  server: ChildProcess;
  /** Starts the server again, as after a crash. */
  restartServer: () => Promise<void>;
  stop: () => Promise<void>;
}

/** What was started and must be stopped, in that order. */
type Undo = (() => Promise<unknown> | void)[];

/** Brings everything up, in order; what was started is stopped again where a later part fails. */
export async function startInstance(options: InstanceOptions): Promise<Instance> {
  const { folder, port, demo, devices: simulates = demo } = options;
  if (!(await isPortFree(port))) {
    throw new Trouble(
      `Port ${port} is taken. Stop what runs there, or choose another: PORT=${port + 1} ./hacienda …`,
    );
  }
  const unlock = lock(folder);
  const undo: Undo = [unlock];
  const stop = async () => {
    for (const step of undo.splice(0).reverse()) await step();
  };
  try {
    // The devices need nothing of the database, so both come up at once.
    const [databaseUrl, devices] = await Promise.all([
      prepareDatabase(options, undo),
      simulates ? startStandins(folder, options.cars ?? join(root, 'demo/cars.json'), undo) : {},
    ]);
    const environment = {
      ...devices,
      HACIENDA_KEY: setting('HACIENDA_KEY') ?? keyIn(folder),
      ...options.environment,
      HACIENDA_SHOP: options.shop ?? '',
      HACIENDA_CHAIN: options.headOffice ? '1' : '',
      ...(demo && { HACIENDA_DEMO: '1' }),
      HACIENDA_PROCESSES: String(options.processes ?? 1),
    };
    const serve = () => startServer(port, { ...environment, DATABASE_URL: databaseUrl });
    const instance: Instance = {
      address: addressAt(port),
      databaseUrl,
      environment,
      server: await serve(),
      restartServer: async () => {
        await stopPart(instance.server);
        instance.server = await serve();
      },
      stop,
    };
    undo.push(() => stopPart(instance.server));
    return instance;
  } catch (error) {
    await stop();
    throw error;
  }
}

/** What seals what a copy of the database must not tell: made once, kept in the folder, and read by its owner alone. */
function keyIn(folder: string): string {
  const file = join(folder, 'key');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

/** The database, up to date and prepared. */
async function prepareDatabase(options: InstanceOptions, undo: Undo): Promise<string> {
  const url = options.databaseUrl ?? (await ownCluster(options, undo)).url;
  process.env.DATABASE_URL = url;
  // This process has one shop at a time.
  if (options.shop === undefined) delete process.env.HACIENDA_SHOP;
  else process.env.HACIENDA_SHOP = options.shop;
  await migrate().catch((error: unknown) => {
    throw new Trouble(
      `The database cannot be brought up to date: ${error instanceof Error ? error.message : String(error)}`,
    );
  });
  await options.prepare(options.folder);
  await closeDatabase();
  return url;
}

async function ownCluster({ folder, processes = 1 }: InstanceOptions, undo: Undo): Promise<Cluster> {
  const cluster = await startCluster(folder, { processes });
  undo.push(cluster.stop);
  return cluster;
}

/** One instance per folder. A lock whose process is gone is stale and taken over. */
function lock(folder: string): () => void {
  const file = join(folder, 'running.pid');
  try {
    mkdirSync(folder, { recursive: true });
  } catch {
    throw new Trouble(
      `The folder ${folder} cannot be made. Give yourself the right to write there, or run as its owner.`,
    );
  }
  const holder = holderOf(folder);
  if (holder !== undefined) {
    throw new Trouble(
      `It is running already (process ${holder}). Use that one, or stop it with Ctrl-C where it was started.`,
    );
  }
  writeFileSync(file, String(process.pid));
  return () => rmSync(file, { force: true });
}

/** The living starter that holds a folder, if one does. */
function holderOf(folder: string): number | undefined {
  const file = join(folder, 'running.pid');
  const holder = existsSync(file) ? Number(readFileSync(file, 'utf8')) : undefined;
  return holder && holder !== process.pid && isOurs(holder) ? holder : undefined;
}

export const isLocked = (folder: string): boolean => holderOf(folder) !== undefined;

/** Whether a process lives and is a starter of ours, not a stranger that got its number. */
function isOurs(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('src/cli/');
  } catch {
    return false;
  }
}

const portsSchema = z.object({ tool: z.int(), bay: z.int(), weather: z.int() });

async function startStandins(folder: string, cars: string, undo: Undo): Promise<Record<string, string>> {
  const part = startPart(
    [
      ...[join(root, 'dist/standins.mjs'), cars, join(folder, 'cars.json'), join(root, 'demo/weather.json')],
      ...[join(root, 'demo/sensors.json'), '0', '0'],
    ],
    { cwd: root },
  );
  undo.push(() => stopPart(part));
  const ports = portsSchema.parse(
    JSON.parse(await firstLine(part, 'The simulated devices', (line) => line.startsWith('{'))),
  );
  return {
    HACIENDA_TOOL: `127.0.0.1:${ports.tool}`,
    HACIENDA_BAY: `127.0.0.1:${ports.bay}`,
    HACIENDA_WEATHER: `http://127.0.0.1:${ports.weather}/hourly`,
  };
}

/** Where it listens: this machine alone, unless its operator says otherwise. */
const host = setting('HOST') ?? '127.0.0.1';
const isSecure = setting('HACIENDA_CERTIFICATE') !== undefined;
/** Where it is reached from this machine. */
const here = ['0.0.0.0', '::'].includes(host) ? '127.0.0.1' : host.includes(':') ? `[${host}]` : host;

const addressAt = (port: number): string => `${isSecure ? 'https' : 'http'}://${here}:${port}`;

/** Whether a server answers there, and says it is well. Its certificate is for its visitors. */
function isWell(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const ask = isSecure ? secureRequest : request;
    ask(`${addressAt(port)}/api/health`, { rejectUnauthorized: false } as RequestOptions, (answer) => {
      answer.resume();
      resolve(answer.statusCode === 200);
    })
      .on('error', () => resolve(false))
      .end();
  });
}

/** It needs a second or two; an old machine that is busy, many times that. */
const longestStartMs = 60_000;

/** Starts a server process and waits until it answers. */
export async function startServer(port: number, environment: Record<string, string>): Promise<ChildProcess> {
  const entry = join(root, 'dist/server.mjs');
  if (!existsSync(entry)) throw new Trouble('The app is not built. Build it with: npm run build');
  // Much is made and thrown away for each answer: with more room for it, fifty people at once are served an eighth faster.
  const part = startPart(
    ['--max-semi-space-size=64', '--import', join(root, 'src/cli/exit-with-parent.mjs'), entry],
    {
      cwd: root,
      env: { ...process.env, ...environment, HOST: host, PORT: String(port), NODE_ENV: 'production' },
    },
  );
  let ended = false;
  part.once('exit', () => (ended = true));
  const from = Date.now();
  while (Date.now() - from < longestStartMs && !ended) {
    if (await isWell(port)) return part;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await stopPart(part);
  throw new Trouble(
    ended
      ? 'The server ended before it answered. Its words are above.'
      : `The server did not come up within ${longestStartMs / 1000} seconds. Its words are above.`,
  );
}
