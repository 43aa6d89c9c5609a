import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import people from '../../demo/people.json' with { type: 'json' };
import { oddRequestsBy, sendBytes, senselessTargets } from '../support/odd-requests';
import { openShop, type Shop } from '../support/shop';

let shop: Shop;
let pid: number | undefined;
beforeAll(async () => {
  shop = await openShop({ devices: false, environment: { HACIENDA_METRICS_TOKEN: 'of this test' } });
  pid = shop.server.pid;
});
afterAll(() => shop?.close());

/** The very process that was started serves, and serves well. */
async function stands(): Promise<void> {
  expect(shop.server.exitCode).toBeNull();
  expect(shop.server.signalCode).toBeNull();
  expect(shop.server.pid).toBe(pid);
  expect((await fetch(`${shop.address}/api/health`)).status).toBe(200);
}

const ask = (target: string) =>
  sendBytes(shop.port, `GET ${target} HTTP/1.1\r\nHost: 127.0.0.1:${shop.port}\r\n\r\n`);

describe('a stranger’s request', () => {
  it.each(senselessTargets)('for %j is refused, and ends nothing', async (target) => {
    expect(await ask(target)).toMatch(/^HTTP\/1\.1 400 /);
    await stands();
  });

  it('may name the whole address (RFC 9112, 3.2.2): its host counts, and its path is served', async () => {
    expect(await ask(`http://127.0.0.1:${shop.port}/api/health`)).toMatch(/ 200 /);
    expect(await ask('http://evil.example/api/health')).toMatch(/ 421 /);
  });

  it('is one of twenty thousand odd ones, and the server has its process number', async () => {
    const total = 20_000;
    const atOnce = 48;
    const oddRequest = oddRequestsBy(20_261_201);
    const counts = new Map<string, number>();
    const failures: string[] = [];
    const worker = async () => {
      for (let n = 0; n < total / atOnce; n += 1) {
        const bytes = oddRequest(`127.0.0.1:${shop.port}`);
        const status = (await sendBytes(shop.port, bytes)).split(' ')[1] ?? 'none';
        counts.set(status, (counts.get(status) ?? 0) + 1);
        // Without devices some doors say 50x of what is not there; none of these requests is let in to them.
        if (status.startsWith('5')) failures.push(`${status} ${bytes.subarray(0, 300).toString('latin1')}`);
      }
    };
    await Promise.all(Array.from({ length: atOnce }, worker));
    expect(failures).toEqual([]);
    // The check would be worth nothing if all of them were refused at the first look.
    for (const status of ['200', '303', '400', '401', '405', '421'])
      expect(counts.get(status), status).toBeGreaterThan(10);
    await stands();
  });
});

describe('signing in', () => {
  const her = people.find(({ role }) => role === 'technician');
  it.each([
    '/..//evil.example',
    '/.//evil.example',
    '/jobs/%2e%2e//evil.example',
    '//evil.example',
    '/\\evil.example',
  ])('never leads to another site: next=%s', async (next) => {
    const answer = await fetch(`${shop.address}/api/sign-in`, {
      method: 'POST',
      redirect: 'manual',
      headers: { origin: shop.address },
      body: new URLSearchParams({ name: her?.name ?? '', passphrase: her?.passphrase ?? '', next }),
    });
    expect(answer.status).toBe(303);
    expect(answer.headers.get('location')).toBe('/');
  });
});
