import { assess } from '../src/core/judgement/diagnosis';
import type { Job } from '../src/core/job';
import { parseJob } from '../src/core/job/schema';
import { walkingOrder } from '../src/core/names/wheel';
import { fullJob } from './full-job';

/**
 * How long the hardest jobs take that the schema lets in: each grown from the full job in trouble by what makes
 * judging hard, alone and together. First call and the median of seven, in ms.
 *
 * Run: npx tsx bench/worst-job.ts
 */
const most = 5000;
const minute = (n: number) => new Date(Date.UTC(2026, 2, 3, 11, n)).toISOString();
const idOf = (n: number) => (0x4b07c200 + n).toString(16).toUpperCase();

/** Every wheel woken so many times, so many close replies each time. */
const crowds = (times: number, replies: number): unknown[] =>
  Array.from({ length: times * 5 }, (_, n) => ({
    kind: 'activation',
    at: minute(n),
    wheel: walkingOrder[n % 5],
    trigger: 'pulsed',
    replies: Array.from({ length: replies }, (_reply, at) => ({
      id: idOf((at + n) % (replies + 5)),
      kPa: 215 + at,
      rssiDbm: -50 - (at % 3),
    })),
  }));
const gaugings = (count: number): unknown[] =>
  Array.from({ length: count }, (_, n) => ({
    kind: 'gauge',
    at: minute(n),
    wheel: walkingOrder[n % 5],
    kPa: 150 + ((n * 37) % 90),
    tire: 'cold',
  }));
const shows = (count: number): unknown[] =>
  Array.from({ length: count }, (_, n) => ({
    kind: n % 2 ? 'live' : 'display',
    at: minute(n),
    wheel: walkingOrder[n % 5],
    kPa: n % 7 ? 200 + (n % 40) : null,
    ...(n % 2 && { speedKmh: 60 }),
  }));
const readBacks = (count: number): unknown[] =>
  Array.from({ length: count }, (_, n) => ({
    kind: 'registry',
    at: minute(n),
    entries: walkingOrder.map((wheel, at) => ({ wheel, id: idOf((at + n) % 7) })),
    codes: [],
  }));
const checkIns = (count: number): unknown[] =>
  Array.from({ length: count }, (_, n) => ({
    kind: 'reception',
    at: minute(n),
    id: idOf(n % 7),
    expected: 100_000,
    received: 90_000,
  }));
const learned = [{ kind: 'relearn', at: minute(900), method: 'tool', outcome: 'waiting-for-drive' }];
const sets = Array.from({ length: 64 }, (_, set) => ({
  label: `set ${set}`,
  ids: Array.from({ length: 64 }, (_id, n) => idOf(0x1000 + set * 64 + n)),
}));
const records = Array.from({ length: 64 }, (_, n) => ({
  id: idOf(n),
  wheel: walkingOrder[n % 5],
  ageYears: 6,
}));

const whole = (seen: unknown[]): unknown[] => seen.slice(0, most);
const jobs: Record<string, { seen: unknown[]; more?: object }> = {
  'as it is': { seen: [] },
  'a crowd at every wheel': { seen: crowds(1, 32), more: { otherSets: sets } },
  'and check-ins, a relearn, many records': {
    seen: [...crowds(1, 32), ...checkIns(7), ...learned],
    more: { otherSets: sets, sensors: records },
  },
  'the same, a crowd of 3': {
    seen: [...crowds(1, 3), ...checkIns(7), ...learned],
    more: { otherSets: sets, sensors: records },
  },
  'a crowd over and over': { seen: crowds(90, 32), more: { otherSets: sets } },
  'gauged over and over': { seen: gaugings(most) },
  'shown over and over': { seen: shows(most) },
  'read back over and over': { seen: readBacks(most), more: { otherSets: sets } },
  'everything over and over': {
    seen: [...gaugings(130), ...shows(120), ...readBacks(60), ...crowds(20, 32), ...checkIns(60), ...learned],
    more: { otherSets: sets, sensors: records },
  },
};

for (const [name, { seen, more }] of Object.entries(jobs)) {
  const start = fullJob(true);
  const parsed = parseJob({
    ...start,
    ...more,
    observations: whole([...seen.toReversed(), ...start.observations].toReversed()),
  });
  if (!parsed.ok) throw new Error(`${name}: ${parsed.problem.message}`);
  const times = Array.from({ length: 7 }, () => timeOf(parsed.value));
  const [first = 0] = times;
  const median = [...times].sort((a, b) => a - b)[3] ?? 0;
  process.stdout.write(
    `${name.padEnd(40)} ${String(parsed.value.observations.length).padStart(4)} observations, first ${first.toFixed(0).padStart(4)}, median ${median.toFixed(0).padStart(4)} ms\n`,
  );
}

function timeOf(job: Job): number {
  const started = performance.now();
  assess(job);
  return performance.now() - started;
}
