import type { BenchNote } from '../../contract';
import { closedJob, unknownJob } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { notesOf } from '../../core/job/header';
import { inJobTransaction } from '../../data/database';
import * as jobs from '../../data/jobs';
import type { Person } from '../people';

/** Takes something worked out on the bench into the job. The same key again changes nothing. Problems: `unknown-job`, `handed-over`. */
export function addNote(id: string, note: BenchNote, who: Person): Promise<Result<null>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    if ((await jobs.findEdit(tx, note.key))?.jobId === id) return success(null);
    if (row.state !== 'open') return closedJob(row.state);
    const visit = notesOf(row.header);
    const { key, text, link } = note;
    const added = { text, link, at: new Date().toISOString(), by: who.name };
    const bench = [...(visit.bench ?? []), added];
    const changes = [{ field: 'bench', from: null, to: text }];
    await jobs.saveEdit(
      tx,
      row,
      { key, by: who.name, changes },
      { header: { ...row.header, visit: { ...visit, bench } } },
    );
    return success(null);
  });
}
