import { execFile as start } from 'node:child_process';
import { promisify } from 'node:util';
import { QueryTypes } from 'sequelize';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ChainShops } from '../../src/contract/chain';
import type { Found } from '../../src/core/records/search';
import type { Table } from '../../src/core/records/table';
import type { YardLine } from '../../src/contract/views';
import { closeDatabase, database, ensureDatabase, inSchema } from '../../src/data/database';
import { Client, openShop, type Shop } from '../support/shop';

const execFile = promisify(start);

/** Two shops and a head office in one database. */
const names = ['hillside', 'riverside'] as const;
const open: Shop[] = [];
let riverside: Client;
let hillside: Client;
let office: Client;
let officeAt: string;
let riversideAt: string;
let job: string;

beforeAll(async () => {
  const own = new URL(process.env.DATABASE_URL ?? '');
  own.pathname = '/chain';
  const server = new URL(own);
  server.pathname = '/postgres';
  await ensureDatabase(server.href, 'chain');
  const databaseUrl = own.href;
  // One after the other: each is prepared by this process.
  for (const shop of [...names, 'office'])
    open.push(await openShop({ devices: false, databaseUrl, shop, headOffice: shop === 'office' }));
  const [one, other, head] = open.map(({ address }) => address) as [string, string, string];
  officeAt = head;
  riversideAt = other;
  hillside = await Client.signIn(one);
  riverside = await Client.signIn(other);
  office = await Client.signIn(head, 'manager');
  const booked = await riverside.post<{ id: string }>('/api/jobs', {
    key: newKey(),
    vehicle: { label: 'Ostrel Menta', plate: 'CHN 77' },
    customer: 'Wendeline Quorum',
  });
  job = booked.id;
}, 240_000);
afterAll(async () => {
  for (const shop of open.reverse()) await shop.close();
});

/** The head office's manager, with a browser that looks into this shop. */
async function lookingInto(shop: string): Promise<(path: string, init?: RequestInit) => Promise<Response>> {
  const looked = await office.send('POST', '/api/chain', { shop });
  expect(looked.status).toBe(200);
  const cookie = looked.headers.get('set-cookie')?.split(';')[0] ?? '';
  const { cookie: session } = office.headers();
  return (path, init = {}) =>
    fetch(officeAt + path, {
      redirect: 'manual',
      ...init,
      headers: { ...office.headers(), ...(init.headers as object), cookie: `${session}; ${cookie}` },
    });
}

