import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import type { Observation, Tpms } from '../../job';
import { roadWheels, type Position } from '../../names/wheel';
import { assess } from '.';

/**
 * What is doubted, what is checked next, and what is acted on: cases of our own that an experienced technician agrees
 * with (common practice).
 */
const airLine = (n: number, wheel: Position, kPa: number) => gauge(n, wheel, kPa, { trusted: false });
const tests = (seen: Observation[], more: { tpms?: Partial<Tpms> } = {}) =>
  assess(jobWith(seen, more)).nextTests;
const indirect = { tpms: { kind: 'indirect' as const, positions: [] } };

describe('an air line after a trusted gauge', () => {
  it.each([
    [205, 231, 'tire-underinflated'],
    [168, 231, 'tire-low'],
  ] as const)('does not win: %d trusted, %d by the air line', (trusted, line, code) => {
    const found = assess(jobWith([...gauges(1, { RF: trusted }), airLine(5, 'RF', line), lamp(6, 'off')]));
    expect(chance(found, code, 'RF')).toBeGreaterThan(0.9);
    expect(found.nextTests[0]).toMatchObject({ test: 'gauge', wheel: 'RF' });
  });

  it('nearly so: far under what was read, it speaks of air that has gone', () => {
    const found = assess(jobWith([...gauges(1), airLine(300, 'RF', 120)]));
    expect(chance(found, 'tire-low', 'RF')).toBeGreaterThan(0.5);
  });

  it('is no reason to gauge again where the two agree', () => {
    expect(tests([...gauges(1), airLine(5, 'RF', 226)]).filter(({ test }) => test === 'gauge')).toEqual([]);
  });
});

describe('what is confirmed before it is acted on', () => {
  it('two trusted gauges that disagree', () => {
    const found = assess(jobWith([...gauges(1), gauge(3, 'RF', 205)]));
    expect(found.nextTests[0]).toMatchObject({ test: 'gauge', wheel: 'RF' });
    expect(found.decision?.verdict).toBe('check-first');
  });

  it('nearly so: a fill between them is no disagreement', () => {
    const again = tests([...gauges(1, { RF: 190 }), gauge(6, 'RF', 231)]);
    expect(again.filter(({ test }) => test === 'gauge')).toEqual([]);
  });

  it('a sensor that reads wrong, by waking it once more', () => {
    const once = [...gauges(1), ...scans(3, { RR: [heard(3, 'RR', { kPa: 190 })] }), registry(5)];
    expect(tests(once)[0]).toMatchObject({ test: 'activation', wheel: 'RR' });
    const found = assess(jobWith([...once, heard(6, 'RR', { kPa: 191 })]));
    expect(found.nextTests.filter(({ savesMinutes }) => savesMinutes > 0)).toEqual([]);
    expect(found.decision).toMatchObject({
      verdict: 'act',
      on: [{ code: 'sensor-inaccurate', wheels: ['RR'] }],
    });
  });

  it('a silent wheel, by another trigger and not by a drive', () => {
    const seen = [...gauges(1), ...scans(3, { RR: [silent(3, 'RR')] }), registry(5)];
    const [first, ...others] = tests([...seen, lamp(9, 'flash-then-steady')]).filter(
      ({ savesMinutes }) => savesMinutes > 0,
    );
    expect(first).toMatchObject({ test: 'activation', wheel: 'RR' });
    expect(others.map(({ test }) => test)).not.toContain('drive');
  });

  it('a dear part, that one code alone accuses', () => {
    const code: Observation = {
      kind: 'dtc',
      at: minute(2),
      code: 'C1F00',
      status: 'active',
      about: 'receiver',
    };
    const found = assess(jobWith([code]));
    expect(found.decision?.on.map(({ code: on }) => on)).not.toContain('receiver-fault');
    const none = [...gauges(1), ...scans(3), registry(6), code, ...lives(8, null, 60)];
    const sure = assess(jobWith([...none, lamp(9, 'flash-then-steady')]));
    expect(sure.decision?.on.map(({ code: on }) => on)).toContain('receiver-fault');
  });

  it('the fast wheel of a car without sensors, by the gauge', () => {
    const turns = roadWheels.map((wheel): Observation => ({
      kind: 'wheelspeed',
      at: minute(3),
      wheel,
      ratio: wheel === 'RF' ? 1.006 : 0.998,
    }));
    expect(tests([lamp(1, 'steady'), ...turns], indirect)[0]).toMatchObject({ test: 'gauge', wheel: 'RF' });
  });

  it('nothing to act on is not called acting', () => {
    for (const seen of [[], gauges(1), [...gauges(1), ...scans(2), registry(3), lamp(4, 'off')]]) {
      const { decision } = assess(jobWith(seen));
      expect(decision?.verdict === 'act').toBe((decision?.on.length ?? 0) > 0 && decision?.verdict === 'act');
    }
    const all = [...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 60), lamp(5, 'off')];
    expect(assess(jobWith(all)).decision).toMatchObject({ verdict: 'nothing-to-do', on: [] });
  });
});

