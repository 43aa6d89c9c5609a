import type { Cells } from './cells';
import type { Cell } from './sensor-sums';
import { isWatched, type Evidence } from './evidence';
import { readingsOfScans, type Reading } from './own-ids';
import { everyWheel, negligible, ordersLeft, ordersThatCount, overOrders, type Orders } from './orders';
import { inPlace, type PositionMap } from './position-maps';
import type { Priors } from './priors';
import {
  allRows,
  causeCount,
  causeIndex,
  rows,
  soundRow,
  zeros,
  wheelFindings,
  type Wanted,
  type WheelFinding,
} from './states';
import { lampLikelihood, systemsOf, type LampLikelihood, type System } from './systems';

/** What may be true of the car as a whole. */
export const carFacts = [
  'receiverFault',
  'pending',
  'otherSet',
  'baselineNotSet',
  'wheelSpeedFault',
  'lampDark',
  /** All road tires went with the temperature. */
  'cooled',
  /** Nothing at all is the matter. */
  'sound',
] as const;
export type CarFact = (typeof carFacts)[number];

/** The chances of everything the model can say, given all that was seen. Wheels are places in the evidence. */
export interface Posterior {
  /** Natural logarithm of the likelihood of all that was seen. */
  logEvidence: number;
  wheel: (finding: WheelFinding, place: number) => number;
  /** The reply one would take for the wheel's sensor is another's. */
  misheard: (place: number) => number;
  /** Two sensors send the ID of this wheel's. */
  twin: (place: number) => number;
  /** The wheel is not where the car has it. */
  moved: (place: number) => number;
  car: (fact: CarFact) => number;
  /** The likeliest order: for each position the wheel that is there, both as places. */
  order: () => { position: number; wheel: number }[];
}

/**
 * The exact posterior: a sum over every way the car can be, every way to read the scans and every order of
 * the wheels; within each, the wheels depend on one another only by the worst cause they give the lamp, so
 * their states are summed wheel by wheel. The lamp shows the worst cause, and "the worst is k" is "all are k
 * or less" without "all are k-1 or less": a sum over five products. Weights are scaled wheel by wheel, so
 * that products of many stay in range. What a bound shows to be too small to change any digit of the sum is
 * not worked out. With `wanted`, only those findings can be asked of it.
 */
export function posteriorOf(
  evidence: Evidence,
  priors: Priors,
  cells: Cells,
  wanted: Wanted = allRows,
): Posterior {
  const { context, wheels } = evidence;
  const { kind, locates } = context.job.vehicle.tpms;
  const direct = kind === 'direct';
  const coupled: number[] = [];
  const free: number[] = [];
  wheels.forEach(({ wheel }, place) => (isWatched(context, wheel) ? coupled : free).push(place));
  const maps = direct ? cells.maps(context) : inPlace(coupled.length);
  const lamp = lampLikelihood(evidence);
  const readings = direct ? readingsOfScans(evidence, priors) : [heardNothing(wheels.length)];
  const systems = systemsOf(evidence, priors);

  const scales = zeros(wheels.length);
  const ways = readings
    .flatMap((reading) =>
      systems.map((system): Way => {
        const tires = free.map((place) => cells.ofTire(evidence, place, system));
        const most = mostOf(evidence, coupled, reading, system, cells);
        coupled.forEach((place, at) => (scales[place] ||= Math.max(...(most[at] ?? []))));
        free.forEach((place, at) => (scales[place] ||= tires[at]?.[causeCount - 1] ?? 0));
        let weight = reading.weight * system.weight;
        let bound = weight;
        wheels.forEach((_, place) => (weight /= scales[place] || 1));
        most.forEach((row, at) => (bound *= Math.max(...row) / (scales[coupled[at] ?? 0] || 1)));
        for (const [at, tire] of tires.entries())
          bound *= (tire[causeCount - 1] ?? 0) / (scales[free[at] ?? 0] || 1);
        return { weight, bound, most, reading, system, tires };
      }),
    )
    .sort((a, b) => b.bound - a.bound);

  const sum = emptySum(wheels.length, maps.length);
  const car = { evidence, cells, coupled, free, lamp, priors, wanted };
  let orders: readonly PositionMap[] = maps;
  ways.forEach((way, at) => {
    if (way.bound < negligible * sum.all) return;
    add(sum, way, { ...car, maps: orders });
    if (at > 0) return;
    // What is known now leaves few orders for the other ways.
    const others = ways
      .slice(1)
      .map(({ most, weight, tires }) => ({ most, weight: weight * inRow(tires, 0) }));
    orders = ordersLeft(orders, others, negligible * sum.all);
  });
  return posteriorFrom(sum, maps, coupled, scales, direct && locates !== false);
}

