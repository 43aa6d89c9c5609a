import { QueryTypes } from 'sequelize';
import { z } from 'zod';
import type {
  FaultCount,
  NeedlessPart,
  RecordKind,
  ReturnFacts,
  VisitFacts,
} from '../core/records/shop-figures';
import { comebackDays, longestStepMinutes } from '../core/records/shop-figures';
import { repairOutcomeSchema } from '../core/job/repair-outcome/schema';
import { findingCodes } from '../core/catalogue/finding';
import { lampStates } from '../core/names/kinds';
import { database, type Tx } from './database';

/** What a shop did between two moments, counted where it lies. */

export interface Asked {
  from: Date;
  to: Date;
  /** Who handed the car over, or booked it in; missing: anybody. */
  by?: string | undefined;
  /** The time zone weeks are counted in, by its IANA name. */
  zone: string;
  /** As days are counted: 0 is Sunday, 1 Monday. */
  weekStartsOn: 0 | 1;
}

const select = <Row extends object>(tx: Tx, sql: string, { from, to, by, zone }: Asked): Promise<Row[]> => {
  const bind: Record<string, unknown> = { from, to, by, zone };
  const used = Object.entries(bind).filter(([name]) => sql.includes(`$${name}`));
  return database().query<Row>(sql, {
    bind: Object.fromEntries(used),
    type: QueryTypes.SELECT,
    transaction: tx,
  });
};

const handedOver = ({ by }: Asked, jobs = 'jobs') =>
  `${jobs}.state = 'handed-over' AND ${jobs}.handed_over_at >= $from AND ${jobs}.handed_over_at < $to
   ${by === undefined ? '' : `AND ${jobs}.handed_over_by = $by`}`;

/** `date_trunc` knows weeks from Monday alone. */
const weekOf = (column: string, { weekStartsOn }: Asked) =>
  `to_char(date_trunc('week', ${column} AT TIME ZONE $zone + interval '${1 - weekStartsOn} day')
     - interval '${1 - weekStartsOn} day', 'YYYY-MM-DD')`;

/** What was said last of a job's parts by somebody who had them in hand. */
const saidOf = (job: string) =>
  `(SELECT parts FROM confirmations WHERE job_id = ${job} AND by_file IS NULL ORDER BY seq DESC LIMIT 1)`;

/** Names all that is counted here: it is another once anything was added to it. */
export async function newestOfAll(tx: Tx): Promise<string> {
  const [row] = await database().query<{ name: string }>(
    `SELECT concat_ws('/',
       (SELECT handed_over_at FROM jobs WHERE state = 'handed-over' ORDER BY handed_over_at DESC LIMIT 1),
       (SELECT opened_at FROM jobs ORDER BY opened_at DESC LIMIT 1),
       (SELECT cancelled_at FROM jobs WHERE state = 'cancelled' ORDER BY cancelled_at DESC LIMIT 1),
       (SELECT seq FROM confirmations ORDER BY seq DESC LIMIT 1),
       (SELECT seq FROM sensor_services ORDER BY seq DESC LIMIT 1),
       (SELECT revision FROM surroundings)) AS name`,
    { type: QueryTypes.SELECT, transaction: tx },
  );
  return row?.name ?? '';
}

/** Those who book in and hand over, by name. */
export async function peopleAtWork(tx: Tx, asked: Asked): Promise<string[]> {
  const rows = await select<{ by: string }>(
    tx,
    `SELECT DISTINCT handed_over_by AS by FROM jobs WHERE ${handedOver({ ...asked, by: undefined })} ORDER BY by`,
    asked,
  );
  return rows.map(({ by }) => by);
}

export const carsBookedIn = (tx: Tx, asked: Asked): Promise<{ week: string; cars: number }[]> =>
  select(
    tx,
    `SELECT ${weekOf('opened_at', asked)} AS week, count(*)::int AS cars FROM jobs
     WHERE opened_at >= $from AND opened_at < $to AND state <> 'cancelled'
     ${asked.by === undefined ? '' : 'AND opened_by = $by'} GROUP BY week ORDER BY week`,
    asked,
  );

