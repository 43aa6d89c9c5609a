import { Agent, request } from 'node:http';
import { availableParallelism } from 'node:os';
import { v7 as newKey } from 'uuid';
import { Client, openShop } from '../tests/support/shop';
import { fullJob } from './full-job';

/**
 * People at work as people are: each does one thing, waits for the answer, and pauses before the next. How long they wait,
 * in the first ten seconds after the start of the server and after them. `load.ts` is the same without a pause.
 *
 * Run: npx tsx bench/people.ts [SECONDS, 40] [PEOPLE, 50] [PAUSE ms, 1000]   (after `npx astro build`)
 */
const [seconds = 40, people = 50, pauseMs = 1000] = process.argv.slice(2).map(Number);
const firstMs = 10_000;
/** Forty readings, and what screens ask for besides; then that car leaves, and another comes. */
const turnsOfVisit = 80;

/** What screens and hands do in turn: half of it is readings. */
const turns = [
  'reading',
  'job',
  'reading',
  'job',
  'reading',
  'Yard',
  'reading',
  'job',
  'reading',
  'page',
] as const;
type Turn = (typeof turns)[number];

interface Answered {
  turn: Turn;
  /** Since the first of all, and how long it took. */
  atMs: number;
  ms: number;
  status: number;
}

const shop = await openShop({ processes: availableParallelism() });
try {
  const staff = await Promise.all(
    (['technician', 'manager'] as const).map((role) => Client.signIn(shop.address, role)),
  );
  const visits: Visit[] = [];
  for (let n = 0; n < people; n += 1)
    for (const client of staff.slice(n % 2, (n % 2) + 1))
      visits.push(await arrives(client, new Agent({ keepAlive: true })));
  const began = Date.now();
  const answered = (
    await Promise.all(
      visits.map(async (first, person) => {
        const all: Answered[] = [];
        let visit = first;
        for (let n = person; Date.now() - began < seconds * 1000; n += 1) {
          if (n % turnsOfVisit === turnsOfVisit - 1) visit = await nextAfter(visit);
          await new Promise((resolve) => setTimeout(resolve, pauseMs * (0.5 + Math.random())));
          const turn = turns[n % turns.length] ?? 'job';
          const atMs = Date.now() - began;
          const asked = performance.now();
          const status = await take(turn, visit, n);
          all.push({ turn, atMs, ms: performance.now() - asked, status });
        }
        return all;
      }),
    )
  ).flat();
  const say = (text: string) => process.stdout.write(`${text}\n`);
  say(
    `${people} people, a pause of ${pauseMs} ms: ${(answered.length / seconds).toFixed(0)} requests a second`,
  );
  tell(
    'the first ten seconds',
    answered.filter(({ atMs }) => atMs < firstMs),
  );
  tell('all of it', answered);
  const later = answered.filter(({ atMs }) => atMs >= firstMs);
  tell('after them', later);
  for (const turn of new Set(turns))
    tell(
      `  ${turn}`,
      later.filter((one) => one.turn === turn),
    );
} finally {
  await shop.close();
}

interface Visit {
  client: Client;
  /** The connections of this person's browser: as there, kept, and nobody else's. */
  agent: Agent;
  id: string;
}

async function arrives(client: Client, agent: Agent): Promise<Visit> {
  const { id } = await client.post<{ id: string }>('/api/jobs', {
    key: newKey(),
    vehicle: { label: 'Corriente Vela', plate: newKey().slice(-8), profile: 'corriente-vela' },
    placard: fullJob(false).placard,
  });
  return { client, agent, id };
}

/** The car goes without being proved; the next one is on the lift. */
async function nextAfter({ client, agent, id }: Visit): Promise<Visit> {
  await client.post(`/api/jobs/${id}/cancel`, { key: newKey(), version: 1, reason: 'left' });
  return arrives(client, agent);
}

function take(turn: Turn, { client, agent, id }: Visit, n: number): Promise<number> {
  switch (turn) {
    case 'reading':
      return send(client, agent, `/api/jobs/${id}/observations`, {
        key: newKey(),
        observation: {
          kind: 'gauge',
          at: new Date().toISOString(),
          wheel: (['LF', 'RF', 'RR', 'LR'] as const)[n % 4],
          kPa: 200 + (n % 40),
          tire: 'cold',
        },
      });
    case 'job':
      return send(client, agent, `/api/jobs/${id}`);
    case 'Yard':
      return send(client, agent, '/api/yard');
    case 'page':
      return send(client, agent, `/jobs/${id}`);
  }
}

/** Asks without reading the answer, as compressed as browsers get it over HTTP: those who ask have machines of their own. */
function send(client: Client, agent: Agent, path: string, body?: object): Promise<number> {
  return new Promise((resolve, reject) => {
    const text = body && JSON.stringify(body);
    const headers = {
      ...client.headers(),
      'accept-encoding': 'gzip, deflate',
      ...(text && { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }),
    };
    const asked = request(
      shop.address + path,
      { method: body ? 'POST' : 'GET', agent, headers },
      (answer) => {
        answer.resume();
        answer.once('end', () => resolve(answer.statusCode ?? 0));
      },
    );
    asked.once('error', reject);
    asked.end(text);
  });
}

function tell(name: string, answers: readonly Answered[]): void {
  const times = answers.map(({ ms }) => ms).sort((a, b) => a - b);
  const at = (share: number) => (times[Math.floor(share * (times.length - 1))] ?? Number.NaN).toFixed(0);
  const failed = answers.filter(({ status }) => status !== 200).length;
  process.stdout.write(
    `${name}: ${times.length} answers, p50 ${at(0.5)} ms, p99 ${at(0.99)} ms, most ${at(1)} ms, not 200: ${failed}\n`,
  );
}
