import { request } from 'node:http';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import people from '../../demo/people.json' with { type: 'json' };
import { database, inJobTransaction, inTransaction, isPassing } from '../../src/data/database';
import type { Job } from '../../src/core/job';
import { ledgerOf } from '../../src/core/job/ledger';
import { writeVerdict } from '../../src/core/job/car-write';
import type { VisitView } from '../../src/contract/views';
import { takeCar } from '../../src/data/leases';
import * as jobs from '../../src/data/jobs';
import * as technicians from '../../src/data/technicians';
import { bookIn, handOver, record, viewJob } from '../../src/services/jobs';
import {
  addPerson,
  hashToken,
  personOfToken,
  rememberBrowser,
  signIn,
  signOut,
} from '../../src/services/people';
import { gauge, jobWith } from '../support/car';
import { must } from '../support/must';
import { person } from '../support/people';
import { Client, openShop, type Shop } from '../support/shop';

let shop: Shop;
let ines: Client;
let pilar: Client;
beforeAll(async () => {
  shop = await openShop();
  ines = await Client.signIn(shop.address);
  // Before her name is tried in vain.
  pilar = await Client.signIn(shop.address, 'adviser');
});
afterAll(() => shop.close());

/** A request as it is, headers and all; fetch sets some of its own. */
const raw = (path: string, headers: Record<string, string>, method = 'GET', body?: string) =>
  new Promise<{ status: number; headers: Record<string, unknown>; text: string }>((resolve, reject) => {
    const { hostname, port } = new URL(shop.address);
    const asked = request({ hostname, port, path, method, headers }, (answer) => {
      let text = '';
      answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, text }));
    });
    asked.on('error', reject);
    asked.end(body);
  });
const wrong = (headers: Record<string, string> = {}) =>
  raw(
    '/api/sign-in',
    { origin: shop.address, 'content-type': 'application/json', ...headers },
    'POST',
    JSON.stringify({ name: 'Pilar', passphrase: 'not this one' }),
  );

describe('attempts to sign in', () => {
  it('are counted by the peer, whatever address they claim; a browser that is known is counted apart', async () => {
    const her = people.find(({ name }) => name === 'Pilar');
    const enter = (cookie: string) =>
      raw(
        '/api/sign-in',
        { origin: shop.address, 'content-type': 'application/json', cookie },
        'POST',
        JSON.stringify(her),
      );
    const first = await enter('');
    const known = (first.headers['set-cookie'] as string[])
      .map((cookie) => cookie.split(';')[0] ?? '')
      .find((cookie) => cookie.startsWith('hacienda_known'));
    const statuses: number[] = [];
    for (let n = 0; n < 8; n += 1)
      statuses.push(
        (await wrong({ 'x-forwarded-for': `203.0.113.${n}`, forwarded: `for=203.0.113.${n}` })).status,
      );
    expect(statuses.at(-1)).toBe(429);
    // Nobody on the same network locks out who has been here before.
    expect((await enter('')).status).toBe(429);
    expect((await enter(known ?? '')).status).toBe(200);
  });

  it('beside a mark nobody was given, or one made for somebody else, are counted as without one', async () => {
    const name = `Somebody ${newKey()}`;
    const added = { role: 'technician', passphrase: 'a few plain words' } as const;
    const somebody = must(await addPerson({ name, ...added }));
    const other = must(await addPerson({ name: `Other ${newKey()}`, ...added }));
    const address = `test ${newKey()}`;
    for (let n = 0; n < 5; n += 1) await signIn(name, 'not this one', { address, known: newKey() });
    expect(await signIn(name, 'a few plain words', { address, known: newKey() })).toMatchObject({
      problem: { code: 'too-many-attempts' },
    });
    // Whoever has an account makes no marks that are good for guesses at another's.
    const ofOther = await rememberBrowser(other, undefined);
    expect(await signIn(name, 'a few plain words', { address, known: ofOther })).toMatchObject({
      problem: { code: 'too-many-attempts' },
    });
    // A tablet that both use is known for both.
    const known = await rememberBrowser(somebody, ofOther);
    expect(known).toBe(ofOther);
    expect((await signIn(name, 'a few plain words', { address, known })).ok).toBe(true);
  });

  it('are never counted by a mark that the browser chose itself: the server makes another', async () => {
    const passphrase = 'a few plain words';
    const chosen = newKey();
    const somebody = must(await addPerson({ name: `Somebody ${newKey()}`, role: 'adviser', passphrase }));
    expect(await rememberBrowser(somebody, chosen)).not.toBe(chosen);
  });

  it('from all known browsers of one address are limited together, and few browsers of a person are known', async () => {
    const name = `Somebody ${newKey()}`;
    const somebody = must(await addPerson({ name, role: 'adviser', passphrase: 'a few plain words' }));
    const address = `test ${newKey()}`;
    const marks: string[] = [];
    for (let n = 0; n < 24; n += 1) marks.push(await rememberBrowser(somebody, undefined));
    const isKnown = (mark: string) => technicians.isKnownBrowser(hashToken(mark), name);
    expect(await Promise.all(marks.map(isKnown))).toEqual(marks.map((_, n) => n >= 4));
    let counted = 0;
    for (const browser of marks)
      for (let n = 0; n < 5; n += 1)
        if ((await technicians.countAttempt(name, { address, browser })) === undefined) counted += 1;
    expect(counted).toBe(60);
    // Who is not known there is not kept out by them.
    expect(await technicians.countAttempt(name, { address })).toBeUndefined();
  });
});

