/**
 * Whose time counts: the shop's. A device learns from every answer how far its own clock is off, and writes down what is
 * seen by the shop's clock; what still comes from the future is set right when it arrives.
 */

/** A contact with the shop: what its clock said, ms, and when this device asked and was answered by its own, ms. */
export interface Contact {
  shopMs: number;
  sentMs: number;
  heardMs: number;
}

/** How far the shop's clock is ahead of this device's, ms, and how much that may be off: half of what the answer took. */
export interface Offset {
  ms: number;
  doubtMs: number;
}

export const offsetOf = ({ shopMs, sentMs, heardMs }: Contact): Offset => ({
  ms: shopMs - (sentMs + heardMs) / 2,
  doubtMs: Math.abs(heardMs - sentMs) / 2,
});

/** The better known of two offsets; the newer one where they contradict each other: then the clock was set meanwhile. */
export function betterOf(before: Offset | undefined, now: Offset): Offset {
  if (!before || now.doubtMs <= before.doubtMs) return now;
  return Math.abs(before.ms - now.ms) > before.doubtMs + now.doubtMs ? now : before;
}

/** A clock so far off, ms, is worth a word: a minute decides which of two readings is the later one. */
const worthSayingMs = 60_000;

/** Network and rounding account for so much, ms. */
const toleranceMs = 5_000;

/**
 * What was seen, with a time that can be: nothing was seen after it arrived, `nowMs`. Where it is set right, `saidAt` keeps
 * what the device's clock said.
 */
export function setRight<Seen extends { at: string }>(
  seen: Seen,
  nowMs: number,
): Seen & { saidAt?: string | undefined } {
  const atMs = Date.parse(seen.at);
  if (atMs <= nowMs) return seen;
  const at = new Date(nowMs).toISOString();
  return atMs - nowMs > toleranceMs ? { ...seen, at, saidAt: seen.at } : { ...seen, at };
}

/** “5 min fast”, as a person says it of a clock; undefined where it is not worth a word. */
export function clockWords({ ms }: Offset): string | undefined {
  if (Math.abs(ms) < worthSayingMs) return undefined;
  const minutes = Math.round(Math.abs(ms) / 60_000);
  const amount =
    minutes < 120
      ? `${minutes} min`
      : minutes < 2880
        ? `${Math.round(minutes / 60)} h`
        : `${Math.round(minutes / 1440)} days`;
  return `${amount} ${ms < 0 ? 'fast' : 'slow'}`;
}
