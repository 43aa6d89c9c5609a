import type { Cells } from './cells';
import type { Evidence } from './evidence';
import { mostLeft, type Orders } from './orders';
import type { Reading } from './own-ids';
import { posteriorFrom, posteriorOf, type Account, type Posterior } from './posterior';
import type { Priors } from './priors';
import type { Wanted } from './states';
import { lampLikelihood, type System } from './systems';
import { emptySum, tally, type Car } from './tally';
import { alternativesOf, cellOf, mostAt, weightOf, type Alternatives, type Way } from './ways';

/** What of the evidence is no longer the same, as places in it; of the car as a whole, all but its check-ins may be. */
export interface Change {
  wheel?: number;
  positions: readonly number[];
}

/**
 * The posterior after a small change of the evidence, as `posteriorOf` would have it: summed over the ways
 * and orders that counted before, with new cells only where the change reaches. The bounds of what was left
 * out before are taken to what they can be now; where that is no longer nothing, all is summed anew.
 */
export function posteriorAfter(
  change: Change,
  account: Account,
  evidence: Evidence,
  priors: Priors,
  cells: Cells,
  wanted: Wanted,
): Posterior {
  const { coupled, free } = account;
  const lamp = lampLikelihood(evidence);
  const car: Car = { evidence, cells, lamp, priors, wanted, coupled, free };
  return overWaysTaken(change, account, car) ?? posteriorOf(evidence, priors, cells, wanted);
}

/** Undefined where there are other ways now, or where more may count than did before. */
function overWaysTaken(change: Change, account: Account, car: Car): Posterior | undefined {
  const { evidence, priors } = car;
  const { free, ways, maps, scales } = account;
  const reachesAll = change.positions.length === evidence.positions.length && change.positions.length > 0;
  if (reachesAll || (change.wheel !== undefined && free.includes(change.wheel))) return undefined;
  const { readings, systems } = alternativesAfter(account, evidence, priors);
  if (ways.length !== readings.length * systems.length) return undefined;
  const sum = emptySum(evidence.wheels.length, maps.length);
  let left = 0;
  for (const { way, orders, left: before } of ways) {
    const reading = readings[Math.floor(way.number / systems.length)];
    const system = systems[way.number % systems.length];
    if (!reading || !system || !isLike(system, way.system)) return undefined;
    const columns = columnsOf(change, reading, way.reading, evidence);
    if (!columns) return undefined;
    const now: Now = { reading, system, weight: weightOf(reading, system, scales), tires: way.tires };
    const reach = { wheel: car.coupled.findIndex((place) => place === change.wheel), columns };
    if (before !== 0) left += now.weight * before * growthOf(now, way, car, reach);
    if (orders) tally(sum, now, withNewCells(orders, now, car, reach), car);
  }
  // A bound that is no number bounds nothing.
  return left <= mostLeft * sum.all && sum.all > 0 ? posteriorFrom(sum, account) : undefined;
}

/** As they were, where nothing they rest on has changed: what was scanned, what the car holds, and the car as a whole. */
function alternativesAfter(account: Account, evidence: Evidence, priors: Priors): Alternatives {
  const { evidence: before } = account;
  const isAlike =
    evidence.car === before.car &&
    evidence.wheels.every(({ replies }, place) => replies === before.wheels[place]?.replies) &&
    evidence.positions.every(({ held }, at) => held === before.positions[at]?.held);
  return isAlike ? account : alternativesOf(evidence, priors);
}

/** A way as it is after the change. */
type Now = Omit<Way, 'number' | 'most' | 'size'>;

/** Where the change reaches, among the wheels the lamp watches: one of them, or none (-1), and whole columns of positions. */
interface Reach {
  wheel: number;
  columns: readonly number[];
}

const isLike = (one: System, other: System): boolean =>
  one.receiverFault === other.receiverFault &&
  one.pending === other.pending &&
  one.cooled === other.cooled &&
  one.otherSetNumber === other.otherSetNumber &&
  one.driveQuality === other.driveQuality &&
  one.baselineNotSet === other.baselineNotSet &&
  one.wheelSpeedFault === other.wheelSpeedFault;

/**
 * The positions at which every wheel has changed: those the car says something else of, and those that hold an
 * ID the changed wheel was taken to send, before or now. Undefined where another wheel is taken to send another one.
 */
function columnsOf(
  { wheel, positions }: Change,
  now: Reading,
  before: Reading,
  evidence: Evidence,
): readonly number[] | undefined {
  if (now === before) return positions;
  if (!now.own.every((reply, place) => place === wheel || reply === before.own[place])) return undefined;
  if (wheel === undefined) return positions;
  const ids = [now.own[wheel]?.id, before.own[wheel]?.id];
  if (ids[0] === ids[1]) return positions;
  const holders = evidence.positions.flatMap(({ held }, at) =>
    held != null && ids.includes(held) ? [at] : [],
  );
  return [...positions, ...holders];
}

/**
 * At most so many times what it was is what the orders left out of a way come to: in each of them one wheel
 * is at each position that has changed, and the changed wheel is at one position.
 */
function growthOf(now: Now, { most }: Way, car: Car, { wheel, columns }: Reach): number {
  const grown = (one: number, at: number) => mostAt(now, car, one, at) / (most[one]?.[at] ?? 0);
  let growth = 1;
  for (const at of columns) growth *= Math.max(...most.map((_, one) => grown(one, at)));
  if (wheel < 0) return growth;
  const others = most.flatMap((_, at) => (columns.includes(at) ? [] : [grown(wheel, at)]));
  return growth * Math.max(1, ...others);
}

function withNewCells(
  { kept, grid }: Orders,
  now: Now,
  car: Car,
  { wheel: reached, columns }: Reach,
): Pick<Orders, 'kept' | 'grid'> {
  const isReached = (wheel: number, at: number) => wheel === reached || columns.includes(at);
  return {
    kept,
    grid: grid.map((row, wheel) =>
      row.map((cell, at) => (cell && isReached(wheel, at) ? cellOf(now, car, wheel, at) : cell)),
    ),
  };
}