describe('a session', () => {
  it('that nobody used for hours has ended', async () => {
    const name = `Somebody ${newKey()}`;
    must(await addPerson({ name, role: 'technician', passphrase: 'a few plain words' }));
    const { token } = must(await signIn(name, 'a few plain words', { address: newKey() }));
    const usedAgo = (hours: number) =>
      database().query(
        `UPDATE sessions SET used_at = now() - $1::interval
         WHERE technician_id = (SELECT id FROM technicians WHERE name = $2)`,
        { bind: [`${hours} hours`, name] },
      );
    const { token: another } = must(await signIn(name, 'a few plain words', { address: newKey() }));
    await usedAgo(3.9);
    expect(await personOfToken(token)).toMatchObject({ name });
    await usedAgo(4.1);
    expect(await personOfToken(another)).toBeUndefined();
  });

  it('is remembered between two requests, and forgotten once anybody ends it or changes whose it is', async () => {
    const name = `Known ${newKey().slice(-6)}`;
    must(await addPerson({ name, role: 'technician', passphrase: 'a few plain words' }));
    const signedIn = async () => must(await signIn(name, 'a few plain words', { address: newKey() })).token;
    const [one, other] = [await signedIn(), await signedIn()];
    const asked = vi.spyOn(technicians, 'findBySession');
    // The first may be asked before this process listens for news.
    await vi.waitFor(async () => {
      await personOfToken(one);
      asked.mockClear();
      expect(await personOfToken(one)).toMatchObject({ name, role: 'technician' });
      expect(asked).not.toHaveBeenCalled();
    });
    // Behind the back of this process; its word comes long before it would ask again by itself.
    const behind = (sql: string) => database().query(sql, { bind: [name] });
    const soon = { timeout: 2000, interval: 10 };
    await behind(`UPDATE technicians SET role = 'adviser' WHERE name = $1`);
    await vi.waitFor(async () => expect((await personOfToken(one))?.role).toBe('adviser'), soon);
    await personOfToken(other);
    await behind('DELETE FROM sessions WHERE technician_id = (SELECT id FROM technicians WHERE name = $1)');
    await vi.waitFor(async () => expect(await personOfToken(other)).toBeUndefined(), soon);
    // In this process it is known at once.
    const third = await signedIn();
    expect(await personOfToken(third)).toMatchObject({ name });
    await signOut(third);
    expect(await personOfToken(third)).toBeUndefined();
    asked.mockRestore();
  });

  it('that ends ends its stream of news at once; so does an account that is closed', async () => {
    const boss = await Client.signIn(shop.address, 'manager');
    const [job] = await ines.get<{ id: string }[]>('/api/yard');
    const streamOf = async (who: Client) => {
      const stream = await who.fetch(`/api/jobs/${job?.id ?? ''}/events`);
      expect(stream.status).toBe(200);
      const ended = (async () => {
        for await (const chunk of stream.body ?? []) void chunk;
        return true;
      })().catch(() => false);
      return () => Promise.race([ended, new Promise((resolve) => setTimeout(() => resolve(false), 5000))]);
    };
    const second = await Client.signIn(shop.address);
    const ends = await streamOf(second);
    expect(
      (await second.fetch('/api/sign-out', { method: 'POST', redirect: 'manual' })).headers.get(
        'clear-site-data',
      ),
    ).toContain('"cache"');
    expect(await ends()).toBe(true);

    const name = `Gone ${newKey().slice(-6)}`;
    const passphrase = 'a few plain words';
    const added = await boss.post<{ id: string }>('/api/people', { name, role: 'technician', passphrase });
    const signedIn = await raw(
      '/api/sign-in',
      { origin: shop.address, 'content-type': 'application/json' },
      'POST',
      JSON.stringify({ name, passphrase }),
    );
    expect(signedIn.status).toBe(200);
    const gone = Client.with(shop.address, (signedIn.headers['set-cookie'] as string[])[0] ?? '');
    const closedEnds = await streamOf(gone);
    expect((await boss.send('PATCH', `/api/people/${added.id}`, { active: false })).status).toBe(200);
    expect(await closedEnds()).toBe(true);
  });

  it('opens so many streams of news and no more', async () => {
    const [job] = await ines.get<{ id: string }[]>('/api/yard');
    const asking = new AbortController();
    const opened = await Promise.all(
      Array.from({ length: 60 }, () =>
        ines.fetch(`/api/jobs/${job?.id ?? ''}/events`, { signal: asking.signal }),
      ),
    );
    const statuses = opened.map(({ status }) => status);
    expect(statuses.filter((status) => status === 200).length).toBeLessThanOrEqual(40);
    expect(new Set(statuses)).toEqual(new Set([200, 429]));
    asking.abort();
  });
});

