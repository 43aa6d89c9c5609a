import { targetFor } from '../filling';
import { readingAt } from '../gauge';
import type { Job, Seen } from '../../job';
import { linesAt } from '../thresholds/lines';
import { isSpareAt } from '../../job/spare';
import type { Position } from '../../names/wheel';

/**
 * Where a gauge reading puts its tire: at or under the figure that lights the lamp, short of its placard, at it, over it,
 * or so far over that it is a finding.
 */
export type Standing = 'low' | 'short' | 'good' | 'over' | 'too-high';

/**
 * The one answer to "is this tire right?", by which cell, findings and advice go. Undefined of a warm tire of which
 * nobody knows how warm, unless even warm it would light the lamp; and where the placard is not known.
 */
export function standingOf(job: Job, wheel: Position, reading: Seen<'gauge'>): Standing | undefined {
  const { low, short, over } = linesAt(job, wheel);
  const kPa = outdoorKPa(job, reading);
  if ((kPa ?? reading.kPa) <= low) return 'low';
  const { advice } = targetFor(job, wheel, reading) ?? {};
  if (kPa === undefined || advice === undefined) return undefined;
  if (kPa > over && !isSpareAt(job, wheel)) return 'too-high';
  switch (advice) {
    case 'add':
      // Short of what the coldest hour wants is not short of the placard of now.
      return kPa <= short ? 'short' : 'good';
    case 'leave':
      return 'good';
    case 'let-out':
    case 'let-cool':
      return 'over';
  }
}

/** A reading at the outdoor temperature; a cold one as it was read where that is not known, a warm one not at all. */
export function outdoorKPa(job: Job, reading: Seen<'gauge'>): number | undefined {
  const nowC = job.climate?.nowC;
  const brought = nowC === undefined ? undefined : readingAt(job, reading, nowC);
  return brought ?? (reading.tire === 'cold' ? reading.kPa : undefined);
}
