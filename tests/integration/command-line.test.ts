import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../../src/cli/free-port';
import { afterAll, describe, expect, it } from 'vitest';
import { placesOf, startCluster, wipe } from '../../src/cli/cluster';
import { root, startInstance } from '../../src/cli/instance';
import { Trouble } from '../../src/cli/say';
import { assess } from '../../src/core/judgement/diagnosis';
import { parseJob } from '../../src/core/job/schema';
import { hacienda as runHacienda } from '../support/hacienda';

const folder = mkdtempSync(join(tmpdir(), 'hacienda-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const job = (JSON.parse(readFileSync(join(root, 'tests/cases/one-tire-low.json'), 'utf8')) as { job: object })
  .job;
const write = (name: string, content: string) => {
  writeFileSync(join(folder, name), content);
  return name;
};
/** Runs `./hacienda` from the folder of the files; its words line by line. */
async function hacienda(parameters: string[], input = '') {
  const { status, stdout, stderr } = await runHacienda(parameters, { cwd: folder, input });
  return { status, out: stdout.split('\n').filter(Boolean), err: stderr.split('\n').filter(Boolean) };
}
const expected = () => {
  const parsed = parseJob(job);
  return JSON.stringify(parsed.ok && assess(parsed.value));
};

describe('./hacienda decode', () => {
  it('prints a line per message, names what is no frame, and reads the rest', async () => {
    const log = '(1.0) can0 7A3#0322F190AAAAAAAA\n\nnonsense\n(1.1) can0 7A3#R\n(1.2) can0 7AB#10\n';
    const run = await hacienda(['decode', write('car.log', log)]);
    expect(run.status).toBe(1);
    expect(run.err).toEqual(['car.log:3: expected (seconds) channel ID#DATA']);
    expect(run.out.map((line) => JSON.parse(line) as object)).toMatchObject([
      { at: 1, data: '22F190', service: '22', kind: 'request' },
      { at: 1.2, problem: 'malformed' },
    ]);
    const clean = await hacienda(['decode', '-'], '(1.0) can0 7A3#0322F190AAAAAAAA');
    expect(clean).toMatchObject({ status: 0, err: [], out: run.out.slice(0, 1) });
    expect(await hacienda(['decode', 'none.log'])).toMatchObject({
      status: 1,
      err: ['none.log: cannot be read'],
    });
  });
});

describe('./hacienda reception', () => {
  const telegrams = [0, 60, 120, 240].map((s) => ({
    at: new Date(Date.UTC(2026, 0, 9) + s * 1000).toISOString(),
    id: '4B07C2D1',
    speedKmh: 62,
  }));

  it('prints a line per sensor, of JSON Lines and of CSV alike', async () => {
    const lines = telegrams.map((telegram) => JSON.stringify(telegram)).join('\n');
    const run = await hacienda(['reception', write('drive.jsonl', lines)]);
    expect(run).toMatchObject({ status: 0, err: [] });
    expect(JSON.parse(run.out[0] ?? '')).toMatchObject({
      received: 4,
      expected: 5,
      periodS: 60,
      missedShare: 0.2,
    });
    const rows = telegrams.map(({ at, id, speedKmh }) => `${id},${at},${speedKmh},`);
    const csv = ['id,at,speedKmh,rssiDbm', ...rows].join('\n');
    expect((await hacienda(['reception', write('drive.csv', csv)])).out).toEqual(run.out);
  });

  it('names a line that is no telegram, and reads the rest', async () => {
    const run = await hacienda(['reception', '-'], `${JSON.stringify(telegrams[0])}\n{"id":"1"}\n{`);
    expect(run.status).toBe(1);
    expect(run.out).toHaveLength(1);
    expect(run.err.map((line) => line.split(':').slice(0, 2).join(':'))).toEqual([
      'standard input:2',
      'standard input:3',
    ]);
  });
});

describe('./hacienda relearn', () => {
  const example = (name: string) => {
    const path = join(root, 'tests/procedures', name);
    return JSON.parse(readFileSync(path, 'utf8')) as { procedure: object; events: { t: number }[] };
  };
  const lines = (events: readonly object[]) => events.map((event) => JSON.stringify(event)).join('\n');

  it('prints one line per event: where the run stands after it', async () => {
    const { procedure, events } = example('write-answer-lost-and-not-written.json');
    const file = write('write.json', JSON.stringify(procedure));
    const run = await hacienda(['relearn', file, write('events.jsonl', lines(events))]);
    expect(run).toMatchObject({ status: 0, err: [] });
    const told = run.out.map((line) => JSON.parse(line) as object);
    expect(told).toHaveLength(events.length);
    expect(told[0]).toEqual({ t: 0, state: 'each', step: 0, wheel: 'LF', notes: [] });
    expect(told[5]).toEqual({ t: 30, state: 'finish', step: 1, wheel: null, notes: ['answer-lost'] });
    expect(told.at(-1)).toEqual({
      t: 60,
      state: 'failed',
      step: null,
      wheel: null,
      notes: ['differs'],
      wheels: ['RR'],
    });
    expect(await hacienda(['relearn', file, '-'], lines(events))).toEqual(run);
  });

  it('tells a procedure that is none, or makes no sense, line by line', async () => {
    const { procedure, events } = example('tool-all-well.json');
    const go = (name: string, more: object) =>
      hacienda(['relearn', write(name, JSON.stringify({ ...procedure, ...more })), '-'], lines(events));
    expect(await go('method.json', { method: 'song', enter: [{ do: 'sing' }] })).toMatchObject({
      status: 1,
      out: [],
      err: [
        'method.json: method: expected drive | tool | air | magnet | write | typed | reset',
        expect.stringMatching(/^method.json: enter.0.do: expected set . press /),
      ],
    });
    const twice = { wheels: ['LF', 'LF'], optional: ['SP'], proof: [] };
    expect((await go('sense.json', twice)).err.map((line) => line.split(': ').slice(0, 2).join(' '))).toEqual(
      ['sense.json wheels.1', 'sense.json optional.0', 'sense.json proof'],
    );
  });

  it('names the line that is no event, and what it lacks when called', async () => {
    const { procedure } = example('tool-all-well.json');
    const file = write('tool.json', JSON.stringify(procedure));
    expect(
      await hacienda(['relearn', file, '-'], '{"t":0,"event":"tick"}\n{"t":1,"event":"song"}'),
    ).toMatchObject({
      status: 1,
      err: [expect.stringMatching(/^standard input:2: event: expected expect . confirm/)],
    });
    expect((await hacienda(['relearn', file, 'nowhere.jsonl'])).err).toEqual([
      'nowhere.jsonl: cannot be read',
    ]);
    expect((await hacienda(['relearn', file])).status).toBe(2);
  });
});

describe('./hacienda assess', () => {
  it('prints one assessment per file, in order, and nothing else', async () => {
    const file = write('good.json', JSON.stringify(job));
    const run = await hacienda(['assess', file, file]);
    expect(run).toEqual({ status: 0, out: [expected(), expected()], err: [] });
  });

  it('reads JSON Lines from standard input', async () => {
    const run = await hacienda(['assess', '-'], `${JSON.stringify(job)}\n\n${JSON.stringify(job)}\n`);
    expect(run).toEqual({ status: 0, out: [expected(), expected()], err: [] });
  });

  it('names the file and the path of a fault in one line, assesses the others, and exits with 1', async () => {
    const cold = write(
      'cold.json',
      JSON.stringify({ ...job, placard: [{ position: 'front', coldKPa: 'thirty' }] }),
    );
    const run = await hacienda(['assess', cold, 'good.json', write('broken.json', '{'), 'missing.json']);
    expect(run.status).toBe(1);
    expect(run.out).toEqual([expected()]);
    expect(run.err[0]).toBe('cold.json: placard.0.coldKPa: expected number');
    expect(run.err[1]).toMatch(/^broken.json: not JSON/);
    expect(run.err[2]).toBe('missing.json: cannot be read');
    expect(run.err).toHaveLength(3);
  });

  it('without a file, or with a word it does not know, says how it is used', async () => {
    expect(await hacienda(['assess'])).toMatchObject({ status: 2, out: [] });
    expect(await hacienda(['dance'])).toMatchObject({
      status: 2,
      err: expect.arrayContaining([expect.stringContaining('Usage: ./hacienda')]),
    });
    expect(await hacienda(['start', '--proceses'])).toMatchObject({
      status: 2,
      err: expect.arrayContaining([expect.stringContaining('Did you mean --processes?')]),
    });
    expect((await hacienda(['demo', '--years', '0'])).err[0]).toContain('a whole number from 1 to 200000');
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
    wipe(home);
  });

  it('speaks in sentences: a Trouble is shown without a stack', async () => {
    expect(new Trouble('Something to do.')).toBeInstanceOf(Error);
    const run = await runHacienda(['start'], {
      env: { ...process.env, PORT: 'nonsense', HACIENDA_HTTP: '1' },
    });
    expect(run.stderr.trim().split('\n').slice(-2)).toEqual([
      'PORT takes a whole number from 1 to 65535.',
      'HACIENDA_HTTP is no setting. Those there are stand in docs/settings.md.',
    ]);
    expect(run.status).toBe(1);
  });
});

describe('a shop of its own', () => {
  const home = join(folder, 'home');
  const environment = {
    ...process.env,
    DATABASE_URL: '',
    HACIENDA_HOME: home,
    HACIENDA_MANAGER_NAME: 'Olga',
    HACIENDA_MANAGER_PASSPHRASE: 'snow on the north roof',
  };

  /** Starts `./hacienda start` and waits for its address, which it prints last. */
  async function start(port: number) {
    const run = spawn(join(root, 'hacienda'), ['start'], {
      env: { ...environment, PORT: String(port) },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const address = await new Promise<string>((resolve, reject) => {
      let text = '';
      run.stdout.on('data', (chunk: Buffer) => {
        text += chunk.toString();
        const last = text.trim().split('\n').at(-1) ?? '';
        if (/^http:/.test(last)) resolve(last);
      });
      run.once('exit', (code) => reject(new Error(`ended with ${code}: ${text}`)));
    });
    const stop = () =>
      new Promise<number | null>((resolve) => {
        run.once('exit', resolve);
        run.kill('SIGINT');
      });
    return { address, stop };
  }
  const signIn = (address: string) =>
    fetch(`${address}/api/sign-in`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Olga', passphrase: environment.HACIENDA_MANAGER_PASSPHRASE }),
    });

  it('opens with its first manager and no demo, keeps its data, and Ctrl-C stops all of it', async () => {
    const port = await freePort();
    const first = await start(port);
    expect(first.address).toBe(`http://127.0.0.1:${port}`);
    const page = await (await fetch(`${first.address}/sign-in`)).text();
    expect(page).not.toMatch(/invented shop|seven lamps/);
    const answer = await signIn(first.address);
    expect(await answer.json()).toEqual({ name: 'Olga', role: 'manager', awaitsCode: false });
    const cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? '';
    const yard = await fetch(`${first.address}/api/yard`, { headers: { cookie } });
    expect(await yard.json()).toEqual([]);
    const booking = { key: crypto.randomUUID(), vehicle: { label: 'Corriente Vela' } };
    await fetch(`${first.address}/api/jobs`, {
      method: 'POST',
      headers: { cookie, origin: first.address },
      body: JSON.stringify(booking),
    });

    const places = placesOf(join(home, 'shop'));
    const servers = () => places.filter((place) => spawnSync('pgrep', ['-f', place]).status === 0);
    expect(servers()).not.toEqual([]);
    expect(await first.stop()).toBe(0);
    await expect(fetch(first.address)).rejects.toThrow();
    expect(servers()).toEqual([]);

    const second = await start(port);
    const again = await (await fetch(`${second.address}/api/yard`, { headers: { cookie } })).json();
    expect(again).toMatchObject([{ label: 'Corriente Vela', state: 'open' }]);
    const refused = await runHacienda(['reset', '--yes'], { env: environment });
    expect(refused.stderr).toMatch(/It is running/);
    await second.stop();
  });

  it('is wiped only when asked for', async () => {
    const reset = (...parameters: string[]) => runHacienda(['reset', ...parameters], { env: environment });
    expect((await reset()).status).toBe(1);
    expect(existsSync(join(home, 'shop'))).toBe(true);
    const places = placesOf(join(home, 'shop'));
    expect(await reset('--yes')).toMatchObject({ status: 0, stdout: 'Wiped.\n' });
    expect([home, ...places].filter((place) => existsSync(place))).toEqual([]);
    expect((await reset('--yes')).stdout).toBe('There is nothing to wipe.\n');
  });
});
