import type { Issue } from '../../../result';
import { issuesOf } from '../../../result/issues';
import { phases, type Procedure } from '..';
import { procedureSchema } from '../schema';
import { cueProblems } from './cues';
import { keyProblems } from './keys';
import { stepProblems } from './steps';
import { methodProblems, overallProblems } from './whole';

/**
 * A procedure that is well formed and makes sense. `now` says when it is read: nobody has checked one on a day to come.
 */
export const sensibleProcedureSchema = (now: () => Date) =>
  procedureSchema.superRefine((procedure, context) => {
    for (const { path, message } of problemsOf(procedure, now()))
      context.addIssue({ code: 'custom', path: path.split('.'), message });
  });

/** A procedure, or everything that keeps a document from being one, each with its dotted path. */
export type Reading = { ok: true; procedure: Procedure } | { ok: false; issues: Issue[] };

export function readProcedure(document: unknown, now: Date): Reading {
  const parsed = sensibleProcedureSchema(() => now).safeParse(document);
  return parsed.success
    ? { ok: true, procedure: parsed.data }
    : { ok: false, issues: issuesOf(parsed.error) };
}

/** What makes no sense in a procedure that is well formed: one issue per problem. */
export function problemsOf(procedure: Procedure, now: Date): Issue[] {
  return [
    ...keyProblems(procedure),
    ...overallProblems(procedure, now),
    ...methodProblems(procedure),
    ...phases.flatMap((phase) =>
      procedure[phase].flatMap((step, at) =>
        stepProblems(procedure, phase, step).map(({ path, message }) => ({
          path: [phase, at, path].filter((part) => part !== '').join('.'),
          message,
        })),
      ),
    ),
    ...cueProblems(procedure),
  ];
}
