import { alreadyCorrected, nothingToCorrect, unknownJob } from '../../contract/refusals';
import type { Result } from '../../core/result';
import type { VisitView } from '../../contract/views';
import { inJobTransaction } from '../../data/database';
import * as jobs from '../../data/jobs';
import * as observations from '../../data/observations';
import { refuseUnless, type Person } from '../people';
import { refuseClosed } from './common';
import { viewIn } from './view';

/**
 * Takes back what was recorded by mistake: it stays on record with who took it back and why, out of all judgement.
 * Taken back already, it changes nothing. Problems: `unknown-job`, `handed-over`, `cancelled`, `not-allowed`,
 * `nothing-to-correct`, `already-corrected`.
 */
export function takeBack(
  id: string,
  asked: { observation: string; reason: string },
  who: Person,
): Promise<Result<VisitView>> {
  return inJobTransaction(id, async (tx) => {
    const row = await jobs.lockJob(tx, id);
    if (!row) return unknownJob();
    const seen = await observations.find(tx, asked.observation);
    if (seen?.jobId !== id) return nothingToCorrect();
    const refusal = refuseClosed(row) ?? refuseUnless(who, 'record-readings');
    // The lamp is anybody's to note, and so to take back.
    if (refusal && !(seen.kind === 'lamp' && row.state === 'open')) return refusal;
    if (await observations.findTakenBack(tx, asked.observation)) return viewIn(tx, id);
    if (await observations.findCorrectionOf(tx, asked.observation)) return alreadyCorrected();
    await observations.addTakenBack(tx, id, asked.observation, { by: who.name, reason: asked.reason });
    return viewIn(tx, id);
  });
}
