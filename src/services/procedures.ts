import { isDeepStrictEqual } from 'node:util';
import type { AnswerOf } from '../contract';
import { invalidInput, unknownFlag, unknownProcedure } from '../contract/refusals';
import { unchecked, withCue, type Procedure } from '../core/relearn/procedure';
import { problemsOf } from '../core/relearn/procedure/problems';
import { success, type Result } from '../core/result';
import { inTransaction } from '../data/database';
import * as procedures from '../data/procedures';
import { refuseUnless, type Person } from './people';

/** The relearn library: the latest version of each procedure. */
export const listProcedures = (): Promise<procedures.StoredProcedure[]> =>
  inTransaction(procedures.listProcedures);

/** What was found wrong with procedures at cars, the newest first. */
export const procedureFlags = (): Promise<AnswerOf<'procedureFlags'>> =>
  inTransaction(async (tx) =>
    (await procedures.listFlags(tx)).map(({ at, answer, ...flag }) => ({
      ...flag,
      at: at.toISOString(),
      ...(answer && { answer: { by: answer.by, at: answer.at.toISOString(), takenAs: answer.takenAs } }),
    })),
  );

/** The latest version of one. */
export const findProcedure = (name: string): Promise<procedures.StoredProcedure | undefined> =>
  inTransaction((tx) => procedures.findProcedure(tx, name));

/**
 * Takes procedures in by name, all or none. One that is there already becomes a version more, unless nothing in it
 * changed; older versions stay. A changed one that says it was checked when the last one was is unchecked.
 * Problem: `not-allowed`.
 */
export function saveProcedures(
  asked: readonly Procedure[],
  who: Person,
): Promise<Result<procedures.StoredProcedure[]>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    // In one order, so that two who take in the same names do not wait for each other.
    for (const procedure of [...asked].sort((a, b) => (a.name < b.name ? -1 : 1))) {
      await procedures.lockName(tx, procedure.name);
      const versions = await procedures.versionsOf(tx, procedure.name);
      const next = wasCheckedAs(procedure, versions) ? procedure : unchecked(procedure);
      if (isDeepStrictEqual(versions.at(-1), next)) continue;
      await procedures.addVersion(tx, versions.length + 1, who.name, next);
    }
    return success(await procedures.listProcedures(tx));
  });
}

/** Whether its check is its own: not the one of a version in which something else stood. */
const wasCheckedAs = (procedure: Procedure, versions: readonly Procedure[]): boolean =>
  versions.every(
    (before) =>
      before.checkedAt !== procedure.checkedAt || isDeepStrictEqual(unchecked(before), unchecked(procedure)),
  );

/**
 * Takes the cue that a flag proposes into the next version of its procedure, or leaves it. What was answered before stays
 * so. Problems: `not-allowed`, `unknown-flag`, `unknown-procedure`, `invalid-input` where the cue means another thing there already.
 */
export async function answerFlag(
  flagKey: string,
  { take }: { take: boolean },
  who: Person,
): Promise<Result<AnswerOf<'answerFlag'>>> {
  const done = await inTransaction(async (tx): Promise<Result<null>> => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const flag = await procedures.findFlag(tx, flagKey);
    if (!flag) return unknownFlag();
    await procedures.lockName(tx, flag.name);
    if (await procedures.findFlagAnswer(tx, flagKey)) return success(null);
    const known = await procedures.findProcedure(tx, flag.name);
    if (!known) return unknownProcedure();
    let takenAs: number | null = null;
    if (take && flag.proposes) {
      const next = withCue(known.procedure, flag.proposes);
      const problems = problemsOf(next, new Date());
      if (problems.length > 0) return invalidInput(problems);
      takenAs = known.version + 1;
      await procedures.addVersion(tx, takenAs, who.name, next);
    }
    await procedures.addFlagAnswer(tx, { flagKey, by: who.name, takenAs });
    return success(null);
  });
  return done.ok ? success(await procedureFlags()) : done;
}
