import type { Position } from '../../names/wheel';
import type { WheelSet } from '.';

/** Which wheel goes where next, so that tires wear alike. */

/** How a car and its tires let wheels change place. */
export interface Rotatable {
  /** The axle the engine drives. */
  drive: 'front' | 'rear' | 'all';
  /** Tires that must turn one way only. */
  directional: boolean;
  /** Other sizes in front than in the rear. */
  staggered: boolean;
}

/** From each position to the next. */
type RotationPlan = Partial<Record<Position, Position>>;

/**
 * Common practice: wheels of the driven axle go straight to the other, those of the other cross over. Directional tires
 * stay on their side; other sizes on their axle; both together stay where they are.
 */
export function rotationPlan({ drive, directional, staggered }: Rotatable): RotationPlan {
  if (directional && staggered) return {};
  if (directional) return { LF: 'LR', LR: 'LF', RF: 'RR', RR: 'RF' };
  if (staggered) return { LF: 'RF', RF: 'LF', LR: 'RR', RR: 'LR' };
  return drive === 'front'
    ? { LF: 'LR', RF: 'RR', LR: 'RF', RR: 'LF' }
    : { LR: 'LF', RR: 'RF', LF: 'RR', RF: 'LR' };
}

/** Treads that differ by no more wear alike, mm (judgement: gauges of tread are read to half a millimetre). */
const alikeMm = 1;

/** Whether treads that differ by so much, mm, wear alike: nothing is won by changing their places. */
export const wearsAlike = (differenceMm: number): boolean => Math.abs(differenceMm) <= alikeMm;

/** By how much the treads of the axles differ, mm, deepest in front positive; undefined where too few were measured. */
export function wearAcrossAxles({ wheels }: Pick<WheelSet, 'wheels'>): number | undefined {
  const mean = (positions: readonly Position[]) => {
    const treads = wheels.flatMap(({ wheel, treadMm }) =>
      wheel && positions.includes(wheel) && treadMm !== null ? [treadMm] : [],
    );
    return treads.length === positions.length
      ? treads.reduce((sum, tread) => sum + tread, 0) / treads.length
      : undefined;
  };
  const [front, rear] = [mean(['LF', 'RF']), mean(['RR', 'LR'])];
  return front === undefined || rear === undefined ? undefined : front - rear;
}

/** The set as it stands once its wheels went to their next places. */
export const rotated = (set: WheelSet, plan: RotationPlan): WheelSet => ({
  ...set,
  wheels: set.wheels.map((one) => ({ ...one, wheel: one.wheel && (plan[one.wheel] ?? one.wheel) })),
});
