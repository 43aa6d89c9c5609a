/**
 * A straight line through measured points, by weighted least squares, with how well it is known.
 * Formulas: any text on least squares; checked against NIST StRD.
 */
export interface Point {
  x: number;
  y: number;
  /** Standard deviation of `y`, in its unit. Points without one weigh alike. */
  sd?: number;
}

export interface Regression {
  slope: number;
  /** At x = 0. */
  intercept: number;
  slopeError: number;
  interceptError: number;
  /** Scatter of the points about the line, in the unit of y; NaN with two points. */
  residualSd: number;
  /** Of the slope, 95 %: half the width of its confidence interval. */
  slopeUncertainty: number;
  at: (x: number) => number;
  /** Standard error of the line itself at x. */
  errorAt: (x: number) => number;
}

/**
 * Fits at least two points of different x; undefined otherwise. Where the points' own errors are given,
 * they make the standard errors, widened by as much as the points scatter more than those errors allow
 * (the Birge ratio); where they are not, the scatter alone does, and two points leave the errors unknown (NaN).
 */
export function regressionOf(points: readonly Point[]): Regression | undefined {
  const known = points.every(({ sd }) => sd !== undefined && sd > 0);
  const weights = points.map(({ sd }) => (known ? 1 / (sd ?? 1) ** 2 : 1));
  const total = sum(weights);
  const mean = (values: number[]) => sum(values.map((value, i) => value * (weights[i] ?? 0))) / total;
  const meanX = mean(points.map(({ x }) => x));
  const meanY = mean(points.map(({ y }) => y));
  const spread = sum(points.map(({ x }, i) => (weights[i] ?? 0) * (x - meanX) ** 2));
  if (points.length < 2 || !(spread > 0)) return undefined;
  const slope = sum(points.map(({ x, y }, i) => (weights[i] ?? 0) * (x - meanX) * (y - meanY))) / spread;
  const at = (x: number) => meanY + slope * (x - meanX);

  const freedom = points.length - 2;
  const squares = sum(points.map(({ x, y }, i) => (weights[i] ?? 0) * (y - at(x)) ** 2));
  const scatter = freedom > 0 ? Math.sqrt(squares / freedom) : Number.NaN;
  const widened = known ? Math.max(1, scatter || 0) : scatter;
  const errorAt = (x: number) => widened * Math.sqrt(1 / total + (x - meanX) ** 2 / spread);
  const slopeError = widened / Math.sqrt(spread);
  return {
    slope,
    intercept: at(0),
    slopeError,
    interceptError: errorAt(0),
    residualSd:
      freedom > 0 ? Math.sqrt(sum(points.map(({ x, y }) => (y - at(x)) ** 2)) / freedom) : Number.NaN,
    // Errors that were known beforehand are normal; only those learned from the scatter need Student's factor.
    slopeUncertainty: slopeError * (known ? normalFactor : studentFactor(freedom)),
    at,
    errorAt,
  };
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** Two-sided 95 % of the normal distribution. */
export const normalFactor = 1.96;

/** Two-sided 95 % of Student's t for 1, 2, … 30 degrees of freedom: the usual table, from memory. */
// prettier-ignore
const student = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228,
  2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11, 2.101, 2.093, 2.086,
  2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];

/** Student's factor; beyond the table the next lower entry, which is on the safe side. NaN below 1. */
export const studentFactor = (freedom: number): number =>
  student[Math.min(freedom, student.length) - 1] ?? Number.NaN;
