import { setting } from '../settings';
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { confirm } from '@inquirer/prompts';
import { z } from 'zod';
import {
  atOneMoment,
  differences,
  dropDatabase,
  emptyDatabase,
  sumsOf,
  takePlace,
  type Sums,
} from '../data/keeping';
import { noteNight } from '../data/backup-nights';
import { closeDatabase } from '../data/database';
import { postgresPrograms, runningCluster, startCluster } from './cluster';
import { home, isLocked } from './instance';
import { output } from './run';
import { say, Trouble } from './say';
import { isSealed, openFile, sealFile } from './sealed-file';

/**
 * Backup and restore. A backup is a dump of one moment, with the sums of its tables beside it; it is restored into a database
 * of its own and compared before it is called one.
 */

const sumsSchema = z.record(z.string(), z.object({ rows: z.int(), sum: z.string() }));
const sumsFile = (file: string) => `${file}.sums.json`;

const folderOf = ({ demo = false }: { demo?: boolean }) => join(home, demo ? 'demo' : 'shop');

/** Of the shop, running or not, or of the demo. */
export async function backup(name: string, asked: { demo?: boolean }): Promise<number> {
  const [file, folder] = [resolve(name), folderOf(asked)];
  if (!setting('DATABASE_URL') && !existsSync(folder))
    throw new Trouble(`There is no shop in ${folder} to back up.`);
  await withDatabase(folder, (url) => backUp(url, file));
  return 0;
}

/** Seals backups, where the operator gives one. */
const passphrase = (): string => setting('HACIENDA_BACKUP_PASSPHRASE') ?? '';

/** Dumps one moment of a database, proves that it can be restored, and only then gives it its name. */
async function backUp(url: string, file: string): Promise<void> {
  const partial = `${file}.partial`;
  await mkdir(dirname(file), { recursive: true });
  try {
    const { sums } = await atOneMoment(url, (snapshot) =>
      program('pg_dump', url, ['--format=custom', `--snapshot=${snapshot}`, `--file=${partial}`]),
    );
    if (passphrase()) await sealInPlace(partial);
    await opened(partial, (dump) => proveRestorable(url, dump, sums));
    writeFileSync(sumsFile(file), JSON.stringify(sums, null, 2));
    renameSync(partial, file);
    const rows = Object.values(sums).reduce((sum, table) => sum + table.rows, 0);
    say(
      `Backed up ${rows} rows of ${Object.keys(sums).length} tables to ${file} (${Math.ceil(statSync(file).size / 1024)} kB), restored on trial and compared.`,
    );
  } finally {
    rmSync(partial, { force: true });
  }
}

async function sealInPlace(file: string): Promise<void> {
  const sealed = `${file}.sealed`;
  await sealFile(file, sealed, passphrase());
  renameSync(sealed, file);
}

/** Works with a backup as a dump: one that is sealed is opened beside itself for as long. */
async function opened<Value>(file: string, work: (dump: string) => Promise<Value>): Promise<Value> {
  if (!isSealed(file)) return work(file);
  if (!passphrase())
    throw new Trouble(
      `${file} is sealed. Give its passphrase: HACIENDA_BACKUP_PASSPHRASE=… ./hacienda restore …`,
    );
  const dump = `${file}.open`;
  try {
    await openFile(file, dump, passphrase());
    return await work(dump);
  } finally {
    rmSync(dump, { force: true });
  }
}

async function proveRestorable(url: string, file: string, sums: Sums): Promise<void> {
  const name = 'hacienda_trial';
  const trial = await emptyDatabase(url, name);
  try {
    await program('pg_restore', trial, ['--exit-on-error', '--no-owner', file]);
    refuseDifferences(sums, await sumsOf(trial), 'It is no backup, and was not kept.');
  } finally {
    await dropDatabase(url, name);
  }
}

function refuseDifferences(wanted: Sums, found: Sums, whatNow: string): void {
  const differ = differences(wanted, found);
  if (differ.length > 0)
    throw new Trouble(`What was restored is not what was backed up: ${differ.join('; ')}. ${whatNow}`);
}

