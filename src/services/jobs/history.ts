import { unknownJob } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import type { HistoryLine } from '../../core/visit/history';
import { inTransaction } from '../../data/database';
import * as jobs from '../../data/jobs';
import * as observations from '../../data/observations';

/** All that was recorded on a job and changed about it, the newest first: who, when, and what stood before. Problem: `unknown-job`. */
export function historyOf(id: string): Promise<Result<HistoryLine[]>> {
  return inTransaction(async (tx) => {
    const row = await jobs.findJob(tx, id);
    if (!row) return unknownJob();
    const seen = await observations.ofJob(tx, id);
    const takenBack = new Map(
      (await observations.takenBackOf(tx, id)).map((one) => [one.observationKey, one]),
    );
    const correctedBy = new Map(seen.flatMap(({ key, replaces }) => (replaces ? [[replaces, key]] : [])));
    const recorded = seen.map((one): HistoryLine => {
      const back = takenBack.get(one.key);
      return {
        kind: 'recorded',
        at: one.recordedAt.toISOString(),
        by: one.recordedBy,
        key: one.key,
        observation: one.body,
        ...(correctedBy.has(one.key) && { corrected: true }),
        ...(back && { takenBack: { at: back.at.toISOString(), by: back.by, reason: back.reason } }),
      };
    });
    const changed = (await jobs.editsSince(tx, id, 0)).map(({ at, by, changes }): HistoryLine => ({
      kind: 'changed',
      at: at.toISOString(),
      by,
      changes: changes.map(({ field, from, to }) => ({ field, from: asText(from), to: asText(to) })),
    }));
    return success([...recorded, ...changed].sort((a, b) => b.at.localeCompare(a.at)));
  });
}

/** A value of a header field as a person can read it; null where there was none. */
function asText(value: unknown): string | null {
  if (value === null || value === undefined || value === '') return null;
  return typeof value === 'string' ? value : JSON.stringify(value);
}