describe('the last manager', () => {
  it('stays, though two close each other at the same time', async () => {
    const boss = await Client.signIn(shop.address, 'manager');
    const me = (await boss.get<{ id: string; name: string }[]>('/api/people')).find(
      ({ name }) => name === 'Marisol',
    );
    const name = `Second ${newKey().slice(-6)}`;
    const passphrase = 'a few plain words';
    const added = await boss.post<{ id: string }>('/api/people', { name, role: 'manager', passphrase });
    const signedIn = await raw(
      '/api/sign-in',
      { origin: shop.address, 'content-type': 'application/json' },
      'POST',
      JSON.stringify({ name, passphrase }),
    );
    const second = Client.with(shop.address, (signedIn.headers['set-cookie'] as string[])[0] ?? '');
    const closed = await Promise.all([
      boss.send('PATCH', `/api/people/${added.id}`, { active: false }),
      second.send('PATCH', `/api/people/${me?.id ?? ''}`, { active: false }),
    ]);
    const statuses = closed.map(({ status }) => status);
    expect(statuses.filter((status) => status === 200)).toHaveLength(1);
    const left = statuses[0] === 200 ? boss : second;
    const there = await left.get<{ role: string; active: boolean }[]>('/api/people');
    expect(there.filter(({ role, active }) => role === 'manager' && active)).toHaveLength(1);
    if (left === second) await second.send('PATCH', `/api/people/${me?.id ?? ''}`, { active: true });
  });

  it('cannot be closed past the app either: the database holds it', async () => {
    must(await addPerson({ name: newKey(), role: 'manager', passphrase: 'a few plain words' }));
    const close = database().transaction(async (tx) => {
      await database().query("UPDATE technicians SET active = false WHERE role = 'manager'", {
        transaction: tx,
      });
      throw new Error('it was closed');
    });
    await expect(close).rejects.toMatchObject({ parent: { constraint: 'keep_a_manager' } });
  });
});