/** The backup takes the shop's place; what was there is kept beside it until the next time. Asked about, unless `yes`. */
export async function restore(name: string, asked: { demo?: boolean; yes?: boolean }): Promise<number> {
  const [file, folder] = [resolve(name), folderOf(asked)];
  if (!existsSync(file)) throw new Trouble(`There is no ${file}.`);
  if (isLocked(folder)) throw new Trouble('It is running. Stop it with Ctrl-C first, then restore.');
  const sums = sumsBeside(file);
  if (!sums)
    say(`${sumsFile(file)} is not there: what is restored cannot be compared with what was backed up.`);
  const agreed =
    (asked.yes ?? false) ||
    (process.stdin.isTTY &&
      (await confirm({
        message: `Put ${file} in the place of everything in ${folder}? What is there now is kept as hacienda_before.`,
        default: false,
      })));
  if (!agreed) {
    say('Nothing was restored. To restore without being asked: --yes');
    return process.stdin.isTTY ? 0 : 1;
  }
  await withDatabase(folder, async (url) => {
    const fresh = await emptyDatabase(url, 'hacienda_restored');
    const fill = (dump: string) => program('pg_restore', fresh, ['--exit-on-error', '--no-owner', dump]);
    await opened(file, fill).catch((error: unknown) => {
      if (error instanceof Trouble) throw new Trouble(`${error.message} Nothing was changed.`);
      throw new Trouble(
        `${file} cannot be read as a backup; nothing was changed. ${error instanceof Error ? error.message : ''}`,
      );
    });
    if (sums) refuseDifferences(sums, await sumsOf(fresh), 'Nothing was changed; take another backup.');
    await takePlace(url, 'hacienda_restored', 'hacienda_before');
  });
  rmSync(join(folder, 'demo-loaded'), { force: true });
  if (folder.endsWith('demo')) writeFileSync(join(folder, 'demo-loaded'), new Date().toISOString());
  say('Restored. What was there before is kept as the database hacienda_before until the next time.');
  return 0;
}

function sumsBeside(file: string): Sums | undefined {
  if (!existsSync(sumsFile(file))) return undefined;
  const parsed = sumsSchema.safeParse(JSON.parse(readFileSync(sumsFile(file), 'utf8')));
  if (!parsed.success)
    throw new Trouble(`${sumsFile(file)} cannot be read. Put it away to restore without comparing.`);
  return parsed.data;
}

/** The shop's database: one that is named, the running one, or its own, started for this. */
async function withDatabase(folder: string, work: (url: string) => Promise<void>): Promise<void> {
  const named = setting('DATABASE_URL');
  if (named) return work(named);
  if (isLocked(folder)) return work(runningCluster(folder));
  const cluster = await startCluster(folder);
  try {
    await work(cluster.url);
  } finally {
    await cluster.stop();
  }
}

/** One of PostgreSQL's own programs on a database; the password goes where no list of processes shows it. */
function program(name: 'pg_dump' | 'pg_restore', url: string, parameters: string[]): Promise<string> {
  const { username, password, hostname, port, pathname } = new URL(url);
  const at = [
    `--host=${hostname}`,
    `--port=${port || '5432'}`,
    `--username=${username}`,
    `--dbname=${pathname.slice(1)}`,
  ];
  return output(join(postgresPrograms(), name), [...at, '--no-password', ...parameters], {
    env: { ...process.env, PGPASSWORD: decodeURIComponent(password) },
  });
}

/** Old backups of a schedule beyond this are removed. */
const keptOfSchedule = 14;

/** A backup each day at an hour of the place, into a folder, the last fortnight of them kept. Ends with what is given back. */
export const backUpDaily = (url: string, folder: string, hour: number): (() => void) =>
  eachDay(hour, () => backUpTonight(url, folder));

/** Does something each day at an hour, the next day also where it failed, until what is given back is called. */
export function eachDay(hour: number, work: () => Promise<void>): () => void {
  let timer: NodeJS.Timeout | undefined;
  let isOver = false;
  const plan = () => {
    if (isOver) return;
    const now = new Date();
    const due = new Date(now.getFullYear(), now.getMonth(), now.getDate(), hour);
    if (due <= now) due.setDate(due.getDate() + 1);
    timer = setTimeout(
      () =>
        void work()
          .catch((error: unknown) => say(wordsOf(error)))
          .then(plan),
      due.getTime() - now.getTime(),
    );
  };
  plan();
  return () => {
    isOver = true;
    clearTimeout(timer);
  };
}

/** One night of the schedule. Whatever goes wrong is told, here and to the shop's managers; nothing is thrown. */
export async function backUpTonight(url: string, folder: string): Promise<void> {
  let failed: string | null = null;
  try {
    await backUp(url, join(folder, `hacienda-${new Date().toISOString().slice(0, 10)}.backup`));
    for (const name of outdated(readdirSync(folder))) rmSync(join(folder, name), { force: true });
  } catch (error) {
    const { code, path } = error as NodeJS.ErrnoException;
    // Of a file or a folder: the system's own words say nothing to whoever reads this at the counter.
    failed =
      path !== undefined && code ? `The folder ${folder} cannot be written to (${code}).` : wordsOf(error);
    say(`Tonight's backup failed: ${failed}`);
  }
  // The database may be what is away.
  await noteNight(failed)
    .finally(closeDatabase)
    .catch((error: unknown) => say(`How it went cannot be noted: ${wordsOf(error)}`));
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** What a schedule no longer keeps, of the files in its folder; what others put there stays. */
export function outdated(names: readonly string[]): string[] {
  const ours = names.filter((name) => /^hacienda-\d{4}-\d{2}-\d{2}\.backup$/.test(name)).sort();
  return ours.slice(0, Math.max(0, ours.length - keptOfSchedule)).flatMap((name) => [name, sumsFile(name)]);
}
