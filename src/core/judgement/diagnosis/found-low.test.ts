import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  jobWith,
  lamp,
  lives,
  minute,
  placard,
  registry,
  scans,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import { unexplainedDamage } from '../../tire/damage';
import type { Job, Observation } from '../../job';
import { proofOf } from '../../visit/proof';
import { roadWheels, type Position } from '../../names/wheel';
import { assess } from '.';
import { damageSigns } from '../../names/kinds';

/**
 * A tire that was found low beside three good ones is a leak until somebody looked: filling proves nothing, nor does an
 * hour (common practice). Figures are invented.
 */

const day = 24 * 60;
/** Everything else was looked at, and is in order. */
const rest = (n: number): Observation[] => [
  ...scans(n),
  registry(n + 1),
  ...lives(n + 2, undefined, 60),
  lamp(n + 3, 'off'),
];
const foundAt = (wheel: Position, kPa: number, more: Partial<Job> = {}, later: Observation[] = []) =>
  jobWith(
    [
      lamp(0, 'steady'),
      ...gauges(1, { [wheel]: kPa }),
      gauge(5, wheel, placard[wheel]),
      ...rest(8),
      ...later,
    ],
    more,
  );
const isOpen = (job: Job, wheel: Position): boolean =>
  unexplainedDamage(job).some((damage) => damage.wheel === wheel && damage.found);

describe('found low and only filled', () => {
  const found = roadWheels.flatMap((wheel) =>
    [45, 109, 112, 140, 160, 175, 195].map((kPa) => [kPa, wheel] as const),
  );

  it.each(found)(
    '%i kPa at %s: nobody says that all is in order, and a look is what comes next',
    (kPa, wheel) => {
      const job = foundAt(wheel, kPa);
      const told = assess(job);
      expect(chance(told, 'no-fault')).toBeLessThan(0.05);
      expect(chance(told, 'tire-leaking', wheel)).toBeGreaterThan(0.2);
      expect(told.decision.verdict).not.toBe('nothing-to-do');
      expect(told.nextTests.some((test) => test.wheel === wheel && test.test === 'visual')).toBe(true);
      expect(proofOf(job).checks).toContainEqual(expect.objectContaining({ name: 'damage', state: 'open' }));
    },
  );

  it('has no cliff: from nearly flat to a little low the chance of a leak falls evenly', () => {
    const chances = [60, 80, 100, 109, 112, 120, 140, 160, 180, 195].map((kPa) =>
      chance(assess(foundAt('RR', kPa)), 'tire-leaking', 'RR'),
    );
    chances.slice(1).forEach((one, at) => {
      expect(one).toBeLessThanOrEqual((chances[at] ?? 1) + 0.02);
      expect((chances[at] ?? 0) - one).toBeLessThan(0.2);
    });
  });

  it.each([1, 3, 10])('is not excused by %i hours at full pressure', (hours) => {
    const again = [gauge(5 + hours * 60, 'RR', 220)];
    const job = foundAt('RR', 160, {}, again);
    expect(isOpen(job, 'RR')).toBe(true);
    const before = chance(assess(foundAt('RR', 160)), 'tire-leaking', 'RR');
    expect(Math.abs(chance(assess(job), 'tire-leaking', 'RR') - before)).toBeLessThan(0.02);
  });

  it('is a leak where a day later it is lower again', () => {
    const job = foundAt('RR', 160, {}, [gauge(5 + day, 'RR', 205)]);
    expect(chance(assess(job), 'tire-leaking', 'RR')).toBeGreaterThan(0.9);
  });

  it('with a second fault: a nail seen at the same tire makes it one', () => {
    const nail: Observation = { kind: 'visual', at: minute(6), wheel: 'RR', sign: 'object' };
    expect(chance(assess(foundAt('RR', 175, {}, [nail])), 'tire-leaking', 'RR')).toBeGreaterThan(0.9);
  });

  it('with a second low tire beside it: both stand open', () => {
    const job = jobWith([...gauges(1, { RF: 150, LR: 160 }), ...gauges(9), ...rest(12)]);
    expect(isOpen(job, 'RF') && isOpen(job, 'LR')).toBe(true);
  });
});

describe('what settles it', () => {
  it.each([20, 24, 70])('%i hours later it stands as high', (hours) => {
    const job = foundAt('RR', 160, {}, [gauge(5 + hours * 60, 'RR', 219)]);
    expect(isOpen(job, 'RR')).toBe(false);
    expect(chance(assess(job), 'no-fault')).toBeGreaterThan(0.5);
  });

  it('a repair', () => {
    const job = foundAt('RR', 160, { repairs: [{ wheel: 'RR', at: minute(4) }] });
    expect(chance(assess(job), 'no-fault')).toBeGreaterThan(0.5);
  });

  it.each(['in-order', 'tire-leaking'] as const)('somebody had it in hand and says: %s', (was) => {
    const confirmations = [
      {
        key: 'said',
        at: minute(20),
        by: 'Mara',
        parts: [{ part: 'tire' as const, wheel: 'RR' as const, was }],
      },
    ];
    expect(isOpen(foundAt('RR', 160, { confirmations }), 'RR')).toBe(false);
  });

  it('and not a day on which it was filled again', () => {
    const job = foundAt('RR', 160, {}, [
      gauge(10 * 60, 'RR', 205),
      gauge(10 * 60 + 5, 'RR', 220),
      gauge(5 + day, 'RR', 220),
    ]);
    expect(isOpen(job, 'RR')).toBe(true);
  });
});

