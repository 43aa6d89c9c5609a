import { allOf, atWheel, latest, type Code, type Job, type Placed, type Reply } from '..';
import { once } from '../once';
import { isAsTaught, taughtMs } from '../history/teaching';
import { canonicalId } from '../../names/sensor-id';
import { walkingOrder, type Position } from '../../names/wheel';

/**
 * What is now: of all that was seen, what still holds, wheel by wheel and source by source.
 * Later observations replace earlier ones; the earlier ones stay in the job as history.
 */
export interface Ledger {
  gauge: ByWheel<Placed<'gauge'>>;
  /** Every gauge reading of the wheel, oldest first. */
  gaugeHistory: ByWheel<readonly Placed<'gauge'>[]>;
  sensor: ByWheel<Scan>;
  /** The last reading of what the car holds; what was read before it was taught anew is old, and counts no more. */
  registry: Placed<'registry'> | undefined;
  /** All that it holds by the readings that count, each position as it was read last. */
  held: { wheel: Position; id: string | null }[];
  /** What the car holds for a wheel: an ID, null for "nothing", missing when that was not read. */
  registered: ByWheel<string | null>;
  live: ByWheel<Placed<'live'>>;
  display: ByWheel<Placed<'display'>>;
  lamp: Placed<'lamp'> | undefined;
  /** Trouble codes that stand: the latest of each, unless the car was read clear of it afterwards. */
  codes: Placed<'dtc'>[];
  voltage: Placed<'voltage'> | undefined;
  relearn: Placed<'relearn'> | undefined;
}

export type ByWheel<Value> = Partial<Record<Position, Value>>;

/** What waking the sensor at a wheel came to. */
export type Scan =
  | { kind: 'heard'; at: Placed<'activation'>; reply: Reply }
  /** Several answered and none stood out: the reading says nothing about this wheel. */
  | { kind: 'unclear'; at: Placed<'activation'>; replies: Reply[] }
  /** Nothing answered; `tries` are all the silent tries since it was last heard. */
  | { kind: 'silent'; at: Placed<'activation'>; tries: Placed<'activation'>[] };

/** Stronger by this many dB counts as "clearly nearer" (common practice: half the distance). */
export const clearlyStrongerDb = 6;

/** Silent tries with different triggers after which a wheel is taken for silent and left (common practice). */
export const silentAfterTries = 2;

export const ledgerOf = once((job: Job): Ledger => {
  const taught = taughtMs(job);
  const read = allOf(job, 'registry');
  const readings = read.filter(({ seen }) => isAsTaught(seen.at, taught));
  const readBack = readBackOf(job).filter(({ at }) => isAsTaught(at, taught));
  const held = heldIn([...readings.map(({ seen }) => seen), ...readBack]);
  const byWheel = <Value>(make: (wheel: Position) => Value | undefined): ByWheel<Value> =>
    Object.fromEntries(
      walkingOrder.flatMap((wheel) => {
        const value = make(wheel);
        return value === undefined ? [] : [[wheel, value]];
      }),
    );
  return {
    gauge: byWheel((wheel) => atWheel(job, 'gauge', wheel).at(-1)),
    gaugeHistory: byWheel((wheel) => {
      const gauged = atWheel(job, 'gauge', wheel);
      return gauged.length > 0 ? gauged : undefined;
    }),
    sensor: byWheel((wheel) => scanOf(atWheel(job, 'activation', wheel))),
    registry: latest(readings) ?? (readBack.length > 0 ? latest(read) : undefined),
    held,
    registered: byWheel((wheel) => held.find((entry) => entry.wheel === wheel)?.id),
    live: byWheel((wheel) => atWheel(job, 'live', wheel).at(-1)),
    display: byWheel((wheel) => atWheel(job, 'display', wheel).at(-1)),
    lamp: latest(allOf(job, 'lamp')),
    codes: standingCodes(job),
    voltage: latest(allOf(job, 'voltage')),
    relearn: latest(allOf(job, 'relearn')),
  };
});

/** Read in parts or whole: of each position what was read last; within one reading its first entry. */
function heldIn(readings: readonly Held[]): Ledger['held'] {
  const byWheel = new Map<Position, string | null>();
  for (const { entries } of [...readings].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    for (const { wheel, id } of [...entries].reverse()) byWheel.set(wheel, id);
  }
  return walkingOrder.flatMap((wheel) => {
    const id = byWheel.get(wheel);
    return id === undefined ? [] : [{ wheel, id }];
  });
}

/** One reading of what the car holds. */
type Held = Pick<Placed<'registry'>['seen'], 'at' | 'entries'>;

/** What was read back after IDs were sent is a reading too. */
const readBackOf = (job: Job): Held[] =>
  (job.carWrites ?? []).flatMap((write) =>
    write.kind === 'registry' && write.readBackAt && write.readBack
      ? [{ at: write.readBackAt, entries: write.readBack }]
      : [],
  );

/** The clear strongest of several replies; a single reply is always clear. */
export function strongest(replies: readonly Reply[]): Reply | undefined {
  const [first, second] = [...replies].sort((a, b) => (b.rssiDbm ?? -Infinity) - (a.rssiDbm ?? -Infinity));
  if (!first || !second) return first;
  if (replies.every((reply) => canonicalId(reply.id) === canonicalId(first.id))) return first;
  return (first.rssiDbm ?? -Infinity) - (second.rssiDbm ?? -Infinity) >= clearlyStrongerDb
    ? first
    : undefined;
}

/** A sensor heard after a silent try is not silent; one silent try after it was heard does not undo that. */
function scanOf(tries: readonly Placed<'activation'>[]): Scan | undefined {
  const lastHeard = tries.findLastIndex((attempt) => attempt.seen.replies.length > 0);
  const silentSince = tries.slice(lastHeard + 1);
  const lastSilent = silentSince.at(-1);
  const heard = tries[lastHeard];
  if (lastSilent && (!heard || silentSince.length > 1)) {
    return { kind: 'silent', at: lastSilent, tries: silentSince };
  }
  if (!heard) return undefined;
  const reply = strongest(heard.seen.replies);
  return reply
    ? { kind: 'heard', at: heard, reply }
    : { kind: 'unclear', at: heard, replies: heard.seen.replies };
}

function standingCodes(job: Job): Placed<'dtc'>[] {
  const byCode = new Map<string, Placed<'dtc'>[]>();
  for (const placed of allOf(job, 'dtc')) {
    byCode.set(placed.seen.code, [...(byCode.get(placed.seen.code) ?? []), placed]);
  }
  const readings: { at: string; codes: Code[] }[] = [
    ...allOf(job, 'registry').flatMap(({ seen: { at, codes } }) => (codes ? [{ at, codes }] : [])),
    ...(job.carWrites ?? []).flatMap((write) =>
      write.kind === 'clear-codes' && write.readBackAt && write.readBack
        ? [{ at: write.readBackAt, codes: write.readBack }]
        : [],
    ),
  ];
  return [...byCode.values()].flatMap((seen) => {
    const last = latest(seen);
    if (!last) return [];
    const goneSince = readings.some(
      ({ at, codes }) =>
        Date.parse(at) > Date.parse(last.seen.at) && codes.every(({ code }) => code !== last.seen.code),
    );
    return goneSince ? [] : [last];
  });
}
