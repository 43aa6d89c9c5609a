import { readFileSync } from 'node:fs';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort } from '../../src/cli/free-port';
import { startServer } from '../../src/cli/instance';
import { stopPart } from '../../src/cli/run';
import { assess } from '../../src/core/judgement/diagnosis';
import { parseJob } from '../../src/core/job/schema';
import { writeVerdict } from '../../src/core/job/car-write';
import { idsToWrite } from '../../src/core/visit';
import type { VisitView, YardLine } from '../../src/contract/views';
import { personHeader } from '../../src/contract/headers';
import { openShop, Client, type Shop } from '../support/shop';

interface SimulatedCar {
  vin: string;
  onWrite?: string;
  writeMs?: number;
}
const demoCars = JSON.parse(
  readFileSync(new URL('../../demo/cars.json', import.meta.url), 'utf8'),
) as SimulatedCar[];
const slowWriteMs = 2500;

let shop: Shop;
let ines: Client;
let vela: string;
let yard: YardLine[];

const jobOf = (plate: string) => yard.find((line) => line.plate === plate)?.id ?? '';
const view = (id: string) => ines.get<VisitView>(`/api/jobs/${id}`);
const gaugeNow = (kPa: number) => ({
  kind: 'gauge',
  at: new Date().toISOString(),
  wheel: 'LF',
  kPa,
  tire: 'cold',
});
const lastWrite = async (id: string) => (await view(id)).job.carWrites?.at(-1);

/** Scans and reads a car, so that it can be written. */
async function prepare(id: string): Promise<{ wheel: string; id: string | null }[]> {
  for (const wheel of ['LF', 'RF', 'RR', 'LR']) {
    await ines.post(`/api/jobs/${id}/wake`, { key: newKey(), wheel, trigger: 'pulsed' });
  }
  const seen = await ines.post<VisitView>(`/api/jobs/${id}/read-car`, { key: newKey() });
  return idsToWrite(seen.job).map(({ wheel, id: sensorId }) => ({ wheel, id: sensorId }));
}

beforeAll(async () => {
  // The car of the first visit takes its time over a write, so that the server can die in the middle.
  shop = await openShop({
    cars: demoCars.map((car, place) => (place === 0 ? { ...car, writeMs: slowWriteMs } : car)),
  });
  ines = await Client.signIn(shop.address);
  yard = await ines.get('/api/yard');
  vela = jobOf('KUR 417');
});
afterAll(() => shop?.close());

describe('another server process', () => {
  it('hears of a reading within a second', async () => {
    const port = await freePort();
    const second = await startServer(port, { ...shop.environment, DATABASE_URL: shop.databaseUrl });
    try {
      const there = ines.at(`http://127.0.0.1:${port}`);
      const id = jobOf('KUR 982');
      const events = await there.fetch(`/api/jobs/${id}/events`);
      const reader = events.body?.getReader();
      const decoder = new TextDecoder();
      const nextChange = async () => {
        let text = '';
        while (!text.includes('event: change')) text += decoder.decode((await reader?.read())?.value);
      };
      await nextChange();
      const asked = Date.now();
      const heard = nextChange().then(() => Date.now() - asked);
      await ines.post(`/api/jobs/${id}/observations`, { key: newKey(), observation: gaugeNow(229) });
      expect(await heard).toBeLessThan(1000);
      const seen = await there.get<VisitView>(`/api/jobs/${id}`);
      expect(seen.job.observations.at(-1)).toMatchObject({ kPa: 229 });
      await reader?.cancel();
    } finally {
      await stopPart(second);
    }
  });
});

