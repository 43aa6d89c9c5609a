import type { LegendCue, Procedure } from '.';

/** A procedure that was changed is one that nobody has checked yet. */
export function unchecked(procedure: Procedure): Procedure {
  const changed = { ...procedure };
  delete changed.checkedAt;
  return changed;
}

/** The next version: the same with a cue more that the car gives. */
export const withCue = (procedure: Procedure, cue: LegendCue): Procedure =>
  unchecked({ ...procedure, cues: [...procedure.cues, cue] });
