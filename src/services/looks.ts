import { LRUCache } from 'lru-cache';
import type { TracesAsked } from '../contract/doors';
import type { Result } from '../core/result';
import { success } from '../core/result';
import type { Table } from '../core/table';
import { tracesTable } from '../core/table/lists';
import { canonicalPlate } from '../core/vehicle/plate';
import { inTransaction } from '../data/database';
import { addLooks, forgetLooksBefore, loadTraces, type Look } from '../data/looks';
import { vehiclesByCode } from '../data/search';
import { log, traceOf } from './log';
import { refuseUnless, type Person } from './people';

/** Who saw what, kept so that the shop can tell whoever asks; and who changed what. */

/** What is a look at somebody's records: addresses, and what they show. */
const shown: readonly { address: RegExp; what: string; of?: 'job' | 'vehicle' }[] = [
  { address: /^\/jobs\/([\w-]{36})$/, what: 'job', of: 'job' },
  { address: /^\/jobs\/([\w-]{36})\/sheet(?:\.pdf)?$/, what: 'sheet', of: 'job' },
  { address: /^\/api\/jobs\/([\w-]{36})\/file$/, what: 'job file', of: 'job' },
  { address: /^\/vehicles\/([\w-]{36})$/, what: 'vehicle', of: 'vehicle' },
  { address: /^\/api\/vehicles\/([\w-]{36})\/file$/, what: 'vehicle file', of: 'vehicle' },
  { address: /^\/sensors\/([^/]+)$/, what: 'sensor' },
  { address: /^\/api\/find$/, what: 'find' },
  { address: /^\/api\/jobs\.jsonl$/, what: 'jobs as JSON Lines' },
  { address: /^\/api\/tables\/([\w-]+)\.csv$/, what: 'list as CSV' },
];

/** Looked at again within so long it is the same look, ms. */
const oneLookMs = 15 * 60_000;
const recent = new LRUCache<string, true>({ max: 5_000, ttl: oneLookMs });

let waiting: Look[] = [];
let timer: ReturnType<typeof setTimeout> | undefined;
const writeAfterMs = 1_000;

/** Notes that somebody was shown this address, where it shows records; nobody waits for it. */
export function noteLook(who: Person, url: URL, now = new Date()): void {
  for (const { address, what, of } of shown) {
    const found = address.exec(url.pathname);
    if (!found) continue;
    const [, named = null] = found;
    const words = what === 'find' ? (url.searchParams.get('q') ?? '').slice(0, 100) : of ? null : named;
    const key = [who.id, what, named, words].join(' ');
    if (recent.has(key)) return;
    recent.set(key, true);
    const typed = waiting.at(-1);
    // As one types, each letter asks: what was asked last is what was looked for.
    if (
      what === 'find' &&
      typed?.what === 'find' &&
      typed.personId === who.id &&
      words?.startsWith(typed.words ?? '')
    )
      waiting.pop();
    waiting.push({
      at: now,
      personId: who.id,
      by: who.name,
      what,
      jobId: of === 'job' ? named : null,
      vehicleId: of === 'vehicle' ? named : null,
      words,
    });
    timer ??= setTimeout(() => void writeLooks(), writeAfterMs).unref();
    return;
  }
}

/** Writes down what was noted; what could not be written is written later. */
export async function writeLooks(): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  const looks = waiting;
  waiting = [];
  if (looks.length === 0) return;
  try {
    await addLooks(looks);
  } catch (error) {
    log.warn(traceOf(error), 'who looked at what was not written down yet');
    waiting = [...looks, ...waiting].slice(-mostWaiting);
    timer ??= setTimeout(() => void writeLooks(), 10 * writeAfterMs).unref();
  }
}
const mostWaiting = 10_000;

/** Kept for so long, days (judgement): a year, and a month to ask about it. */
const keptDays = 400;
export const forgetOldLooks = (now = new Date()): Promise<unknown> =>
  forgetLooksBefore(new Date(now.getTime() - keptDays * 86_400_000));

/** Problem: `not-allowed`. */
export async function traces(asked: TracesAsked, who: Person): Promise<Result<Table>> {
  const refusal = refuseUnless(who, 'manage-shop');
  if (refusal) return refusal;
  await writeLooks();
  const { plate, by, before, changes } = asked;
  const found = await inTransaction(async (tx) => {
    const code = plate ? canonicalPlate(plate) : '';
    const vehicles = code ? (await vehiclesByCode(tx, code)).map(({ id }) => id) : undefined;
    return loadTraces(tx, {
      before: before ? new Date(before) : new Date(Date.now() + oneLookMs),
      by: by || undefined,
      vehicles,
      changesOnly: changes === '1',
    });
  });
  return success(tracesTable(found));
}
