import { kindsOf } from './bounds';
import type { Factors } from './factors';
import type { Evidence } from '../evidence';
import { type Assignment, type System, causeCount, assignmentsOf, systemsOf, zeros } from '../hypotheses';
import type { Priors } from '../learning';
import { isElsewhere } from './placing';
import type { Factor } from './sensor-sums';

/** The wheels of the evidence, as places in it: those the lamp watches, and those it does not. */
export interface Watched {
  coupled: readonly number[];
  free: readonly number[];
}

/** One way the car can be with one way to read the scans. */
export interface Hypothesis {
  assignment: Assignment;
  system: System;
  /** Prior and likelihood of these, over the product of the scales. */
  weight: number;
  /** By coupled wheel and position: no less than the weight of its factor. */
  most: readonly (readonly number[])[];
  /** No less than what all orders together make of its weight, but for the lamp. */
  size: number;
  /** Of the wheels that the lamp does not watch. */
  tires: readonly Factor[];
}

/** Every way to read the scans, and every way the car can be. */
export interface Alternatives {
  assignments: readonly Assignment[];
  systems: readonly System[];
}

export function alternativesOf(evidence: Evidence, priors: Priors): Alternatives {
  const direct = evidence.context.job.vehicle.tpms.kind === 'direct';
  return {
    assignments: direct ? assignmentsOf(evidence, priors) : [heardNothing(evidence.wheels.length)],
    systems: systemsOf(evidence, priors),
  };
}

const heardNothing = (count: number): Assignment => ({
  own: Array.from({ length: count }, () => undefined),
  weight: 1,
  misheard: Array.from({ length: count }, () => false),
  twin: Array.from({ length: count }, () => false),
});

/**
 * Every way the car can be, with one way to read the scans. `scales`: by wheel, about what it weighs, so that
 * products of many wheels stay in range; the first of all sets them.
 */
export function hypothesesOf(
  evidence: Evidence,
  factors: Factors,
  { coupled, free }: Watched,
  assignment: Assignment,
  systems: readonly System[],
  scales: number[],
): Hypothesis[] {
  const rowOf = rowsOf(evidence, factors, coupled, assignment);
  return systems.map((system): Hypothesis => {
    const tires = free.map((place) => factors.ofTire(evidence, place, system));
    const most = coupled.map((_, at) => rowOf(at, system));
    coupled.forEach((place, at) => (scales[place] ||= Math.max(...(most[at] ?? []))));
    free.forEach((place, at) => (scales[place] ||= totalOfFactor(tires[at])));
    let size = 1;
    for (const row of most) size *= Math.max(...row);
    for (const tire of tires) size *= totalOfFactor(tire);
    return { assignment, system, weight: weightOf(assignment, system, scales), most, size, tires };
  });
}

/** A way to read the scans, and the logarithm of no less than what it adds up to in all systems together. */
export interface BoundAssignment {
  assignment: Assignment;
  logMost: number;
}

/** The ways to read the scans, the one that may weigh most first. */
export function weightiestFirst(
  evidence: Evidence,
  factors: Factors,
  { coupled, free }: Watched,
  { assignments, systems }: Alternatives,
): BoundAssignment[] {
  const [only, ...more] = assignments;
  if (!only || more.length === 0) return assignments.map((assignment) => ({ assignment, logMost: 0 }));
  let ofCar = 0;
  for (const { weight } of systems) ofCar += weight;
  for (const place of free)
    ofCar *= Math.max(...systems.map((system) => totalOfFactor(factors.ofTire(evidence, place, system))));
  // Of each wheel few replies are its own in any assignment.
  const kinds = kindsOf(systems);
  const ofWheel = coupled.map((place) => {
    const known = new Map<Assignment['own'][number], number>();
    return (own: Assignment['own'][number]) => {
      let most = known.get(own);
      if (most === undefined)
        known.set(own, (most = Math.log(factors.boundsOf(evidence, place, own).most(kinds))));
      return most;
    };
  });
  return assignments
    .map((assignment) => ({
      assignment,
      logMost: coupled.reduce(
        (sum, place, at) => sum + (ofWheel[at]?.(assignment.own[place]) ?? 0),
        Math.log(assignment.weight) + Math.log(ofCar),
      ),
    }))
    .sort((a, b) => b.logMost - a.logMost);
}

/** Prior and likelihood of a hypothesis, over the product of the scales. */
function weightOf(assignment: Assignment, system: System, scales: readonly number[]): number {
  let weight = assignment.weight * system.weight;
  for (const scale of scales) weight /= scale || 1;
  return weight;
}

/** The weight of all states of a wheel. */
export const totalOfFactor = (factor: Factor | undefined): number => factor?.[causeCount - 1] ?? 0;

/** Of a coupled wheel in a system: by position, no less than the weight of its factor there. */
function rowsOf(
  evidence: Evidence,
  factors: Factors,
  coupled: readonly number[],
  assignment: Assignment,
): (wheel: number, system: System) => readonly number[] {
  if (evidence.context.job.vehicle.tpms.kind !== 'direct')
    return (wheel, system) =>
      zeros(coupled.length).fill(totalOfFactor(factors.ofTurning(evidence, coupled[wheel] ?? 0, system)));
  const bounds = coupled.map((place) => factors.boundsOf(evidence, place, assignment.own[place]));
  const elsewhere = coupled.map((place) =>
    evidence.positions.map(({ held }) => isElsewhere(held, place, assignment)),
  );
  return (wheel, system) => bounds[wheel]?.row(elsewhere[wheel] ?? [], system) ?? [];
}

/** The factor of a wheel at a position of the car, both by their place among those the lamp watches. */
export function factorAt(
  { assignment, system }: Pick<Hypothesis, 'assignment' | 'system'>,
  { evidence, factors, coupled }: { evidence: Evidence; factors: Factors } & Watched,
  wheel: number,
  at: number,
): Factor {
  const place = coupled[wheel] ?? 0;
  const position = evidence.positions[at];
  return evidence.context.job.vehicle.tpms.kind === 'direct' && position
    ? factors.ofSensor({ evidence, place, position, assignment, system })
    : factors.ofTurning(evidence, place, system);
}
