import type { Finding } from '../judgement/assessment';
import type { Position } from '../names/wheel';
import type { Test } from '../catalogue/tests';

/** The one thing to do next. */
export type Move =
  /** `asked`: what is wrong with what was typed. */
  | { kind: 'placard'; asked?: string }
  | { kind: 'gauge'; wheel: Position; again: boolean; asked?: string }
  | { kind: 'fill'; wheel: Position; addKPa: number }
  | { kind: 'wake'; wheel: Position; tries: number }
  | { kind: 'read-car' }
  | { kind: 'support-supply'; how: string }
  | { kind: 'write-ids' }
  | { kind: 'read-back' }
  /** `tries`: how often it was done already, and the codes came back. */
  | { kind: 'clear-codes'; tries: number }
  /** `tries`: drives after which the car did not hear every wheel. */
  | { kind: 'drive'; tries: number }
  | { kind: 'look-at-lamp' }
  /** A look at a wheel: tread, sidewall, stem. */
  | { kind: 'look'; wheel: Position }
  /** Another check, done by hand and written down: what the display shows, a logged drive … */
  | { kind: 'check'; test: CheckedByHand; wheel?: Position }
  /** What was chosen to be replaced: programmed, and fitted by the list. */
  | { kind: 'program'; wheel: Position }
  | { kind: 'service'; wheel: Position }
  /** The car is taught by a way that needs no lead, or by another one where writing failed. */
  | { kind: 'relearn'; failed: number }
  /** What was seen of a tire, and what it turned out to be. */
  | { kind: 'explain'; wheel: Position }
  | { kind: 'act'; finding: Finding }
  | { kind: 'hand-over' }
  | { kind: 'done' };

/** Tests whose result somebody types in. */
export const checkedByHand = [
  'display',
  'reception',
  'shift',
  'wheelspeed',
  'baseline',
] as const satisfies readonly Test[];
export type CheckedByHand = (typeof checkedByHand)[number];
