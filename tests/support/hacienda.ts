import { spawn } from 'node:child_process';
import { text } from 'node:stream/consumers';
import { join } from 'node:path';
import { root } from '../../src/cli/instance';

/**
 * Runs `./hacienda` as a person would, and waits for its end without holding up this process: a runner whose tests never let
 * it speak is given up.
 */
export async function hacienda(
  parameters: readonly string[],
  { cwd, env = process.env, input = '' }: { cwd?: string; env?: NodeJS.ProcessEnv; input?: string } = {},
): Promise<{ status: number | null; stdout: string; stderr: string }> {
  const run = spawn(join(root, 'hacienda'), parameters, { cwd, env });
  // A command that reads nothing may have ended before it was told anything.
  run.stdin.on('error', () => undefined);
  run.stdin.end(input);
  const ended = new Promise<number | null>((resolve, reject) => {
    run.once('close', resolve);
    run.once('error', reject);
  });
  const [stdout, stderr, status] = await Promise.all([text(run.stdout), text(run.stderr), ended]);
  return { status, stdout, stderr };
}
