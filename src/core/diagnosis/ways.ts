import type { Cells } from './cells';
import type { Evidence } from './evidence';
import { readingsOfScans, type Reading } from './own-ids';
import type { Priors } from './priors';
import type { Cell } from './sensor-sums';
import { causeCount, zeros, type Wanted } from './states';
import { systemsOf, type System } from './systems';

/** The wheels of the evidence, as places in it: those the lamp watches, and those it does not. */
export interface Watched {
  coupled: readonly number[];
  free: readonly number[];
}

/** One way the car can be with one way to read the scans. */
export interface Way {
  /** Its place among all ways: by reading, then by system. */
  number: number;
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
 * All ways, in the order of the readings and then of the systems, and by wheel the scale they are taken to:
 * about what a wheel weighs, so that products of many wheels stay in range.
 */
export function waysOf(
  evidence: Evidence,
  cells: Cells,
  { coupled, free }: Watched,
  { readings, systems }: Alternatives,
): { ways: Way[]; scales: number[] } {
  const scales = zeros(evidence.wheels.length);
  const ways = readings.flatMap((reading, readingAt) =>
    systems.map((system, systemAt): Way => {
      const number = readingAt * systems.length + systemAt;
      const tires = free.map((place) => cells.ofTire(evidence, place, system));
      const most = coupled.map((_, wheel) =>
        coupled.map((_, at) => mostAt({ reading, system }, { evidence, cells, coupled, free }, wheel, at)),
      );
      coupled.forEach((place, at) => (scales[place] ||= Math.max(...(most[at] ?? []))));
      free.forEach((place, at) => (scales[place] ||= totalOfCell(tires[at])));
      let size = 1;
      for (const row of most) size *= Math.max(...row);
      for (const tire of tires) size *= totalOfCell(tire);
      return { number, reading, system, weight: weightOf(reading, system, scales), most, size, tires };
    }),
  );
  return { ways, scales };
}

/** Prior and likelihood of a way, over the product of the scales. */
export function weightOf(reading: Reading, system: System, scales: readonly number[]): number {
  let weight = reading.weight * system.weight;
  for (const scale of scales) weight /= scale || 1;
  return weight;
}

/** The weight of all states of a wheel. */
export const totalOfCell = (cell: Cell | undefined): number => cell?.[causeCount - 1] ?? 0;

/** No less than the weight of the cell of a wheel at a position. */
export function mostAt(
  { reading, system }: Pick<Way, 'reading' | 'system'>,
  { evidence, cells, coupled }: { evidence: Evidence; cells: Cells } & Watched,
  wheel: number,
  at: number,
): number {
  const place = coupled[wheel] ?? 0;
  const position = evidence.positions[at];
  return evidence.context.job.vehicle.tpms.kind === 'direct' && position
    ? cells.mostAt({ evidence, place, position, reading, system })
    : totalOfCell(cells.ofTurning(evidence, place, system));
}

/** The cell of a wheel at a position of the car, both by their place among those the lamp watches. */
export function cellOf(
  { reading, system }: Pick<Way, 'reading' | 'system'>,
  { evidence, cells, coupled, wanted }: { evidence: Evidence; cells: Cells; wanted: Wanted } & Watched,
  wheel: number,
  at: number,
): Cell {
  const place = coupled[wheel] ?? 0;
  const position = evidence.positions[at];
  return evidence.context.job.vehicle.tpms.kind === 'direct' && position
    ? cells.ofSensor({ evidence, place, position, reading, system }, wanted)
    : cells.ofTurning(evidence, place, system);
}
