import { describe, expect, it } from 'vitest';
import { pauseAfter } from './pause';

describe('the pause before something is started again', () => {
  it('grows each time in a row to half a minute, and begins anew after it was well for a minute', () => {
    const pauses: number[] = [];
    let inARow = 0;
    for (let n = 0; n < 8; n += 1) {
      const { pauseMs, next } = pauseAfter(100, inARow);
      pauses.push(pauseMs);
      inARow = next;
    }
    expect(pauses).toEqual([500, 1000, 2000, 5000, 10_000, 30_000, 30_000, 30_000]);
    expect(pauseAfter(61_000, inARow)).toEqual({ pauseMs: 500, next: 1 });
  });
});
