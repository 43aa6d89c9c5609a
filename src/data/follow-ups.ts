import { QueryTypes } from 'sequelize';
import type { DueFollowUp, FollowUp } from '../core/records/follow-up';
import type { FoundVehicle } from '../core/records/search';
import { database, type Tx } from './database';
import { FollowUpRow } from './models';

type Stored = Omit<FollowUp, 'ended'> & {
  endedAt: Date | null;
  endedBy: string | null;
  outcome: 'done' | 'dropped' | null;
  word: string | null;
} & Pick<FoundVehicle, 'label' | 'plate' | 'customer'>;

const columns = `follow_ups.key, follow_ups.vehicle_id AS "vehicleId", job_id AS "jobId", jobs.number, about, wheel, note,
  due_on::text AS "dueOn", by, ended_at AS "endedAt", ended_by AS "endedBy", outcome, word, vehicles.label,
  coalesce(jobs.header -> 'vehicle' ->> 'plate', vehicles.plate, '') AS plate, customers.name AS customer, customers.phone`;

const from = `FROM follow_ups JOIN vehicles ON vehicles.id = follow_ups.vehicle_id
  LEFT JOIN customers ON customers.id = customer_id LEFT JOIN jobs ON jobs.id = job_id`;

function followUpFrom({
  endedAt,
  endedBy,
  outcome,
  word,
  ...row
}: Stored & { phone: string | null }): DueFollowUp {
  const ended =
    endedAt && outcome ? { at: endedAt.toISOString(), by: endedBy ?? '', outcome, word: word ?? '' } : null;
  return { ...row, ended };
}

/** So many are listed at once. */
const most = 200;

/** Those that are open, the longest due first. */
export async function openFollowUps(tx: Tx): Promise<DueFollowUp[]> {
  const rows = await database().query<Stored & { phone: string | null }>(
    `SELECT ${columns} ${from} WHERE ended_at IS NULL ORDER BY due_on, follow_ups.at LIMIT ${most}`,
    { type: QueryTypes.SELECT, transaction: tx },
  );
  return rows.map(followUpFrom);
}

/** All of a vehicle, the last due first. */
export async function followUpsOf(tx: Tx, vehicleId: string): Promise<DueFollowUp[]> {
  const rows = await database().query<Stored & { phone: string | null }>(
    `SELECT ${columns} ${from} WHERE follow_ups.vehicle_id = $vehicleId ORDER BY due_on DESC, follow_ups.at DESC`,
    { bind: { vehicleId }, type: QueryTypes.SELECT, transaction: tx },
  );
  return rows.map(followUpFrom);
}

export const findFollowUp = (tx: Tx, key: string) =>
  FollowUpRow.findByPk(key, { transaction: tx, lock: tx.LOCK.UPDATE });

export const addFollowUp = (
  tx: Tx,
  values: Pick<FollowUpRow, 'key' | 'vehicleId' | 'jobId' | 'about' | 'wheel' | 'note' | 'dueOn' | 'by'>,
) => FollowUpRow.create(values, { transaction: tx });