describe('the front', () => {
  const host = () => new URL(shop.address).host;

  it('is not reached under a name somebody else made lead here', async () => {
    const rebound = await raw('/', { host: `rebound.example:${new URL(shop.address).port}` });
    expect(rebound.status).toBe(421);
    expect((await raw('/sign-in', { host: host() })).status).toBe(200);
  });

  it('says what may be loaded, keeps private answers out of caches, and names no framework', async () => {
    const page = await raw('/sign-in', { host: host() });
    expect(page.headers['content-security-policy']).toContain("default-src 'self'");
    expect(page.headers).toMatchObject({
      'cache-control': 'no-store',
      'cross-origin-resource-policy': 'same-origin',
      'x-content-type-options': 'nosniff',
    });
    expect(page.headers['x-powered-by']).toBeUndefined();
    expect(page.text).not.toMatch(/<meta name="generator"/);
    const answer = await ines.fetch('/api/yard');
    expect(answer.headers.get('cache-control')).toBe('no-store');
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
    const file = await raw('/mark.svg', { host: host() });
    expect(file.headers).toMatchObject({ 'x-content-type-options': 'nosniff' });
  });

  it('has no endpoint that makes other pictures of a picture, and takes odd methods nowhere', async () => {
    expect((await ines.fetch('/_image?href=/mark.svg&w=9000')).status).toBe(404);
    for (const method of ['TRACE', 'PUT', 'DELETE', 'PROPFIND'])
      expect((await raw('/api/yard', { host: host() }, method)).status).toBe(405);
  });

  it('judges for programs, in JSON, and for no other site', async () => {
    const ask = (headers: Record<string, string>) =>
      raw('/api/assess', { host: host(), ...headers }, 'POST', JSON.stringify(jobWith([])));
    expect((await ask({ 'content-type': 'application/json' })).status).toBe(200);
    for (const page of [{ origin: shop.address }, { 'sec-fetch-site': 'cross-site' }] as Record<
      string,
      string
    >[])
      expect((await ask({ 'content-type': 'text/plain', ...page })).status).toBe(415);
    expect(
      (await ask({ 'content-type': 'application/json', origin: 'https://elsewhere.example' })).status,
    ).toBe(403);
    expect(
      (await raw('/api/assess', { host: host(), origin: 'https://elsewhere.example' }, 'OPTIONS')).status,
    ).toBe(403);
  });
});

describe('one car', () => {
  /** Another job of the same car, as a file brings it. */
  const twice = async (plate: string) => {
    const yard = await ines.get<{ id: string; plate: string }[]>('/api/yard');
    const id = yard.find((line) => line.plate === plate)?.id ?? '';
    const file = await ines.get<Job>(`/api/jobs/${id}/file`);
    const copy = {
      ...file,
      visit: { key: newKey() },
      observations: [],
      carWrites: [],
      runs: [],
      corrected: [],
    };
    const other = (await ines.post<{ id: string }>('/api/jobs/import', copy)).id;
    return [id, other] as const;
  };
  const read = (id: string) => ines.post(`/api/jobs/${id}/read-car`, { key: newKey() });

  it('is written to by one job at a time, and by none that read it before another wrote', async () => {
    const ids = await twice('KUR 417');
    for (const id of ids) await read(id);
    const { job } = await ines.get<VisitView>(`/api/jobs/${ids[0]}`);
    const held = ledgerOf(job).held;
    const wanted = (last: string) =>
      held.map((entry, n) => (n === 0 ? { ...entry, id: `4B07C2D${last}` } : entry));
    const wrote = await Promise.all(
      ids.map((id, n) =>
        ines.send('POST', `/api/jobs/${id}/write-ids`, { key: newKey(), entries: wanted(String(n)) }),
      ),
    );
    expect(wrote.map(({ status }) => status).sort()).toEqual([200, 409]);
    const [winner, loser] = wrote[0]?.status === 200 ? ids : ([ids[1], ids[0]] as const);
    const after = await ines.get<VisitView>(`/api/jobs/${winner}`);
    const write = after.job.carWrites?.findLast(({ kind }) => kind === 'registry');
    expect(write && writeVerdict(write)).toBe('worked');
    // The other read the car before: what it read is not what the car holds.
    const again = await ines.send('POST', `/api/jobs/${loser}/write-ids`, {
      key: newKey(),
      entries: wanted('9'),
    });
    expect(await again.json()).toMatchObject({ error: { code: 'read-first' } });
    await read(loser);
    expect(
      (await ines.send('POST', `/api/jobs/${loser}/write-ids`, { key: newKey(), entries: wanted('9') }))
        .status,
    ).toBe(200);
  }, 60_000);

  it('is let go by a process that dies', async () => {
    const lease = await takeCar('0HXXX', 'no');
    expect(await takeCar('0HXXX', 'no')).toBeUndefined();
    await lease?.end();
    const next = await takeCar('0HXXX', 'for-it');
    expect(next).toBeDefined();
    await next?.end();
  });

  it('is handed over once: of two at the same time the second is told', async () => {
    const { id } = must(await bookIn({ key: newKey(), vehicle: { label: 'Handed over twice' } }, person()));
    const { version } = must(await viewJob(id));
    const [one, other] = await Promise.all(
      ['the key is needed', 'the customer waits'].map((unproved) =>
        handOver(id, { key: newKey(), version, unproved }, person()),
      ),
    );
    expect([one?.ok, other?.ok].sort()).toEqual([false, true]);
    const told = one?.ok ? other : one;
    expect(told).toMatchObject({
      problem: { code: 'handed-over', message: expect.stringContaining('meanwhile') },
    });
  });
});