describe('a write to the car', () => {
  it('that answers "yes" and is forgotten is read back as failed', async () => {
    const id = jobOf('KUR 125');
    const entries = await prepare(id);
    await ines.post(`/api/jobs/${id}/write-ids`, { key: newKey(), entries });
    const write = await lastWrite(id);
    expect(write).toMatchObject({ answer: 'yes' });
    expect(write && writeVerdict(write)).toBe('failed');
  });

  it('whose answer was lost is unknown until it is read back', async () => {
    const id = jobOf('KUR 007');
    const before = await lastWrite(id);
    expect(before && writeVerdict(before)).toBe('unknown');
    await ines.post(`/api/jobs/${id}/read-back`, { write: before?.key });
    const after = await lastWrite(id);
    expect(after && writeVerdict(after)).toBe('worked');
  });

  it('is refused to an adviser, and before the car was read', async () => {
    const pilar = await Client.signIn(shop.address, 'adviser');
    const body = { key: newKey(), entries: [{ wheel: 'LF', id: '4B07C2D1' }] };
    expect((await pilar.send('POST', `/api/jobs/${vela}/write-ids`, body)).status).toBe(403);
    const early = await ines.send('POST', `/api/jobs/${vela}/write-ids`, body);
    expect(early.status).toBe(409);
    expect(await early.json()).toMatchObject({ error: { code: 'read-first' } });
  });
});

describe('a server killed', () => {
  const kill = async () => {
    const gone = new Promise((resolve) => shop.server.once('exit', resolve));
    shop.server.kill('SIGKILL');
    await gone;
    await shop.restartServer();
  };

  it('in the middle of recording loses nothing and doubles nothing', async () => {
    const readings = Array.from({ length: 20 }, (_, n) => ({
      key: newKey(),
      observation: gaugeNow(200 + n),
    }));
    const path = `/api/jobs/${vela}/observations`;
    const sent = readings.map((reading) =>
      ines.send('POST', path, reading).then(
        (answer) => answer.ok,
        () => false,
      ),
    );
    await new Promise((resolve) => setTimeout(resolve, 30));
    await kill();
    const confirmed = await Promise.all(sent);
    const keysNow = async () =>
      (await view(vela)).job.observations.filter(({ kind }) => kind === 'gauge').map(({ key }) => key);
    const kept = await keysNow();
    readings.forEach(({ key }, place) => confirmed[place] && expect(kept).toContain(key));
    // What was not confirmed is sent again, as the job sheet does: every reading is there exactly once.
    for (const reading of readings) await ines.post(path, reading);
    const all = await keysNow();
    expect(readings.map(({ key }) => all.filter((other) => other === key).length)).toEqual(
      readings.map(() => 1),
    );
  });

  it('in the middle of a car write leaves it unknown until read back, and the car written once', async () => {
    const entries = await prepare(vela);
    const key = newKey();
    const sent = ines.send('POST', `/api/jobs/${vela}/write-ids`, { key, entries }).catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, slowWriteMs / 3));
    await kill();
    await sent;
    const after = await lastWrite(vela);
    expect(after).toMatchObject({ key });
    expect(after && writeVerdict(after)).toBe('unknown');
    expect(await ines.get(`/api/jobs/${vela}/verdict`)).toMatchObject({ move: { kind: 'read-back' } });
    // The double click after the crash sends nothing: the write is there.
    await ines.post(`/api/jobs/${vela}/write-ids`, { key, entries });
    // Too early: the car may still be writing, so what it holds now says nothing.
    const early = await ines.send('POST', `/api/jobs/${vela}/read-back`, { write: key });
    expect(await early.json()).toMatchObject({ error: { code: 'write-under-way' } });
    await new Promise((resolve) => setTimeout(resolve, 11_000));
    await ines.post(`/api/jobs/${vela}/read-back`, { write: key });
    const back = await lastWrite(vela);
    expect(back && writeVerdict(back)).toBe('worked');
    expect((await view(vela)).job.carWrites).toHaveLength(1);
  });
});

