/** The normal curve, as the engine needs it: often, so its integral is read off a table. */

const root2Pi = Math.sqrt(2 * Math.PI);

/** Density of a normal variable of the given variance at a distance from its mean. */
export const normalDensity = (distance: number, variance: number): number =>
  Math.exp((-distance * distance) / (2 * variance)) / (root2Pi * Math.sqrt(variance));

/** Beyond this many standard deviations the integral is 0 or 1 to the last digit of what is added to it. */
const edge = 8;
const stepsPerSd = 32;
const points = Float64Array.from({ length: 2 * edge * stepsPerSd + 1 }, (_, n) => n / stepsPerSd - edge);
const integrals = points.map(integral);
const densities = points.map((z) => normalDensity(z, 1));

/**
 * Share of the standard normal curve at or below z; absolute error under 1e-14. Between the points of the
 * table by Taylor's series, whose terms are the density and its Hermite polynomials.
 */
export function normalBelow(z: number): number {
  if (z <= -edge) return 0;
  if (z >= edge) return 1;
  const n = Math.round((z + edge) * stepsPerSd);
  const at = points[n] ?? 0;
  const d = z - at;
  const square = at * at;
  const series =
    1 +
    d *
      (-at / 2 +
        d *
          ((square - 1) / 6 +
            d *
              ((at * (3 - square)) / 24 +
                d *
                  ((square * square - 6 * square + 3) / 120 +
                    (d * at * (-square * square + 10 * square - 15)) / 720))));
  return (integrals[n] ?? 0) + d * (densities[n] ?? 0) * series;
}

/** By the series about 0 in the middle and a continued fraction in the tails (Abramowitz and Stegun 26.2.11 and 26.2.14, from memory). */
function integral(z: number): number {
  if (z < -3) return tail(-z);
  if (z > 3) return 1 - tail(z);
  let term = z;
  let sum = z;
  for (let odd = 3; Math.abs(term) > 1e-18; odd += 2) {
    term *= (z * z) / odd;
    sum += term;
  }
  return 0.5 + (sum * Math.exp((-z * z) / 2)) / root2Pi;
}

function tail(z: number): number {
  let fraction = z;
  for (let n = 100; n > 0; n -= 1) fraction = z + n / fraction;
  return Math.exp((-z * z) / 2) / (root2Pi * fraction);
}
