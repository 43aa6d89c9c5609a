import type { Lifetime } from './kaplan-meier';

/** A curve S(t) = exp(-(t/scale)^shape), fitted to lives, with how well each of its two figures is known. */
export interface Weibull {
  shape: number;
  scale: number;
  /** 95 % intervals: on the logarithm, so that neither reaches 0. */
  shapeInterval: [number, number];
  scaleInterval: [number, number];
  ended: number;
}

/** The share alive at an age. */
export const aliveAt = ({ shape, scale }: Pick<Weibull, 'shape' | 'scale'>, age: number): number =>
  Math.exp(-((age / scale) ** shape));

/** Fewer ends than this are no curve. */
export const leastEnds = 3;

/**
 * The curve under which the lives are likeliest; lives that go on, and lives first watched at an age, count as what they
 * are. Undefined with fewer than three ends, or where no curve is likelier than all others (all ended at one age).
 */
export function fitWeibull(lives: readonly Lifetime[]): Weibull | undefined {
  const watched = lives.filter(({ from = 0, to }) => to > 0 && to > from);
  const ends = watched.filter(({ ended }) => ended).map(({ to }) => to);
  if (ends.length < leastEnds || new Set(ends).size < 2) return undefined;
  // Ages in units of their greatest: no power of them grows too large.
  const unit = Math.max(...watched.map(({ to }) => to));
  const scaled = watched.map(({ from = 0, to, ended }) => ({ from: from / unit, to: to / unit, ended }));
  const shape = rootOf((k) => slopeAt(scaled, k), 0.05, 60);
  if (shape === undefined) return undefined;
  const scale = (exposure(scaled, shape) / ends.length) ** (1 / shape);
  const [shapeError, scaleError] = errorsAt(scaled, Math.log(shape), Math.log(scale));
  const interval = (value: number, error: number): [number, number] => [
    value * Math.exp(-1.96 * error),
    value * Math.exp(1.96 * error),
  ];
  return {
    shape,
    scale: scale * unit,
    shapeInterval: interval(shape, shapeError),
    scaleInterval: interval(scale * unit, scaleError),
    ended: ends.length,
  };
}

type Life = Required<Lifetime>;
const power = (age: number, shape: number) => (age === 0 ? 0 : age ** shape);

/** What all lives went through, in powers of age. */
const exposure = (lives: readonly Life[], shape: number): number =>
  lives.reduce((sum, { from, to }) => sum + power(to, shape) - power(from, shape), 0);

/** The slope of the likelihood over the shape, with the scale that goes best with it. */
function slopeAt(lives: readonly Life[], shape: number): number {
  const ends = lives.filter(({ ended }) => ended);
  const weighted = (age: number) => (age === 0 ? 0 : age ** shape * Math.log(age));
  const sum = lives.reduce((total, { from, to }) => total + weighted(to) - weighted(from), 0);
  const logs = ends.reduce((total, { to }) => total + Math.log(to), 0) / ends.length;
  return 1 / shape + logs - sum / exposure(lives, shape);
}

/** Where a function that falls crosses zero, by halving. */
function rootOf(of: (x: number) => number, low: number, high: number): number | undefined {
  if (of(low) < 0 || of(high) > 0) return undefined;
  let [from, to] = [low, high];
  for (let n = 0; n < 200 && to - from > 1e-12 * to; n += 1) {
    const middle = (from + to) / 2;
    if (of(middle) > 0) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}

/** Standard errors of both logarithms, by the curvature of the likelihood at its top. */
function errorsAt(lives: readonly Life[], logShape: number, logScale: number): [number, number] {
  const step = 1e-4;
  const at = (a: number, b: number) =>
    likelihood(lives, Math.exp(logShape + a * step), Math.exp(logScale + b * step));
  const here = at(0, 0);
  const bend = (one: number, other: number) => -(one - 2 * here + other) / step ** 2;
  const aa = bend(at(1, 0), at(-1, 0));
  const bb = bend(at(0, 1), at(0, -1));
  const ab = -(at(1, 1) - at(1, -1) - at(-1, 1) + at(-1, -1)) / (4 * step ** 2);
  const determinant = aa * bb - ab * ab;
  return [Math.sqrt(bb / determinant), Math.sqrt(aa / determinant)];
}

const likelihood = (lives: readonly Life[], shape: number, scale: number): number =>
  lives.reduce((sum, { from, to, ended }) => {
    const lived = power(to / scale, shape) - power(from / scale, shape);
    return sum - lived + (ended ? Math.log(shape / scale) + (shape - 1) * Math.log(to / scale) : 0);
  }, 0);