describe('what is too much', () => {
  it('for one entry is refused', async () => {
    const ofInes = person();
    const { id } = must(await bookIn({ key: newKey(), vehicle: { label: 'Full' } }, ofInes));
    const padded = { ...gauge(1, 'LF', 230), more: 'x'.repeat(30_000) };
    expect(await record(id, { key: newKey(), observation: padded }, ofInes)).toMatchObject({
      problem: { code: 'too-large' },
    });
  });

  it('of characters nobody types is refused wherever it stands', async () => {
    const [job] = await ines.get<{ id: string }[]>('/api/yard');
    for (const text of ['a\u0000b', 'a\u0007b', '\ud800', 'a\u0085b'])
      for (const [path, body] of [
        [`/api/jobs/${job?.id ?? ''}/notes`, { key: newKey(), text, link: '/bench' }],
        ['/api/jobs', { key: newKey(), vehicle: { label: text } }],
      ] as const)
        expect((await ines.send('POST', path, body)).status, `${path} ${JSON.stringify(text)}`).toBe(400);
  });

  it('moves no simulated car for the counter', async () => {
    const [job] = await ines.get<{ id: string }[]>('/api/yard');
    const moved = await pilar.send('POST', `/api/practice/${job?.id ?? ''}`, { do: 'night', celsius: -4 });
    expect(moved.status).toBe(403);
  });
});

describe('a job that is held up', () => {
  it('makes nobody else wait, and whoever waits for it is told to try again', async () => {
    const ofInes = person();
    const { id } = must(await bookIn({ key: newKey(), vehicle: { label: 'Held up' } }, ofInes));
    const other = must(await bookIn({ key: newKey(), vehicle: { label: 'Other' } }, ofInes));
    const reading = () => ({ key: newKey(), observation: gauge(1, 'LF', 230) });
    let letGo: () => void = () => undefined;
    const held = inTransaction(async (tx) => {
      await jobs.lockJob(tx, id);
      await new Promise<void>((resolve) => (letGo = resolve));
    });
    await new Promise((resolve) => setTimeout(resolve, 100));
    const waiting = Promise.allSettled(Array.from({ length: 12 }, () => record(id, reading(), ofInes)));
    const started = Date.now();
    must(await record(other.id, reading(), ofInes));
    expect(Date.now() - started).toBeLessThan(2000);
    const outcomes = await waiting;
    expect(outcomes.every((one) => one.status === 'rejected' && isPassing(one.reason))).toBe(true);
    letGo();
    await held;
    must(await record(id, reading(), ofInes));
  }, 60_000);

  it('takes only so many in line', async () => {
    const many = await Promise.allSettled(
      Array.from({ length: 50 }, () => inJobTransaction('the same', () => Promise.resolve(1))),
    );
    expect(many.filter(({ status }) => status === 'fulfilled')).toHaveLength(30);
  });
});
