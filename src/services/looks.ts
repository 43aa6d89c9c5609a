import { LRUCache } from 'lru-cache';
import type { TracesAsked } from '../contract/doors';
import type { Found } from '../contract/routes';
import type { Result } from '../core/result';
import { success } from '../core/result';
import type { Table } from '../core/records/table';
import { tracesTable } from '../core/records/table/lists';
import { canonicalPlate } from '../core/records/vehicle/plate';
import { inTransaction } from '../data/database';
import { addLooks, forgetLooksBefore, loadTraces, type Look } from '../data/looks';
import { vehiclesByCode } from '../data/search';
import { schemaOfShop } from '../data/shops';
import { log, traceOf } from './log';
import { refuseUnless, type Person } from './people';
import { daysAfter } from '../core/measure/calendar/spans';

/** Who saw what, kept so that the shop can tell whoever asks; and who changed what. */

/** Looked at again within so long it is the same look, ms. */
const oneLookMs = 15 * 60_000;
const recent = new LRUCache<string, true>({ max: 5_000, ttl: oneLookMs });

interface Noted extends Look {
  /** The shop of the chain that was looked into: it is kept there too. */
  shop: string | undefined;
}
let waiting: Noted[] = [];
let timer: ReturnType<typeof setTimeout> | undefined;
const writeAfterMs = 1_000;

/** Notes that somebody was shown what this route shows, where that is somebody's records; nobody waits for it. */
export function noteLook(
  who: Person,
  { notes, named }: Pick<Found, 'notes' | 'named'>,
  { url, shop }: { url: URL; shop?: string | undefined },
  now = new Date(),
): void {
  if (notes === 'nothing') return;
  const { what, of } = notes;
  const words = of ? null : (named || [...url.searchParams.values()].join(' ')).slice(0, 100) || null;
  const key = [who.id, shop, what, named, words].join(' ');
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
    shop,
  });
  timer ??= setTimeout(() => void writeLooks(), writeAfterMs).unref();
}

/** Writes down what was noted; what could not be written is written later. */
export async function writeLooks(): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  const looks = waiting;
  waiting = [];
  const shops = new Set(looks.map(({ shop }) => shop));
  for (const shop of shops) {
    const its = looks.filter((look) => look.shop === shop);
    try {
      await keepLooks(shop, its);
    } catch (error) {
      log.warn(traceOf(error), 'who looked at what was not written down yet');
      waiting = [...its, ...waiting].slice(-mostWaiting);
      timer ??= setTimeout(() => void writeLooks(), 10 * writeAfterMs).unref();
    }
  }
}

/** Of what was looked at in another shop of the chain both know: that one what, the own one that it was there. */
async function keepLooks(shop: string | undefined, looks: readonly Look[]): Promise<void> {
  if (shop === undefined) return addLooks(looks);
  await addLooks(
    looks.map((look) => ({ ...look, by: `${look.by} (head office)` })),
    schemaOfShop(shop),
  );
  await addLooks(
    looks.map((look) => ({
      ...look,
      ...{ jobId: null, vehicleId: null, words: [`in ${shop}`, look.words ?? ''].join(' ').trim() },
    })),
  );
}
const mostWaiting = 10_000;

/** Kept for so long, days (judgement): a year, and a month to ask about it. */
const keptDays = 400;
export const forgetOldLooks = (now = new Date()): Promise<unknown> =>
  forgetLooksBefore(daysAfter(now, -keptDays));

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
