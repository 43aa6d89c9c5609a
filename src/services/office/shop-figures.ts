import { LRUCache } from 'lru-cache';
import type { FiguresOfShop, ShopFiguresAsked } from '../../contract';
import { success, type Result } from '../../core/result';
import { calibrationStatusOf, calibrationStatusWords } from '../../core/tire/gauge';
import { reliabilityOf } from '../../core/measure/reliability';
import {
  tableNames,
  tablesOf,
  type GaugeDue,
  type ShopFacts,
  type Sureness,
} from '../../core/records/shop-figures';
import type { Claims } from '../../core/records/shop-figures/claims';
import { daysAfter } from '../../core/measure/calendar/spans';
import { regions } from '../../core/measure/region';
import { inTransaction, schemaNow } from '../../data/database';
import * as counted from '../../data/shop-figures';
import { register } from '../gauges';
import { claimsOfJob, viewJob } from '../jobs';
import { log, traceOf } from '../log';
import { notationHere } from '../notation';
import { refuseUnless, type Person } from '../people';
import { shopSettings } from '../shop';

/** What the shop did in some weeks, for its manager. */

/** Problem: `not-allowed`. */
export async function figuresOfShop(
  query: ShopFiguresAsked,
  who: Person,
  now = new Date(),
): Promise<Result<FiguresOfShop>> {
  const refusal = refuseUnless(who, 'see-figures');
  if (refusal) return refusal;
  const asked = await askedOf(query, now);
  const people = await inTransaction((tx) => counted.peopleAtWork(tx, asked));
  const facts = await factsOfShop(query, now);
  const tables = tablesOf(facts);
  return success({
    from: asked.from.toISOString(),
    to: asked.to.toISOString(),
    people,
    tables: tableNames.map((name) => tables[name]),
    fitted: facts.fitted,
    sureness: facts.sureness,
  });
}

async function askedOf({ weeks, by, zone }: ShopFiguresAsked, now: Date): Promise<counted.Asked> {
  const { region, timeZone } = notationHere(await shopSettings());
  return {
    from: daysAfter(now, -7 * Number(weeks)),
    to: now,
    by,
    zone: zone ?? timeZone,
    weekStartsOn: regions[region].weekStartsOn,
  };
}

/** What was counted last, by what was asked and what there was: a year of a chain takes seconds. */
const known = new LRUCache<string, { atMs: number; facts: Omit<ShopFacts, 'gauges' | 'sureness'> }>({
  max: 60,
});
/** Weeks end now: what was counted so long ago still is of the same ones, ms. */
const countedForMs = 5 * 60_000;

/** What is counted of the shop that is asked just now: what is taken away as a file is what the screen showed. */
export async function factsOfShop(query: ShopFiguresAsked, now: Date): Promise<ShopFacts> {
  const sureness = surenessNow();
  const gauges = await gaugesDue(now.getTime());
  const asked = await askedOf(query, now);
  const { by, zone, weekStartsOn } = asked;
  const newest = await inTransaction(counted.newestOfAll);
  const key = JSON.stringify([schemaNow(), query.weeks, by, zone, weekStartsOn, newest]);
  const before = known.get(key);
  const isSame = before !== undefined && Math.abs(now.getTime() - before.atMs) < countedForMs;
  const facts = isSame ? before.facts : await count(asked);
  if (!isSame) known.set(key, { atMs: now.getTime(), facts });
  return { ...facts, gauges, sureness };
}

const count = (asked: counted.Asked): Promise<Omit<ShopFacts, 'gauges' | 'sureness'>> =>
  inTransaction(async (tx) => ({
    bookedIn: await counted.carsBookedIn(tx, asked),
    visits: await counted.carsHandedOver(tx, asked),
    steps: await counted.stepsOfWork(tx, asked),
    returns: await counted.carsBack(tx, asked),
    faults: await counted.faultsByKind(tx, asked),
    needless: await counted.sensorsReplacedInVain(tx, asked),
    fitted: await counted.sensorsFitted(tx, asked),
  }));

async function gaugesDue(nowMs: number): Promise<GaugeDue[]> {
  return (await register()).flatMap((gauge) => {
    const { kind } = calibrationStatusOf(gauge, nowMs);
    return kind === 'good' || kind === 'retired'
      ? []
      : [
          {
            name: gauge.name,
            status: calibrationStatusWords[kind],
            checkedAt: gauge.checks.at(-1)?.at ?? null,
          },
        ];
  });
}

/** So many of the last visits are judged again to compare. */
const mostVisits = 300;

/** Judged in threads once an hour; nobody waits for it. */
const compared = new LRUCache<string, Sureness>({
  max: 32,
  ttl: 3_600_000,
  allowStale: true,
  noDeleteOnStaleGet: true,
  fetchMethod: async () => {
    const ids = await inTransaction((tx) => counted.lastConfirmedJobs(tx, mostVisits));
    const all: Claims[] = [];
    for (const id of ids) {
      // One after the other: the jobs in the bay come first.
      const view = await viewJob(id);
      if (view.ok) all.push(await claimsOfJob(view.value));
    }
    return {
      visits: all.length,
      bars: reliabilityOf(all.flatMap(({ claims }) => claims)),
      missed: all.reduce((sum, { missed }) => sum + missed, 0),
    };
  },
});

function surenessNow(): Sureness | null {
  if (compared.getRemainingTTL(schemaNow()) <= 0)
    void compared
      .fetch(schemaNow())
      .catch((error: unknown) => log.warn(traceOf(error), 'findings were not compared with outcomes'));
  return compared.get(schemaNow()) ?? null;
}
