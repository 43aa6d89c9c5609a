import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { usualSettings } from '../../src/core/records/shop';
import { database, inTransaction } from '../../src/data/database';
import { eraseCars } from '../../src/data/erasures';
import { forgetLongAway } from '../../src/services/erasures';
import { addFollowUp } from '../../src/services/follow-ups';
import { bookIn, handOver, viewJob } from '../../src/services/jobs';
import { noteLook, writeLooks } from '../../src/services/looks';
import { find } from '../../src/services/search';
import { setShop } from '../../src/services/shop';
import { saveSet } from '../../src/services/wheel-sets';
import { must } from '../support/must';
import { person } from '../support/people';

const ines = person();
const boss = person('manager');

/** Booked in, and handed over where the car has left. */
async function visit(plate: string, customer: string | undefined, left = true): Promise<string> {
  const { id } = must(
    await bookIn({ key: newKey(), vehicle: { label: 'Ostrel Menta', plate }, customer }, ines),
  );
  if (left) {
    const { version } = must(await viewJob(id));
    must(await handOver(id, { key: newKey(), version, unproved: 'a test' }, ines));
  }
  return id;
}
const carsOf = async (plate: string) =>
  (await find(plate)).flatMap((one) => (one.kind === 'vehicle' ? [one.id] : []));

/** As if so much were so long ago: nobody waits years for a test. */
async function yearsPass(years: number, plates: readonly string[]): Promise<void> {
  for (const sql of [
    `UPDATE jobs SET opened_at = opened_at - $gone::interval, handed_over_at = handed_over_at - $gone::interval
     FROM vehicles WHERE vehicles.id = vehicle_id AND plate = ANY($plates)`,
    `UPDATE customers SET created_at = customers.created_at - $gone::interval
     FROM vehicles WHERE customers.id = customer_id AND plate = ANY($plates)`,
    'UPDATE vehicles SET updated_at = updated_at - $gone::interval WHERE plate = ANY($plates)',
  ])
    await database().query(sql, { bind: { gone: `${years} years`, plates } });
}

describe('a shop that keeps nobody for ever', () => {
  // Other tests share the database, and none of their cars is a generation old.
  const keep = (forgetAfterYears: number | null) => setShop({ ...usualSettings, forgetAfterYears }, boss);

  it('forgets who was not here for so many years, and nobody of whom something is still to be done', async () => {
    const tag = newKey().slice(-5).toUpperCase();
    const plate = (what: string) => `${what}${tag}`;
    const job = await visit(plate('AWAY'), `Oswin ${tag}`);
    await visit(plate('NOBODY'), undefined);
    const others = ['NEW', 'OPEN', 'RACK', 'DUE', 'BACK'];
    for (const what of others) await visit(plate(what), `${what} ${tag}`, what !== 'OPEN');
    await yearsPass(30, ['AWAY', 'NOBODY', 'OPEN', 'RACK', 'DUE', 'BACK'].map(plate));
    const [racked = '', due = ''] = [...(await carsOf(plate('RACK'))), ...(await carsOf(plate('DUE')))];
    const set = {
      id: newKey(),
      version: 0,
      label: 'winter',
      season: 'winter' as const,
      place: 'shop' as const,
    };
    must(await saveSet(racked, { ...set, rack: `F ${tag}`, wheels: [] }));
    const dueOn = new Date().toISOString().slice(0, 10);
    must(await addFollowUp({ key: newKey(), vehicle: due, about: 'other', note: '', dueOn }, ines));
    // One of two cars was here lately: whose they are is known.
    await visit(plate('SECOND'), `BACK ${tag}`);

    must(await keep(null));
    expect(await forgetLongAway()).toEqual({ customers: 0, cars: 0 });
    must(await keep(25));
    expect(await forgetLongAway()).toEqual({ customers: 0, cars: 0 });
    const aWeekOn = new Date(Date.now() + 7 * 86_400_000 + 1000);
    expect(await forgetLongAway(aWeekOn)).toEqual({ customers: 1, cars: 2 });
    expect(await forgetLongAway(aWeekOn)).toEqual({ customers: 0, cars: 0 });
    must(await keep(null));

    const { visit: said, vehicle } = must(await viewJob(job)).job;
    expect([said?.customer, vehicle.vin, vehicle.label]).toEqual([undefined, undefined, 'Ostrel Menta']);
    for (const gone of ['AWAY', 'NOBODY']) expect(await carsOf(plate(gone))).toEqual([]);
    for (const kept of [...others, 'SECOND']) expect(await carsOf(plate(kept))).toHaveLength(1);
  });

  it('is set to that by a manager alone, and begins a week after it was: a slip is put right till then', async () => {
    const from = must(await keep(25)).forgetFrom;
    // Another setting is no other rule, and nobody says when it begins but the shop.
    expect(
      must(await setShop({ ...usualSettings, name: 'Ours', forgetAfterYears: 25 }, boss)).forgetFrom,
    ).toBe(from);
    expect(must(await keep(24)).forgetFrom).not.toBe(from);
    expect(must(await keep(null)).forgetFrom).toBe(null);
    expect(await setShop({ ...usualSettings, forgetAfterYears: 3 }, ines)).toMatchObject({
      problem: { code: 'not-allowed' },
    });
  });
});

describe('who is forgotten', () => {
  /** What was searched for, as it stands in the database. */
  const searched = async (by: string) => {
    const [rows] = await database().query('SELECT words FROM looks WHERE by = $by ORDER BY seq', {
      bind: { by },
    });
    return (rows as { words: string | null }[]).map(({ words }) => words);
  };
  const look = (who: typeof ines, name: string, at?: Date) =>
    noteLook(
      who,
      { notes: { what: 'find' }, named: '' },
      { url: new URL(`http://shop.test/api/find?q=${name}`) },
      at,
    );

  it('is not written down again by a search that was on its way', async () => {
    const who = { ...person(), name: `Searcher ${newKey()}` };
    // Whoever was deleted by other tests was long before.
    await database().query("UPDATE erasures SET at = at - interval '1 hour'");
    look(who, 'Oswin');
    await writeLooks();
    // Noted, and not written yet; then one whose writing waits for the deletion to be done.
    look(who, 'Odalys');
    let waiting: Promise<void> | undefined;
    await inTransaction(async (tx) => {
      await eraseCars(tx, [], { key: newKey(), by: 'a test' });
      waiting = writeLooks();
      await new Promise((done) => setTimeout(done, 300));
    });
    await waiting;
    expect(await searched(who.name)).toEqual([null, null]);

    look(who, 'Other', new Date(Date.now() + 2 * 60_000));
    await writeLooks();
    expect(await searched(who.name)).toEqual([null, null, 'Other']);
  });
});
