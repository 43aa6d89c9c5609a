import { availableParallelism } from 'node:os';
import autocannon from 'autocannon';
import { v7 as newKey } from 'uuid';
import { Client, openShop } from '../tests/support/shop';
import { fullJob } from './full-job';

/**
 * Fifty people at work at once: readings recorded on fifty jobs, jobs, the Yard and job sheets looked at, as fast as they
 * are answered. Requests a second, how long they waited, and the memory of the server before and after. Beside it, in the
 * same minute, how fast the health of the shop is answered alone.
 *
 * Run: npx tsx bench/load.ts [SECONDS, 60] [PROCESSES, one for each core] [REQUESTS A SECOND, as many as are answered]
 * (after `npx astro build`)
 */
const [seconds = 60, processes = availableParallelism(), rate = 0] = process.argv.slice(2).map(Number);
const token = 'of the bench';
/** A visit has so many readings; then that car leaves, and another comes. */
const readingsOfVisit = 40;
const persons = 50;
/** A server is quick once it has answered for a while: told apart. */
const warmingS = 15;

const shop = await openShop({ processes, environment: { HACIENDA_METRICS_TOKEN: token } });
try {
  const clients: Client[] = [];
  for (const role of ['technician', 'manager', 'technician', 'manager'] as const)
    clients.push(await Client.signIn(shop.address, role));
  const work: { id: string; readings: number; client: Client }[] = [];
  const opened = async (client: Client) => {
    const answer = await client.send('POST', '/api/jobs', {
      key: newKey(),
      vehicle: { label: 'Corriente Vela', plate: newKey().slice(-8), profile: 'corriente-vela' },
      placard: fullJob(false).placard,
    });
    return { id: ((await answer.json()) as { id: string }).id, readings: 0, client };
  };
  for (let n = 0; n < persons; n += 1)
    for (const client of clients.slice(n % 4, (n % 4) + 1))
      // They do not all leave at one time.
      work.push({ ...(await opened(client)), readings: n % readingsOfVisit });

  const alone = await autocannon({ url: `${shop.address}/api/health`, connections: 10, duration: 5 });
  const memoryBefore = await memory();
  let turn = 0;
  const next = () => {
    turn += 1;
    const place = turn % persons;
    const at = work[place];
    if (!at) throw new Error('nobody is there');
    at.readings += 1;
    if (at.readings > readingsOfVisit) {
      at.readings = 0;
      const { client, id } = at;
      // The car goes without being proved; the next one is on the lift.
      void opened(client).then((fresh) => (work[place] = fresh));
      void client
        .send('POST', `/api/jobs/${id}/cancel`, { key: newKey(), version: 1, reason: 'left' })
        .catch(() => undefined);
    }
    return at;
  };
  const wheels = ['LF', 'RF', 'RR', 'LR'] as const;
  const reading = (n: number) => ({
    key: newKey(),
    observation:
      n % 2
        ? {
            kind: 'gauge',
            at: new Date().toISOString(),
            wheel: wheels[n % 4],
            kPa: 200 + (n % 40),
            tire: 'cold',
          }
        : { kind: 'lamp', at: new Date().toISOString(), state: n % 3 ? 'steady' : 'off' },
  });
  const asked = (method: 'GET' | 'POST', path: (id: string) => string, body?: (n: number) => object) => ({
    setupRequest: (request: autocannon.Request): autocannon.Request => {
      const { id, client } = next();
      return {
        ...request,
        method,
        path: path(id),
        headers: { ...client.headers(), 'content-type': 'application/json' },
        ...(body && { body: JSON.stringify(body(turn)) }),
      };
    },
  });
  const record = asked('POST', (id) => `/api/jobs/${id}/observations`, reading);
  const look = asked('GET', (id) => `/api/jobs/${id}`);
  const yard = asked('GET', () => '/api/yard');
  const open = asked('GET', (id) => `/jobs/${id}`);
  // A reading, then what screens do; every tenth looks at the Yard, every tenth opens a job's page.
  const visit = [record, look, record, look, record, yard, record, look, record, open];
  const load = (duration: number) => {
    let person = 0;
    return autocannon({
      url: shop.address,
      connections: persons,
      duration,
      ...(rate > 0 && { overallRate: rate }),
      requests: visit,
      // Each is somewhere else in the visit: fifty people do not open fifty pages in one moment.
      setupClient: (client) => {
        const at = person % visit.length;
        person += 1;
        client.setRequests([...visit.slice(at), ...visit.slice(0, at)]);
      },
    });
  };
  const say = (text: string) => process.stdout.write(`${text}\n`);
  const first = await load(warmingS);
  say(
    `the first ${warmingS} s after the start: ${first.requests.mean.toFixed(0)} requests a second, p99 ${first.latency.p99} ms`,
  );
  const { latency, requests, non2xx, errors } = await load(seconds);
  say(
    `${persons} people, ${processes} server processes, ${seconds} s; the health alone: ${alone.requests.mean.toFixed(0)} a second`,
  );
  say(
    `${requests.mean.toFixed(0)} requests a second; p50 ${latency.p50} ms, p99 ${latency.p99} ms, most ${latency.max} ms`,
  );
  say(`not answered as asked: ${non2xx}; broken off: ${errors}`);
  say(`memory of all processes: ${memoryBefore} MB before, ${await memory()} MB after`);
  for (const { name, mean, count } of await means())
    say(`  ${name}: ${count} times, ${mean.toFixed(1)} ms each`);
} finally {
  await shop.close();
}

/** What took how long by the server's own count: each route, each kind of judgement. */
async function means(): Promise<{ name: string; mean: number; count: number }[]> {
  const figures = (kind: string) =>
    [
      ...text.matchAll(new RegExp(`^hacienda_(?:request|judgement)_seconds_${kind}\\{(.*)\\} (\\S+)$`, 'gm')),
    ].map(([, name = '', value]) => [name, Number(value)] as const);
  const text = await metrics();
  const sums = new Map(figures('sum'));
  return figures('count')
    .map(([name, count]) => ({ name, count, mean: (1000 * (sums.get(name) ?? 0)) / count }))
    .filter(({ count }) => count > 20)
    .sort((a, b) => b.mean * b.count - a.mean * a.count);
}

async function metrics(): Promise<string> {
  const answer = await fetch(`${shop.address}/metrics`, { headers: { authorization: `Bearer ${token}` } });
  return answer.text();
}

async function memory(): Promise<number> {
  const [, bytes = '0'] = /^process_resident_memory_bytes (\S+)/m.exec(await metrics()) ?? [];
  return Math.round(Number(bytes) / 1e6);
}
