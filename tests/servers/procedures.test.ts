import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StoredProcedure } from '../../src/contract';
import { Client, openShop, type Shop } from '../support/shop';

const demo = JSON.parse(
  readFileSync(new URL('../../demo/procedures.json', import.meta.url), 'utf8'),
) as StoredProcedure['procedure'][];
const path = '/api/procedures';

let shop: Shop;
let boss: Client;
let ines: Client;
beforeAll(async () => {
  shop = await openShop();
  [boss, ines] = await Promise.all([Client.signIn(shop.address, 'manager'), Client.signIn(shop.address)]);
});
afterAll(() => shop.close());

const list = () => ines.get<StoredProcedure[]>(path);
const versionOf = async (name: string) =>
  (await list()).find(({ procedure }) => procedure.name === name)?.version;

describe('the relearn library', () => {
  it('holds the procedures of the shop, one for each way a car is taught', async () => {
    const known = await list();
    expect(known.map(({ procedure }) => procedure.name).sort()).toEqual(demo.map(({ name }) => name).sort());
    expect(new Set(known.map(({ procedure }) => procedure.method)).size).toBe(7);
    for (const { version, by } of known) expect([version, by]).toEqual([1, 'Marisol']);
  });

  it('takes a changed procedure in as a new version, and the same one again as nothing', async () => {
    const [first] = demo;
    if (!first) throw new Error('the demo has procedures');
    const changed = { ...first, minutes: 99 };
    expect(await versionOf(first.name)).toBe(1);
    await boss.post(path, [first]);
    expect(await versionOf(first.name)).toBe(1);
    await Promise.all([1, 2, 3, 4, 5].map(() => boss.post(path, [changed])));
    expect(await versionOf(first.name)).toBe(2);
    await boss.post(path, [first]);
    expect(await versionOf(first.name)).toBe(3);
  });

  it('says of a key the format does not have which one is nearest, and takes nothing in', async () => {
    const own = {
      ...demo[1],
      name: 'of-our-own',
      shelf: 'B2',
      enter: [{ do: 'wait', s: 1, note: 'breathe' }],
    };
    const response = await boss.send('POST', path, [own]);
    const { error } = (await response.json()) as { error: { issues: { path: string; message: string }[] } };
    expect([response.status, ...error.issues.map((issue) => issue.path)]).toEqual([
      400,
      '0.shelf',
      '0.enter.0.note',
    ]);
    for (const { message } of error.issues) expect(message).toMatch(/did you mean \w+\?/);
    expect(await versionOf('of-our-own')).toBeUndefined();
  });

  it('tells a senseless file fault by fault, and takes nothing of it in', async () => {
    const sound = { ...demo[0], name: 'sound' };
    const senseless = { ...demo[0], name: 'senseless', wheels: ['LF', 'LF'], proof: [] };
    const response = await boss.send('POST', path, [sound, senseless]);
    expect(response.status).toBe(400);
    const { error } = (await response.json()) as { error: { code: string; issues: { path: string }[] } };
    expect(error.code).toBe('invalid-input');
    expect(error.issues.map((issue) => issue.path)).toEqual(['1.wheels.1', '1.proof']);
    expect(await versionOf('sound')).toBeUndefined();
  });

  it('is read by everybody and written by the manager', async () => {
    const refused = await ines.send('POST', path, [{ ...demo[0], name: 'mine' }]);
    expect(refused.status).toBe(403);
    expect(await versionOf('mine')).toBeUndefined();
  });

  it('has its format published', async () => {
    const schema = await (await fetch(`${shop.address}/api/schema/procedure`)).json();
    expect(schema).toMatchObject({ type: 'object', required: expect.arrayContaining(['name', 'method']) });
  });
});
