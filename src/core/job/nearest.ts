/** Things seen, in order of time, to be asked which is nearest to a moment. */
export interface Timeline<Item> {
  items: readonly Item[];
  /** When each was seen, ms. */
  ms: readonly number[];
}

export function timelineOf<Item extends { seen: { at: string } }>(items: readonly Item[]): Timeline<Item> {
  const timed = items.map((item) => ({ item, ms: Date.parse(item.seen.at) })).sort((a, b) => a.ms - b.ms);
  return { items: timed.map(({ item }) => item), ms: timed.map(({ ms }) => ms) };
}

/**
 * What was seen nearest to a moment, at most so far from it, both ms: of two equally far the earlier, of several at one time
 * the one recorded last.
 */
export function nearestTo<Item>(
  { items, ms }: Timeline<Item>,
  moment: number,
  withinMs: number,
): Item | undefined {
  const after = firstAfter(ms, moment);
  const before = after - 1;
  const apartBefore = moment - (ms[before] ?? Number.NEGATIVE_INFINITY);
  const apartAfter = (ms[after] ?? Number.POSITIVE_INFINITY) - moment;
  if (Math.min(apartBefore, apartAfter) > withinMs) return undefined;
  if (apartBefore <= apartAfter) return items[before];
  return items[firstAfter(ms, moment + apartAfter) - 1];
}

/** When the last was seen, ms, up to and with a moment; minus infinity where none was. */
export const lastUpTo = ({ ms }: Timeline<unknown>, moment: number): number =>
  ms[firstAfter(ms, moment) - 1] ?? Number.NEGATIVE_INFINITY;

/** The place of the first that is later than a moment. */
function firstAfter(ms: readonly number[], moment: number): number {
  let low = 0;
  let high = ms.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ms[middle] ?? 0) > moment) high = middle;
    else low = middle + 1;
  }
  return low;
}
