import { isDeepStrictEqual } from 'node:util';
import type { AnswerOf } from '../contract';
import type { Procedure } from '../core/relearn/procedure';
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
    (await procedures.listFlags(tx)).map(({ at, ...flag }) => ({ ...flag, at: at.toISOString() })),
  );

/** The latest version of one. */
export const findProcedure = (name: string): Promise<procedures.StoredProcedure | undefined> =>
  inTransaction((tx) => procedures.findProcedure(tx, name));

/**
 * Takes procedures in by name, all or none. One that is there already becomes a version more, unless nothing in it
 * changed; older versions stay. Problem: `not-allowed`.
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
      const known = await procedures.findProcedure(tx, procedure.name);
      if (known && isDeepStrictEqual(known.procedure, procedure)) continue;
      await procedures.addVersion(tx, (known?.version ?? 0) + 1, who.name, procedure);
    }
    return success(await procedures.listProcedures(tx));
  });
}
