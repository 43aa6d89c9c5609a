import { sameId } from '../../sensor-id';
import { roadWheels, type Position } from '../../wheel';
import type { Rule, Scene, Statement } from '../scene';

/** A display and a gauge of one tire differ by no more than this, kPa: both round, and air cools. */
const sameTireKPa = 7;
/** For a claim, some wheel must disagree with its own display by more than this, kPa. */
const plainlyOffKPa = 15;
/** A match this much worse than the best, as a sum of squares in kPa², is no rival to it. */
const rivalSquares = 40;

export interface Swap {
  /** Display position → the wheel whose pressure it really shows. */
  map: Partial<Record<Position, Position>>;
  because: number[];
  /** Another assignment fits nearly as well: that wheels are moved is sure, where to is not. */
  rival: boolean;
}

/** Sensors heard at other wheels than where the car holds them, or displays that show another wheel's pressure. */
export const swappedPositions: Rule = (scene) => {
  const byId = swapById(scene);
  const swap = byId ?? swapByPressure(scene);
  if (!swap) return [];
  return (Object.keys(swap.map) as Position[]).map((wheel): Statement => ({
    code: 'positions-swapped',
    wheel,
    certainty: byId ? 'corroborated' : swap.rival ? 'inferred' : 'corroborated',
    because: swap.because,
  }));
};

/** From where the car holds each ID to where the tool heard it. */
export function swapById(scene: Scene): Swap | undefined {
  const { registry } = scene.ledger;
  const moved = scene.mismatches.filter(({ kind }) => kind === 'elsewhere');
  if (!registry || moved.length === 0) return undefined;
  const map: Swap['map'] = {};
  for (const { wheel, scanned } of moved) {
    const held = registry.seen.entries.find(({ id }) => id !== null && sameId(id, scanned));
    if (held) map[held.wheel] = wheel;
  }
  const scans = moved.flatMap(({ wheel }) => scene.ledger.sensor[wheel]?.at.index ?? []);
  return { map, because: [registry.index, ...scans], rival: false };
}

/** From what the display shows to whose gauge pressure that is: the one permutation that fits, if one does. */
export function swapByPressure(scene: Scene): Swap | undefined {
  const gauges = roadWheels.flatMap((wheel) => scene.ledger.gauge[wheel] ?? []);
  const displays = roadWheels.flatMap((wheel) => scene.ledger.display[wheel] ?? []);
  const shown = displays.flatMap(({ seen }) => seen.kPa ?? []);
  if (gauges.length < roadWheels.length || shown.length < roadWheels.length) return undefined;
  const real = gauges.map(({ seen }) => seen.kPa);
  const difference = (display: number, wheel: number) => Math.abs((shown[display] ?? 0) - (real[wheel] ?? 0));
  if (!roadWheels.some((_, place) => difference(place, place) > plainlyOffKPa)) return undefined;

  const ranked = permutations(roadWheels.map((_, place) => place))
    .map((order) => ({
      order,
      worst: Math.max(...order.map((wheel, display) => difference(display, wheel))),
      squares: order.reduce((sum, wheel, display) => sum + difference(display, wheel) ** 2, 0),
    }))
    .sort((a, b) => a.squares - b.squares);
  const best = ranked[0];
  if (!best || best.worst > sameTireKPa) return undefined;
  const rivals = ranked.slice(1).filter(({ squares }) => squares - best.squares < rivalSquares);
  const map: Swap['map'] = {};
  roadWheels.forEach((display, place) => {
    const wheel = roadWheels[best.order[place] ?? place];
    const movesInAll = [best, ...rivals].every(({ order }) => order[place] !== place);
    if (wheel && movesInAll) map[display] = wheel;
  });
  return {
    map,
    because: [...displays, ...gauges].map(({ index }) => index),
    rival: rivals.length > 0,
  };
}

function permutations(items: readonly number[]): number[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((item, place) =>
    permutations([...items.slice(0, place), ...items.slice(place + 1)]).map((rest) => [item, ...rest]),
  );
}
