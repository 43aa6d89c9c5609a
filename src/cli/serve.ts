import { join } from 'node:path';
import { addPerson, hasAnybody, shortestPassphrase } from '../services/people';
import { loadDemo } from './demo-data';
import { home, startInstance } from './instance';
import { say, Trouble } from './say';

export const usualPort = 4317;

/** The demo: an invented shop, simulated cars and devices. */
export const demo = () => serve({ demo: true, folder: join(home, 'demo'), prepare: loadDemo });

/** The shop's own: nothing is shown that it did not enter. `DATABASE_URL` names a server that exists. */
export const start = () =>
  serve({
    demo: false,
    folder: join(home, 'shop'),
    prepare: firstManager,
    ...(process.env.DATABASE_URL && { databaseUrl: process.env.DATABASE_URL }),
  });

async function serve(options: Omit<Parameters<typeof startInstance>[0], 'port'>): Promise<number> {
  const port = Number(process.env.PORT ?? usualPort);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Trouble('PORT must be a number from 1 to 65535.');
  const asked = new Promise<void>((resolve) => {
    process.once('SIGINT', resolve);
    process.once('SIGTERM', resolve);
  });
  const instance = await startInstance({ ...options, port });
  const ended = new Promise<'ended'>((resolve) => instance.server.once('exit', () => resolve('ended')));
  say('Ctrl-C stops it.');
  say(instance.address);
  const why = await Promise.race([asked, ended]);
  await instance.stop();
  if (why === 'ended')
    throw new Trouble('The server ended by itself. What was stored is safe; start it again.');
  return 0;
}

/** A shop's first run needs somebody who may let others in. */
async function firstManager(): Promise<void> {
  if (await hasAnybody()) return;
  const { HACIENDA_MANAGER_NAME, HACIENDA_MANAGER_PASSPHRASE } = process.env;
  if (!HACIENDA_MANAGER_NAME && !process.stdin.isTTY) {
    throw new Trouble(
      'There is no account yet. Start it once in a terminal, or set HACIENDA_MANAGER_NAME and HACIENDA_MANAGER_PASSPHRASE.',
    );
  }
  // Only here: it is not needed at any other start.
  const { input, password } = await import('@inquirer/prompts');
  const name =
    HACIENDA_MANAGER_NAME ?? (await input({ message: 'Name of the first manager', required: true }));
  const passphrase =
    HACIENDA_MANAGER_PASSPHRASE ??
    (await password({
      message: `Passphrase (at least ${shortestPassphrase} characters)`,
      mask: true,
      validate: (text) => text.length >= shortestPassphrase || 'Longer, please: a few words do well.',
    }));
  const added = await addPerson({ name: name.trim(), role: 'manager', passphrase });
  if (!added.ok) throw new Trouble(added.problem.message);
}
