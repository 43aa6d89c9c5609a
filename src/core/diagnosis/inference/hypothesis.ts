import type { Alternatives, Factors } from './factors';
import type { CarEvidence, Evidence } from '../evidence';
import { type Assignment, type System, causeCount } from '../hypotheses';
import { mountedFactor } from '../likelihoods';
import type { BoundsRow, PlacedWheel } from './placed-wheel';
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
  /** No less than what all orders together make of its weight, but for the lamp. */
  size: number;
  /** Those that the lamp watches, as the scans are read. */
  wheels: readonly ReadWheel[];
  /** Of the wheels that the lamp does not watch. */
  tires: readonly Factor[];
}

/** By coupled wheel and position: no less than the weight of its factor. */
export const boundsOf = ({ wheels, system }: Hypothesis): (readonly number[])[] =>
  wheels.map((wheel) => wheel.row(system).byPosition);

/**
 * Every way the car can be, with one way to read the scans. `scales`: by wheel, about what it weighs, so that
 * products of many wheels stay in range; the first of all sets them.
 */
export function hypothesesOf(
  evidence: Evidence,
  factors: Factors,
  { coupled, free }: Watched,
  placed: Placed,
  assignment: Assignment,
  systems: readonly System[],
  scales: number[],
): Hypothesis[] {
  const wheels = coupled.map((place) => placed(place, assignment));
  return systems.map((system): Hypothesis => {
    const tires = free.map((place) => factors.ofTire(evidence, place, system));
    let size = 1;
    for (let at = 0; at < wheels.length; at += 1) {
      const most = wheels[at]?.row(system).most ?? 0;
      scales[coupled[at] ?? 0] ||= most;
      size *= most;
    }
    free.forEach((place, at) => (scales[place] ||= totalOfFactor(tires[at])));
    for (const tire of tires) size *= totalOfFactor(tire);
    return { assignment, system, weight: weightOf(assignment, system, scales), size, wheels, tires };
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
  placed: Placed,
  { assignments, systems }: Alternatives,
): BoundAssignment[] {
  const [only, ...more] = assignments;
  if (!only || more.length === 0) return assignments.map((assignment) => ({ assignment, logMost: 0 }));
  let ofCar = 0;
  for (const { weight } of systems) ofCar += weight;
  for (const place of free)
    ofCar *= Math.max(...systems.map((system) => totalOfFactor(factors.ofTire(evidence, place, system))));
  return assignments
    .map((assignment) => {
      const ofSet = Math.max(...systems.map((system) => mountedFactor(assignment.heard, system.mounted)));
      let logMost = Math.log(assignment.weight) + Math.log(ofCar) + Math.log(ofSet);
      for (const place of coupled) {
        logMost += Math.log(placed(place, assignment).most(systems));
      }
      return { assignment, logMost };
    })
    .sort((a, b) => b.logMost - a.logMost);
}

/** Prior and likelihood of a hypothesis, over the product of the scales. */
function weightOf(assignment: Assignment, system: System, scales: readonly number[]): number {
  let weight = assignment.weight * system.weight * mountedFactor(assignment.heard, system.mounted);
  for (const scale of scales) weight /= scale || 1;
  return weight;
}

/** The weight of all states of a wheel. */
export const totalOfFactor = (factor: Factor | undefined): number => factor?.[causeCount - 1] ?? 0;

/** A wheel that the lamp watches, with its scan read one way, wherever it may be placed. */
export interface ReadWheel {
  /** Its factor at a position. */
  factor: (at: number, system: System) => Factor;
  /** No less than the weight of its factor at each position. */
  row: (system: System) => BoundsRow;
  /** The same at any position, in any of these systems, wherever other wheels' IDs are held. */
  most: (systems: readonly System[]) => number;
}

/** The wheel at a place in the evidence, as an assignment reads its scan. */
export type Placed = (place: number, assignment: Assignment) => ReadWheel;

export function placedIn(evidence: Evidence, factors: Factors): Placed {
  if (evidence.context.job.vehicle.tpms.kind !== 'direct')
    return (place) => new TurningWheel(evidence, factors, place);
  // Of each wheel few replies are its own in any assignment.
  const known = evidence.wheels.map((): PlacedWheel[] => []);
  return (place, { own, elsewhere }) => {
    const reply = own[place] ?? 0;
    const ofWheel = known[place] ?? [];
    const wheel = (ofWheel[reply] ??= factors.wheel(evidence, place, reply));
    return new ScannedWheel(wheel, elsewhere[place] ?? 0, evidence.car.reception);
  };
}

/** With a sensor: one of its replies, or none, is taken as its own. */
class ScannedWheel implements ReadWheel {
  /** `elsewhere`: at which positions the ID that is held is another wheel's, a bit each. */
  constructor(
    private readonly wheel: PlacedWheel,
    private readonly elsewhere: number,
    private readonly reception: CarEvidence['reception'],
  ) {}

  factor(at: number, system: System): Factor {
    return this.wheel.factor(at, this.elsewhere, system, this.reception);
  }

  row(system: System): BoundsRow {
    return this.wheel.row(this.elsewhere, system);
  }

  most(systems: readonly System[]): number {
    return this.wheel.most(systems);
  }
}

/** Of an indirect system: it says how fast it turns, and stays where it is. */
class TurningWheel implements ReadWheel {
  constructor(
    private readonly evidence: Evidence,
    private readonly factors: Factors,
    private readonly place: number,
  ) {}

  factor(_at: number, system: System): Factor {
    return this.factors.ofTurning(this.evidence, this.place, system);
  }

  row(system: System): BoundsRow {
    const most = totalOfFactor(this.factor(0, system));
    return { byPosition: this.evidence.wheels.map(() => most), most };
  }

  most(systems: readonly System[]): number {
    return Math.max(...systems.map((system) => this.row(system).most));
  }
}
