import type { Cells } from './factors';
import type { Evidence } from '../evidence';
import { readingsOfScans, type Reading } from '../hypotheses/assignment';
import type { Priors } from '../learning/priors';
import type { Cell } from './sensor-sums';
import { causeCount, zeros } from '../hypotheses/wheel-state';
import { systemsOf, type System } from '../hypotheses/system';

/** The wheels of the evidence, as places in it: those the lamp watches, and those it does not. */
export interface Watched {
  coupled: readonly number[];
  free: readonly number[];
}

/** One way the car can be with one way to read the scans. */
export interface Way {
  reading: Reading;
  system: System;
  /** Prior and likelihood of these, over the product of the scales. */
  weight: number;
  /** By coupled wheel and position: no less than the weight of its cell. */
  most: readonly (readonly number[])[];
  /** No less than what all orders together make of its weight, but for the lamp. */
  size: number;
  /** Of the wheels that the lamp does not watch. */
  tires: readonly Cell[];
}

/** Every way to read the scans, and every way the car can be. */
export interface Alternatives {
  readings: readonly Reading[];
  systems: readonly System[];
}

export function alternativesOf(evidence: Evidence, priors: Priors): Alternatives {
  const direct = evidence.context.job.vehicle.tpms.kind === 'direct';
  return {
    readings: direct ? readingsOfScans(evidence, priors) : [heardNothing(evidence.wheels.length)],
    systems: systemsOf(evidence, priors),
  };
}

const heardNothing = (count: number): Reading => ({
  own: Array.from({ length: count }, () => undefined),
  weight: 1,
  misheard: Array.from({ length: count }, () => false),
  twin: Array.from({ length: count }, () => false),
});

/**
 * Every way the car can be, with one way to read the scans. `scales`: by wheel, about what it weighs, so that
 * products of many wheels stay in range; the first way of all sets them.
 */
export function waysOf(
  evidence: Evidence,
  cells: Cells,
  { coupled, free }: Watched,
  reading: Reading,
  systems: readonly System[],
  scales: number[],
): Way[] {
  return systems.map((system): Way => {
    const tires = free.map((place) => cells.ofTire(evidence, place, system));
    const most = coupled.map((place) => mostInRow(evidence, cells, place, coupled.length, reading, system));
    coupled.forEach((place, at) => (scales[place] ||= Math.max(...(most[at] ?? []))));
    free.forEach((place, at) => (scales[place] ||= totalOfCell(tires[at])));
    let size = 1;
    for (const row of most) size *= Math.max(...row);
    for (const tire of tires) size *= totalOfCell(tire);
    return { reading, system, weight: weightOf(reading, system, scales), most, size, tires };
  });
}

/** A way to read the scans, and the logarithm of no less than what it adds up to in all systems together. */
export interface BoundReading {
  reading: Reading;
  logMost: number;
}

/** The ways to read the scans, the one that may weigh most first. */
export function weightiestFirst(
  evidence: Evidence,
  cells: Cells,
  { coupled, free }: Watched,
  { readings, systems }: Alternatives,
): BoundReading[] {
  const [only, ...more] = readings;
  if (!only || more.length === 0) return readings.map((reading) => ({ reading, logMost: 0 }));
  let ofCar = 0;
  for (const { weight } of systems) ofCar += weight;
  for (const place of free)
    ofCar *= Math.max(...systems.map((system) => totalOfCell(cells.ofTire(evidence, place, system))));
  // Of each wheel few replies are its own in any reading.
  const kinds = distinctBy(systems, ({ cooled, receiverFault, pending, otherSetNumber }) =>
    [cooled, receiverFault || pending, otherSetNumber].join(),
  );
  const ofWheel = coupled.map((place) => {
    const known = new Map<Reading['own'][number], number>();
    return (own: Reading['own'][number]) => {
      let most = known.get(own);
      if (most === undefined) known.set(own, (most = Math.log(cells.mostOf(evidence, place, own, kinds))));
      return most;
    };
  });
  return readings
    .map((reading) => ({
      reading,
      logMost: coupled.reduce(
        (sum, place, at) => sum + (ofWheel[at]?.(reading.own[place]) ?? 0),
        Math.log(reading.weight) + Math.log(ofCar),
      ),
    }))
    .sort((a, b) => b.logMost - a.logMost);
}

function distinctBy<Item>(items: readonly Item[], name: (item: Item) => string): Item[] {
  return [...new Map(items.map((item) => [name(item), item])).values()];
}

/** Prior and likelihood of a way, over the product of the scales. */
function weightOf(reading: Reading, system: System, scales: readonly number[]): number {
  let weight = reading.weight * system.weight;
  for (const scale of scales) weight /= scale || 1;
  return weight;
}

/** The weight of all states of a wheel. */
export const totalOfCell = (cell: Cell | undefined): number => cell?.[causeCount - 1] ?? 0;

/** By position, no less than the weight of the cell of a wheel there. */
function mostInRow(
  evidence: Evidence,
  cells: Cells,
  place: number,
  size: number,
  reading: Reading,
  system: System,
): readonly number[] {
  return evidence.context.job.vehicle.tpms.kind === 'direct'
    ? cells.mostInRow(evidence, place, reading, system)
    : zeros(size).fill(totalOfCell(cells.ofTurning(evidence, place, system)));
}

/** The cell of a wheel at a position of the car, both by their place among those the lamp watches. */
export function cellOf(
  { reading, system }: Pick<Way, 'reading' | 'system'>,
  { evidence, cells, coupled }: { evidence: Evidence; cells: Cells } & Watched,
  wheel: number,
  at: number,
): Cell {
  const place = coupled[wheel] ?? 0;
  const position = evidence.positions[at];
  return evidence.context.job.vehicle.tpms.kind === 'direct' && position
    ? cells.ofSensor({ evidence, place, position, reading, system })
    : cells.ofTurning(evidence, place, system);
}
