/** Waits before something that ended by itself is started again, ms: longer each time in a row, so that a fault that stays does not fill the machine. */
const pausesMs = [500, 1000, 2000, 5000, 10_000, 30_000] as const;
/** What ran so long was well, ms. */
const wellMs = 60_000;

/** How long to wait after it ran for `ranMs`, having ended by itself so many times in a row; and how often that is now. */
export function pauseAfter(ranMs: number, inARow: number): { pauseMs: number; next: number } {
  const times = ranMs > wellMs ? 0 : inARow;
  return { pauseMs: pausesMs[Math.min(times, pausesMs.length - 1)] ?? 0, next: times + 1 };
}
