import { request } from 'node:http';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import people from '../../demo/people.json' with { type: 'json' };
import { database, inJobTransaction, inTransaction, isPassing } from '../../src/data/database';
import * as jobs from '../../src/data/jobs';
import { bookIn, record } from '../../src/services/jobs';
import { addPerson, personOfToken, rememberBrowser, signIn } from '../../src/services/people';
import { gauge, jobWith } from '../support/car';
import { must } from '../support/must';
import { person } from '../support/people';
import { Client, openShop, type Shop } from '../support/shop';

let shop: Shop;
let ines: Client;
beforeAll(async () => {
  shop = await openShop();
  ines = await Client.signIn(shop.address);
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
    const pilar = people.find(({ name }) => name === 'Pilar');
    const enter = (cookie: string) =>
      raw(
        '/api/sign-in',
        { origin: shop.address, 'content-type': 'application/json', cookie },
        'POST',
        JSON.stringify(pilar),
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

  it('beside a cookie nobody was given are counted as without one', async () => {
    const name = `Somebody ${newKey()}`;
    must(await addPerson({ name, role: 'technician', passphrase: 'a few plain words' }));
    const address = `test ${newKey()}`;
    for (let n = 0; n < 5; n += 1) await signIn(name, 'not this one', { address, known: newKey() });
    expect(await signIn(name, 'a few plain words', { address, known: newKey() })).toMatchObject({
      problem: { code: 'too-many-attempts' },
    });
    const known = await rememberBrowser(undefined);
    expect((await signIn(name, 'a few plain words', { address, known })).ok).toBe(true);
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
    await usedAgo(3.9);
    expect(await personOfToken(token)).toMatchObject({ name });
    await usedAgo(4.1);
    expect(await personOfToken(token)).toBeUndefined();
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
