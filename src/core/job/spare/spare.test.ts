import { describe, expect, it } from 'vitest';
import {
  gauges,
  heard,
  jobWith,
  lamp,
  live,
  minute,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import { assess } from '../../judgement/diagnosis';
import type { Job, Observation } from '..';
import { monitoredWheels, placardKPa } from '../placard';
import { roadWheels, type Position } from '../../names/wheel';
import { isSpareAt } from '.';

/** A small spare is kept at about 420 kPa, has no sensor, and stands in for a road wheel (common practice). */

const withSpare = [
  { position: 'front' as const, coldKPa: 230 },
  { position: 'rear' as const, coldKPa: 220 },
  { position: 'spare' as const, coldKPa: 420 },
];
const odd = (wheel: Position): Observation => ({ kind: 'visual', at: minute(0), wheel, sign: 'odd-size' });
const job = (seen: Observation[], placard: Job['placard'] = withSpare) => jobWith(seen, { placard });
const silentAt = (wheel: Position) =>
  scans(4, { [wheel]: [silent(4, wheel), silent(5, wheel, 'continuous')] });

describe('the small spare on the road', () => {
  it.each(roadWheels)('at %s: its own pressure counts, and it misses no sensor', (wheel) => {
    const seen = [
      lamp(0, 'flash-then-steady'),
      odd(wheel),
      ...gauges(1, { [wheel]: 415 }),
      ...silentAt(wheel),
      registry(8),
    ];
    const told = assess(job(seen));
    expect(chance(told, 'spare-in-use', wheel)).toBeGreaterThan(0.9);
    for (const code of [
      'tire-overinflated',
      'sensor-silent',
      'sensor-absent',
      'id-not-registered',
      'no-fault',
    ] as const)
      expect(chance(told, code, code === 'no-fault' ? undefined : wheel)).toBeLessThan(0.05);
    const target = told.targets.find((one) => one.wheel === wheel);
    expect(target).toMatchObject({ coldKPa: 420, advice: 'leave' });
    expect(told.decision.on[0]).toMatchObject({ code: 'spare-in-use', wheels: [wheel] });
  });

  it.each([380, 400, 420, 440])('told by %i kPa alone', (kPa) => {
    const told = assess(job(gauges(1, { RR: kPa })));
    expect(chance(told, 'spare-in-use', 'RR')).toBeGreaterThan(0.5);
    expect(told.targets.map(({ advice }) => advice)).not.toContain('let-out');
  });

  it('told by its size and its silence, before anybody gauged it', () => {
    expect(chance(assess(job([odd('LF'), ...silentAt('LF')])), 'spare-in-use', 'LF')).toBeGreaterThan(0.5);
  });

  it('where no placard names it, it has no target: nothing is let out', () => {
    const told = assess(job([odd('RR'), ...gauges(1, { RR: 410 })], withSpare.slice(0, 2)));
    expect(chance(told, 'spare-in-use', 'RR')).toBeGreaterThan(0.9);
    expect(told.targets.some(({ wheel }) => wheel === 'RR')).toBe(false);
  });

  it('with a second fault: it is low itself, and is filled to its own figure', () => {
    const told = assess(job([odd('RR'), ...gauges(1, { RR: 330 }), ...silentAt('RR')]));
    expect(chance(told, 'spare-in-use', 'RR')).toBeGreaterThan(0.5);
    expect(told.targets.find(({ wheel }) => wheel === 'RR')).toMatchObject({ coldKPa: 420, advice: 'add' });
  });

  it('with a second fault: another tire that is low is still said', () => {
    const told = assess(job([odd('RR'), ...gauges(1, { RR: 420, LF: 150 }), ...silentAt('RR')]));
    expect(chance(told, 'spare-in-use', 'RR')).toBeGreaterThan(0.9);
    expect(chance(told, 'tire-low', 'LF')).toBeGreaterThan(0.9);
  });

  it('is the one truth of every screen: which line of the placard holds, and whose sensor is asked for', () => {
    const on = job([odd('RR'), ...gauges(1, { RR: 415 })]);
    expect(isSpareAt(on, 'RR')).toBe(true);
    expect(placardKPa(on, 'RR')).toBe(420);
    expect(monitoredWheels(on)).toEqual(['LF', 'RF', 'LR']);
  });
});

describe('nearly so, and no spare', () => {
  it.each([260, 300, 335])('a road tire with %i kPa is over', (kPa) => {
    expect(chance(assess(job(gauges(1, { RR: kPa }))), 'spare-in-use')).toBeLessThan(0.5);
  });

  it('a road tire filled to 415 whose sensor says 415', () => {
    const told = assess(
      job([...gauges(1, { RR: 415 }), ...scans(4, { RR: [heard(4, 'RR', { kPa: 415 })] })]),
    );
    expect(chance(told, 'spare-in-use')).toBeLessThan(0.05);
    expect(chance(told, 'tire-overinflated', 'RR')).toBeGreaterThan(0.9);
  });

  it('another size with a road pressure is another tire', () => {
    expect(chance(assess(job([odd('RR'), ...gauges(1)])), 'spare-in-use')).toBeLessThan(0.05);
  });

  it('a spare of full size and pressure', () => {
    const full = [...withSpare.slice(0, 2), { position: 'spare' as const, coldKPa: 230 }];
    expect(chance(assess(job([odd('RR'), ...gauges(1)], full)), 'spare-in-use')).toBe(0);
  });

  it('a silent sensor in a wheel of the right size', () => {
    const told = assess(
      job([lamp(0, 'flash-then-steady'), ...gauges(1), ...silentAt('RR'), live(9, 'RR', null, 60)]),
    );
    expect(chance(told, 'spare-in-use')).toBe(0);
    expect(chance(told, 'sensor-silent', 'RR')).toBeGreaterThan(0.5);
  });
});

describe('on a car whose placard names no spare', () => {
  const bare = withSpare.filter(({ position }) => position !== 'spare');
  const high = [lamp(0, 'flash-then-steady'), ...gauges(1, { RR: 400 })];

  it('its pressure alone asks for a look, before air is let out or a sensor sold', () => {
    const told = assess(job(high, bare));
    expect(chance(told, 'spare-in-use', 'RR')).toBeGreaterThan(0.1);
    expect(chance(told, 'spare-in-use', 'RR')).toBeLessThan(0.5);
    expect(told.decision.verdict).toBe('check-first');
    expect(told.nextTests[0]).toMatchObject({ test: 'visual', wheel: 'RR', about: { code: 'spare-in-use' } });
  });

  it('looked at, and of the size of the others, it is a road tire with too much air', () => {
    const look: Observation = { kind: 'visual', at: minute(2), wheel: 'RR', sign: 'stem-metal' };
    const told = assess(job([...high, look], bare));
    expect(told.nextTests[0]?.test).not.toBe('visual');
    expect(chance(told, 'tire-overinflated', 'RR')).toBeGreaterThan(0.5);
  });

  it.each([370, 400, 430])(
    'with %i kPa and no answer it is the spare: nothing is let out, no sensor is missed',
    (kPa) => {
      const told = assess(
        job([lamp(0, 'flash-then-steady'), ...gauges(1, { RR: kPa }), ...silentAt('RR'), registry(8)], bare),
      );
      expect(chance(told, 'spare-in-use', 'RR')).toBeGreaterThan(0.5);
      expect(chance(told, 'sensor-silent', 'RR')).toBeLessThan(0.05);
      expect(told.targets.map(({ advice }) => advice)).not.toContain('let-out');
    },
  );

  it('nearly so: a sensor that answers with its pressure is a road tire filled by feel', () => {
    const told = assess(
      job([...gauges(1, { RR: 400 }), ...scans(4, { RR: [heard(4, 'RR', { kPa: 400 })] })], bare),
    );
    expect(chance(told, 'spare-in-use', 'RR')).toBeLessThan(0.05);
    expect(chance(told, 'tire-overinflated', 'RR')).toBeGreaterThan(0.5);
  });

  it('nearly so: 300 kPa with a silent sensor is looked at, and no more', () => {
    const told = assess(
      job([lamp(0, 'flash-then-steady'), ...gauges(1, { RR: 300 }), ...silentAt('RR')], bare),
    );
    expect(chance(told, 'spare-in-use', 'RR')).toBeLessThan(0.5);
    expect(told.nextTests[0]).toMatchObject({ test: 'visual', wheel: 'RR' });
  });
});
