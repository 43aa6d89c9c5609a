import { QueryTypes } from 'sequelize';
import type { Found, FoundVehicle, ListedJob } from '../core/records/search';
import type { JobState } from '../core/names/kinds';
import { database, type Tx } from './database';

/** Finding again, over all years: by indexes of prefixes and of parts (trigrams), never through a whole table. */

type Rows<Row extends object> = Promise<Row[]>;
const select = <Row extends object>(tx: Tx, sql: string, bind: Record<string, unknown>): Rows<Row> =>
  database().query<Row>(sql, { bind, type: QueryTypes.SELECT, transaction: tx });

/** So many of one kind are told. */
const most = 9;
/** So many that hold what was typed somewhere are looked at to tell the nearest of them. */
const mostLookedAt = 400;

/** `%` and `_` mean themselves. */
const literal = (text: string): string => text.replace(/[\\%_]/g, (sign) => `\\${sign}`);

/** What a list shows of these vehicles, in this order. */
const vehiclesAs = (ids: string) => `
  SELECT vehicles.id, vehicles.label, coalesce(last.plate, vehicles.plate, '') AS plate, vehicles.vin,
    vehicles.model_year AS "modelYear", customers.name AS customer, last.visits, last.at AS "lastVisitAt"
  FROM (${ids}) AS found JOIN vehicles USING (id) LEFT JOIN customers ON customers.id = vehicles.customer_id
  CROSS JOIN LATERAL (
    SELECT count(*)::int AS visits, max(opened_at) AS at,
      (array_agg(header -> 'vehicle' ->> 'plate' ORDER BY opened_at DESC))[1] AS plate
    FROM jobs WHERE vehicle_id = vehicles.id
  ) AS last WHERE merged_into IS NULL ORDER BY found.rank, last.at DESC NULLS LAST`;

type VehicleRow = Omit<FoundVehicle, 'lastVisitAt'> & { lastVisitAt: Date | null };
const vehicleFrom = ({ lastVisitAt, ...row }: VehicleRow): FoundVehicle => ({
  ...row,
  lastVisitAt: lastVisitAt && lastVisitAt.toISOString(),
});

/** By plate or VIN, whole, from its beginning, by its end, or by any part of three characters and more. */
export async function vehiclesByCode(tx: Tx, code: string): Promise<FoundVehicle[]> {
  const parts =
    code.length < 3
      ? ''
      : `UNION ALL (SELECT id, 3 AS rank FROM vehicles WHERE vin LIKE '%' || $part LIMIT ${mostLookedAt})
         UNION ALL (SELECT id, 4 FROM vehicles WHERE plate LIKE '%' || $part || '%' LIMIT ${mostLookedAt})
         UNION ALL (SELECT id, 5 FROM vehicles WHERE vin LIKE '%' || $part || '%' LIMIT ${mostLookedAt})`;
  const rows = await select<VehicleRow>(
    tx,
    vehiclesAs(`
      SELECT id, min(rank) AS rank FROM (
        (SELECT id, 0 AS rank FROM vehicles WHERE plate = $code OR vin = $code)
        UNION ALL (SELECT id, 1 FROM vehicles WHERE plate LIKE $part || '%' ORDER BY plate USING ~<~ LIMIT ${most})
        ${parts}
      ) AS any_way GROUP BY id ORDER BY rank LIMIT ${most}`),
    { code, part: literal(code) },
  );
  return rows.map(vehicleFrom);
}

