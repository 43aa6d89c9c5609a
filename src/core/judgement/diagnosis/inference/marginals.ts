import { wheelFindings } from '../../../catalogue/finding';
import { everyWheel, overOrders, type Orders } from './orders';
import type { Priors } from '../learning';
import type { Factor } from './sensor-sums';
import { type Assignment, type System, causeCount, causeIndex, rows, soundRow, zeros } from '../hypotheses';
import type { LampLikelihood } from '../likelihoods';

/** What may be true of the car as a whole. */
export type CarFact =
  | 'receiverFault'
  | 'pending'
  | 'otherSet'
  | 'baselineNotSet'
  | 'wheelSpeedFault'
  | 'lampDark'
  /** All road tires went with the temperature. */
  | 'cooled'
  /** Nothing at all is the matter. */
  | 'sound';

/** Weights added up over all hypotheses; a chance is one of them over `all`. */
export interface Sum {
  all: number;
  /** By row of the factors, then by wheel. */
  rows: number[];
  misheard: number[];
  twin: number[];
  byMap: number[];
  car: Record<CarFact, number>;
}

export const emptySum = (wheels: number, permutations: number): Sum => ({
  all: 0,
  rows: zeros(rows * wheels),
  misheard: zeros(wheels),
  twin: zeros(wheels),
  byMap: zeros(permutations),
  car: {
    receiverFault: 0,
    pending: 0,
    otherSet: 0,
    baselineNotSet: 0,
    wheelSpeedFault: 0,
    lampDark: 0,
    cooled: 0,
    sound: 0,
  },
});

/** One way the car can be with one way to read the scans. */
interface Hypothesis {
  assignment: Assignment;
  system: System;
  /** Prior and likelihood of these, over the product of the scales. */
  weight: number;
  /** Of the wheels that the lamp watches. */
  orders: Orders;
  /** Of the others. */
  tires: readonly Factor[];
}

/** What is the same for all hypotheses. Wheels are places in the evidence. */
export interface Car {
  /** Those that the lamp watches, and those it does not. */
  coupled: readonly number[];
  free: readonly number[];
  lamp: LampLikelihood;
  priors: Priors;
}

/** The weight of all states of a wheel. */
export const totalOf = (factor: Factor | undefined): number => factor?.[causeCount - 1] ?? 0;

/** Adds up what one hypothesis comes to over these orders of the wheels. */
export function tally(sum: Sum, hypothesis: Hypothesis, car: Car): void {
  const { weight, assignment, system, orders, tires } = hypothesis;
  const { free, lamp, priors } = car;
  const tireTotal = weight * inRow(tires, 0);
  const steps = lampSteps(lamp, system, priors);
  const noneLow = lampSteps(lamp, system, priors, causeIndex.intermittent);
  const around = overOrders(orders, steps, noneLow);
  const here = tireTotal * around.all;
  sum.all += here;
  // Of wheels whose IDs the car does not hold none is at another position than it has them.
  if (holdsOwn(system)) {
    around.byMap.forEach((amount, at) => {
      const order = orders.permutations[at]?.order ?? 0;
      sum.byMap[order] = (sum.byMap[order] ?? 0) + tireTotal * amount;
    });
  }
  addRows(sum, orders.grid, car, steps, noneLow, around.others, tireTotal);
  const wheels = car.coupled.length + free.length;
  free.forEach((place, at) => {
    const tire = tires[at];
    const total = totalOf(tire);
    for (let row = 0; row < rows; row += 1) {
      const share =
        row === latchRow || total === 0 ? 0 : (tire?.[row * causeCount + causeCount - 1] ?? 0) / total;
      sum.rows[row * wheels + place] = (sum.rows[row * wheels + place] ?? 0) + here * share;
    }
  });
  assignment.misheard.forEach((is, place) => is && (sum.misheard[place] = (sum.misheard[place] ?? 0) + here));
  assignment.twin.forEach((is, place) => is && (sum.twin[place] = (sum.twin[place] ?? 0) + here));
  const facts = sum.car;
  if (system.receiverFault) facts.receiverFault += here;
  if (system.pending) facts.pending += here;
  if (system.otherSet) facts.otherSet += here;
  if (system.baselineNotSet) facts.baselineNotSet += here;
  if (system.wheelSpeedFault) facts.wheelSpeedFault += here;
  facts.lampDark += tireTotal * priors.of['system-disabled'] * lamp.dark * around.unlit;
  if (system.cooled)
    // The spare need not have gone with the cold.
    facts.cooled +=
      (orders.grid.length > 0 ? tireTotal : weight * inRow(tires, cooledRow)) *
      everyWheel(orders, cooledRow, steps, 'all');
  if (isUsual(system) && !assignment.misheard.includes(true)) {
    // With the lamp itself in order.
    const lit = lampSteps({ ...lamp, dark: 0 }, system, priors);
    facts.sound += weight * inRow(tires, soundRow) * everyWheel(orders, soundRow, lit, 'in-place');
  }
}

/** The weight of all these tires being in a row. */
const inRow = (tires: readonly Factor[], row: number): number =>
  tires.reduce((product, tire) => product * (tire[row * causeCount + causeCount - 1] ?? 0), 1);

const latchRow = wheelFindings.indexOf('lamp-latched') + 1;
const cooledRow = wheelFindings.indexOf('temperature-drop') + 1;

/** The IDs the car holds are those of the wheels on it. */
const holdsOwn = ({ otherSet, set }: System): boolean =>
  !otherSet && (set === 'own' || set === 'own-unheard');

const isUsual = (system: System): boolean =>
  !system.receiverFault &&
  !system.pending &&
  holdsOwn(system) &&
  !system.baselineNotSet &&
  !system.wheelSpeedFault;

/** The weight of every finding at every wheel that the lamp watches. */
function addRows(
  sum: Sum,
  grid: Orders['grid'],
  { coupled, free }: Car,
  steps: number[],
  noneLow: number[],
  others: number[],
  tireTotal: number,
): void {
  const size = grid.length;
  const wheels = size + free.length;
  grid.forEach((factors, wheel) => {
    const place = coupled[wheel] ?? 0;
    factors.forEach((factor, at) => {
      for (let cause = 0; factor && cause < causeCount; cause += 1) {
        const other = tireTotal * (others[(cause * size + wheel) * size + at] ?? 0);
        if (other === 0) continue;
        for (let row = 1; row <= wheelFindings.length; row += 1) {
          const amount = factor[row * causeCount + cause] ?? 0;
          if (amount === 0) continue;
          // A tire between the lamp's two figures holds it only where none is low.
          const step = (row === latchRow ? noneLow : steps)[cause] ?? 0;
          sum.rows[row * wheels + place] = (sum.rows[row * wheels + place] ?? 0) + step * amount * other;
        }
      }
    });
  });
}

/**
 * The lamp's likelihood as steps between causes: the likelihood of "the worst is k", summed by parts, is a
 * sum over "all are k or less". With `worst`, of those orders only whose worst cause is no worse.
 */
function lampSteps(lamp: LampLikelihood, system: System, priors: Priors, worst = causeCount - 1): number[] {
  const dark = priors.of['system-disabled'];
  const steps = zeros(causeCount);
  let next = 0;
  for (let cause = worst; cause >= 0; cause -= 1) {
    const lit = lamp.byCause[Math.max(cause, system.cause)] ?? 0;
    const now = (1 - dark) * lit + dark * lamp.dark;
    steps[cause] = now - next;
    next = now;
  }
  return steps;
}