export const carsHandedOver = (tx: Tx, asked: Asked): Promise<VisitFacts[]> =>
  select(
    tx,
    `SELECT id AS "jobId", ${weekOf('handed_over_at', asked)} AS week, handed_over_by AS by,
       round(extract(epoch FROM handed_over_at - opened_at) / 60)::int AS minutes,
       header -> 'visit' ->> 'unproved' IS NULL AS proved
     FROM jobs WHERE ${handedOver(asked)} ORDER BY handed_over_at`,
    asked,
  );

/**
 * Minutes before each kind of record, summed over the steps that are no waiting. Job by job (`OFFSET 0` keeps it so): what
 * it costs goes with the weeks asked for, not with all there ever were.
 */
export const stepsOfWork = (
  tx: Tx,
  asked: Asked,
): Promise<{ kind: RecordKind; by: string; minutes: number }[]> =>
  select(
    tx,
    `SELECT kind, handed_over_by AS by, sum(minutes)::float8 AS minutes
     FROM jobs CROSS JOIN LATERAL (
       SELECT kind, extract(epoch FROM at - lag(at) OVER (ORDER BY at, kind NULLS FIRST)) / 60 AS minutes
       FROM (
         SELECT jobs.opened_at AS at, NULL AS kind
         UNION ALL SELECT jobs.handed_over_at, 'handed-over'
         UNION ALL SELECT recorded_at, kind FROM observations WHERE job_id = jobs.id
         UNION ALL SELECT coalesce(read_back_at, answered_at, asked_at), 'write' FROM car_writes WHERE job_id = jobs.id
         UNION ALL SELECT at, 'run' FROM run_events WHERE job_id = jobs.id
         UNION ALL SELECT at, 'service' FROM sensor_services WHERE job_id = jobs.id
       ) AS stamps OFFSET 0
     ) AS steps
     WHERE ${handedOver(asked)} AND kind IS NOT NULL AND minutes BETWEEN 0 AND ${longestStepMinutes}
     GROUP BY kind, handed_over_by`,
    asked,
  );

const partsSchema = z.array(repairOutcomeSchema).catch([]);
const returnSchema = z.object({
  firstId: z.string(),
  firstNumber: z.int(),
  handedOverAt: z.date(),
  by: z.string(),
  unproved: z.string().nullable(),
  secondId: z.string(),
  secondNumber: z.int(),
  openedAt: z.date(),
  complaint: z.string().nullable(),
  label: z.string(),
  plate: z.string(),
  planned: z.boolean(),
  lamp: z.enum(lampStates).nullable().catch(null),
  partsFirst: partsSchema,
  partsSecond: partsSchema,
});

/** Cars that came again soon after they were handed over, the last first. */
export async function carsBack(tx: Tx, asked: Asked): Promise<ReturnFacts[]> {
  const rows = await select<object>(
    tx,
    `SELECT first.id AS "firstId", first.number AS "firstNumber", first.handed_over_at AS "handedOverAt",
       first.handed_over_by AS by, first.header -> 'visit' ->> 'unproved' AS unproved,
       second.id AS "secondId", second.number AS "secondNumber", second.opened_at AS "openedAt",
       second.header -> 'visit' ->> 'complaint' AS complaint,
       coalesce(second.header -> 'vehicle' ->> 'label', '') AS label,
       coalesce(second.header -> 'vehicle' ->> 'plate', '') AS plate,
       coalesce((SELECT true FROM follow_ups WHERE job_id = first.id LIMIT 1), false) AS planned,
       (SELECT body ->> 'state' FROM observations WHERE job_id = second.id AND kind = 'lamp' ORDER BY seq LIMIT 1) AS lamp,
       ${saidOf('first.id')} AS "partsFirst", ${saidOf('second.id')} AS "partsSecond"
     FROM jobs AS first CROSS JOIN LATERAL (
       SELECT * FROM jobs AS later WHERE later.vehicle_id = first.vehicle_id AND later.id <> first.id
         AND later.opened_at >= first.handed_over_at
         AND later.opened_at < first.handed_over_at + interval '${comebackDays} days' AND later.state <> 'cancelled'
       ORDER BY later.opened_at LIMIT 1
     ) AS second WHERE ${handedOver(asked, 'first')} ORDER BY second.opened_at DESC`,
    asked,
  );
  return rows.flatMap((row) => {
    const parsed = returnSchema.safeParse(row);
    // A record in a shape nobody knows says nothing.
    if (!parsed.success) return [];
    const { firstId, firstNumber, handedOverAt, by, unproved, secondId, secondNumber, ...rest } = parsed.data;
    const { openedAt, complaint, label, plate, planned, lamp, partsFirst, partsSecond } = rest;
    return [
      {
        first: {
          jobId: firstId,
          number: firstNumber,
          handedOverAt: handedOverAt.toISOString(),
          by,
          unproved,
        },
        second: { jobId: secondId, number: secondNumber, openedAt: openedAt.toISOString(), complaint },
        label,
        plate,
        planned,
        lamp,
        turnedOutFirst: partsFirst,
        turnedOutSecond: partsSecond,
      },
    ];
  });
}

