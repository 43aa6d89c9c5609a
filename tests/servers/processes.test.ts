import { execFileSync } from 'node:child_process';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { VisitView } from '../../src/contract/views';
import { Client, openShop, type Shop } from '../support/shop';

/** A shop of two server processes behind one address, and somebody who ends them as he likes. */
const token = 'of this test';
let shop: Shop;
let ines: Client;
beforeAll(async () => {
  shop = await openShop({
    processes: 2,
    environment: { HACIENDA_METRICS_TOKEN: token },
  });
  ines = await Client.signIn(shop.address);
});
afterAll(() => shop?.close());

/** The processes that serve: children of the one that was started. */
const serving = (): number[] => {
  try {
    return execFileSync('pgrep', ['-P', String(shop.server.pid)], { encoding: 'utf8' })
      .trim()
      .split('\n')
      .map(Number);
  } catch {
    return [];
  }
};
const soon = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** Whoever asked a server that was killed just then hears nothing: so long it is waited for, then asked again. */
const patient = () => AbortSignal.timeout(5000);
const isWell = () =>
  ines.fetch('/api/health', { signal: patient() }).then(
    ({ ok }) => ok,
    () => false,
  );
const untilWell = async () => {
  while (!(await isWell())) await soon(50);
};
const view = (id: string) => ines.get<VisitView>(`/api/jobs/${id}`);
const open = async (label: string) => {
  const booked = await ines.post<{ id: string }>('/api/jobs', {
    key: newKey(),
    vehicle: { label, profile: 'corriente-vela' },
  });
  return booked.id;
};

describe('two server processes behind one address', () => {
  it('lose nothing and double nothing while they are killed over and over', async () => {
    const id = await open('Vela, read');
    const readings = Array.from({ length: 120 }, (_, n) => ({
      key: newKey(),
      observation: {
        kind: 'gauge',
        at: new Date().toISOString(),
        wheel: 'LF',
        kPa: 180 + n / 2,
        tire: 'cold',
      },
    }));
    let isOver = false;
    const killing = (async () => {
      for (let n = 0; n < 6 && !isOver; n += 1) {
        await soon(400);
        const [one] = serving();
        if (one) process.kill(one, 'SIGKILL');
      }
    })();
    const send = async (reading: object): Promise<void> => {
      const answer = await ines
        .send('POST', `/api/jobs/${id}/observations`, reading, patient())
        .catch(() => undefined);
      if (answer?.ok) return;
      await soon(30);
      return send(reading);
    };
    for (let at = 0; at < readings.length; at += 6) {
      await Promise.all(readings.slice(at, at + 6).map(send));
      await soon(100);
    }
    isOver = true;
    await killing;
    await untilWell();
    const kept = (await view(id)).job.observations.map(({ key }) => key);
    expect(kept.length).toBe(readings.length);
    expect(new Set(kept)).toEqual(new Set(readings.map(({ key }) => key)));
  });

  it('count together for whoever has the token, and for nobody else', async () => {
    await untilWell();
    while (serving().length < 2) await soon(50);
    await soon(500);
    const asked = (authorization?: string) =>
      fetch(`${shop.address}/metrics`, { headers: { ...(authorization && { authorization }) } });
    expect((await asked()).status).toBe(401);
    expect((await asked('Bearer of somebody else')).status).toBe(401);
    const count = async () => {
      const text = await (await asked(`Bearer ${token}`)).text();
      // Prometheus text format 0.0.4: name, labels, value.
      expect(text).toMatch(/^# TYPE hacienda_request_seconds histogram$/m);
      return Number(/^hacienda_request_seconds_count\{.*route="\/api\/health".*\} (\d+)$/m.exec(text)?.[1]);
    };
    const before = await count();
    for (let n = 0; n < 10; n += 1)
      await fetch(`${shop.address}/api/health`, { headers: { connection: 'close' } });
    // A request counts once its answer is closed, which the server hears of a moment later.
    await expect.poll(count).toBeGreaterThanOrEqual(before + 10);
    expect(await count()).toBeLessThanOrEqual(before + 11);
  });
});

describe('a session that ends in one of the processes', () => {
  it('has ended in the other, which remembered it', async () => {
    const gone = await Client.signIn(shop.address);
    // A connection of its own each time: the processes take turns.
    const ask = async () =>
      (await gone.fetch('/api/me/sessions', { headers: { connection: 'close' }, signal: patient() })).status;
    const six = () => Promise.all(Array.from({ length: 6 }, ask));
    expect(await six()).toEqual(Array(6).fill(200));
    await gone.fetch('/api/sign-out', { method: 'POST', redirect: 'manual' });
    // What is remembered is asked for again after five seconds; the news of it is quicker.
    await expect.poll(six, { timeout: 2500 }).toEqual(Array(6).fill(401));
  });
});

describe('asked to stop', () => {
  it('the servers end within ten seconds, their streams too, and what was begun is answered', async () => {
    await untilWell();
    const id = await open('Vela, last');
    const events = await ines.fetch(`/api/jobs/${id}/events`);
    const streamEnds = (async () => {
      const reader = events.body?.getReader();
      while (!(await reader?.read())?.done);
    })().catch(() => undefined);
    const begun = ines.send('POST', `/api/jobs/${id}/observations`, {
      key: newKey(),
      observation: { kind: 'lamp', at: new Date().toISOString(), state: 'off' },
    });
    await soon(20);
    const gone = new Promise((resolve) => shop.server.once('exit', resolve));
    const from = Date.now();
    shop.server.kill('SIGTERM');
    expect((await begun).ok).toBe(true);
    await Promise.all([streamEnds, gone]);
    expect(Date.now() - from).toBeLessThan(10_000);
    expect(await isWell()).toBe(false);
  });
});
