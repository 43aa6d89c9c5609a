/** Whether what was said to be likely came true as often as it was said. */

/** Something that was said to be true with a chance of 0 to 1, and whether it was. */
export interface Claim {
  chance: number;
  true: boolean;
}

/** One bar of the reliability chart: of all claims about this sure, how many were true. */
export interface Reliability {
  from: number;
  to: number;
  claims: number;
  meanChance: number;
  shareTrue: number;
}

const bars = 10;

/** Counts claims one by one, in bars of a tenth each. */
export class Reliabilities {
  private readonly bars = Array.from({ length: bars }, () => ({ claims: 0, chance: 0, true: 0 }));

  add(claim: Claim): void {
    const bar = this.bars[Math.min(bars - 1, Math.floor(claim.chance * bars))];
    if (!bar) return;
    bar.claims += 1;
    bar.chance += claim.chance;
    bar.true += Number(claim.true);
  }

  /** Every bar; one without claims has its middle, and no share. */
  list(): Reliability[] {
    return this.bars.map((bar, at) => ({
      from: at / bars,
      to: (at + 1) / bars,
      claims: bar.claims,
      meanChance: bar.claims > 0 ? bar.chance / bar.claims : (at + 0.5) / bars,
      shareTrue: bar.claims > 0 ? bar.true / bar.claims : 0,
    }));
  }
}

export function reliabilityOf(claims: Iterable<Claim>): Reliability[] {
  const counted = new Reliabilities();
  for (const claim of claims) counted.add(claim);
  return counted.list();
}

/**
 * Expected calibration error: the mean distance of chance and share, by claims (Naeini, Cooper and Hauskrecht 2015, from
 * memory). 0 where nothing was claimed.
 */
export function calibrationErrorOf(bars: readonly Reliability[]): number {
  const all = bars.reduce((sum, { claims }) => sum + claims, 0);
  if (all === 0) return 0;
  return bars.reduce(
    (sum, { claims, meanChance, shareTrue }) => sum + (claims / all) * Math.abs(meanChance - shareTrue),
    0,
  );
}
