import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { stopPart } from '../../src/cli/run';
import people from '../../demo/people.json' with { type: 'json' };
import { patternVariable } from './copied-shop';
import { stateOf } from './browser-shop';
import { openShop } from './shop';

/** Makes the shop that every browser test has a copy of, with somebody of each role signed in to it. */
export default async function setup(): Promise<() => Promise<void>> {
  const shop = await openShop({ devices: false });
  mkdirSync(dirname(stateOf('')), { recursive: true });
  for (const role of new Set(people.map((person) => person.role))) {
    const answer = await fetch(`${shop.address}/api/sign-in`, {
      method: 'POST',
      headers: { origin: shop.address, 'content-type': 'application/json' },
      body: JSON.stringify(people.find((person) => person.role === role)),
    });
    if (!answer.ok) throw new Error(`sign-in: ${answer.status} ${await answer.text()}`);
    const cookies = answer.headers.getSetCookie().map(cookieOf);
    writeFileSync(stateOf(role), JSON.stringify({ cookies, origins: [] }));
  }
  // A database is copied only while nobody is connected to it.
  await stopPart(shop.server);
  process.env[patternVariable] = shop.databaseUrl;
  return shop.close;
}

/** A cookie of the address all shops are at, whatever their port. */
function cookieOf(set: string) {
  const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(set) ?? [];
  const maxAgeS = Number(/max-age=(\d+)/i.exec(set)?.[1] ?? 3600);
  return {
    ...{ name, value, domain: '127.0.0.1', path: '/', httpOnly: true, secure: false, sameSite: 'Strict' },
    expires: Math.floor(Date.now() / 1000) + maxAgeS,
  };
}
