import { closest } from 'fastest-levenshtein';
import type { Issue } from '../../../result';
import { phases, type Procedure } from '..';
import { cueSchema, forSchema, limitsSchema, procedureSchema, stepSchemas } from '../schema';

/** A key that a procedure does not have is a slip of the pen, and what it was to say would be lost without a word. */
export function keyProblems(procedure: Procedure): Issue[] {
  return [
    ...unknownIn('', procedure, procedureSchema),
    ...unknownIn('for', procedure.for, forSchema),
    ...unknownIn('limits', procedure.limits, limitsSchema),
    ...phases.flatMap((phase) =>
      procedure[phase].flatMap((step, at) => unknownIn(`${phase}.${at}`, step, stepSchemas[step.do])),
    ),
    ...procedure.cues.flatMap((cue, at) => unknownIn(`cues.${at}`, cue, cueSchema)),
  ];
}

const unknownIn = (path: string, written: object, { shape }: { shape: object }): Issue[] => {
  const known = Object.keys(shape);
  return Object.keys(written)
    .filter((key) => !known.includes(key))
    .map((key) => ({
      path: path === '' ? key : `${path}.${key}`,
      message: `there is no such key here: did you mean ${closest(key, known)}?`,
    }));
};
