import { QueryTypes } from 'sequelize';
import type { Trace } from '../core/records/table/lists';
import { database, type Tx } from './database';

/** Who looked at whose records, and what was changed by whom. */

export interface Look {
  at: Date;
  personId: string;
  by: string;
  what: string;
  jobId: string | null;
  vehicleId: string | null;
  words: string | null;
}

/**
 * Adds looks that were noted a moment ago. Whoever was deleted since is not written down again: what was searched for
 * before then goes without its words. (A minute more, since servers' clocks differ.) `schema`: of another shop of the chain.
 */
export async function addLooks(looks: readonly Look[], schema?: string): Promise<void> {
  const of = schema === undefined ? '' : `"${schema}".`;
  await database().query(
    `INSERT INTO ${of}looks (at, person_id, by, what, job_id, vehicle_id, words)
     SELECT at, person_id, by, what, job_id, vehicle_id,
       CASE WHEN what = 'find' AND at < (SELECT max(at) FROM ${of}erasures) + interval '1 minute' THEN NULL ELSE words END
     FROM unnest($at::timestamptz[], $person::uuid[], $by::text[], $what::text[], $job::uuid[],
       $vehicle::uuid[], $words::text[]) AS noted (at, person_id, by, what, job_id, vehicle_id, words)`,
    {
      bind: {
        at: looks.map(({ at }) => at.toISOString()),
        person: looks.map(({ personId }) => personId),
        by: looks.map(({ by }) => by),
        what: looks.map(({ what }) => what),
        job: looks.map(({ jobId }) => jobId),
        vehicle: looks.map(({ vehicleId }) => vehicleId),
        words: looks.map(({ words }) => words),
      },
    },
  );
}

export const forgetLooksBefore = (moment: Date): Promise<unknown> =>
  database().query('DELETE FROM looks WHERE at < $moment', { bind: { moment } });

interface TraceFilter {
  before: Date;
  by?: string | undefined;
  /** Of these vehicles alone. */
  vehicles?: readonly string[] | undefined;
  changesOnly?: boolean | undefined;
}

const most = 200;

export function loadTraces(tx: Tx, { before, by, vehicles, changesOnly }: TraceFilter): Promise<Trace[]> {
  const bind: Record<string, unknown> = {
    before,
    ...(by !== undefined && { by }),
    ...(vehicles && { vehicles: [...vehicles] }),
  };
  // Each source by its own index, the newest of each, before they are put together.
  const part = (from: string, { at, who, what, detail, vehicle, isLook }: Record<string, string>) => `
    (SELECT ${at} AS at, ${who} AS by, ${what} AS what, ${detail} AS detail, ${isLook} AS look, jobs.number,
       coalesce(jobs.header -> 'vehicle' ->> 'label', vehicles.label) AS label,
       coalesce(jobs.header -> 'vehicle' ->> 'plate', vehicles.plate) AS plate
     FROM ${from} WHERE ${at} < $before ${by === undefined ? '' : `AND ${who} = $by`}
       ${vehicles ? `AND ${vehicle} = ANY($vehicles)` : ''} ORDER BY ${at} DESC LIMIT ${most})`;
  const ofJob = (table: string) =>
    `${table} JOIN jobs ON jobs.id = ${table}.job_id JOIN vehicles ON vehicles.id = jobs.vehicle_id`;
  const ofShop = (table: string) => `${table} LEFT JOIN jobs ON false LEFT JOIN vehicles ON false`;
  const parts = [
    ...(changesOnly
      ? []
      : [
          part(
            `looks LEFT JOIN jobs ON jobs.id = looks.job_id
             LEFT JOIN vehicles ON vehicles.id = coalesce(looks.vehicle_id, jobs.vehicle_id)`,
            {
              at: 'looks.at',
              who: 'looks.by',
              what: 'looks.what',
              detail: 'words',
              vehicle: 'coalesce(looks.vehicle_id, jobs.vehicle_id)',
              isLook: 'true',
            },
          ),
        ]),
    part(ofJob('job_edits'), {
      at: 'job_edits.at',
      who: 'job_edits.by',
      what: `'corrected'`,
      detail: `(SELECT string_agg(change ->> 'field', ', ') FROM jsonb_array_elements(changes) AS change)`,
      vehicle: 'jobs.vehicle_id',
      isLook: 'false',
    }),
    part(ofJob('taken_back'), {
      at: 'taken_back.at',
      who: 'taken_back.by',
      what: `'reading taken back'`,
      detail: 'reason',
      vehicle: 'jobs.vehicle_id',
      isLook: 'false',
    }),
    part('merges JOIN vehicles ON vehicles.id = kept LEFT JOIN jobs ON false', {
      at: 'merges.at',
      who: 'merges.by',
      what: `'two records put together'`,
      detail: 'NULL',
      vehicle: 'kept',
      isLook: 'false',
    }),
    ...(vehicles
      ? []
      : [
          part(ofShop('customer_imports'), {
            at: 'customer_imports.at',
            who: 'customer_imports.by',
            what: `'customer list brought in'`,
            detail: 'customer_imports.name',
            vehicle: 'NULL',
            isLook: 'false',
          }),
          part(ofShop('erasures'), {
            at: 'erasures.at',
            who: 'erasures.by',
            what: `'customer deleted'`,
            detail: `concat(cars, ' cars, ', erasures.jobs, ' jobs')`,
            vehicle: 'NULL',
            isLook: 'false',
          }),
          part(ofShop('api_tokens'), {
            at: 'made_at',
            who: 'made_by',
            what: `'token made'`,
            detail: 'api_tokens.name',
            vehicle: 'NULL',
            isLook: 'false',
          }),
          part(ofShop('webhooks'), {
            at: 'made_at',
            who: 'made_by',
            what: `'address told'`,
            detail: 'url',
            vehicle: 'NULL',
            isLook: 'false',
          }),
        ]),
  ];
  return database().query<Trace>(
    `SELECT at, by, what, detail, look AS "isLook", number, label, plate FROM (${parts.join(' UNION ALL ')}) AS traces
     ORDER BY at DESC LIMIT ${most}`,
    { bind, type: QueryTypes.SELECT, transaction: tx },
  );
}