describe('the open door of the core', () => {
  const file = () =>
    JSON.parse(readFileSync(new URL('../cases/one-tire-low.json', import.meta.url), 'utf8')) as {
      job: unknown;
    };

  it('assesses a job file without a session, as the core does', async () => {
    const { job } = file();
    const response = await fetch(`${shop.address}/api/assess`, { method: 'POST', body: JSON.stringify(job) });
    const parsed = parseJob(job);
    expect(await response.json()).toEqual(parsed.ok && assess(parsed.value));
    expect((await fetch(`${shop.address}/api/schema/job`)).status).toBe(200);
    expect((await fetch(`${shop.address}/api/schema/assessment`)).status).toBe(200);
  });

  it('answers a document that is no job file with the path and what was expected', async () => {
    const wrong = {
      format: 'hacienda.job/1',
      vehicle: { tpms: { kind: 'direct' } },
      placard: [{ position: 'front', coldKPa: 'x' }],
      observations: [],
    };
    const response = await fetch(`${shop.address}/api/assess`, {
      method: 'POST',
      body: JSON.stringify(wrong),
    });
    expect(response.status).toBe(400);
    expect(await response.json()).toMatchObject({
      error: { code: 'invalid-job', issues: [{ path: 'placard.0.coldKPa', message: 'expected number' }] },
    });
  });
});

describe('what is sent and taken over the wire', () => {
  it('an entry of somebody else is not taken under this session, and stored is nothing', async () => {
    const before = (await view(vela)).revision;
    const refused = await ines.fetch(`/api/jobs/${vela}/observations`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', [personHeader]: newKey() },
      body: JSON.stringify({ key: newKey(), observation: gaugeNow(230) }),
    });
    expect(refused.status).toBe(401);
    expect(await refused.json()).toMatchObject({ error: { code: 'not-signed-in' } });
    expect((await view(vela)).revision).toBe(before);
  });

  it('pages and scripts are compressed, news are not held back for it', async () => {
    const page = await ines.fetch(`/jobs/${vela}`, { headers: { 'accept-encoding': 'gzip' } });
    expect(page.headers.get('content-encoding')).toBe('gzip');
    const script = /"(\/_astro\/client\.[^"]+\.js)"/.exec(await page.text())?.[1] ?? '';
    const sent = await ines.fetch(script, { headers: { 'accept-encoding': 'gzip' } });
    expect(sent.headers.get('content-encoding')).toBe('gzip');
    expect(sent.headers.get('cache-control')).toContain('immutable');
    expect(sent.headers.get('x-content-type-options')).toBe('nosniff');
    const news = await ines.fetch(`/api/jobs/${vela}/events`, { headers: { 'accept-encoding': 'gzip' } });
    expect(news.headers.get('content-encoding')).toBeNull();
    const first = await news.body?.getReader().read();
    expect(new TextDecoder().decode(first?.value)).toContain('"revision":');
  });

  it('a method nobody needs, and an address that is none, are refused and not stumbled over', async () => {
    expect((await ines.fetch('/', { method: 'PUT', body: '' })).status).toBe(405);
    expect((await ines.fetch('/%E0%A4%A')).status).toBe(400);
  });
});

