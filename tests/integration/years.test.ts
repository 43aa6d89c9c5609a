import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseJob } from '../../src/core/job/schema';
import { yearsOf, type SimulatedVehicle } from '../../src/simulation/years';
import { countOf } from '../../src/data/bulk';
import { database } from '../../src/data/database';
import { viewJob, yard } from '../../src/services/jobs';
import { metElsewhere, pastOfSensor, pastOfVehicle } from '../../src/services/past';
import { find, listJobs } from '../../src/services/search';
import { figuresOfShop } from '../../src/services/office';
import { setShop, shopSettings } from '../../src/services/shop';
import { sensorLives } from '../../src/services/sensor-lives';
import { fillYears } from '../../src/services/years';
import { must } from '../support/must';
import { person } from '../support/people';

const asked = {
  vehicles: 400,
  seed: 20_261_127,
  from: new Date('2016-11-01T00:00:00Z'),
  to: new Date('2026-11-01T00:00:00Z'),
  people: ['Wilma', 'Bertil'],
};
const manager = person('manager');
/** One that came often. */
let car: SimulatedVehicle;

beforeAll(async () => {
  const all = [...yearsOf(asked)];
  const often = all.sort((a, b) => b.visits.length - a.visits.length)[0];
  if (!often) throw new Error('there are cars');
  car = often;
  await fillYears(asked);
  // Counted once an hour over all visits, and nobody waits for it.
  expect((await sensorLives()).ended).toBeGreaterThan(100);
});

describe('ten years of a busy chain', () => {
  it('are the same for the same seed, and make job files that are right', () => {
    const [one, other] = [[...yearsOf({ ...asked, vehicles: 20 })], [...yearsOf({ ...asked, vehicles: 20 })]];
    expect(one).toEqual(other);
    for (const { visits } of one)
      for (const { header, observations } of visits)
        expect(
          must(parseJob({ ...header, observations: observations.map(({ observation }) => observation) })),
        );
  });

  it('come with the seasons, and with sensors that end late in their life', () => {
    const visits = [...yearsOf(asked)].flatMap((vehicle) => vehicle.visits);
    const season = visits.filter(({ openedAt }) => [2, 3, 9, 10].includes(openedAt.getUTCMonth()));
    expect(season.length / visits.length).toBeGreaterThan(0.36);
    const ends = visits.flatMap(({ header, turnedOut }) =>
      turnedOut.flatMap(({ was, wheel }) =>
        was === 'sensor-silent' ? [header.sensors?.find((one) => one.wheel === wheel)?.ageYears ?? 0] : [],
      ),
    );
    expect(ends.length).toBeGreaterThan(30);
  });

  it('are there once, however often they are filled in', async () => {
    const before = await countOf('observations');
    await fillYears({ ...asked, vehicles: 20 });
    expect(await countOf('observations')).toBe(before);
  });

  it('are found again, over all years', async () => {
    const found = await find(car.plate);
    expect(found.find((one) => one.kind === 'vehicle')).toMatchObject({
      id: car.id,
      visits: car.visits.length,
    });
    const past = must(await pastOfVehicle(car.id));
    expect(past.visits).toHaveLength(car.visits.length);
    const sensor = car.sets[0]?.wheels[0]?.sensorId ?? '';
    expect((await pastOfSensor(sensor)).onFile.length).toBeGreaterThan(0);
  });
});

describe('the figures of a year', () => {
  const asked = { weeks: '52', zone: 'Europe/Berlin' } as const;
  const end = new Date('2026-11-01T00:00:00Z');

  it('are those of each person, put together', async () => {
    const all = must(await figuresOfShop(asked, manager, end));
    const each = await Promise.all(
      all.people.map(async (by) => must(await figuresOfShop({ ...asked, by }, manager, end))),
    );
    const handedOver = ({ tables }: typeof all) =>
      tables.find(({ name }) => name === 'weeks')?.rows.reduce((sum, row) => sum + Number(row[2]), 0) ?? 0;
    expect(handedOver(all)).toBeGreaterThan(50);
    expect(each.reduce((sum, one) => sum + handedOver(one), 0)).toBe(handedOver(all));
  });

  it('count weeks as the region of the shop does, where it is; none is lost or told twice', async () => {
    const settings = await shopSettings();
    const handedOver = new Set<number>();
    for (const [region, firstDay] of [
      ['GB', 1],
      ['US', 0],
    ] as const) {
      must(await setShop({ ...settings, region, timeZone: 'America/Chicago' }, manager));
      const { rows } = must(await figuresOfShop({ weeks: '52' }, manager, end)).tables[0] ?? { rows: [] };
      const days = rows.map(([week]) => new Date(`${week}T00:00:00Z`).getUTCDay());
      expect(new Set(days)).toEqual(new Set([firstDay]));
      handedOver.add(rows.reduce((sum, row) => sum + Number(row[2]), 0));
    }
    must(await setShop(settings, manager));
    expect(handedOver.size).toBe(1);
  });

  it('tell what was said against what it turned out to be, once it is compared', async () => {
    await expect
      .poll(async () => must(await figuresOfShop(asked, manager, end)).sureness?.visits, { timeout: 120_000 })
      .toBeGreaterThan(50);
  });

  it('are for the manager alone', async () => {
    const refused = await figuresOfShop(asked, { ...manager, role: 'adviser' }, end);
    expect(refused).toMatchObject({ ok: false, problem: { code: 'not-allowed' } });
  });
});

