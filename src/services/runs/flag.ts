import { keyInUse, unknownRun } from '../../contract/refusals';
import type { LegendCue } from '../../core/relearn/procedure';
import { stepWords } from '../../core/relearn/procedure/words';
import { openStep, phaseOf, replay, timePasses } from '../../core/relearn/run';
import { stateWords } from '../../core/relearn/run/words';
import { success, type Result } from '../../core/result';
import { inTransaction } from '../../data/database';
import { addFlag, findFlag } from '../../data/procedures';
import * as runs from '../../data/runs';
import { refuseUnless, type Person } from '../people';
import { secondsSince } from './view';

/**
 * Says that a procedure is wrong for the car it was followed at, with what the car did instead; where in it follows from
 * the run. The same key again changes nothing. Problems: `not-allowed`, `unknown-run`, `key-in-use`.
 */
export function flagProcedure(
  runKey: string,
  { key, instead, proposes }: { key: string; instead: string; proposes?: LegendCue | undefined },
  who: Person,
): Promise<Result<null>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'record-readings');
    if (refusal) return refusal;
    const there = await findFlag(tx, key);
    if (there) return there.runKey === runKey ? success(null) : keyInUse();
    const row = await runs.findRun(tx, runKey);
    if (!row) return unknownRun();
    const { procedure, events } = runs.recordOf(row, await runs.eventsOfRun(tx, runKey));
    const run = timePasses(procedure, replay(procedure, events), secondsSince(row.startedAt));
    const phase = phaseOf(run);
    const open = openStep(procedure, run);
    await addFlag(tx, {
      key,
      name: procedure.name,
      version: typeof procedure.version === 'number' ? procedure.version : null,
      runKey,
      by: who.name,
      step: phase && open ? stepWords(procedure, phase, open) : stateWords[run.state],
      instead,
      proposes: proposes ?? null,
    });
    return success(null);
  });
}
