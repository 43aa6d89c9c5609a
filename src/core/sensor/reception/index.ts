import { quantile } from 'simple-statistics';
import { z } from 'zod';
import { wilsonInterval } from './interval';

/** One telegram of a sensor, as a radio receiver heard it on a drive. */
export const telegramSchema = z.object({
  at: z.iso.datetime({ offset: true }),
  id: z.string().trim().min(1).max(64),
  kPa: z.number().optional(),
  tempC: z.number().optional(),
  rssiDbm: z.number().optional(),
  battery: z.enum(['ok', 'low']).optional(),
  speedKmh: z.number().min(0).optional(),
});
export type Telegram = z.infer<typeof telegramSchema>;

/** How well one sensor was heard over a recording. */
export interface Reception {
  id: string;
  /** Its first and last telegram, as they were noted. */
  first: string;
  last: string;
  /** Telegrams; those of one burst count once. */
  received: number;
  /** So many it should have sent on the road, from its first on. */
  expected: number;
  /** Its own interval on the road, s; null where it was heard once. */
  periodS: number | null;
  /** The longest silence on the road, s. */
  longestGapS: number;
  /** 1 - received / expected, and its 95 % interval. */
  missedShare: number;
  interval95: [number, number];
  /** From when the car was first as fast as sensors wake, until its first telegram since, s; null where it never was. */
  firstAboveWakeS: number | null;
}

/** A sensor sends a burst for one reading: what comes within this, s, is one telegram. */
const burstS = 0.5;
/** Sensors wake above about this (common practice), km/h. */
const usualWakeKmh = 40;
/** A silence of all sensors longer than so many intervals, while nobody saw the car drive, is a stop. */
const stopIntervals = 2.5;
/** Whoever has fewer gaps than this says nothing of the interval of the others. */
const fewestGaps = 5;

interface Heard {
  s: number;
  telegram: Telegram;
}

/** How each sensor was heard, in the order in which they were heard first. */
export function receptionsOf(telegrams: readonly Telegram[], wakeKmh = usualWakeKmh): Reception[] {
  const all = telegrams
    .map((telegram): Heard => ({ s: Date.parse(telegram.at) / 1000, telegram }))
    .sort((a, b) => a.s - b.s);
  const byId = new Map<string, Heard[]>();
  for (const heard of all) {
    const own = byId.get(heard.telegram.id);
    const before = own?.at(-1);
    if (!own) byId.set(heard.telegram.id, [heard]);
    else if (!before || heard.s - before.s > burstS) own.push(heard);
  }
  const drives = drivesIn(all, [...byId.values()], wakeKmh);
  const woke = all.find(({ telegram }) => (telegram.speedKmh ?? 0) >= wakeKmh)?.s;
  return [...byId].map(([id, own]) => receptionOf(id, own, drives, woke));
}

function receptionOf(
  id: string,
  own: readonly Heard[],
  drives: readonly Drive[],
  woke: number | undefined,
): Reception {
  const period = periodOf(own);
  const counted = drives.map((drive) => onDrive(own, drive, period));
  const received = own.length;
  const expected = Math.max(
    received,
    counted.reduce((all, { expected: due }) => all + due, 0),
  );
  const missed = expected - received;
  const [first, last] = [own[0], own.at(-1)];
  const answered = woke === undefined ? undefined : own.find(({ s }) => s >= woke)?.s;
  return {
    id,
    first: first?.telegram.at ?? '',
    last: last?.telegram.at ?? '',
    received,
    expected,
    periodS: period === undefined ? null : rounded(period, 3),
    longestGapS: rounded(Math.max(0, ...counted.map(({ longest }) => longest)), 3),
    missedShare: rounded(missed / expected, 4),
    interval95: wilsonInterval(missed, expected).map((bound) => rounded(bound, 4)) as [number, number],
    firstAboveWakeS: answered === undefined || woke === undefined ? null : rounded(answered - woke, 3),
  };
}

/** From one stop to the next, s. */
interface Drive {
  from: number;
  to: number;
}

/** A stop parts the recording: all sensors were silent for long, and the car was not seen to drive on either side of it. */
function drivesIn(all: readonly Heard[], byId: readonly (readonly Heard[])[], wakeKmh: number): Drive[] {
  const periods = byId.flatMap((own) => (own.length > fewestGaps ? (periodOf(own) ?? []) : []));
  const longest = periods.length > 0 ? stopIntervals * quantile(periods, 0.5) : Number.POSITIVE_INFINITY;
  const drives: Drive[] = [];
  for (const [place, { s, telegram }] of all.entries()) {
    const before = all[place - 1];
    const drive = drives.at(-1);
    if (!before || !drive || (s - before.s > longest && isStop(before.telegram, telegram, byId, wakeKmh)))
      drives.push({ from: s, to: s });
    else drive.to = s;
  }
  return drives;
}

/** Without a speed only the silence of several at once tells of a stop. */
function isStop(before: Telegram, after: Telegram, byId: readonly unknown[], wakeKmh: number): boolean {
  const speeds = [before.speedKmh, after.speedKmh].filter((speed) => speed !== undefined);
  return speeds.length > 0 ? Math.min(...speeds) < wakeKmh : byId.length > 1;
}

/** What was due of one sensor on one drive, and its longest silence, s. Before its first telegram it may still sleep. */
function onDrive(own: readonly Heard[], { from, to }: Drive, period: number | undefined) {
  const [first, last] = [own[0]?.s ?? 0, own.at(-1)?.s ?? 0];
  const times = own.map(({ s }) => s).filter((s) => s >= from && s <= to);
  const [start, end] = [times[0], times.at(-1)];
  if (to < first) return { expected: 0, longest: 0 };
  const intervals = (seconds: number) => (period === undefined ? 0 : Math.floor(seconds / period));
  if (start === undefined || end === undefined) return { expected: intervals(to - from), longest: to - from };
  const lead = start > first ? start - from : 0;
  const gaps = times.slice(1).map((s, at) => s - (times[at] ?? s));
  const between = period === undefined ? times.length - 1 : Math.round((end - start) / period);
  const tail = to - end;
  return {
    expected: intervals(lead) + between + 1 + intervals(tail),
    longest: Math.max(0, ...gaps, ...(last > end || tail > 0 ? [tail] : [])),
  };
}

/** So many intervals a gap is taken apart into; a longer one is no witness. */
const mostIntervals = 6;
/** Below this share of its gaps at least one is a single interval, as long as three of four telegrams are not missed. */
const shortest = 0.25;
const rounds = 8;

/** Its interval, s: each gap is a whole number of them, so one that was missed does not stretch it. */
function periodOf(own: readonly Heard[]): number | undefined {
  const gaps = own.slice(1).map(({ s }, place) => s - (own[place]?.s ?? s));
  if (gaps.length === 0) return undefined;
  let period = quantile(gaps, shortest);
  for (let round = 0; round < rounds; round += 1) {
    const whole = gaps
      .map((gap) => ({ gap, intervals: Math.round(gap / period) }))
      .filter(({ intervals }) => intervals >= 1 && intervals <= mostIntervals);
    const count = whole.reduce((all, { intervals }) => all + intervals, 0);
    if (count === 0) return period;
    period = whole.reduce((all, { gap }) => all + gap, 0) / count;
  }
  return period;
}

const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));
