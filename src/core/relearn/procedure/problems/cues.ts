import type { Issue } from '../../../result';
import type { Procedure } from '..';
import { canonicalCue } from '../legend';

/** A cue says one thing in one phase, and is listed once for it. */
export const cueProblems = ({ cues }: Procedure): Issue[] =>
  cues.flatMap((entry, at) => {
    const other = cues.find(
      (before, place) =>
        place < at &&
        canonicalCue(before.cue) === canonicalCue(entry.cue) &&
        (before.during === undefined || entry.during === undefined || before.during === entry.during),
    );
    if (!other) return [];
    const phase = entry.during ?? other.during;
    const where = phase ? ` during ${phase}` : '';
    return [
      {
        path: `cues.${at}`,
        message:
          other.means === entry.means
            ? `"${entry.cue}" stands twice with the meaning ${entry.means}${where}`
            : `"${entry.cue}" means ${other.means} and ${entry.means}${where}`,
      },
    ];
  });
