import { execFile, spawn, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { createServer } from 'node:net';
import { promisify } from 'node:util';
import { Trouble } from './say';

const execute = promisify(execFile);

/** Runs a program to its end; its output on success, a Trouble with its last words otherwise. */
export async function output(
  program: string,
  parameters: string[],
  options: { uid?: number; gid?: number; env?: NodeJS.ProcessEnv } = {},
): Promise<string> {
  try {
    return (await execute(program, parameters, { ...options, cwd: '/' })).stdout.trim();
  } catch (error) {
    const { stderr, message } = error as { stderr?: string; message: string };
    const words = (stderr || message).trim().split('\n').slice(-3).join(' ');
    throw new Trouble(`${program} failed: ${words}`);
  }
}

/**
 * Starts a long-running part in its own process group, so that Ctrl-C reaches only the starter, which
 * stops the parts in order. The part holds the starter's pipe as its standard input and ends with it.
 */
export function startPart(parameters: string[], options: SpawnOptions): ChildProcess {
  return spawn(process.execPath, parameters, {
    ...options,
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  });
}

/** Resolves with the first line a part prints that `wanted` accepts; a Trouble where it ends before. */
export function firstLine(
  part: ChildProcess,
  name: string,
  wanted: (line: string) => boolean,
): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = '';
    part.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      const line = text.split('\n').find(wanted);
      if (line !== undefined) resolve(line);
    });
    part.once('exit', (code) =>
      reject(new Trouble(`${name} ended at once (status ${code}). Its words are above.`)),
    );
  });
}

/** A part that was asked to end has so long for what it is at, ms: a server brings a write to a car to its end. */
const patienceMs = 10_000;

export function stopPart(part: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    if (part.exitCode !== null || part.signalCode !== null) return resolve();
    const kill = setTimeout(() => part.kill('SIGKILL'), patienceMs);
    part.once('exit', () => {
      clearTimeout(kill);
      resolve();
    });
    part.kill('SIGTERM');
  });
}

/** Whether nobody listens on a loopback port yet. */
export function isPortFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
}
