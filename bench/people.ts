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
  const visits: { client: Client; id: string }[] = [];
  for (let n = 0; n < people; n += 1)
    for (const client of staff.slice(n % 2, (n % 2) + 1)) {
      const { id } = await client.post<{ id: string }>('/api/jobs', {
        key: newKey(),
        vehicle: { label: 'Corriente Vela', plate: newKey().slice(-8), profile: 'corriente-vela' },
        placard: fullJob(false).placard,
      });
      visits.push({ client, id });
    }
  const began = Date.now();
  const answered = (
    await Promise.all(
      visits.map(async (visit, person) => {
        const all: Answered[] = [];
        for (let n = person; Date.now() - began < seconds * 1000; n += 1) {
          await new Promise((resolve) => setTimeout(resolve, pauseMs * (0.5 + Math.random())));
          const turn = turns[n % turns.length] ?? 'job';
          const atMs = Date.now() - began;
          const asked = performance.now();
          const answer = await take(turn, visit, n);
          await answer.arrayBuffer();
          all.push({ turn, atMs, ms: performance.now() - asked, status: answer.status });
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

function take(turn: Turn, { client, id }: { client: Client; id: string }, n: number): Promise<Response> {
  switch (turn) {
    case 'reading':
      return client.send('POST', `/api/jobs/${id}/observations`, {
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
      return client.fetch(`/api/jobs/${id}`);
    case 'Yard':
      return client.fetch('/api/yard');
    case 'page':
      return client.fetch(`/jobs/${id}`);
  }
}

function tell(name: string, answers: readonly Answered[]): void {
  const times = answers.map(({ ms }) => ms).sort((a, b) => a - b);
  const at = (share: number) => (times[Math.floor(share * (times.length - 1))] ?? Number.NaN).toFixed(0);
  const failed = answers.filter(({ status }) => status !== 200).length;
  process.stdout.write(
    `${name}: ${times.length} answers, p50 ${at(0.5)} ms, p99 ${at(0.99)} ms, most ${at(1)} ms, not 200: ${failed}\n`,
  );
}
