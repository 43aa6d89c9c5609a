import type { IncomingMessage } from 'node:http';

/**
 * What a request line asks for, read once for all who look at it later: path and query as they are to be served. An
 * address of the whole form (RFC 9112, 3.2.2) is taken as its path, and its host counts as the one that is asked for.
 * Undefined where it is no address of this app: it cannot be parsed, or its path begins like another site's name.
 */
export function targetOf({
  url = '',
  headers,
}: Pick<IncomingMessage, 'url' | 'headers'>): Target | undefined {
  const isWhole = /^https?:\/\//i.test(url);
  if (!isWhole && !/^\/(?![/\\])/.test(url)) return undefined;
  try {
    const { pathname, search, host } = isWhole ? new URL(url) : new URL(`http://here.invalid${url}`);
    if (pathname.startsWith('//')) return undefined;
    decodeURI(pathname);
    return { path: isWhole ? pathname + search : url, host: isWhole ? host : headers.host };
  } catch {
    return undefined;
  }
}

interface Target {
  path: string;
  host: string | undefined;
}
