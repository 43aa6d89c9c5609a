import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { startCluster } from '../../src/cli/cluster';
import { root, startInstance } from '../../src/cli/instance';
import { Trouble } from '../../src/cli/say';
import { assess } from '../../src/core/diagnosis';
import { parseJob } from '../../src/core/job/schema';

const folder = mkdtempSync(join(tmpdir(), 'hacienda-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const job = (JSON.parse(readFileSync(join(root, 'tests/cases/one-tire-low.json'), 'utf8')) as { job: object })
  .job;
const write = (name: string, content: string) => {
  writeFileSync(join(folder, name), content);
  return name;
};
/** Runs `./hacienda` from the folder of the files, as a person would. */
function hacienda(parameters: string[], input = '') {
  const run = spawnSync(join(root, 'hacienda'), parameters, { cwd: folder, input, encoding: 'utf8' });
  return {
    status: run.status,
    out: run.stdout.split('\n').filter(Boolean),
    err: run.stderr.split('\n').filter(Boolean),
  };
}
const expected = () => {
  const parsed = parseJob(job);
  return JSON.stringify(parsed.ok && assess(parsed.value));
};

describe('./hacienda assess', () => {
  it('prints one assessment per file, in order, and nothing else', () => {
    const file = write('good.json', JSON.stringify(job));
    const run = hacienda(['assess', file, file]);
    expect(run).toEqual({ status: 0, out: [expected(), expected()], err: [] });
  });

  it('reads JSON Lines from standard input', () => {
    const run = hacienda(['assess', '-'], `${JSON.stringify(job)}\n\n${JSON.stringify(job)}\n`);
    expect(run).toEqual({ status: 0, out: [expected(), expected()], err: [] });
  });

  it('names the file and the path of a fault in one line, assesses the others, and exits with 1', () => {
    const cold = write(
      'cold.json',
      JSON.stringify({ ...job, placard: [{ position: 'front', coldKPa: 'thirty' }] }),
    );
    const run = hacienda(['assess', cold, 'good.json', write('broken.json', '{'), 'missing.json']);
    expect(run.status).toBe(1);
    expect(run.out).toEqual([expected()]);
    expect(run.err[0]).toBe('cold.json: placard.0.coldKPa: expected number');
    expect(run.err[1]).toMatch(/^broken.json: not JSON/);
    expect(run.err[2]).toBe('missing.json: cannot be read');
    expect(run.err).toHaveLength(3);
  });

  it('without a file, or with a word it does not know, says how it is used', () => {
    expect(hacienda(['assess'])).toMatchObject({ status: 2, out: [] });
    expect(hacienda(['dance'])).toMatchObject({
      status: 2,
      err: expect.arrayContaining([expect.stringContaining('usage')]),
    });
  });
});

describe('starting', () => {
  const options = (name: string, port: number) => ({
    folder: join(folder, name),
    port,
    demo: false,
    prepare: () => Promise.resolve(),
  });

  it('on a taken port says which, and what to do', async () => {
    const squatter = createServer();
    const port = await new Promise<number>((resolve) =>
      squatter.listen(0, '127.0.0.1', () => resolve((squatter.address() as AddressInfo).port)),
    );
    await expect(startInstance(options('taken', port))).rejects.toThrow(
      new RegExp(`Port ${port} is taken.*choose another`),
    );
    squatter.close();
  });

  it('twice in one folder is refused by the living, and taken over from the dead', async () => {
    const there = join(folder, 'locked');
    mkdirSync(there);
    const living = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 60000)', 'src/cli/main.ts']);
    writeFileSync(join(there, 'running.pid'), String(living.pid));
    const unreachable = {
      ...options('locked', 1),
      port: 45_871,
      databaseUrl: 'postgres://nobody@127.0.0.1:1/none',
    };
    await expect(startInstance(unreachable)).rejects.toThrow(/running already/);
    const gone = new Promise((resolve) => living.once('exit', resolve));
    living.kill('SIGKILL');
    await gone;
    // The lock is stale now: it gets as far as the database, which is not there.
    await expect(startInstance(unreachable)).rejects.toThrow(/database cannot be brought up to date/);
    expect(existsSync(join(there, 'running.pid'))).toBe(false);
  });

  it('takes up a cluster that was half made, and one whose starter was killed', async () => {
    const home = join(folder, 'half-made');
    mkdirSync(join(home, 'cluster.new'), { recursive: true });
    writeFileSync(join(home, 'cluster.new', 'PG_VERSION'), '15');
    const first = await startCluster(home);
    const second = await startCluster(home); // the first was never stopped
    expect(new URL(second.url).password).toBe(new URL(first.url).password);
    await second.stop();
  });

  it('speaks in sentences: a Trouble is shown without a stack', () => {
    expect(new Trouble('Something to do.')).toBeInstanceOf(Error);
    const run = spawnSync(join(root, 'hacienda'), ['start'], {
      encoding: 'utf8',
      env: { ...process.env, PORT: 'nonsense' },
    });
    expect(run.stderr.trim().split('\n').at(-1)).toBe('PORT must be a number from 1 to 65535.');
    expect(run.status).toBe(1);
  });
});
