import type { RepairOutcome } from '../../job/repair-outcome';
import { partName, samePart } from '../../job/repair-outcome';
import type { Seen } from '../../job';

/** A car that was in the shop again soon after it was handed over, and why. */

/** So soon, days, that the first visit is asked about (common practice of shops). */
export const comebackDays = 30;

export interface ReturnFacts {
  first: { jobId: string; number: number; handedOverAt: string; by: string; unproved: string | null };
  second: { jobId: string; number: number; openedAt: string; complaint: string | null };
  label: string;
  plate: string;
  /** It was asked to come again, or its follow-up was written down. */
  planned: boolean;
  /** How its lamp was when it came again; null: nobody looked. */
  lamp: Seen<'lamp'>['state'] | null;
  /** What parts turned out to be, then and now. */
  turnedOutFirst: RepairOutcome[];
  turnedOutSecond: RepairOutcome[];
}

/** What brought it back. Only some of it is a comeback. */
export type Why =
  | { why: 'same-part'; part: string }
  | { why: 'left-unproved'; reason: string }
  | { why: 'other-part'; part: string }
  | { why: 'lamp-on' }
  | { why: 'planned' }
  | { why: 'lamp-off' }
  | { why: 'not-seen' };

/** Whether the first visit did not do what the car came for: by what was seen, not by what may be. */
export const isComeback = ({ why }: Why): boolean =>
  why === 'same-part' || why === 'left-unproved' || why === 'other-part' || why === 'lamp-on';

/** By what says most: a part in hand, then what the first visit left open, then the lamp. */
export function whyBack({ first, planned, lamp, turnedOutFirst, turnedOutSecond }: ReturnFacts): Why {
  if (planned) return { why: 'planned' };
  const faults = turnedOutSecond.filter(({ was }) => was !== 'in-order');
  const same = faults.find((fault) =>
    turnedOutFirst.some((before) => before.was !== 'in-order' && samePart(before, fault)),
  );
  if (same) return { why: 'same-part', part: partName(same) };
  if (first.unproved !== null) return { why: 'left-unproved', reason: first.unproved };
  const [other] = faults;
  if (other) return { why: 'other-part', part: partName(other) };
  if (lamp === null) return { why: 'not-seen' };
  return lamp === 'off' ? { why: 'lamp-off' } : { why: 'lamp-on' };
}

export function whyWords(back: Why): string {
  switch (back.why) {
    case 'same-part':
      return `same part at fault again: ${back.part}`;
    case 'left-unproved':
      return `was handed over not proved: ${back.reason}`;
    case 'other-part':
      return `another part at fault: ${back.part}`;
    case 'lamp-on':
      return 'lamp on again, not said what it was';
    case 'planned':
      return 'was asked to come';
    case 'lamp-off':
      return 'lamp off, other work';
    case 'not-seen':
      return 'nobody looked at the lamp';
  }
}
