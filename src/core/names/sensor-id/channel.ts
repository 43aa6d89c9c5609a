import { canonicalId, slipBetween } from '.';

/** How an ID changes between two screens: chance of each kind of slip, given that there is one. */
interface SlipChances {
  confused: number;
  otherDigit: number;
  exchanged: number;
  lost: number;
  doubled: number;
}

/** Values one hexadecimal digit can take. */
const base = 16;

/**
 * The noisy channel: the chance that `meant`, once a slip is made, comes out as `written`. 0 where no one
 * slip does it. `confusable` are pairs of digits taken for one another.
 */
export function slipChance(
  meant: string,
  written: string,
  chances: SlipChances,
  confusable: readonly string[],
): number {
  const from = canonicalId(meant);
  const to = canonicalId(written);
  const slip = mayBeOneSlip(from, to) ? slipBetween(from, to) : undefined;
  if (!slip) return 0;
  switch (slip.kind) {
    case 'wrong-digit': {
      const partners = partnersOf(from[slip.at] ?? '', confusable);
      const all = [...from].reduce((sum, digit) => sum + partnersOf(digit, confusable).length, 0);
      const others = from.length * (base - 1) - all;
      return partners.includes(to[slip.at] ?? '') ? chances.confused / all : chances.otherDigit / others;
    }
    case 'exchanged-neighbours':
      return chances.exchanged / (from.length - 1);
    case 'lost-digit':
      return chances.lost / from.length;
    case 'doubled-digit':
      return chances.doubled / from.length;
  }
}

/** One slip leaves all alike but two neighbouring digits; most pairs of IDs are told apart by that at once. */
function mayBeOneSlip(meant: string, written: string): boolean {
  if (Math.abs(meant.length - written.length) > 1) return false;
  let alike = 0;
  while (alike < meant.length && meant[alike] === written[alike]) alike += 1;
  const rest = meant.length - alike;
  let back = 0;
  while (back < rest && meant.at(-1 - back) === written.at(-1 - back)) back += 1;
  return rest - back <= 2;
}

function partnersOf(digit: string, confusable: readonly string[]): string[] {
  return confusable.flatMap((pair) => {
    const [a = '', b = ''] = pair;
    return digit === a ? [b] : digit === b ? [a] : [];
  });
}

/** How far apart two IDs are as numbers; undefined where one is not hexadecimal or they are of different length. */
export function numericDistance(a: string, b: string): number | undefined {
  const [one, other] = [canonicalId(a), canonicalId(b)];
  if (one.length !== other.length || one.length > 12) return undefined;
  const distance = Math.abs(Number(`0x${one}`) - Number(`0x${other}`));
  return Number.isNaN(distance) ? undefined : distance;
}