describe('what the car itself says', () => {
  const said = (battery: 'ok' | 'low') =>
    lives(8, undefined, 60).map((seen) =>
      'wheel' in seen && seen.wheel === 'RR' ? { ...seen, battery } : seen,
    ) as Observation[];
  const seen = [...gauges(1), ...scans(3), registry(5)];

  it('of a battery is evidence', () => {
    expect(chance(assess(jobWith([...seen, ...said('low')])), 'sensor-battery-low', 'RR')).toBeGreaterThan(
      0.5,
    );
    expect(chance(assess(jobWith([...seen, ...said('ok')])), 'sensor-battery-low', 'RR')).toBeLessThan(0.05);
  });

  it('with a second fault: of a battery at one wheel, beside a silent one', () => {
    const tries = scans(3, {
      LF: [silent(3, 'LF'), silent(4, 'LF', 'continuous'), silent(4, 'LF', 'magnet')],
    });
    const lame = said('low').map((one) =>
      'wheel' in one && one.wheel === 'LF' ? { ...one, kPa: null } : one,
    ) as Observation[];
    const found = assess(jobWith([...gauges(1), ...tries, registry(5), ...lame]));
    expect(chance(found, 'sensor-battery-low', 'RR')).toBeGreaterThan(0.5);
    expect(chance(found, 'sensor-silent', 'LF')).toBeGreaterThan(0.9);
  });
});

describe('a lamp that is lit by something else than a low tire', () => {
  const driven = (celsius: number) => [
    ...roadWheels.map((wheel) => gauge(1, wheel, 262, { tire: 'warm', tireC: 45 })),
    ...scans(3, { RR: [heard(3, 'RR', { kPa: 290, tempC: celsius })] }).map((scan) => scan),
    registry(5),
    lamp(9, 'steady'),
  ];

  it('is explained by a hot tire', () => {
    const found = assess(jobWith(driven(112)));
    expect(chance(found, 'tire-hot', 'RR')).toBeGreaterThan(0.9);
    expect(chance(found, 'tire-low')).toBeLessThan(0.05);
  });

  it('is explained by air that goes within minutes', () => {
    const found = assess(jobWith([...gauges(1), gauge(9, 'RF', 212), lamp(10, 'steady')]));
    expect(chance(found, 'tire-leaking', 'RF')).toBeGreaterThan(0.5);
    expect(chance(found, 'system-disabled')).toBeLessThan(0.05);
  });
});

describe('a car that compares wheel speeds', () => {
  const code = (wheel: Position, status: 'active' | 'stored' = 'active'): Observation => ({
    kind: 'dtc',
    at: minute(2),
    code: 'C0035',
    status,
    about: 'wheel-speed',
    wheel,
  });
  const stored = (n: number): Observation => ({
    kind: 'relearn',
    at: minute(n),
    method: 'reset',
    outcome: 'done',
  });
  const of = (seen: Observation[]) => assess(jobWith(seen, indirect));

  it('names the wheel of its code', () => {
    const found = of([...gauges(1), code('LF'), lamp(3, 'steady')]).findings[0];
    expect(found).toMatchObject({ code: 'wheel-speed-sensor-fault', wheels: ['LF'] });
  });

  it.each<[string, Observation[]]>([
    ['before the air was put right', [stored(0), ...gauges(3, { LF: 205 }), gauge(8, 'LF', 230)]],
    ['and then air was let out', [...gauges(1, { LF: 250 }), stored(2), gauge(8, 'LF', 230)]],
    ['with a tire that is short', [...gauges(1, { RR: 190 }), stored(4)]],
  ])('has no reference where it was stored %s', (_, seen) => {
    expect(chance(of([...seen, lamp(9, 'steady')]), 'baseline-not-set')).toBeGreaterThan(0.5);
  });

  it('nearly so: stored after the air was put right, it is one', () => {
    const seen = [...gauges(3, { LF: 205 }), gauge(8, 'LF', 230), stored(10), lamp(12, 'off')];
    expect(chance(of(seen), 'baseline-not-set')).toBeLessThan(0.05);
  });

  it('with a second fault: a low tire beside a reference stored too soon', () => {
    const found = of([...gauges(1, { LF: 205, RR: 140 }), stored(2), gauge(8, 'LF', 230), lamp(9, 'steady')]);
    expect(chance(found, 'tire-low', 'RR')).toBeGreaterThan(0.9);
    expect(chance(found, 'baseline-not-set')).toBeGreaterThan(0.5);
  });
});