/** By coupled wheel and position: no less than the weight of its cell. */
function mostOf(
  evidence: Evidence,
  coupled: readonly number[],
  reading: Reading,
  system: System,
  cells: Cells,
): number[][] {
  const direct = evidence.context.job.vehicle.tpms.kind === 'direct';
  return coupled.map((place) => {
    if (direct) return cells.atMost(evidence, place, reading, system);
    const alone = cells.ofTurning(evidence, place, system)[causeCount - 1] ?? 0;
    return coupled.map(() => alone);
  });
}

const heardNothing = (count: number): Reading => ({
  own: Array.from({ length: count }, () => undefined),
  weight: 1,
  misheard: Array.from({ length: count }, () => false),
  twin: Array.from({ length: count }, () => false),
});

/** Weights added up over all ways; a chance is one of them over `all`. */
interface Sum {
  all: number;
  /** By row of the cells, then by wheel. */
  rows: number[];
  misheard: number[];
  twin: number[];
  byMap: number[];
  car: Record<CarFact, number>;
}

const emptySum = (wheels: number, maps: number): Sum => ({
  all: 0,
  rows: zeros(rows * wheels),
  misheard: zeros(wheels),
  twin: zeros(wheels),
  byMap: zeros(maps),
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
interface Way {
  weight: number;
  /** No less than what it adds to the sum, but for the lamp. */
  bound: number;
  /** By coupled wheel and position: no less than the weight of its cell. */
  most: number[][];
  reading: Reading;
  system: System;
  tires: Cell[];
}

/** What is the same for all ways. */
interface Car {
  evidence: Evidence;
  cells: Cells;
  coupled: readonly number[];
  free: readonly number[];
  maps: readonly PositionMap[];
  lamp: LampLikelihood;
  priors: Priors;
  wanted: Wanted;
}

function add(sum: Sum, way: Way, car: Car): void {
  const { weight, reading, system, tires } = way;
  const { free, lamp, priors, wanted } = car;
  const tireTotal = weight * inRow(tires, 0);
  const steps = lampSteps(lamp, system, priors);
  const noneLow = lampSteps(lamp, system, priors, causeIndex.intermittent);
  const make = (wheel: number, at: number) => cellOf(way, car, wheel, at);
  const orders = ordersThatCount(car.maps, way.most, make, sum.all / tireTotal, leastLit(lamp));
  const around = overOrders(orders, steps, noneLow);
  const here = tireTotal * around.all;
  sum.all += here;
  around.byMap.forEach((amount, at) => {
    const order = orders.kept[at]?.order ?? 0;
    sum.byMap[order] = (sum.byMap[order] ?? 0) + tireTotal * amount;
  });
  addRows(sum, orders.grid, car, steps, noneLow, around.others, tireTotal);
  const wheels = car.coupled.length + free.length;
  free.forEach((place, at) => {
    const tire = tires[at];
    const total = tire?.[causeCount - 1] ?? 0;
    for (let row = 0; row < rows; row += 1) {
      const share =
        row === latchRow || total === 0 ? 0 : (tire?.[row * causeCount + causeCount - 1] ?? 0) / total;
      sum.rows[row * wheels + place] = (sum.rows[row * wheels + place] ?? 0) + here * share;
    }
  });
  reading.misheard.forEach((is, place) => is && (sum.misheard[place] = (sum.misheard[place] ?? 0) + here));
  reading.twin.forEach((is, place) => is && (sum.twin[place] = (sum.twin[place] ?? 0) + here));
  const facts = sum.car;
  if (system.receiverFault) facts.receiverFault += here;
  if (system.pending) facts.pending += here;
  if (system.otherSet) facts.otherSet += here;
  if (system.baselineNotSet) facts.baselineNotSet += here;
  if (system.wheelSpeedFault) facts.wheelSpeedFault += here;
  facts.lampDark += tireTotal * priors.lampDark * lamp.dark * around.unlit;
  if (system.cooled && wanted.tire.includes(cooledRow))
    // The spare need not have gone with the cold.
    facts.cooled +=
      (orders.grid.length > 0 ? tireTotal : weight * inRow(tires, cooledRow)) *
      everyWheel(orders, cooledRow, steps, 'all');
  if (wanted.sound && isUsual(system) && !reading.misheard.includes(true)) {
    // With the lamp itself in order.
    const lit = lampSteps({ ...lamp, dark: 0 }, system, priors);
    facts.sound += weight * inRow(tires, soundRow) * everyWheel(orders, soundRow, lit, 'in-place');
  }
}

/** The weight of all these tires being in a row. */
const inRow = (tires: readonly Cell[], row: number): number =>
  tires.reduce((product, tire) => product * (tire[row * causeCount + causeCount - 1] ?? 0), 1);

/** The cell of a wheel at a position of the car, both by their place among those the lamp watches. */
function cellOf({ reading, system }: Way, car: Car, wheel: number, at: number): Cell {
  const { evidence, cells, coupled, wanted } = car;
  const place = coupled[wheel] ?? 0;
  const position = evidence.positions[at];
  return evidence.context.job.vehicle.tpms.kind === 'direct' && position
    ? cells.ofSensor({ evidence, place, position, reading, system }, wanted)
    : cells.ofTurning(evidence, place, system);
}

/** Whatever the worst cause, the lamp is at least this likely. */
const leastLit = ({ byCause, dark }: LampLikelihood): number => Math.min(dark, ...byCause);

const latchRow = wheelFindings.indexOf('lamp-latched') + 1;
const cooledRow = wheelFindings.indexOf('temperature-drop') + 1;

const isUsual = (system: System): boolean =>
  !system.receiverFault &&
  !system.pending &&
  !system.otherSet &&
  !system.baselineNotSet &&
  !system.wheelSpeedFault;

/** The weight of every finding at every wheel that the lamp watches. */
function addRows(
  sum: Sum,
  grid: Orders['grid'],
  { coupled, free, wanted }: Car,
  steps: number[],
  noneLow: number[],
  others: number[],
  tireTotal: number,
): void {
  const rowsAsked = [...wanted.tire, ...wanted.sensor];
  const size = grid.length;
  const wheels = size + free.length;
  grid.forEach((cells, wheel) => {
    const place = coupled[wheel] ?? 0;
    cells.forEach((cell, at) => {
      for (let cause = 0; cell && cause < causeCount; cause += 1) {
        const other = tireTotal * (others[(cause * size + wheel) * size + at] ?? 0);
        if (other === 0) continue;
        for (const row of rowsAsked) {
          const amount = cell[row * causeCount + cause] ?? 0;
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
function lampSteps(
  lamp: LampLikelihood,
  system: System,
  { lampDark }: Priors,
  worst = causeCount - 1,
): number[] {
  const steps = zeros(causeCount);
  let next = 0;
  for (let cause = worst; cause >= 0; cause -= 1) {
    const lit = lamp.byCause[Math.max(cause, system.cause)] ?? 0;
    const now = (1 - lampDark) * lit + lampDark * lamp.dark;
    steps[cause] = now - next;
    next = now;
  }
  return steps;
}

function posteriorFrom(
  sum: Sum,
  maps: readonly PositionMap[],
  coupled: readonly number[],
  scales: number[],
  locates: boolean,
): Posterior {
  const wheels = sum.misheard.length;
  const chance = (amount: number | undefined) => Math.min(1, Math.max(0, (amount ?? 0) / sum.all));
  return {
    logEvidence: Math.log(sum.all) + scales.reduce((total, scale) => total + Math.log(scale || 1), 0),
    wheel: (finding, place) => chance(sum.rows[(wheelFindings.indexOf(finding) + 1) * wheels + place]),
    misheard: (place) => chance(sum.misheard[place]),
    twin: (place) => chance(sum.twin[place]),
    moved: (place) => {
      const wheel = coupled.indexOf(place);
      if (!locates || wheel < 0) return 0;
      let amount = 0;
      maps.forEach(({ wheelAt }, m) => {
        if (wheelAt[wheel] !== wheel) amount += sum.byMap[m] ?? 0;
      });
      return chance(amount);
    },
    car: (fact) => chance(sum.car[fact]),
    order: () => {
      const best = sum.byMap.indexOf(Math.max(...sum.byMap));
      return (maps[best]?.wheelAt ?? []).map((wheel, at) => ({
        position: coupled[at] ?? at,
        wheel: coupled[wheel] ?? wheel,
      }));
    },
  };
}
