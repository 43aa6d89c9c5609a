import { describe, expect, it } from 'vitest';
import { wilsonInterval } from './interval';
import { receptionsOf, type Telegram } from '.';

/** A generator of numbers from 0 to 1 that gives the same again (mulberry32, public domain). */
function chancesFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const at = (s: number) => new Date(Date.UTC(2026, 0, 9, 8) + s * 1000).toISOString();

/** A drive of an hour in which each sensor sends at its own interval, some of it missed, some of it in bursts. */
function drive(
  seed: number,
  sensors: readonly { id: string; periodS: number; missed: number }[],
): Telegram[] {
  const chance = chancesFrom(seed);
  return sensors.flatMap(({ id, periodS, missed }) => {
    const start = chance() * periodS;
    return Array.from({ length: Math.floor((3600 - start) / periodS) + 1 }, (_, n) => n).flatMap(
      (n): Telegram[] => {
        if (n > 0 && chance() < missed) return [];
        const s = start + n * periodS + (chance() - 0.5) * 0.1 * periodS;
        const telegram = { id, speedKmh: 60 };
        return chance() < 0.3
          ? [
              { ...telegram, at: at(s) },
              { ...telegram, at: at(s + 0.2) },
            ]
          : [{ ...telegram, at: at(s) }];
      },
    );
  });
}

describe('how a sensor was heard', () => {
  const sensors = [
    { id: 'A', periodS: 60, missed: 0 },
    { id: 'B', periodS: 32, missed: 0.03 },
    { id: 'C', periodS: 45, missed: 0.4 },
  ];

  it('has its own interval, which missed telegrams do not stretch', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const heard = receptionsOf(drive(seed, sensors));
      for (const { id, periodS } of sensors)
        expect(
          Math.abs((heard.find((one) => one.id === id)?.periodS ?? 0) - periodS),
          `${id} ${seed}`,
        ).toBeLessThan(0.02 * periodS);
    }
  });

  it('counts a burst once, and what was due against what came', () => {
    const [whole] = receptionsOf(drive(3, [{ id: 'A', periodS: 60, missed: 0 }]));
    expect(whole).toMatchObject({ received: 60, expected: 60, missedShare: 0 });
  });

  it('holds the true share within its interval in about nineteen drives of twenty', () => {
    const within = Array.from({ length: 200 }, (_, seed) => {
      const [low, high] = receptionsOf(drive(seed + 1000, [{ id: 'C', periodS: 45, missed: 0.1 }]))[0]
        ?.interval95 ?? [1, 0];
      return low <= 0.1 && 0.1 <= high;
    }).filter(Boolean).length;
    expect(within).toBeGreaterThan(180);
  });

  it('says how long after the car was fast enough a sensor woke', () => {
    const telegrams = [
      { at: at(0), id: 'A', speedKmh: 20 },
      { at: at(60), id: 'A', speedKmh: 45 },
      { at: at(100), id: 'B', speedKmh: 50 },
      { at: at(120), id: 'A', speedKmh: 50 },
    ];
    const heard = receptionsOf(telegrams);
    expect(heard.map(({ id, firstAboveWakeS }) => [id, firstAboveWakeS])).toEqual([
      ['A', 0],
      ['B', 40],
    ]);
    expect(receptionsOf([{ at: at(0), id: 'A' }])[0]).toMatchObject({ periodS: null, firstAboveWakeS: null });
  });

  it('takes a stop for no silence, and a silence on the road for no stop', () => {
    const minutes = (from: number, to: number, speedKmh: number) =>
      Array.from({ length: to - from }, (_, n) => ({ at: at((from + n) * 60), id: 'A', speedKmh }));
    const stopped = [
      ...minutes(0, 20, 60),
      { at: at(20 * 60), id: 'A', speedKmh: 0 },
      ...minutes(60, 80, 60),
    ];
    expect(receptionsOf(stopped)[0]).toMatchObject({ received: 41, expected: 41, longestGapS: 60 });
    const silent = [...minutes(0, 20, 60), ...minutes(30, 50, 60)];
    expect(receptionsOf(silent)[0]).toMatchObject({
      received: 40,
      expected: 50,
      longestGapS: 660,
      missedShare: 0.2,
    });
  });

  it('counts what was missed at the end too: others were heard longer', () => {
    const telegrams = drive(5, [
      { id: 'A', periodS: 60, missed: 0 },
      { id: 'B', periodS: 60, missed: 0 },
    ]).filter(({ id, at: when }) => id === 'A' || when < at(1800));
    const [, lost] = receptionsOf(telegrams);
    expect(lost?.id === 'B' ? lost.missedShare : receptionsOf(telegrams)[0]?.missedShare).toBeGreaterThan(
      0.45,
    );
  });
});

describe('the interval of a share', () => {
  it('is that of Wilson: 10 of 100 is 0.0552 to 0.1744 (Newcombe 1998 method 3, from memory)', () => {
    const [low, high] = wilsonInterval(10, 100);
    expect(low).toBeCloseTo(0.0552, 3);
    expect(high).toBeCloseTo(0.1744, 3);
    expect(wilsonInterval(0, 10)[0]).toBe(0);
    expect(wilsonInterval(10, 10)[1]).toBeCloseTo(1, 12);
  });
});
