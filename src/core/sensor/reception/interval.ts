/** The quantile of the standard normal distribution at 0.975. */
const z = 1.959963984540054;

/**
 * The 95 % interval of a share (Wilson 1927, score interval, from memory): `some` of `all`, both counts, `all` above 0.
 * Both bounds lie within 0 and 1.
 */
export function wilsonInterval(some: number, all: number): [number, number] {
  const share = some / all;
  const middle = share + z ** 2 / (2 * all);
  const spread = z * Math.sqrt((share * (1 - share)) / all + z ** 2 / (4 * all ** 2));
  const whole = 1 + z ** 2 / all;
  return [Math.max(0, (middle - spread) / whole), Math.min(1, (middle + spread) / whole)];
}
