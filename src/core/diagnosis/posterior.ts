import type { Cells } from './cells';
import { isWatched, type Evidence } from './evidence';
import { readingsOfScans, type Reading } from './own-ids';
import { isIdentity, type PositionMap } from './position-maps';
import type { Priors } from './priors';
import {
  allRows,
  causeCount,
  causeIndex,
  rows,
  soundRow,
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
 * that products of many stay in range. With `wanted`, only those findings can be asked of it.
 */
export function posteriorOf(
  evidence: Evidence,
  priors: Priors,
  cells: Cells,
  wanted: Wanted = allRows,
): Posterior {
  const { context, wheels, positions } = evidence;
  const { kind, locates } = context.job.vehicle.tpms;
  const direct = kind === 'direct';
  const coupled: number[] = [];
  const free: number[] = [];
  wheels.forEach(({ wheel }, place) => (isWatched(context, wheel) ? coupled : free).push(place));
  const maps = direct ? cells.maps(context) : [inPlace(coupled.length)];
  const lamp = lampLikelihood(evidence);
  const readings = direct ? readingsOfScans(evidence, priors) : [heardNothing(wheels.length)];

  const sum = emptySum(wheels.length, maps.length);
  const scales = new Float64Array(wheels.length);
  const systems = systemsOf(evidence, priors);
  for (const reading of readings) {
    for (const system of systems) {
      const grid = coupled.map((place) =>
        coupled.map((_, at) => {
          const position = positions[at];
          return direct && position
            ? cells.ofSensor(evidence, place, position, reading, system, wanted)
            : cells.ofTurning(evidence, place, system);
        }),
      );
      const tires = free.map((place) => cells.ofTire(evidence, place, system));
      coupled.forEach((place, at) => (scales[place] ||= scaleOf(grid[at] ?? [])));
      free.forEach((place, at) => (scales[place] ||= scaleOf(tires.slice(at, at + 1))));
      let weight = reading.weight * system.weight;
      for (const scale of scales) weight /= scale || 1;
      add(sum, { weight, reading, system, grid, tires, coupled, free, maps, lamp, priors, wanted });
    }
  }
  return posteriorFrom(sum, maps, coupled, scales, direct && locates !== false);
}

const inPlace = (size: number): PositionMap => ({
  wheelAt: Array.from({ length: size }, (_, at) => at),
  prior: 1,
});

const heardNothing = (count: number): Reading => ({
  own: Array.from({ length: count }, () => undefined),
  weight: 1,
  misheard: Array.from({ length: count }, () => false),
  twin: Array.from({ length: count }, () => false),
});

/** The largest weight of a wheel's cells. */
const scaleOf = (row: readonly Float64Array[]): number =>
  Math.max(...row.map((cell) => cell[causeCount - 1] ?? 0));

/** Weights added up over all ways; a chance is one of them over `all`. */
interface Sum {
  all: number;
  /** By row of the cells, then by wheel. */
  rows: Float64Array;
  misheard: Float64Array;
  twin: Float64Array;
  byMap: Float64Array;
  car: Record<CarFact, number>;
}

const emptySum = (wheels: number, maps: number): Sum => ({
  all: 0,
  rows: new Float64Array(rows * wheels),
  misheard: new Float64Array(wheels),
  twin: new Float64Array(wheels),
  byMap: new Float64Array(maps),
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
  reading: Reading;
  system: System;
  /** By coupled wheel and position. */
  grid: Float64Array[][];
  tires: Float64Array[];
  coupled: number[];
  free: number[];
  maps: readonly PositionMap[];
  lamp: LampLikelihood;
  priors: Priors;
  wanted: Wanted;
}

function add(sum: Sum, way: Way): void {
  const { weight, reading, system, tires, coupled, free, lamp, priors } = way;
  const tireTotal = tires.reduce((product, tire) => product * (tire[causeCount - 1] ?? 0), weight);
  const steps = lampSteps(lamp, system, priors);
  const noneLow = lampSteps(lamp, system, priors, causeIndex.intermittent);
  const orders = overOrders(sum, way, steps, noneLow, tireTotal);
  const here = tireTotal * orders.all;
  sum.all += here;
  addRows(sum, way, steps, noneLow, orders.others, tireTotal);
  const wheels = coupled.length + free.length;
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
  const { car } = sum;
  if (system.receiverFault) car.receiverFault += here;
  if (system.pending) car.pending += here;
  if (system.otherSet) car.otherSet += here;
  if (system.baselineNotSet) car.baselineNotSet += here;
  if (system.wheelSpeedFault) car.wheelSpeedFault += here;
  car.lampDark += tireTotal * priors.lampDark * lamp.dark * orders.unlit;
  if (system.cooled && way.wanted.tire.includes(cooledRow))
    car.cooled += weight * everyWheel(way, cooledRow, steps, () => true);
  if (way.wanted.sound && isUsual(system) && !reading.misheard.includes(true)) {
    // With the lamp itself in order.
    car.sound +=
      weight * everyWheel(way, soundRow, lampSteps({ ...lamp, dark: 0 }, system, priors), isIdentity);
  }
}

const latchRow = wheelFindings.indexOf('lamp-latched') + 1;
const cooledRow = wheelFindings.indexOf('temperature-drop') + 1;

const isUsual = (system: System): boolean =>
  !system.receiverFault &&
  !system.pending &&
  !system.otherSet &&
  !system.baselineNotSet &&
  !system.wheelSpeedFault;

/**
 * Over all orders: their weight, their weight whatever the lamp shows, and, by cause, wheel and position, the
 * weight of all the other wheels while that wheel is at that position.
 */
function overOrders(
  sum: Sum,
  { grid, maps }: Way,
  steps: Float64Array,
  noneLow: Float64Array,
  tireTotal: number,
) {
  const size = grid.length;
  const totals = new Float64Array(causeCount * size * size);
  grid.forEach((row, wheel) => {
    row.forEach((cell, at) => {
      for (let cause = 0; cause < causeCount; cause += 1) {
        totals[(cause * size + wheel) * size + at] = cell[cause] ?? 0;
      }
    });
  });
  const others = new Float64Array(totals.length);
  const before = new Float64Array(size + 1);
  const slots = new Int16Array(size);
  let all = 0;
  let unlit = 0;
  for (let m = 0; m < maps.length; m += 1) {
    const map = maps[m];
    if (!map || map.prior === 0) continue;
    for (let at = 0; at < size; at += 1) slots[at] = (map.wheelAt[at] ?? 0) * size + at;
    let ofMap = 0;
    for (let cause = 0; cause < causeCount; cause += 1) {
      const step = steps[cause] ?? 0;
      // Causes the lamp does not tell apart from the next worse one add nothing.
      if (step === 0 && noneLow[cause] === 0 && cause < causeCount - 1) continue;
      const from = cause * size * size;
      let product = map.prior;
      for (let at = 0; at < size; at += 1) {
        before[at] = product;
        product *= totals[from + (slots[at] ?? 0)] ?? 0;
      }
      ofMap += step * product;
      if (cause === causeCount - 1) unlit += product;
      let after = 1;
      for (let at = size - 1; at >= 0; at -= 1) {
        const slot = from + (slots[at] ?? 0);
        others[slot] = (others[slot] ?? 0) + (before[at] ?? 0) * after;
        after *= totals[slot] ?? 0;
      }
    }
    all += ofMap;
    sum.byMap[m] = (sum.byMap[m] ?? 0) + tireTotal * ofMap;
  }
  return { all, unlit, others };
}

/** The weight of every finding at every wheel that the lamp watches. */
function addRows(
  sum: Sum,
  way: Way,
  steps: Float64Array,
  noneLow: Float64Array,
  others: Float64Array,
  tireTotal: number,
): void {
  const { grid, coupled, free, wanted } = way;
  const rowsAsked = [...wanted.tire, ...wanted.sensor];
  const size = grid.length;
  const wheels = size + free.length;
  grid.forEach((cells, wheel) => {
    const place = coupled[wheel] ?? 0;
    cells.forEach((cell, at) => {
      for (let cause = 0; cause < causeCount; cause += 1) {
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

/** The weight of every wheel being in a row at once; the spare need not have gone with the cold. */
function everyWheel(
  { grid, tires, maps }: Way,
  row: number,
  steps: Float64Array,
  includes: (wheelAt: readonly number[]) => boolean,
): number {
  let sum = 0;
  for (const { wheelAt, prior } of maps) {
    if (!includes(wheelAt)) continue;
    for (let cause = 0; cause < causeCount; cause += 1) {
      let product = prior * (steps[cause] ?? 0);
      for (let at = 0; at < wheelAt.length; at += 1) {
        product *= grid[wheelAt[at] ?? 0]?.[at]?.[row * causeCount + cause] ?? 0;
      }
      sum += product;
    }
  }
  const ofTires = row === cooledRow && grid.length > 0 ? 0 : row;
  return tires.reduce((product, tire) => product * (tire[ofTires * causeCount + causeCount - 1] ?? 0), sum);
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
): Float64Array {
  const steps = new Float64Array(causeCount);
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
  scales: Float64Array,
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
