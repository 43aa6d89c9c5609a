import { literal, Op } from 'sequelize';
import type { Confirmation } from '../core/job/repair-outcome';
import type { Header } from '../core/job';
import type { Tx } from './database';
import { ConfirmationRow, JobRow } from './models';

export const findConfirmation = (tx: Tx, key: string) =>
  ConfirmationRow.findOne({ where: { key }, transaction: tx });

export const addConfirmation = (tx: Tx, jobId: string, { key, at, by, parts, byFile }: Confirmation) =>
  ConfirmationRow.create(
    { key, jobId, at: new Date(at), by, parts, byFile: byFile ?? null },
    { transaction: tx },
  );

export const confirmationOf = ({
  key,
  at,
  by,
  parts,
  byFile,
}: Pick<ConfirmationRow, 'key' | 'at' | 'by' | 'parts' | 'byFile'>): Confirmation => ({
  key,
  at: at.toISOString(),
  by,
  parts,
  ...(byFile && { byFile }),
});

/** The key of the newest row. Rows are only ever added, so it names all there is. */
export async function newestConfirmation(tx: Tx): Promise<string | undefined> {
  const newest = await ConfirmationRow.findOne({
    attributes: ['key'],
    order: [['seq', 'DESC']],
    raw: true,
    transaction: tx,
  });
  return newest?.key;
}

/** A visit whose parts were confirmed. */
export interface ConfirmedVisit {
  jobId: string;
  number: number;
  header: Header;
  confirmation: Confirmation;
}

/** What holds of each job, of so many visits, the one confirmed last first; what came by a file teaches this shop nothing. */
export async function loadConfirmed(tx: Tx, most: number): Promise<ConfirmedVisit[]> {
  const rows = await ConfirmationRow.findAll({
    where: {
      seq: { [Op.in]: literal('(SELECT max(seq) FROM confirmations WHERE by_file IS NULL GROUP BY job_id)') },
      parts: { [Op.ne]: literal("'[]'::jsonb") },
    },
    order: [['at', 'DESC']],
    limit: most,
    raw: true,
    transaction: tx,
  });
  const jobs = await JobRow.findAll({
    where: { id: rows.map(({ jobId }) => jobId) },
    attributes: ['id', 'number', 'header'],
    raw: true,
    transaction: tx,
  });
  const jobOf = new Map(jobs.map((job) => [job.id, job]));
  return rows.flatMap((row) => {
    const job = jobOf.get(row.jobId);
    return job
      ? [{ jobId: row.jobId, number: job.number, header: job.header, confirmation: confirmationOf(row) }]
      : [];
  });
}