describe('several shops in one database', () => {
  it('see their own, and nothing of each other', async () => {
    expect(await riverside.get<Found[]>('/api/find?q=CHN77')).toHaveLength(1);
    expect(await hillside.get<Found[]>('/api/find?q=CHN77')).toEqual([]);
    expect(await hillside.get<Found[]>('/api/find?q=Quorum')).toEqual([]);
    expect((await hillside.fetch(`/api/jobs/${job}`)).status).toBe(404);
    expect((await hillside.fetch(`/jobs/${job}`)).status).toBe(404);
    const [mine, theirs] = await Promise.all(
      [riverside, hillside].map((shop) => shop.get<YardLine[]>('/api/yard')),
    );
    expect(mine?.some(({ id }) => id === job)).toBe(true);
    expect(theirs?.some(({ id }) => id === job)).toBe(false);
    // Each counts its own jobs.
    expect(theirs?.map(({ number }) => number)).toEqual(
      mine?.filter(({ id }) => id !== job).map(({ number }) => number),
    );
  });

  it('are looked into by the head office’s manager, side by side', async () => {
    const { shops, table } = await office.get<ChainShops>('/api/chain');
    expect(shops).toEqual(names);
    expect(table.rows.map(([name]) => name)).toEqual(names);
    const [of, elsewhere] = ['riverside', 'hillside'].map((shop) =>
      table.rows.find(([name]) => name === shop),
    );
    expect(Number(of?.[1])).toBe(Number(elsewhere?.[1]) + 1);
  });

  it('and one by one: all is read, nothing is changed', async () => {
    const look = await lookingInto('riverside');
    const yard = (await (await look('/api/yard')).json()) as YardLine[];
    expect(yard.some(({ id }) => id === job)).toBe(true);
    const page = await look(`/jobs/${job}`);
    expect(page.status).toBe(200);
    expect(await page.text()).toContain('You are looking into');
    expect(await (await look('/api/jobs.jsonl')).text()).toContain('CHN 77');
    const changing = await look('/api/jobs', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ key: newKey(), vehicle: { label: 'Ostrel', plate: 'CHN 78' } }),
    });
    expect(changing.status).toBe(403);
    expect(await riverside.get<Found[]>('/api/find?q=CHN78')).toEqual([]);
    // Without the browser that looks, it is the head office again.
    expect(await office.get<Found[]>('/api/find?q=CHN77')).toEqual([]);
  });

  it('know who looked: there at what, at home that it was there', async () => {
    const look = await lookingInto('riverside');
    expect((await look(`/api/jobs/${job}/file`)).status).toBe(200);
    const told = async (who: Client) =>
      (await who.get<Table>('/api/traces')).rows.map(([, by, did, , , , more]) => [by, did, more].join(' '));
    const there = await Client.signIn(riversideAt, 'manager');
    await expect
      .poll(() => told(there), { timeout: 10_000 })
      .toContainEqual(expect.stringMatching(/\(head office\) saw: job file/));
    await expect
      .poll(() => told(office), { timeout: 10_000 })
      .toContainEqual(expect.stringMatching(/saw: job file.*in riverside/));
  });

  it('are looked into by nobody else, whatever a browser claims', async () => {
    expect((await hillside.send('POST', '/api/chain', { shop: 'riverside' })).status).toBe(403);
    expect((await office.send('POST', '/api/chain', { shop: 'nowhere' })).status).toBe(404);
    expect((await office.send('POST', '/api/chain', { shop: "x'; DROP SCHEMA shop_riverside" })).status).toBe(
      404,
    );
    const forged = await hillside.fetch('/api/find?q=CHN77', {
      headers: { cookie: `${hillside.headers().cookie}; hacienda_looking=riverside` },
    });
    expect(await forged.json()).toEqual([]);
  });

  it('are filled with years of their own, by name, and only while they are empty', async () => {
    const url = new URL(open[0]?.databaseUrl ?? '');
    const fill = (shop: string, cars: string) =>
      execFile(process.execPath, ['--import', 'tsx', 'src/cli/main.ts', 'years', cars], {
        env: { ...process.env, DATABASE_URL: url.href, HACIENDA_SHOP: shop },
      });
    await fill('lakeside', '20');
    await fill('woodside', '20');
    await expect(fill('lakeside', '20')).rejects.toThrow(/has jobs already/);
    process.env.HACIENDA_SHOP = 'office';
    const before = process.env.DATABASE_URL;
    process.env.DATABASE_URL = url.href;
    const plates = (schema: string) =>
      inSchema(schema, () =>
        database().query('SELECT plate FROM vehicles ORDER BY plate', { type: QueryTypes.SELECT }),
      );
    const [lakeside, woodside] = [await plates('shop_lakeside'), await plates('shop_woodside')];
    expect(lakeside.length).toBeGreaterThan(15);
    expect(woodside).not.toEqual(lakeside);
    await closeDatabase();
    process.env.DATABASE_URL = before;
    delete process.env.HACIENDA_SHOP;
  }, 120_000);

  it('let nothing be written from elsewhere, by the database itself', async () => {
    process.env.HACIENDA_SHOP = 'office';
    await expect(
      inSchema('shop_riverside', () => database().query("UPDATE customers SET name = 'nobody'")),
    ).rejects.toThrow(/read-only/);
    delete process.env.HACIENDA_SHOP;
  });
});
