import { setting } from '../settings';
import { readFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { fileURLToPath } from 'node:url';
import compression from 'compression';
import sirv from 'sirv';
import { log, traceOf } from '../services/log';
import { doorsOf } from './doors';
import { answersMetrics, timed } from './metrics';
import { outlivesFaults } from './net';
import { stopsInOrder } from './stop';
import { targetOf } from './target';

/**
 * The server process: the files of the app, then its pages and endpoints, compressed on the way where that helps. Where
 * it listens: `HOST` and `PORT`; how it is reached: `HACIENDA_NAMES`, `HACIENDA_PROXIES`, and `HACIENDA_CERTIFICATE` with
 * `HACIENDA_CERTIFICATE_KEY`. What it says of itself: what it refused, all else with `HACIENDA_LOG=requests`, and `/metrics` for `HACIENDA_METRICS_TOKEN`.
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
const logsRequests = setting('HACIENDA_LOG') === 'requests';
const doors = doorsOf({ names: setting('HACIENDA_NAMES'), proxies: setting('HACIENDA_PROXIES') });
const certificate = setting('HACIENDA_CERTIFICATE');
const metricsToken = setting('HACIENDA_METRICS_TOKEN');

/** Names of these files change with their content. */
const isImmutable = (path: string): boolean => path.startsWith('/_astro/');
const yearSeconds = 365 * 86_400;

const files = sirv(fileURLToPath(new URL('./client', import.meta.url)), {
  etag: true,
  setHeaders: (response, path) => {
    response.setHeader('x-content-type-options', 'nosniff');
    response.setHeader('cross-origin-resource-policy', 'same-origin');
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

/** Where the start command says nothing of it. */
const usualPort = 4321;

/** Not signed in, not allowed, too often: written down whatever else is. */
const refusals = new Set([401, 403, 429]);

const methods = new Set(['GET', 'HEAD', 'POST', 'PATCH', 'OPTIONS']);

function answer(request: IncomingMessage, response: ServerResponse): void {
  timed(request, response, (about) => {
    if (logsRequests || refusals.has(about.status)) log.info(about, 'request');
  });
  if (!methods.has(request.method ?? ''))
    return void response.writeHead(405, { allow: [...methods].join(', ') }).end();
  const target = targetOf(request);
  if (!target) return void response.writeHead(400).end('Bad request.');
  request.url = target.path;
  request.headers.host = target.host;
  if (!doors.admits(target.host))
    return void response
      .writeHead(421, { 'content-type': 'text/plain; charset=utf-8' })
      .end('This shop is not reached under that name. Its operator names it in HACIENDA_NAMES.\n');
  doors.settle(request);
  if (answersMetrics(request, response, metricsToken)) return;
  // Types of the middleware are those of a framework that adds to node's own; none of that is used.
  compressed(request as never, response as never, () =>
    files(request, response, () => {
      handler(request, response).catch((error: unknown) => {
        log.error(traceOf(error), 'a request failed');
        if (!response.headersSent) response.writeHead(500).end();
      });
    }),
  );
}

/** Whatever goes wrong with one request ends that request, and nothing else. */
function answerSafely(request: IncomingMessage, response: ServerResponse): void {
  try {
    answer(request, response);
  } catch (error) {
    log.error(traceOf(error), 'a request failed');
    if (!response.headersSent) response.writeHead(500);
    response.end();
  }
}

const server = certificate
  ? createSecureServer(
      {
        cert: readFileSync(certificate),
        key: readFileSync(setting('HACIENDA_CERTIFICATE_KEY') ?? certificate),
      },
      answerSafely,
    )
  : createServer(answerSafely);
// Longer than browsers and proxies leave a connection unused (a minute is usual): they end it, and never find it ended just
// as they ask again.
server.keepAliveTimeout = 75_000;
stopsInOrder(server);
// What it needs to begin with must be there; from then on no fault of one listener ends what others are at.
server.once('listening', outlivesFaults);
server.listen(setting('PORT') ?? usualPort, setting('HOST') ?? '127.0.0.1');
