import { confirm } from '@inquirer/prompts';
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { wipe } from './cluster';
import { home, isLocked } from './instance';
import { say, Trouble } from './say';

/** Wipes everything this app keeps here, demo and shop, after asking. */
export async function reset(asked: { yes?: boolean }): Promise<number> {
  if (!existsSync(home)) {
    say('There is nothing to wipe.');
    return 0;
  }
  const folders = ['demo', 'shop'].map((name) => join(home, name));
  if (folders.some(isLocked)) throw new Trouble('It is running. Stop it with Ctrl-C first, then reset.');
  const sure =
    (asked.yes ?? false) ||
    (process.stdin.isTTY &&
      (await confirm({
        message: `Wipe all jobs, vehicles and accounts in ${home}? This cannot be undone.`,
        default: false,
      })));
  if (!sure) {
    say('Nothing was wiped. To wipe without being asked: ./hacienda reset --yes');
    return process.stdin.isTTY ? 0 : 1;
  }
  folders.forEach(wipe);
  rmSync(home, { recursive: true, force: true });
  say('Wiped.');
  return 0;
}