describe('nearly so, and no leak', () => {
  it.each([4, 10, 16])('%i kPa short and filled', (short) => {
    expect(chance(assess(foundAt('LF', 230 - short)), 'no-fault')).toBeGreaterThan(0.5);
  });

  it.each([30, 55])('all four %i kPa short and filled: the season, or nobody looked', (short) => {
    const low = { LF: 230 - short, RF: 230 - short, RR: 220 - short, LR: 220 - short };
    const job = jobWith([lamp(0, 'steady'), ...gauges(1, low), ...gauges(9), ...rest(12)]);
    expect(unexplainedDamage(job)).toEqual([]);
    expect(chance(assess(job), 'no-fault')).toBeGreaterThan(0.5);
  });

  it('all four short, each filled before the next was gauged', () => {
    const low = { LF: 180, RF: 181, RR: 171, LR: 170 };
    const walk = roadWheels.flatMap((wheel, at) => [
      gauge(1 + 4 * at, wheel, low[wheel]),
      gauge(3 + 4 * at, wheel, placard[wheel]),
    ]);
    expect(unexplainedDamage(jobWith([...walk, ...rest(30)]))).toEqual([]);
  });

  it('the spare, which nobody looks at', () => {
    const line = [
      { position: 'front' as const, coldKPa: 230 },
      { position: 'rear' as const, coldKPa: 220 },
      { position: 'spare' as const, coldKPa: 420 },
    ];
    const job = jobWith([...gauges(1), gauge(1, 'SP', 300), gauge(6, 'SP', 420), ...rest(8)], {
      placard: line,
    });
    expect(isOpen(job, 'SP')).toBe(false);
  });

  it('by an air line nobody trusts, and right by a gauge', () => {
    const job = jobWith([gauge(0, 'RR', 170, { trusted: false }), ...gauges(1), ...rest(8)]);
    expect(isOpen(job, 'RR')).toBe(false);
  });

  it('one that is not filled yet is low first of all', () => {
    const told = assess(jobWith([lamp(0, 'steady'), ...gauges(1, { RR: 160 })]));
    expect(chance(told, 'tire-low', 'RR')).toBeGreaterThan(0.9);
    expect(told.decision.verdict).not.toBe('nothing-to-do');
  });
});

describe('never nothing to do', () => {
  const all = [...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 60)];
  const verdict = (seen: Observation[], more: Parameters<typeof jobWith>[1] = {}) =>
    assess(jobWith(seen, more));

  it.each(['steady', 'flash-then-steady', 'flash-while-driving'] as const)(
    'while the lamp was seen %s',
    (state) => {
      for (const seen of [[], all, scans(2), [...scans(2), registry(3)]]) {
        const { decision, nextTests } = verdict([lamp(0, state), ...seen]);
        expect(decision.verdict).not.toBe('nothing-to-do');
        expect(decision.on.length + nextTests.length).toBeGreaterThan(0);
      }
    },
  );

  it.each(roadWheels)(
    'while %s was never gauged, and that is offered before what tells as little',
    (wheel) => {
      const but = all.filter((seen) => !(seen.kind === 'gauge' && seen.wheel === wheel));
      const { decision, nextTests } = verdict([lamp(0, 'off'), ...but]);
      expect(decision.verdict).toBe('check-first');
      expect(nextTests[0]).toMatchObject({ test: 'gauge', wheel });
    },
  );

  it.each(damageSigns)('while %s was seen and not said what it was', (sign) => {
    const seen: Observation = { kind: 'visual', at: minute(1), wheel: 'LF', sign };
    expect(verdict([lamp(0, 'off'), seen, ...all]).decision.verdict).not.toBe('nothing-to-do');
  });

  it('while a battery is ending', () => {
    const low = scans(2).map((seen) =>
      seen.kind === 'activation' && seen.wheel === 'RR'
        ? { ...seen, replies: seen.replies.map((reply) => ({ ...reply, battery: 'low' as const })) }
        : seen,
    );
    const { decision } = verdict([
      lamp(0, 'off'),
      ...gauges(1),
      ...low,
      registry(3),
      ...lives(4, undefined, 60),
    ]);
    expect(decision).toMatchObject({ verdict: 'act', on: [{ code: 'sensor-battery-low', wheels: ['RR'] }] });
  });

  it('on a car without sensors, with the lamp lit and all gauged', () => {
    const { decision } = verdict([lamp(0, 'steady'), ...gauges(1)], {
      tpms: { kind: 'indirect', positions: undefined },
    });
    expect(decision.verdict).not.toBe('nothing-to-do');
  });

  it('but where all was looked at and is in order', () => {
    expect(verdict([lamp(0, 'off'), ...all]).decision.verdict).toBe('nothing-to-do');
  });
});
