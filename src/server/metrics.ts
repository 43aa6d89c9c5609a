import { timingSafeEqual } from 'node:crypto';
import cluster, { type Worker } from 'node:cluster';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { AggregatorRegistry, collectDefaultMetrics, Histogram, register } from 'prom-client';

/** `/metrics`: what the server counts, in the open text format of monitoring, for whoever has the operator's token. */

const path = '/metrics';
const asked = 'metrics?';
interface Answer {
  metrics: string;
}

/** The process itself: processor, memory, delay of its event loop, under the names that are usual. */
collectDefaultMetrics();

const requestSeconds = new Histogram({
  name: 'hacienda_request_seconds',
  help: 'How long requests took, by method, route and status',
  labelNames: ['method', 'route', 'status'] as const,
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.2, 0.3, 0.5, 1, 2.5, 5, 10],
});

/** Answers where it is asked for; says whether it was. Without a token that the operator set there is no such page. */
export function answersMetrics(request: IncomingMessage, response: ServerResponse, token?: string): boolean {
  if (!token || request.url?.replace(/\?.*$/, '') !== path) return false;
  const given = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1] ?? '';
  if (!isSame(given, token)) {
    response.writeHead(401, { 'www-authenticate': 'Bearer' }).end();
    return true;
  }
  const text = cluster.isWorker ? ofAllProcesses() : register.metrics();
  text.then(
    (metrics) =>
      response
        .writeHead(200, { 'content-type': register.contentType, 'cache-control': 'no-store' })
        .end(metrics),
    () => response.writeHead(503).end(),
  );
  return true;
}

const isSame = (one: string, other: string): boolean => {
  const [a, b] = [Buffer.from(one), Buffer.from(other)];
  return a.length === b.length && timingSafeEqual(a, b);
};

/** So long the other processes may take to say theirs, ms. */
const patienceMs = 5_000;

/** One process answers, for all of them: the first one adds them up. */
const ofAllProcesses = () =>
  new Promise<string>((resolve, reject) => {
    const done = (message: unknown) => {
      if (!isAnswer(message)) return;
      process.off('message', done);
      resolve(message.metrics);
    };
    process.on('message', done);
    setTimeout(() => {
      process.off('message', done);
      reject(new Error('no metrics came'));
    }, patienceMs).unref();
    process.send?.(asked);
  });

const isAnswer = (message: unknown): message is Answer =>
  typeof message === 'object' && message !== null && typeof (message as Answer).metrics === 'string';

const ofAll = new AggregatorRegistry();

/** In the first process: gives one of the others what all of them counted. */
export function answersForAll(worker: Worker): void {
  worker.on('message', (message: unknown) => {
    if (message !== asked) return;
    void ofAll.clusterMetrics().then((metrics) => worker.isConnected() && worker.send({ metrics }));
  });
}

/** Times a request; told once it is answered. */
export function timed(
  request: IncomingMessage,
  response: ServerResponse,
  told: (about: Timed) => void,
): void {
  const started = process.hrtime.bigint();
  response.once('close', () => {
    const about = {
      method: request.method ?? '',
      route: response.statusCode === 404 ? 'none' : routeOf(request.url ?? '/'),
      status: response.statusCode,
      ms: Math.round(Number(process.hrtime.bigint() - started) / 1e4) / 100,
    };
    // A stream of news lasts as long as somebody looks.
    const isStream = about.route.endsWith('/events');
    const { method, route, status, ms } = about;
    if (!isStream) requestSeconds.observe({ method, route, status }, ms / 1000);
    told(about);
  });
}

interface Timed {
  method: string;
  route: string;
  status: number;
  ms: number;
}

/** Which page or endpoint it is: without keys, and without what was asked of it. */
const routeOf = (url: string): string => {
  const route = url.replace(/[?#].*$/, '');
  if (route.startsWith('/_astro/')) return '/_astro/{file}';
  return route.replace(/\/[0-9a-f-]{36}(?=\/|$)/gi, '/{id}').slice(0, 80);
};
