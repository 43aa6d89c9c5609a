import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lastUpTo, nearestTo, timelineOf } from './nearest';
import { once } from './once';

const seenAt = (ms: number, name = '') => ({ name, seen: { at: new Date(ms).toISOString() } });

describe('what was seen nearest to a moment', () => {
  it('is what looking at each of them finds, the earlier of two, of one time the last', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 20 }),
        fc.integer({ min: -10, max: 70 }),
        fc.integer({ min: 0, max: 30 }),
        (times, moment, within) => {
          const items = times.map((ms, place) => seenAt(ms, String(place)));
          const timeline = timelineOf(items);
          const near = times
            .map((ms, place) => ({ ms, place, apart: Math.abs(ms - moment) }))
            .filter(({ apart }) => apart <= within)
            .sort((a, b) => a.apart - b.apart || a.ms - b.ms || b.place - a.place);
          expect(nearestTo(timeline, moment, within)?.name).toBe(near[0] && String(near[0].place));
          expect(lastUpTo(timeline, moment)).toBe(Math.max(...times.filter((ms) => ms <= moment)));
        },
      ),
    );
  });
});

describe('work done once', () => {
  it('is done once for each thing and name, and again for another thing that looks the same', () => {
    let done = 0;
    const lengthOf = once((text: { it: string }, from: number) => {
      done += 1;
      return text.it.length - from;
    });
    const [one, other] = [{ it: 'abc' }, { it: 'abc' }];
    expect([lengthOf(one, 0), lengthOf(one, 0), lengthOf(one, 1), lengthOf(other, 0)]).toEqual([3, 3, 2, 3]);
    expect(done).toBe(3);
  });
});
