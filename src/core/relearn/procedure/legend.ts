import type { CueMeaning, Phase, Procedure } from '.';

/** A cue as it is compared: without regard to case and to how many blanks stand in it. */
export const canonicalCue = (cue: string): string => cue.trim().replace(/\s+/g, ' ').toLowerCase();

/** What a cue means on this car in this phase; undefined: nothing that is known. Outside the phases only what holds in every one. */
export function meaningOf(
  { cues }: Pick<Procedure, 'cues'>,
  cue: string,
  phase: Phase | undefined,
): CueMeaning | undefined {
  const asked = canonicalCue(cue);
  return cues.find(
    (entry) => canonicalCue(entry.cue) === asked && (entry.during === undefined || entry.during === phase),
  )?.means;
}

/** The cues that can be heard in a phase, each with what it means. */
export const legendOf = (
  { cues }: Pick<Procedure, 'cues'>,
  phase: Phase | undefined,
): { cue: string; means: CueMeaning }[] =>
  cues
    .filter(({ during }) => during === undefined || during === phase)
    .map(({ cue, means }) => ({ cue, means }));