/** By words that begin in the customer's name, or stand in what the vehicle is called; all of them. */
export async function vehiclesByName(tx: Tx, words: readonly string[]): Promise<FoundVehicle[]> {
  const bind = Object.fromEntries(words.map((word, at) => [`w${at}`, literal(word)]));
  const holds = (column: string) =>
    words
      .map(
        (_, at) => `(lower(${column}) LIKE $w${at} || '%' OR lower(${column}) LIKE '% ' || $w${at} || '%')`,
      )
      .join(' AND ');
  const rows = await select<VehicleRow>(
    tx,
    vehiclesAs(`
      SELECT id, min(rank) AS rank FROM (
        (SELECT vehicles.id, 0 AS rank FROM (
          SELECT id FROM customers WHERE ${holds('name')} LIMIT ${mostLookedAt}
        ) AS named JOIN vehicles ON vehicles.customer_id = named.id LIMIT ${mostLookedAt})
        UNION ALL (SELECT id, 1 FROM vehicles WHERE ${holds('label')} LIMIT ${mostLookedAt})
      ) AS any_way GROUP BY id ORDER BY rank LIMIT ${most}`),
    bind,
  );
  return rows.map(vehicleFrom);
}

/** A name counts as written nearly so from this share of common trigrams on; two slips in a long name leave half. */
const nearlySo = 0.5;

/** By a customer's name that is written nearly so. */
export async function vehiclesByNameNearly(tx: Tx, text: string): Promise<FoundVehicle[]> {
  await select(tx, "SELECT set_config('pg_trgm.word_similarity_threshold', $least, true)", {
    least: String(nearlySo),
  });
  const rows = await select<VehicleRow>(
    tx,
    vehiclesAs(`
      SELECT vehicles.id, rank FROM (
        SELECT id, (lower(name) <->> $text) AS rank FROM customers WHERE $text <% lower(name)
        ORDER BY rank LIMIT ${most}
      ) AS named JOIN vehicles ON vehicles.customer_id = named.id ORDER BY rank LIMIT ${most}`),
    { text: text.toLowerCase() },
  );
  return rows.map(vehicleFrom);
}

/** Sensor IDs that hold these digits, or any of these others, in which a dot stands for any digit. */
export async function sensorIds(tx: Tx, digits: string, others: readonly string[]): Promise<string[]> {
  const parts = [digits, ...others].map((part) => `%${part.replaceAll('.', '_')}%`);
  // Each alternative by itself: the index of parts takes no lists.
  const alternatives = parts.map((_, at) => `sensor_id LIKE $p${at}`).join(' OR ');
  const rows = await select<{ sensor_id: string }>(
    tx,
    `SELECT sensor_id FROM sensor_ids WHERE ${alternatives} LIMIT ${mostLookedAt}`,
    Object.fromEntries(parts.map((part, at) => [`p${at}`, part])),
  );
  return rows.map(({ sensor_id }) => sensor_id);
}

/** The vehicles at which each of these IDs was met, the last first. */
export async function vehiclesWithSensors(
  tx: Tx,
  ids: readonly string[],
): Promise<Map<string, { lastAt: string; vehicles: FoundVehicle[] }>> {
  const rows = await select<{ sensorId: string; vehicleId: string; lastAt: Date }>(
    tx,
    `SELECT sensor_id AS "sensorId", vehicle_id AS "vehicleId", max(last_at) AS "lastAt"
     FROM sightings JOIN jobs ON jobs.id = job_id WHERE sensor_id = ANY($ids)
     GROUP BY sensor_id, vehicle_id ORDER BY max(last_at) DESC`,
    { ids: [...ids] },
  );
  const vehicles = new Map(
    (await vehiclesById(tx, [...new Set(rows.map(({ vehicleId }) => vehicleId))])).map((one) => [
      one.id,
      one,
    ]),
  );
  const found = new Map<string, { lastAt: string; vehicles: FoundVehicle[] }>();
  for (const { sensorId, vehicleId, lastAt } of rows) {
    const vehicle = vehicles.get(vehicleId);
    if (!vehicle) continue;
    const there = found.get(sensorId) ?? { lastAt: lastAt.toISOString(), vehicles: [] };
    found.set(sensorId, { ...there, vehicles: [...there.vehicles, vehicle] });
  }
  return found;
}