describe('bad input', () => {
  const stranger = newKey();
  const endpoints = (id: string): [string, string][] => [
    ['POST', '/api/jobs'],
    ['POST', '/api/jobs/import'],
    ['PATCH', `/api/jobs/${id}`],
    ...[
      'observations',
      'wake',
      'read-car',
      'clear-codes',
      'write-ids',
      'read-back',
      'hand-over',
      'notes',
    ].map((name): [string, string] => ['POST', `/api/jobs/${id}/${name}`]),
    ['POST', `/api/practice/${id}`],
    ['POST', '/api/profiles'],
    ['POST', '/api/procedures'],
    ['POST', '/api/people'],
    ['PATCH', `/api/people/${id}`],
    ['PATCH', '/api/me'],
    ['POST', '/api/shop'],
    ['POST', '/api/gauges'],
    ['POST', `/api/gauges/${id}`],
    ['POST', `/api/gauges/${id}/checks`],
    ['POST', '/api/sign-in'],
    ['POST', '/api/assess'],
  ];
  const bodies: [string, string][] = [
    ['no JSON', '{'],
    ['an empty body', ''],
    ['a list', '[[1]]'],
    [
      'wrong types',
      JSON.stringify({
        key: 1,
        version: 'x',
        changes: 3,
        observation: { kind: 'gauge', kPa: 'x' },
        vehicle: 4,
        units: 5,
        name: 6,
      }),
    ],
    [
      'an unknown kind',
      JSON.stringify({
        key: 'mine',
        observation: { kind: 'switch-it-off', at: 'now' },
        do: 'nothing',
        units: { pressure: 'atm' },
        name: '',
      }),
    ],
    ['a huge body', JSON.stringify({ key: newKey(), text: 'x'.repeat(3 * 2 ** 20) })],
  ];

  it.each(['\\u0000', '\\ud800', 'x\\udc00'])(
    'text with %s in it is refused, never half stored',
    async (odd) => {
      const boss = await Client.signIn(shop.address, 'manager');
      const procedure = {
        format: 'hacienda.procedure/1',
        name: 'odd',
        title: 'Odd',
        method: 'tool',
        proof: ['lamp'],
        source: 'ODD',
      };
      const job = {
        format: 'hacienda.job/1',
        vehicle: { label: 'ODD', tpms: { kind: 'none' } },
        observations: [],
      };
      for (const [path, body] of [
        ['/api/procedures', [procedure]],
        ['/api/jobs', { key: newKey(), vehicle: { label: 'ODD' }, complaint: 'ODD' }],
        ['/api/jobs/import', job],
        ['/api/sign-in', { name: 'ODD', passphrase: 'ODD' }],
        ['/api/people', { name: 'ODD', role: 'adviser', passphrase: 'apples in the cellar' }],
        ['/api/gauges', { key: newKey(), name: 'ODD', kind: 'dial', resolutionKPa: 5 }],
        [`/api/jobs/${vela}/notes`, { key: newKey(), text: 'ODD', link: '/bench' }],
      ] as const) {
        const raw = JSON.stringify(body).replaceAll('ODD', odd);
        const response = await boss.send('POST', path, raw);
        expect(response.status, path).toBe(400);
      }
      const asked = await boss.fetch('/api/vehicles?plate=%00&vin=%00');
      expect(asked.status).toBe(400);
      const form = await fetch(`${shop.address}/api/sign-in`, {
        method: 'POST',
        redirect: 'manual',
        headers: { origin: shop.address, 'content-type': 'application/x-www-form-urlencoded' },
        body: 'name=%00&passphrase=%00',
      });
      expect(form.status).toBe(303);
    },
  );

  it.each(bodies)(
    '%s is answered by every endpoint with a code and a sentence, and stores nothing',
    async (what, body) => {
      const before = await ines.get<VisitView>(`/api/jobs/${jobOf('FLT 03')}`);
      const boss = await Client.signIn(shop.address, 'manager');
      for (const [method, path] of endpoints(before.id)) {
        const response = await boss.send(method, path, body);
        const text = await response.text();
        expect(response.status, `${path} ${text.slice(0, 200)}`).toBeGreaterThanOrEqual(400);
        expect(response.status, path).toBeLessThan(500);
        const { error } = JSON.parse(text) as { error: { code: string; message: string } };
        expect(error.code, path).toMatch(/^[a-z-]+$/);
        expect(error.message, path).toMatch(/\w.*\.$/);
        expect(text, path).not.toMatch(/at .*\.(mjs|ts|js):\d/);
        if (what === 'a huge body') expect(response.status, path).toBe(413);
      }
      expect(await ines.get(`/api/jobs/${before.id}`)).toEqual(before);
    },
  );

  it('an unknown or malformed job is not found', async () => {
    for (const id of [stranger, 'x', '../../etc/passwd', "';DROP TABLE jobs;--"]) {
      const path = `/api/jobs/${encodeURIComponent(id)}`;
      expect((await ines.fetch(path)).status).toBe(404);
      expect((await ines.send('POST', `${path}/read-car`, { key: newKey() })).status).toBe(404);
      expect((await ines.fetch(`/jobs/${encodeURIComponent(id)}`)).status).toBe(404);
    }
  });

  it('nothing but the open doors is reached without a session, or with one that is made up', async () => {
    for (const cookie of ['', 'hacienda_session=made-up']) {
      for (const [method, path] of endpoints(jobOf('FLT 03'))) {
        if (path === '/api/sign-in' || path === '/api/assess') continue;
        const response = await fetch(shop.address + path, {
          method,
          body: '{}',
          headers: { cookie, origin: shop.address },
        });
        expect(response.status, path).toBe(401);
      }
      for (const path of [
        '/api/yard',
        '/api/vehicles?plate=x',
        '/api/profiles',
        '/api/procedures',
        '/api/people',
        '/api/gauges',
        '/api/weather',
        `/api/jobs/${vela}`,
        `/api/jobs/${vela}/file`,
        `/api/jobs/${vela}/events`,
      ]) {
        expect((await fetch(shop.address + path, { headers: { cookie } })).status, path).toBe(401);
      }
      for (const path of [
        '/',
        '/book-in',
        '/bench',
        '/gauges',
        '/setup',
        `/jobs/${vela}`,
        `/jobs/${vela}/sheet`,
      ]) {
        const page = await fetch(shop.address + path, { headers: { cookie }, redirect: 'manual' });
        expect(page.headers.get('location'), path).toMatch(/^\/sign-in/);
      }
    }
  });

  it('a session that was ended is nobody', async () => {
    const gone = await Client.signIn(shop.address);
    expect((await gone.fetch('/api/yard')).status).toBe(200);
    await gone.fetch('/api/sign-out', { method: 'POST', redirect: 'manual' });
    expect((await gone.fetch('/api/yard')).status).toBe(401);
  });

  it('a change from another origin, or from none, is refused', async () => {
    for (const headers of [{ origin: 'http://elsewhere.example' }, { origin: 'null' }]) {
      const response = await ines.fetch(`/api/jobs/${vela}/observations`, {
        method: 'POST',
        body: '{}',
        headers,
      });
      expect(response.status).toBe(403);
    }
  });

  it('what a role may not do, it is told', async () => {
    expect((await ines.fetch('/api/people')).status).toBe(403);
    const added = await ines.send('POST', '/api/people', {
      name: 'New',
      role: 'manager',
      passphrase: 'long enough words',
    });
    expect(added.status).toBe(403);
  });

  it('sign-in is slowed after a few wrong passphrases, and says for how long', async () => {
    const attempt = () =>
      fetch(`${shop.address}/api/sign-in`, {
        method: 'POST',
        headers: { origin: shop.address, 'content-type': 'application/json' },
        body: JSON.stringify({ name: 'Nobody', passphrase: 'wrong' }),
      });
    const statuses = [];
    for (let n = 0; n < 7; n += 1) statuses.push((await attempt()).status);
    expect(statuses.slice(0, 5)).toEqual([401, 401, 401, 401, 401]);
    expect(statuses[6]).toBe(429);
  });

  it('pages carry the security headers, and a policy without inline script', async () => {
    const page = await ines.fetch('/');
    const policy = page.headers.get('content-security-policy') ?? '';
    expect(policy).toMatch(/script-src 'self' 'sha256-/);
    expect(policy).not.toMatch(/unsafe-inline|unsafe-eval/);
    expect(policy).toMatch(/frame-ancestors 'none'/);
    expect(page.headers.get('x-content-type-options')).toBe('nosniff');
    const cookie = (
      await fetch(`${shop.address}/api/sign-in`, {
        method: 'POST',
        headers: { origin: shop.address },
        body: JSON.stringify({ name: 'Pilar', passphrase: 'counter by the door' }),
      })
    ).headers.get('set-cookie');
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Strict/i);
  });
});
