import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { Route } from './contract';
import { pages } from './pages';
import { routeAt, routes } from './routes';

const all = Object.entries<Route>(routes);
const id = '0193a1c0-0000-7000-8000-000000000001';

describe('a route', () => {
  it('is found by its method and address, with and without a slash at its end', () => {
    for (const [name, { at }] of all) {
      const [method, address] = at;
      const path = address.replace(/\{\w+\}/, id);
      for (const asked of [path, `${path}/`, `${path}//`]) {
        const found = routeAt(method, asked);
        expect(found?.name, `${method} ${asked}`).toBe(name);
        expect(found?.named, asked).toBe(address.includes('{') ? id : '');
      }
    }
  });

  it('that names something says what is not there, and any other names nothing', () => {
    for (const [name, { at, of }] of all) expect(of !== undefined, name).toBe(at[1].includes('{id}'));
  });

  it('stands alone at its address', () => {
    const addresses = all.map(([, { at }]) => at.join(' '));
    expect(new Set(addresses).size).toBe(addresses.length);
  });

  it('of a page is every page there is', () => {
    const folder = new URL('../pages/', import.meta.url);
    const there = readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('.astro') && !/^\d+\.astro$/.test(file))
      .map((file) => `/${file.replace(/\.astro$/, '').replace(/(^|\/)index$/, '')}`)
      // Astro calls all of them by an ID; of a sensor it is the one it sends.
      .map((path) => path.replace('[id]', path.startsWith('/sensors/') ? '{name}' : '{id}'));
    expect(there.sort()).toEqual(Object.keys(pages).sort());
  });

  it('is not found elsewhere, nor by what does not decode', () => {
    expect(routeAt('GET', '/api/nothing')).toBeUndefined();
    expect(routeAt('PATCH', '/api/yard')).toBeUndefined();
    expect(routeAt('GET', '/api/jobs/a/b/c')).toBeUndefined();
    expect(routeAt('GET', '/api/tables/%E0%A4%A.csv')?.named).toBe('');
    expect(routeAt('HEAD', '/api/yard')?.name).toBe('yard');
  });
});