/** So many kinds of vehicle are listed, those most cars were said of first. */
const mostKinds = 20;

const faultSchema = z.object({
  kind: z.string(),
  was: z.enum(findingCodes),
  times: z.int(),
  cars: z.int(),
});

/** By its profile; else what it is called, without what tells one car from another. */
const kindOfVehicle = `coalesce(profiles.label, split_part(header -> 'vehicle' ->> 'label', ',', 1), '')`;

export async function faultsByKind(tx: Tx, asked: Asked): Promise<FaultCount[]> {
  const rows = await select<object>(
    tx,
    `WITH said AS (
       SELECT id, ${kindOfVehicle} AS kind, ${saidOf('jobs.id')} AS parts
       FROM jobs LEFT JOIN profiles ON profiles.name = header -> 'vehicle' ->> 'profile' WHERE ${handedOver(asked)}
     ),
     cars AS (
       SELECT kind, count(*)::int AS cars FROM said WHERE parts <> '[]' GROUP BY kind
       ORDER BY cars DESC, kind LIMIT ${mostKinds}
     )
     SELECT kind, part ->> 'was' AS was, count(*)::int AS times, cars
     FROM said JOIN cars USING (kind) CROSS JOIN LATERAL jsonb_array_elements(parts) AS part
     WHERE part ->> 'was' <> 'in-order' GROUP BY kind, was, cars`,
    asked,
  );
  return rows.flatMap((row) => {
    const parsed = faultSchema.safeParse(row);
    return parsed.success ? [parsed.data] : [];
  });
}

/** A service in which the sensor itself was put in. */
const fitted = `body ->> 'declined' IS NULL AND jsonb_exists(body -> 'done', 'sensor')`;

export async function sensorsFitted(tx: Tx, asked: Asked): Promise<number> {
  const [row] = await select<{ fitted: number }>(
    tx,
    `SELECT coalesce(sum(services.fitted), 0)::int AS fitted FROM jobs CROSS JOIN LATERAL (
       SELECT count(*) AS fitted FROM sensor_services WHERE job_id = jobs.id AND ${fitted} OFFSET 0
     ) AS services WHERE ${handedOver(asked)}`,
    asked,
  );
  return row?.fitted ?? 0;
}

/** Sensors that were put in where the old one turned out to be in order. */
export async function sensorsReplacedInVain(tx: Tx, asked: Asked): Promise<NeedlessPart[]> {
  const rows = await select<Omit<NeedlessPart, 'at'> & { at: Date }>(
    tx,
    `SELECT jobs.id AS "jobId", jobs.number, said.part ->> 'wheel' AS wheel, service.body ->> 'part' AS part,
       coalesce(service.body ->> 'by', '') AS by, service.at
     FROM jobs CROSS JOIN LATERAL jsonb_array_elements(${saidOf('jobs.id')}) AS said (part)
     CROSS JOIN LATERAL (
       SELECT * FROM sensor_services WHERE job_id = jobs.id AND ${fitted} AND body ->> 'wheel' = said.part ->> 'wheel'
       ORDER BY seq DESC LIMIT 1
     ) AS service
     WHERE ${handedOver(asked)} AND said.part ->> 'part' = 'sensor' AND said.part ->> 'was' = 'in-order'
     ORDER BY service.at DESC`,
    asked,
  );
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

/** The last visits of which somebody said what it was. */
export async function lastConfirmedJobs(tx: Tx, most: number): Promise<string[]> {
  const rows = await database().query<{ id: string }>(
    `SELECT job_id AS id FROM confirmations WHERE by_file IS NULL AND parts <> '[]'
     GROUP BY job_id ORDER BY max(seq) DESC LIMIT ${most}`,
    { type: QueryTypes.SELECT, transaction: tx },
  );
  return rows.map(({ id }) => id);
}
