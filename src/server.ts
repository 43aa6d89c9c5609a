import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { fileURLToPath } from 'node:url';
import compression from 'compression';
import sirv from 'sirv';

/**
 * The server process: the files of the app, then its pages and endpoints, compressed on the way where that helps. Where
 * it listens: `HOST` and `PORT`.
 */

/** What the framework makes of the pages; it stands beside this file once both are built. */
interface Pages {
  handler: (
    request: IncomingMessage,
    response: ServerResponse,
    next?: (error?: unknown) => void,
  ) => Promise<void>;
}

const { handler } = (await import(new URL('./server/entry.mjs', import.meta.url).href)) as Pages;

/** Names of these files change with their content. */
const isImmutable = (path: string): boolean => path.startsWith('/_astro/');
const yearSeconds = 365 * 86_400;

const files = sirv(fileURLToPath(new URL('./client', import.meta.url)), {
  etag: true,
  setHeaders: (response, path) => {
    response.setHeader('x-content-type-options', 'nosniff');
    response.setHeader(
      'cache-control',
      isImmutable(path) ? `public, max-age=${yearSeconds}, immutable` : 'no-cache',
    );
  },
});

const compressed = compression({
  filter: (request, response) => {
    // News are sent as they happen, not once there is enough to compress.
    const type = String(response.getHeader('content-type') ?? '');
    return !type.startsWith('text/event-stream') && compression.filter(request, response);
  },
});

const methods = new Set(['GET', 'HEAD', 'POST', 'PATCH', 'OPTIONS']);

const server = createServer((request, response) => {
  if (!methods.has(request.method ?? ''))
    return void response.writeHead(405, { allow: [...methods].join(', ') }).end();
  if (!isAddress(request.url)) return void response.writeHead(400).end('Bad request.');
  // Types of the middleware are those of a framework that adds to node's own; none of that is used.
  compressed(request as never, response as never, () =>
    files(request, response, () => {
      handler(request, response).catch((error: unknown) => {
        console.error(error);
        if (!response.headersSent) response.writeHead(500).end();
      });
    }),
  );
});

function isAddress(url: string | undefined): boolean {
  try {
    return decodeURI(url ?? '').length > 0;
  } catch {
    return false;
  }
}

server.listen(Number(process.env.PORT ?? 4321), process.env.HOST ?? '127.0.0.1');
