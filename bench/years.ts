import { availableParallelism } from 'node:os';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { v7 as newId } from 'uuid';
import { startCluster, wipe } from '../src/cli/cluster';
import { chanceFrom } from '../src/simulation';
import { closeDatabase, database } from '../src/data/database';
import { countOf } from '../src/data/bulk';
import { migrate } from '../src/data/migrations';
import { viewJob, yard } from '../src/services/jobs';
import { pastOfSensor, pastOfVehicle } from '../src/services/past';
import { find, listJobs } from '../src/services/search';
import { figuresOfShop } from '../src/services/office/shop-figures';
import { fillYears } from '../src/services/years';
import { metric } from '../src/core/measure/units';
import type { Person } from '../src/core/visit/person';

/**
 * Ten years of a busy chain: how long finding, lists, the Yard, a job, a vehicle and a sensor take over all of it, p50 and
 * p99 in ms, beside the same with a hundred jobs and beside the plain query of one row, in the same minutes.
 *
 * Run: npx tsx bench/years.ts [VEHICLES, 100000]
 */
const vehicles = Number(process.argv[2] ?? 100_000);
const rounds = 300;
/** They are looked at now and then, and take longer. */
const roundsOfFigures = 15;
const from = new Date('2016-11-01T00:00:00Z');
const to = new Date('2026-11-01T00:00:00Z');
const people = ['Ines', 'Marisol', 'Pilar', 'Odalys', 'Renzo', 'Tulia'];

const manager: Person = {
  id: newId(),
  name: 'Marisol',
  role: 'manager',
  units: metric,
  ownUnits: false,
  secondFactor: 'none',
};

const folder = mkdtempSync(join(tmpdir(), 'hacienda-years-'));
const cluster = await startCluster(folder, { processes: availableParallelism() });
process.env.DATABASE_URL = cluster.url;
try {
  await migrate();
  await fillYears({ vehicles: 33, seed: 7, from, to, people });
  const few = await measured();
  const began = Date.now();
  await fillYears({ vehicles, seed: 1, from, to, people }, (done) => {
    if (done % 20_000 === 0)
      console.log(`${done} vehicles after ${Math.round((Date.now() - began) / 1000)} s`);
  });
  for (const table of ['vehicles', 'jobs', 'observations', 'sensor_ids', 'sightings'] as const)
    console.log(table, await countOf(table));
  const many = await measured();
  console.table(
    Object.fromEntries(
      Object.entries(many).map(([name, { p50, p99 }]) => {
        const before = few[name] ?? { p50: Number.NaN, p99: Number.NaN };
        const shown = (value: number) => Number(value.toFixed(1));
        return [
          name,
          {
            'few p50': shown(before.p50),
            'few p99': shown(before.p99),
            p50: shown(p50),
            p99: shown(p99),
            ratio: shown(p50 / before.p50),
          },
        ];
      }),
    ),
  );
} finally {
  await closeDatabase();
  await cluster.stop();
  wipe(folder);
}

/** Each thing asked again and again, of other cars each time. */
async function measured(): Promise<Record<string, { p50: number; p99: number }>> {
  const chance = chanceFrom(11);
  const cars = await database().query<{
    id: string;
    plate: string;
    vin: string;
    name: string;
    job: string;
    sensor: string;
  }>(
    `SELECT vehicles.id, plate, vin, customers.name, (SELECT id FROM jobs WHERE vehicle_id = vehicles.id LIMIT 1) AS job,
       (SELECT sensor_id FROM wheels JOIN wheel_sets ON wheel_sets.id = wheel_set_id WHERE vehicle_id = vehicles.id LIMIT 1) AS sensor
     FROM vehicles JOIN customers ON customers.id = customer_id ORDER BY md5(vehicles.id::text) LIMIT ${rounds}`,
    { type: QueryTypes.SELECT },
  );
  const slipped = (id: string) => {
    const at = 1 + Math.floor(chance.share() * (id.length - 2));
    return `${id.slice(0, at)}${id[at] === 'F' ? '0' : 'F'}${id.slice(at + 1)}`;
  };
  const asks: Record<string, (car: (typeof cars)[number]) => Promise<unknown>> = {
    'one row': ({ id }) =>
      database().query('SELECT plate FROM vehicles WHERE id = $id', {
        bind: { id },
        type: QueryTypes.SELECT,
      }),
    'plate, whole': ({ plate }) => find(plate),
    'plate, three characters': ({ plate }) => find(plate.slice(0, 3)),
    'plate, a part': ({ plate }) => find(plate.slice(2, 6)),
    'end of a VIN': ({ vin }) => find(vin.slice(-6)),
    'customer, two words begun': ({ name }) =>
      find(
        name
          .split(' ')
          .map((word) => word.slice(0, 4))
          .join(' '),
      ),
    'customer, one word': ({ name }) => find(name.split(' ')[1] ?? ''),
    'customer, with a slip': ({ name }) => find(slipped(name.toLowerCase())),
    'sensor ID, whole': ({ sensor }) => find(sensor),
    'sensor ID, with a slip': ({ sensor }) => find(slipped(sensor)),
    'sensor ID, five digits with a slip': ({ sensor }) => find(slipped(sensor.slice(2, 7))),
    'sensor ID, four digits': ({ sensor }) => find(sensor.slice(3, 7)),
    'list of jobs': () => listJobs({}),
    'list, not proved, one person': () => listJobs({ unproved: '1', by: 'Ines' }),
    Yard: () => yard(),
    'figures of a quarter': () => figuresOfShop({ weeks: '13', zone: 'UTC' }, manager, to),
    'figures of a year': () => figuresOfShop({ weeks: '52', zone: 'UTC' }, manager, to),
    'a job': ({ job }) => (job ? viewJob(job) : Promise.resolve()),
    'a vehicle': ({ id }) => pastOfVehicle(id),
    'a sensor': ({ sensor }) => pastOfSensor(sensor),
  };
  const result: Record<string, { p50: number; p99: number }> = {};
  for (const [name, ask] of Object.entries(asks)) {
    const times: number[] = [];
    for (const car of name.startsWith('figures') ? cars.slice(0, roundsOfFigures) : cars) {
      const began = performance.now();
      await ask(car);
      times.push(performance.now() - began);
    }
    times.sort((a, b) => a - b);
    const at = (share: number) =>
      times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? Number.NaN;
    result[name] = { p50: at(0.5), p99: at(0.99) };
  }
  return result;
}
