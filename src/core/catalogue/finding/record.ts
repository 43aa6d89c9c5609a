import type { Test } from '../tests';
import type { Figure } from '../../measure/figure';
import type { WorkKind } from '../../names/kinds';

/** The parts of a car that can be at fault by themselves. */
export const partKinds = [
  'tire',
  'sensor',
  'id',
  'order',
  'receiver',
  'lamp',
  'rolling',
  'reference',
  'wheel-speed',
] as const;
export type PartKind = (typeof partKinds)[number];

/** One kind of finding with all its sides: to add a finding is to add one of these. */
export interface FindingRecord {
  /** What it is said of: the tire or the sensor of a wheel, what the car holds for a wheel, or the car as a whole. */
  scope: 'tire' | 'sensor' | 'position' | 'car';
  /** What it is called on the sheet. */
  title: string;
  /** What to do about it, one plain sentence. */
  action: string;
  /** What puts it right. `part`: a sensor or a module is bought for it. */
  remedy: 'air' | 'hands' | 'part' | 'write' | 'scan' | 'drive' | 'charger' | 'none';
  /**
   * Its remedy is a move of its own, before IDs are written or before the rest can be proved, named by what is done at
   * which wheels; missing: it is met on the way.
   */
  work?: { before: 'writing' | 'proof'; label: (at: string) => string };
  /** A state of the visit that blames nothing: it stands behind the others wherever a few are shown. */
  blamesNothing?: true;
  /** The cautions its work calls for. */
  caution?: 'wheel-work';
  /** The part that is at fault, so that its outcome can be confirmed; missing for what is measured. */
  part?: PartKind;
  /** It is true or not of one wheel, and the engine sums it with the states of that wheel's tire or sensor. */
  summedWith?: 'tire' | 'sensor';
  /**
   * How common it is before anything was seen: the share of wheels, or of cars, on a car that comes in with no
   * work done lately. Missing where it follows from readings alone.
   */
  prior?: Figure;
  /** Factors by which work done lately makes it likelier; they fade with the time since. */
  after?: Partial<Record<WorkKind, Figure>>;
  /**
   * Minutes of shop time (parts count as time) it costs to act on it wrongly, and to leave it: mostly a car that
   * comes back. Missing where it calls for nothing by itself.
   */
  stakes?: { wrong: Figure; missed: Figure };
  /** How often each test says yes where it is true, and where it is not. These rank tests, no more. */
  asked?: Partial<Record<Test, Answer>>;
}

export interface Answer {
  ifTrue: Figure;
  ifFalse: Figure;
}
