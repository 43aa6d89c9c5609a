/**
 * How sure a rule may be. The rules state; they do not weigh. These figures are judgement, chosen so
 * that they order findings sensibly until something better weighs the evidence.
 */
export const certainties = {
  /** One instrument says it directly. What remains is a slip in reading it. */
  measured: 0.98,
  /** Two sources that do not depend on each other say the same. */
  corroborated: 0.95,
  /** It fits the pattern, and another cause would be unusual. */
  inferred: 0.85,
} as const;

export type Certainty = keyof typeof certainties;

/** The odds of a probability in decibans: ten times their decimal logarithm. */
export function decibans(probability: number): number {
  return 10 * Math.log10(probability / (1 - probability));
}