describe('every question of a memory is answered by an index', () => {
  /** Tables that grow with the years. */
  const large = [
    'vehicles',
    'customers',
    'jobs',
    'observations',
    'sensor_ids',
    'sightings',
    'wheels',
    'wheel_sets',
    'confirmations',
    'car_writes',
    'run_events',
    'sensor_services',
    'job_edits',
    'taken_back',
    'runs',
    'labels',
    'follow_ups',
  ];
  interface Plan {
    'Node Type': string;
    'Relation Name'?: string;
    'Index Name'?: string;
    'Index Cond'?: string;
    Plans?: Plan[];
  }
  /** They hold what is asked for and nothing else: the jobs in the shop just now. */
  const holdsFew = ['jobs_open'];
  const isIndexScan = (node: string) => /^(Index|Index Only|Bitmap Index) Scan$/.test(node);
  const orders = (node: string) => /Sort|Aggregate|Hash|Unique/.test(node);

  /**
   * Large tables that are read through: by a scan of the table, or of a whole index, unless a limit ends that soon.
   * `isLimited`: nothing stands between here and a limit that would need all of it.
   */
  function scans(plan: Plan, isLimited = false): string[] {
    const { 'Node Type': node, 'Relation Name': table = '', 'Index Cond': condition, Plans = [] } = plan;
    const isFew = holdsFew.includes(plan['Index Name'] ?? '');
    const isWhole =
      node === 'Seq Scan' || (isIndexScan(node) && condition === undefined && !isLimited && !isFew);
    const goesOn = node === 'Limit' || (isLimited && !orders(node));
    return [
      ...(isWhole && (large.includes(table) || node === 'Bitmap Index Scan') ? [table] : []),
      ...Plans.flatMap((part) => scans(part, goesOn)),
    ];
  }

  /** The tables a use case would read through, were scanning forbidden: those no index leads into. */
  async function readThrough(work: () => Promise<unknown>): Promise<string[]> {
    const asking = database();
    const query = asking.query.bind(asking) as (sql: string, options?: object) => Promise<unknown>;
    const asks: { sql: string; bind: unknown }[] = [];
    const watched = asking as unknown as { query: typeof query };
    watched.query = (sql, options) => {
      const text = typeof sql === 'string' ? sql : '';
      if (/^\s*\(?(SELECT|WITH)/i.test(text) && !/FOR UPDATE/.test(text))
        asks.push({ sql: text, bind: (options as { bind?: unknown } | undefined)?.bind });
      return query(sql, options);
    };
    try {
      await work();
    } finally {
      watched.query = query;
    }
    expect(asks.length).toBeGreaterThan(0);
    const found: string[] = [];
    for (const { sql, bind } of asks) {
      const transaction = await asking.transaction();
      try {
        await query('SET LOCAL enable_seqscan = off', { transaction });
        const [explained] = (await query(`EXPLAIN (FORMAT JSON) ${sql}`, {
          ...(bind !== undefined && { bind }),
          type: QueryTypes.SELECT,
          transaction,
        })) as { 'QUERY PLAN': { Plan: Plan }[] }[];
        const plan = explained?.['QUERY PLAN'][0]?.Plan;
        if (!plan) throw new Error(`no plan of ${sql}`);
        found.push(
          ...scans(plan).map((table: string) => `${table} in ${sql.replace(/\s+/g, ' ').slice(0, 160)}`),
        );
      } finally {
        await transaction.rollback();
      }
    }
    return found;
  }

  it.each([
    ['a plate', () => find(car.plate)],
    ['the beginning of a plate', () => find(car.plate.slice(0, 2))],
    ['a part of a plate', () => find(car.plate.slice(1, 5))],
    ['the end of a VIN', () => find(car.vin.slice(-6))],
    ['a customer', () => find(car.customer)],
    ['a customer, written nearly so', () => find('Quilfether')],
    ['a sensor ID', () => find(car.sets[0]?.wheels[0]?.sensorId ?? '')],
    ['a part of one', () => find(car.sets[0]?.wheels[0]?.sensorId.slice(2, 7) ?? '')],
    ['a job number', () => find('job 3')],
    ['the Yard', () => yard()],
    ['a job', () => viewJob(car.visits[0]?.id ?? '')],
    ['a vehicle', () => pastOfVehicle(car.id)],
    ['a sensor', () => pastOfSensor(car.sets[0]?.wheels[0]?.sensorId ?? '')],
    ['IDs met elsewhere', () => metElsewhere(car.visits[0]?.id ?? '')],
    [
      'the figures of a quarter',
      () => figuresOfShop({ weeks: '13', zone: 'UTC' }, manager, new Date('2026-11-01T00:00:00Z')),
    ],
    ['the list of jobs', () => listJobs({})],
    ['the list of one person', () => listJobs({ by: 'Wilma' })],
    ['the list of what was not proved', () => listJobs({ unproved: '1' })],
  ] as const)('%s', async (_, work) => {
    expect(await readThrough(work)).toEqual([]);
  });

  it('and one that is not is told', async () => {
    expect(
      await readThrough(() =>
        database().query('SELECT count(*) FROM jobs WHERE opened_by LIKE $end', {
          bind: { end: '%a' },
          type: QueryTypes.SELECT,
        }),
      ),
    ).toHaveLength(1);
  });
});

/** The rest of the tests share this database, and its Yard. */
afterAll(async () => {
  await database().query(`
    SET session_replication_role = 'replica';
    DELETE FROM confirmations; DELETE FROM sightings; DELETE FROM observations; DELETE FROM jobs; DELETE FROM wheels;
    DELETE FROM wheel_sets; DELETE FROM vehicles; DELETE FROM customers; DELETE FROM sensor_ids;
    SET session_replication_role = 'origin'`);
});
