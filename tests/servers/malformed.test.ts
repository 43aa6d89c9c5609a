import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { statusOf } from '../../src/contract';
import type { ProblemCode } from '../../src/core/result';
import type { YardLine } from '../../src/contract/views';
import { malformedBy } from '../support/malformed';
import { Client, openShop, type Shop } from '../support/shop';

const total = 10_000;
const atOnce = 16;

let shop: Shop;
let who: Client[];
beforeAll(async () => {
  shop = await openShop();
  who = await Promise.all(
    (['technician', 'manager', 'adviser'] as const).map((role) => Client.signIn(shop.address, role)),
  );
});
afterAll(() => shop.close());

interface Published {
  paths: Record<string, Record<string, { requestBody?: { content: Record<string, { schema: unknown }> } }>>;
  components?: { schemas?: Record<string, Record<string, unknown>> };
}

/** Doors that end the session or the account the requests are made with. */
const leftOut = new Set([
  '/api/sign-out',
  '/api/me/secret',
  '/api/people/{id}',
  '/api/people/{id}/passphrase',
]);

describe('ten thousand malformed requests, made from the published description', () => {
  it('never make the server fail, are told what is wrong, and leave nothing behind that was refused', async () => {
    const ines = who[0] as Client;
    const document = (await (await fetch(`${shop.address}/api/openapi.json`)).json()) as Published;
    const yard = await ines.get<YardLine[]>('/api/yard');
    const ids = yard.map(({ id }) => id);
    const { make, pick, chance, uuid, nasty } = malformedBy(document, 20_261_126);
    const doors = Object.entries(document.paths)
      .filter(([path]) => !leftOut.has(path))
      .flatMap(([path, methods]) =>
        Object.entries(methods).map(([method, { requestBody }]) => ({
          path,
          method: method.toUpperCase(),
          schema: requestBody && Object.values(requestBody.content)[0]?.schema,
        })),
      );
    const nastyText = () => JSON.stringify(pick(nasty)).toWellFormed().slice(0, 200);
    const failed: string[] = [];
    const unclear: string[] = [];
    let refused = 0;
    const one = async () => {
      const { path, method, schema } = pick(doors);
      const id = chance(4) ? encodeURIComponent(nastyText()) : chance(4) ? uuid() : pick(ids);
      const address = path.replace('{id}', id) + (chance(6) ? `?q=${encodeURIComponent(nastyText())}` : '');
      const text = schema === undefined ? '' : String(JSON.stringify(make(schema, pick([6, 12, 30, 80]))));
      const body = chance(40) ? text.slice(0, -3) : text;
      const asker = pick(who);
      const ask = () => (method === 'GET' ? asker.fetch(address) : asker.send(method, address, body));
      let answer = await ask().catch((error: unknown) => {
        failed.push(`${method} ${address}: ${String(error)} ${body.slice(0, 300)}`);
      });
      let said = (await answer?.text()) ?? '';
      // So many at once keep even the open door busy: it says so, and is asked again.
      for (let tries = 0; tries < 5 && codeIn(said) === 'busy'; tries += 1) {
        await pause(500);
        answer = await ask();
        said = await answer.text();
      }
      if (!answer || answer.status < 400) return;
      refused += 1;
      const code = codeIn(said);
      // What only a device could answer is said as that; it is no failure of the server.
      const isOfDevice =
        answer.status > 500 && code !== undefined && /^(no-|car-|device-|lead-|weather-)/.test(code);
      if (answer.status >= 500 && !isOfDevice)
        failed.push(`${answer.status} ${method} ${address}: ${said.slice(0, 200)} ${body.slice(0, 600)}`);
      else if (code === undefined || statusOf[code] !== answer.status)
        unclear.push(`${answer.status} ${method} ${address}: ${said.slice(0, 200)}`);
    };
    const worker = async () => {
      for (let n = 0; n < total / atOnce; n += 1) await one();
    };
    await Promise.all(Array.from({ length: atOnce }, worker));
    expect(failed).toEqual([]);
    expect(unclear.slice(0, 20)).toEqual([]);
    expect(refused).toBeGreaterThan(total / 2);

    // Whatever was taken can be shown again: no page, no list and no sheet dies of it.
    for (const { id } of await ines.get<YardLine[]>('/api/yard'))
      for (const path of [
        `/jobs/${id}`,
        `/jobs/${id}/sheet`,
        `/api/jobs/${id}/file`,
        `/api/jobs/${id}/history`,
      ])
        expect((await ines.fetch(path)).status, path).toBe(200);
    for (const path of [
      '/',
      '/figures',
      '/gauges',
      '/procedures',
      '/devices',
      '/setup',
      '/bench',
      '/book-in',
    ])
      expect((await ines.fetch(path)).status, path).toBe(200);
  }, 400_000);
});

function codeIn(text: string): ProblemCode | undefined {
  try {
    const { error } = JSON.parse(text) as { error?: { code?: ProblemCode } };
    return error?.code;
  } catch {
    return undefined;
  }
}
