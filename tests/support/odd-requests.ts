import { connect } from 'node:net';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';

/** What somebody sends who wants to see a server fall, or whose program is broken: bytes, not requests. */

/** Targets that are no address at all, or one of another site. */
export const senselessTargets = [
  '//',
  '///',
  '//[',
  '//@',
  '/\\',
  '//evil.example/x',
  '/\\evil.example',
  'http://[/',
  'http://',
  'http://a b/',
  '[',
  '*',
  '',
  '/%',
  '/%zz',
  '/%c0%af',
] as const;

const pieces = [
  ...senselessTargets,
  ...[
    '/',
    '/api/',
    'jobs',
    'sign-in',
    'health',
    'assess',
    'events',
    'openapi.json',
    '_astro',
    'metrics',
    'find',
  ],
  ...[
    '..',
    '.',
    '%2e%2e',
    '%2f',
    '%5c',
    '%00',
    '%0d%0a',
    ';',
    '@',
    ':',
    '[',
    ']',
    '?',
    '?q=',
    '&',
    '#',
    '=',
    '~',
  ],
  ...[
    '\u00e9',
    '\u00ff',
    '\t',
    '\u0000',
    '%F0%9F%92%A9',
    'x'.repeat(3000),
    '0190a000-0000-7000-8000-000000000001',
  ],
] as const;

/** Addresses there are: what is odd about these requests is elsewhere. */
const real = [
  '/',
  '/sign-in',
  '/api/health',
  '/api/yard',
  '/api/schema/job',
  '/metrics',
  '/api/sign-in',
  '/api/assess',
] as const;

const methods = [
  ...['GET', 'GET', 'GET', 'GET', 'POST', 'POST', 'PATCH', 'HEAD', 'OPTIONS'],
  ...['PUT', 'DELETE', 'TRACE', 'CONNECT', 'PRI', 'get', 'G ET', '', '\u0000'],
] as const;

const versions = [
  'HTTP/1.1',
  'HTTP/1.1',
  'HTTP/1.1',
  'HTTP/1.0',
  'HTTP/2.0',
  'HTTP/0.9',
  'HTTP/1.1 ',
  '',
] as const;

const names = [
  ...['cookie', 'origin', 'content-type', 'content-length', 'transfer-encoding', 'authorization', 'range'],
  ...[
    'accept-encoding',
    'accept',
    'if-none-match',
    'if-modified-since',
    'x-forwarded-for',
    'forwarded',
    'expect',
  ],
  ...[
    'x-forwarded-host',
    'x-forwarded-proto',
    'upgrade',
    'connection',
    'host',
    'referer',
    'user-agent',
    'x\u0000y',
    '',
  ],
] as const;

const values = [
  ...[
    'hacienda_session=x; theme=dark; hacienda_known=%',
    'hacienda_session=%E0%A4%A; theme',
    '=;=;;',
    '{"a":',
  ],
  ...[
    'application/json',
    'application/x-www-form-urlencoded',
    'multipart/form-data; boundary=',
    'text/\u0000',
  ],
  ...[
    'chunked',
    'chunked, chunked',
    'gzip',
    '-1',
    '0',
    '5',
    '99999999999999999999',
    '1e3',
    'NaN',
    'bytes=0-',
    'bytes=9-1',
  ],
  ...[
    'Bearer x',
    'Bearer ',
    'Basic !!',
    'http://127.0.0.1',
    'http://[',
    'null',
    '//',
    'websocket',
    'h2c',
    '100-continue',
  ],
  ...[
    'close',
    'upgrade',
    'keep-alive, upgrade',
    '127.0.0.1, [::1]:x',
    'for="_x";by=',
    '*',
    '',
    ' ',
    'x'.repeat(9000),
  ],
  ...[
    'W/"',
    'Thu, 99 Foo 0000',
    '\u0000',
    'a\rb',
    '\u00ff\u00fe',
    'br;q=2, gzip;q=-1, *;q=x',
    '[::1]:4321',
    'a@b:c',
  ],
] as const;

const bodies = [
  ...[
    '',
    '',
    '{}',
    '[',
    'null',
    '{"name":"x","passphrase":"y"}',
    'name=x&passphrase=y&next=/..//evil.example',
  ],
  ...[
    '{"format":"hacienda.job/1"}',
    '5\r\nhello\r\n0\r\n\r\n',
    'zz\r\n',
    '\u0000\u0001\u0002',
    '{"__proto__":{"a":1}}',
  ],
  ...['['.repeat(5000), '"'.repeat(200), 'x'.repeat(20_000), '\u00ff'.repeat(50)],
] as const;

export function oddRequestsBy(seed: number) {
  const random = xoroshiro128plus(seed);
  const below = (n: number): number => uniformInt(random, 0, n - 1);
  const pick = (items: readonly string[]): string => items[below(items.length)] ?? '';
  const chance = (one: number): boolean => below(one) === 0;
  const some = (most: number, make: () => string): string =>
    Array.from({ length: below(most) }, make).join('');

  const target = () => {
    if (chance(3)) return pick(real);
    return chance(4) ? pick(senselessTargets) : `/${some(6, () => pick(pieces))}`;
  };
  const header = () => `${pick(names)}: ${pick(values)}${chance(30) ? '\n' : '\r\n'}`;
  return (host: string): Buffer => {
    const hosts = chance(8) ? some(3, () => `Host: ${pick(values)}\r\n`) : `Host: ${host}\r\n`;
    const body = pick(bodies);
    const length = chance(2) ? `Content-Length: ${Buffer.byteLength(body, 'latin1')}\r\n` : '';
    const odd = chance(2) ? '' : some(5, header);
    const head = `${pick(methods)} ${target()} ${pick(versions)}\r\n${hosts}${length}${odd}`;
    const whole = Buffer.from(`${head}\r\n${body}`, 'latin1');
    // Here and there a byte is another, or the rest never comes.
    if (chance(8)) whole[below(whole.length)] = below(256);
    return chance(10) ? whole.subarray(0, below(whole.length)) : whole;
  };
}

/** After so long what was sent is said to be all, ms: half a request is answered only then. */
const wholeAfterMs = 300;
/** And so long an answer is waited for, ms: a stream of news never ends by itself. */
const patienceMs = 5_000;

/** Sends bytes over a connection of their own; the first line of what is answered, empty where nothing is. */
export function sendBytes(port: number, bytes: Buffer | string): Promise<string> {
  return new Promise((resolve) => {
    let text = '';
    const socket = connect({ host: '127.0.0.1', port, allowHalfOpen: true });
    const done = () => {
      clearTimeout(whole);
      clearTimeout(patience);
      // Ended at once: thousands of connections that linger would use all there are.
      socket.resetAndDestroy();
      resolve(text.split('\r\n')[0] ?? '');
    };
    const whole = setTimeout(() => socket.end(), wholeAfterMs);
    const patience = setTimeout(done, patienceMs);
    socket.on('connect', () => socket.write(bytes));
    socket.on('data', (chunk: Buffer) => {
      text += chunk.toString('latin1');
      if (text.includes('\r\n')) done();
    });
    socket.on('end', done);
    socket.on('error', done);
  });
}