export async function vehiclesById(tx: Tx, ids: readonly string[]): Promise<FoundVehicle[]> {
  if (ids.length === 0) return [];
  const rows = await select<VehicleRow>(
    tx,
    vehiclesAs('SELECT id, 0 AS rank FROM unnest($ids::uuid[]) AS id'),
    {
      ids: [...ids],
    },
  );
  return rows.map(vehicleFrom);
}

/** The jobs in which an ID was met, the newest first. */
export async function jobsWithSensor(tx: Tx, id: string, limit: number): Promise<string[]> {
  const rows = await select<{ id: string }>(
    tx,
    `SELECT job_id AS id FROM sightings WHERE sensor_id = $id GROUP BY job_id ORDER BY max(last_at) DESC LIMIT ${limit}`,
    { id },
  );
  return rows.map((row) => row.id);
}

/** IDs met in a job that were met at another vehicle too. */
export async function idsMetElsewhere(tx: Tx, jobId: string, vehicleId: string): Promise<string[]> {
  const rows = await select<{ id: string }>(
    tx,
    `SELECT DISTINCT here.sensor_id AS id FROM sightings AS here
     JOIN sightings AS there ON there.sensor_id = here.sensor_id
     JOIN jobs ON jobs.id = there.job_id AND jobs.vehicle_id <> $vehicleId
     WHERE here.job_id = $jobId ORDER BY id LIMIT ${most}`,
    { jobId, vehicleId },
  );
  return rows.map((row) => row.id);
}

type JobRow = Omit<Extract<Found, { kind: 'job' }>, 'kind' | 'openedAt'> & { openedAt: Date };
const jobColumns = `id, number, state, opened_at AS "openedAt", coalesce(header -> 'vehicle' ->> 'label', '') AS label,
  coalesce(header -> 'vehicle' ->> 'plate', '') AS plate`;
const jobFrom = ({ openedAt, ...row }: JobRow) => ({ ...row, openedAt: openedAt.toISOString() });

export async function jobByNumber(tx: Tx, number: number) {
  const rows = await select<JobRow>(tx, `SELECT ${jobColumns} FROM jobs WHERE number = $number`, { number });
  return rows.map(jobFrom);
}

/** Which jobs a list shows. Without any of them: all, the newest first. */
export interface JobFilter {
  /** Opened from this moment on, and before that one. */
  from?: Date;
  to?: Date;
  openedBy?: string;
  state?: JobState;
  /** Handed over though not all was proved. */
  unproved?: boolean;
  /** Older than this job, for the next page. */
  before?: { openedAt: Date; id: string };
}

/** Jobs of all years, the newest first. */
export async function listJobs(tx: Tx, filter: JobFilter, limit: number): Promise<ListedJob[]> {
  const { from, to, openedBy, state, unproved, before } = filter;
  const where = [
    from && 'opened_at >= $from',
    to && 'opened_at < $to',
    openedBy && 'opened_by = $openedBy',
    state && 'state = $state',
    unproved && `header -> 'visit' ->> 'unproved' IS NOT NULL`,
    before && '(opened_at, id) < ($beforeAt, $beforeId)',
  ].filter(Boolean);
  const rows = await select<
    Omit<ListedJob, 'openedAt' | 'handedOverAt'> & { openedAt: Date; handedOverAt: Date | null }
  >(
    tx,
    `SELECT ${jobColumns}, vehicle_id AS "vehicleId", opened_by AS "openedBy", handed_over_at AS "handedOverAt",
       header -> 'visit' ->> 'customer' AS customer, header -> 'visit' ->> 'unproved' AS unproved
     FROM jobs ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
     ORDER BY opened_at DESC, id DESC LIMIT ${limit}`,
    {
      ...(from && { from }),
      ...(to && { to }),
      ...(openedBy && { openedBy }),
      ...(state && { state }),
      ...(before && { beforeAt: before.openedAt, beforeId: before.id }),
    },
  );
  return rows.map(({ openedAt, handedOverAt, ...row }) => ({
    ...row,
    openedAt: openedAt.toISOString(),
    handedOverAt: handedOverAt && handedOverAt.toISOString(),
  }));
}
