import { describe, expect, it } from 'vitest';
import {
  display,
  gauge,
  gauges,
  heard,
  jobWith,
  lamp,
  live,
  lives,
  placard,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import type { Observation } from '../../job';
import { atTemperature } from '../../measure/pressure';
import { roadWheels, type Position } from '../../names/wheel';
import { assess } from '.';

/**
 * Figures are held against one another at the temperature of their own moment, and in the order they came: cases of
 * our own that an experienced technician agrees with (common practice); warm figures by the gas law.
 */
const warmC = 32;
/** What a tire that stands at placard at 12 °C shows at another temperature. */
const warm = (wheel: Position, celsius = warmC): number =>
  atTemperature({ kPa: placard[wheel], celsius: 12, altitudeM: 0 }, celsius);
const drivenIn = (more: object = { tireC: warmC }, but: Partial<Record<Position, number>> = {}) =>
  roadWheels.map((wheel) => gauge(1, wheel, but[wheel] ?? warm(wheel), { tire: 'warm', ...more }));
const shownWarm = (n: number, but: Partial<Record<Position, number>> = {}): Observation[] =>
  roadWheels.map((wheel) => display(n, wheel, but[wheel] ?? warm(wheel)));
const drivenLive = (n: number) => roadWheels.map((wheel) => live(n, wheel, warm(wheel), 70));
const parkedLive = (n: number) => roadWheels.map((wheel) => live(n, wheel, warm(wheel), 0));

describe('a car that was just driven in', () => {
  it.each([
    ['its display', shownWarm(6)],
    ['what it has, parked', parkedLive(6)],
    ['what it had on the way', drivenLive(-8)],
  ])('shows warm figures, and no sensor reads wrong: %s', (_, shown) => {
    const found = assess(jobWith([...drivenIn(), registry(4), ...shown]));
    expect(chance(found, 'sensor-inaccurate')).toBeLessThan(0.05);
  });

  it('nor where nobody measured how warm its tires are', () => {
    const found = assess(jobWith([...drivenIn({}), ...shownWarm(6), registry(7)]));
    expect(chance(found, 'sensor-inaccurate')).toBeLessThan(0.1);
  });

  it('nor where the display was noted hours after the cold gauge', () => {
    const found = assess(jobWith([...gauges(1), registry(2), ...shownWarm(400)]));
    expect(chance(found, 'sensor-inaccurate')).toBeLessThan(0.1);
  });

  it('nearly so: one figure that is off by 35 while all the others agree is a sensor that reads wrong', () => {
    const found = assess(jobWith([...drivenIn(), registry(4), ...shownWarm(6, { RR: warm('RR') - 35 })]));
    expect(chance(found, 'sensor-inaccurate', 'RR')).toBeGreaterThan(0.5);
    expect(chance(found, 'sensor-inaccurate', 'LF')).toBeLessThan(0.05);
  });

  it('names the swapped positions rightly', () => {
    const real: Record<string, number> = { LF: 255, RF: 248, RR: 226, LR: 232 };
    const rotated = { LF: 232, RF: 226, RR: 248, LR: 255 };
    const job = jobWith([...drivenIn({ tireC: warmC }, real), ...shownWarm(6, rotated)], {
      service: { kind: 'rotation', hoursAgo: 3 },
    });
    expect(assess(job).positions).toEqual({ LF: 'LR', RF: 'RR', RR: 'RF', LR: 'LF' });
  });

  it('with a second fault: a warm tire that is short is still short', () => {
    const found = assess(
      jobWith([...drivenIn({ tireC: warmC }, { RF: 205 }), ...shownWarm(6, { RF: 205 }), registry(7)]),
    );
    expect(chance(found, 'tire-underinflated', 'RF')).toBeGreaterThan(0.9);
    expect(chance(found, 'sensor-inaccurate')).toBeLessThan(0.05);
  });
});

describe('what a sensor said over time', () => {
  const falling = (wheel: Position, ...series: [n: number, kPa: number][]) =>
    series.map(([n, kPa]) => heard(n, wheel, { kPa }));

  it('is a leak where it falls over hours and the gauge was read before', () => {
    const found = assess(jobWith([...gauges(1), ...falling('RF', [2, 230], [122, 212], [242, 194])]));
    expect(chance(found, 'tire-leaking', 'RF')).toBeGreaterThan(0.5);
    expect(chance(found, 'tire-underinflated', 'RF')).toBeGreaterThan(0.5);
    expect(chance(found, 'sensor-inaccurate')).toBeLessThan(0.05);
  });

  it('is a leak where the car saw it on the drive', () => {
    const drive = [0, 4, 8, 12].map((m, at) => ({ ...live(10 + m, 'RF', 232 - 14 * at, 60), tempC: 20 }));
    const others = lives(11, undefined, 60).filter((seen) => 'wheel' in seen && seen.wheel !== 'RF');
    const found = assess(jobWith([...gauges(1), ...scans(2), registry(5), ...drive, ...others]));
    expect(chance(found, 'tire-leaking', 'RF')).toBeGreaterThan(0.5);
    expect(chance(found, 'sensor-inaccurate')).toBeLessThan(0.05);
  });

  it('nearly so: figures that stay alike over hours are no leak', () => {
    const found = assess(jobWith([...gauges(1), ...falling('RF', [2, 230], [122, 229], [242, 230])]));
    expect(chance(found, 'tire-leaking', 'RF')).toBeLessThan(0.05);
  });

  it('nearly so: all of them down with the air outside are no leak', () => {
    const cooler = (wheel: Position) => heard(300, wheel, { kPa: warm(wheel, 4), tempC: 4 });
    const found = assess(jobWith([...gauges(1), ...scans(2), ...roadWheels.map(cooler)]));
    expect(chance(found, 'tire-leaking')).toBeLessThan(0.05);
  });

  it('is left open between a leak and a sensor that reads wrong, where each spoke once and hours apart', () => {
    const found = assess(jobWith([...gauges(1), heard(242, 'RF', { kPa: 200 })]));
    expect(chance(found, 'sensor-inaccurate', 'RF')).toBeLessThan(0.5);
    expect(chance(found, 'tire-leaking', 'RF')).toBeGreaterThan(0.2);
  });

  it('with a second fault: a leak at one wheel and a sensor that reads wrong at another', () => {
    const seen = [...gauges(1), ...falling('RF', [2, 230], [182, 200]), heard(3, 'LR', { kPa: 180 })];
    const found = assess(jobWith(seen));
    expect(chance(found, 'tire-leaking', 'RF')).toBeGreaterThan(0.5);
    expect(chance(found, 'sensor-inaccurate', 'LR')).toBeGreaterThan(0.9);
    expect(chance(found, 'sensor-inaccurate', 'RF')).toBeLessThan(0.05);
  });
});

describe('air let out to wake a sensor', () => {
  const woken = (kPa: number): Observation[] => [
    ...gauges(1),
    silent(2, 'RR'),
    { ...heard(5, 'RR', { kPa }), trigger: 'deflation' } as Observation,
  ];

  it('makes no leak and no sensor that reads wrong', () => {
    const found = assess(jobWith(woken(196)));
    expect(chance(found, 'sensor-inaccurate', 'RR')).toBeLessThan(0.05);
    expect(chance(found, 'tire-leaking', 'RR')).toBeLessThan(0.05);
    expect(chance(found, 'tire-underinflated', 'RR')).toBeGreaterThan(0.5);
  });

  it('nearly so: a figure far over the gauge is still wrong', () => {
    expect(chance(assess(jobWith(woken(290))), 'sensor-inaccurate', 'RR')).toBeGreaterThan(0.5);
  });
});

describe('air lost while one looks', () => {
  it.each([
    [9, 25],
    [5, 30],
    [20, 40],
  ])('in %d minutes %d kPa are a leak, by one gauge', (minutes, lost) => {
    const found = assess(jobWith([...gauges(1), gauge(1 + minutes, 'RF', 230 - lost)]));
    expect(chance(found, 'tire-leaking', 'RF')).toBeGreaterThan(0.5);
  });

  it('nearly so: 3 kPa are the gauge', () => {
    const found = assess(jobWith([...gauges(1), gauge(10, 'RF', 227), lamp(11, 'off')]));
    expect(chance(found, 'tire-leaking', 'RF')).toBeLessThan(0.1);
  });
});
