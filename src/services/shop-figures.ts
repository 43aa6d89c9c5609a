import { LRUCache } from 'lru-cache';
import type { FiguresOfShop, ShopFiguresAsked } from '../contract';
import { success, type Result } from '../core/result';
import { calibrationStatusOf, calibrationStatusWords } from '../core/gauge';
import { reliabilityOf } from '../core/reliability';
import { tableNames, tablesOf, type GaugeDue, type ShopFacts, type Sureness } from '../core/shop-figures';
import type { Claims } from '../core/shop-figures/claims';
import { inTransaction, schemaNow } from '../data/database';
import * as counted from '../data/shop-figures';
import { register } from './gauges';
import { claimsOfJob, viewJob } from './jobs';
import { log, traceOf } from './log';
import { refuseUnless, type Person } from './people';

/** What the shop did in some weeks, for its manager. */

const weekMs = 7 * 86_400_000;

/** Problem: `not-allowed`. */
export async function figuresOfShop(
  { weeks, by, zone }: ShopFiguresAsked,
  who: Person,
  now = new Date(),
): Promise<Result<FiguresOfShop>> {
  const refusal = refuseUnless(who, 'see-figures');
  if (refusal) return refusal;
  const asked = askedOf({ weeks, by, zone }, now);
  const people = await inTransaction((tx) => counted.peopleAtWork(tx, asked));
  const facts = await factsOfShop({ weeks, by, zone }, now);
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

const askedOf = ({ weeks, by, zone }: ShopFiguresAsked, now: Date) => ({
  from: new Date(now.getTime() - Number(weeks) * weekMs),
  to: now,
  by,
  zone,
});

/** What is counted of the shop that is asked just now. */
export async function factsOfShop(query: ShopFiguresAsked, now: Date): Promise<ShopFacts> {
  const asked = askedOf(query, now);
  const sureness = surenessNow();
  const gauges = await gaugesDue(now.getTime());
  return inTransaction(async (tx) => ({
    bookedIn: await counted.carsBookedIn(tx, asked),
    visits: await counted.carsHandedOver(tx, asked),
    steps: await counted.stepsOfWork(tx, asked),
    returns: await counted.carsBack(tx, asked),
    faults: await counted.faultsByKind(tx, asked),
    needless: await counted.sensorsReplacedInVain(tx, asked),
    fitted: await counted.sensorsFitted(tx, asked),
    gauges,
    sureness,
  }));
}

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
