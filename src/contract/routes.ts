import { contracts } from '.';
import type { Route } from './contract';
import { files } from './files';
import { pages } from './pages';

/** Every address of the app, and the one a request asks for. */
export const routes = { ...contracts, ...files } as const satisfies Record<string, Route>;
export type AnyRoute = keyof typeof routes;

/** What was asked for: the route, and what its address names. */
export interface Found extends Pick<Route, 'right' | 'notes' | 'of' | 'forPrograms' | 'inOwnShop'> {
  /** Undefined: a page. */
  name?: AnyRoute;
  address: string;
  named: string;
}

interface Pattern extends Omit<Found, 'named'> {
  method: string;
  matches: RegExp;
}

/** An address as what it matches: `{id}` stands for one part of it. */
const matching = (address: string): RegExp =>
  new RegExp(`^${address.replaceAll('.', '\\.').replace(/\{\w+\}/, '([^/]+)')}$`);

// What names nothing goes first: `/api/jobs/import` is no job.
const patterns: Pattern[] = [
  ...Object.entries<Route>(routes).map(([name, route]) => {
    const [method, address] = route.at;
    return { ...route, name: name as AnyRoute, method, address, matches: matching(address) };
  }),
  ...Object.entries(pages).map(([address, page]) => ({
    ...page,
    method: 'GET',
    address,
    matches: matching(address),
  })),
].sort((a, b) => Number(a.address.includes('{')) - Number(b.address.includes('{')));

/** The route at a path, with or without a slash at its end; undefined where there is none. Asking for the head is asking for all. */
export function routeAt(method: string, path: string): Found | undefined {
  const asked = path.length > 1 ? path.replace(/\/+$/, '') : path;
  for (const { matches, method: takes, ...route } of patterns) {
    const found = takes === (method === 'HEAD' ? 'GET' : method) ? matches.exec(asked) : null;
    if (found) return { ...route, named: decoded(found[1] ?? '') };
  }
  return undefined;
}

/** What does not decode names nothing. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return '';
  }
}
