import { describe, expect, it } from 'vitest';
import {
  display,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import type { Job, Observation } from '../../job';
import { roadWheels, type Position } from '../../names/wheel';
import { assess } from '.';

/**
 * One cause for all wheels, and which set is on the car: cases of our own that an experienced technician agrees with
 * (common practice).
 */
const otherWheels: Partial<Job> = { service: { kind: 'wheels-swapped', hoursAgo: 48 } };
const noneHeard = [...lives(8, null, 60), lamp(9, 'flash-then-steady')];
const newIds = (more: object = {}): Observation[] =>
  roadWheels.map((wheel, at) => heard(3, wheel, { id: `90AA010${at}`, ...more }));
const everyWheel = (make: (wheel: Position) => Observation[]): Observation[] => roadWheels.flatMap(make);
const noAnswer = everyWheel((wheel) => [silent(3, wheel), silent(4, wheel, 'continuous')]);

describe('a car that hears none of its wheels', () => {
  it('after other wheels were put on was not taught them, rather than deaf', () => {
    const found = assess(jobWith([...gauges(1), ...noneHeard], otherWheels));
    expect(chance(found, 'receiver-fault')).toBeLessThan(0.2);
    expect(chance(found, 'id-not-registered', 'LF')).toBeGreaterThan(0.5);
    expect(found.decision?.verdict).toBe('check-first');
    expect(found.nextTests[0]).toMatchObject({ test: 'activation' });
  });

  it('is not called deaf while nothing else was looked at', () => {
    const found = assess(jobWith([...gauges(1), ...noneHeard]));
    expect(chance(found, 'receiver-fault')).toBeLessThan(0.5);
    expect(found.decision?.verdict).toBe('check-first');
  });

  it('nearly so: all answer and all are registered, then it is deaf', () => {
    const found = assess(jobWith([...gauges(1), ...scans(3), registry(6), ...noneHeard], otherWheels));
    expect(chance(found, 'receiver-fault')).toBeGreaterThan(0.9);
  });

  it('was not taught wheels that answer with IDs it does not hold', () => {
    const found = assess(jobWith([...gauges(1), ...newIds(), registry(6), ...noneHeard], otherWheels));
    expect(chance(found, 'id-not-registered', 'RR')).toBeGreaterThan(0.9);
    expect(chance(found, 'receiver-fault')).toBeLessThan(0.05);
  });

  it('with a second fault: a low tire among wheels it was not taught is low', () => {
    const low = gauges(1, { LR: 140 });
    const found = assess(jobWith([...low, ...newIds(), registry(6), ...noneHeard], otherWheels));
    expect(chance(found, 'tire-low', 'LR')).toBeGreaterThan(0.9);
    expect(chance(found, 'id-not-registered', 'LR')).toBeGreaterThan(0.9);
  });
});

describe('a set without sensors', () => {
  const seen = [...gauges(1), ...noAnswer, registry(6), lamp(9, 'flash-then-steady')];

  it('answers at no wheel, after other wheels were put on', () => {
    const found = assess(jobWith(seen, otherWheels));
    for (const wheel of roadWheels) expect(chance(found, 'sensor-absent', wheel)).toBeGreaterThan(0.5);
    expect(chance(found, 'sensor-silent')).toBeLessThan(0.5);
  });

  it('has plain stems', () => {
    const plain = everyWheel((wheel) => [{ kind: 'visual', at: minute(0), wheel, sign: 'stem-rubber' }]);
    expect(chance(assess(jobWith([...plain, ...seen], otherWheels)), 'sensor-absent', 'RF')).toBeGreaterThan(
      0.9,
    );
  });

  it('nearly so: one wheel alone that answers nothing has a dead sensor', () => {
    const tries = { RR: [silent(2, 'RR'), silent(3, 'RR', 'continuous'), silent(4, 'RR', 'magnet')] };
    const job = jobWith([...gauges(1), ...scans(2, tries), registry(6), lamp(9, 'flash-then-steady')], {
      sensors: roadWheels.map((wheel) => ({ id: ids[wheel], wheel, ageYears: 8 })),
    });
    expect(chance(assess(job), 'sensor-silent', 'RR')).toBeGreaterThan(0.9);
  });
});

describe('a set of another family', () => {
  const foreign = [...gauges(1), ...newIds({ family: 'plover', frequencyMHz: 315 }), registry(6)];

  it('is the wrong part at every wheel, and its IDs are not sent first', () => {
    const found = assess(jobWith([...foreign, lamp(9, 'flash-then-steady')], otherWheels));
    for (const wheel of roadWheels) expect(chance(found, 'sensor-wrong-type', wheel)).toBeGreaterThan(0.9);
    expect(found.decision?.on[0]?.code).toBe('sensor-wrong-type');
    const unknown = found.findings.find(({ code }) => code === 'id-not-registered');
    expect(unknown?.action).not.toMatch(/^Register the scanned IDs/);
  });

  it('nearly so: one wrong sensor among right ones is wrong alone', () => {
    const one = { LF: [heard(2, 'LF', { id: '90AA0100', family: 'plover', frequencyMHz: 315 })] };
    const found = assess(jobWith([...gauges(1), ...scans(2, one), registry(6, { LF: '90AA0100' })]));
    expect(chance(found, 'sensor-wrong-type', 'LF')).toBeGreaterThan(0.9);
    expect(chance(found, 'sensor-wrong-type', 'RF')).toBeLessThan(0.05);
  });
});

describe('a display that is blank', () => {
  const blank = roadWheels.map((wheel) => display(7, wheel, null));

  it('before the drive says nothing against car or sensors', () => {
    const found = assess(jobWith([...gauges(1), ...scans(3), registry(6), ...blank, lamp(9, 'off')]));
    expect(chance(found, 'receiver-fault')).toBeLessThan(0.1);
    expect(chance(found, 'sensor-silent')).toBeLessThan(0.05);
  });

  it('nearly so: on a drive that the car heard nothing on, it does', () => {
    const seen = [...gauges(1), ...scans(3), registry(6), ...lives(7, null, 60), ...blank];
    expect(chance(assess(jobWith(seen)), 'receiver-fault')).toBeGreaterThan(0.9);
  });

  it('nearly so: where one wheel alone is blank, that wheel is in question', () => {
    const shown = roadWheels.map((wheel) => display(7, wheel, wheel === 'RR' ? null : 225));
    const found = assess(jobWith([...gauges(1), ...shown, lamp(9, 'flash-then-steady')]));
    expect(found.nextTests[0]).toMatchObject({ wheel: 'RR' });
  });
});

describe('the set on file that the car holds', () => {
  const winter = roadWheels.map((wheel, at) => ({ wheel, id: `5C00000${at}` }));
  const holdsWinter: Observation = { kind: 'registry', at: minute(6), entries: winter };
  const twoSets: Partial<Job> = {
    sensors: roadWheels.map((wheel) => ({ id: ids[wheel], wheel, ageYears: 3 })),
    otherSets: [{ label: 'winter', ids: winter.map(({ id }) => id) }],
  };
  const is = (found: ReturnType<typeof assess>) => chance(found, 'other-set-registered');

  it('is the one on the car where it hears that on the road', () => {
    const found = assess(
      jobWith([...gauges(1), holdsWinter, ...lives(8, undefined, 60), lamp(9, 'off')], twoSets),
    );
    expect(is(found)).toBeLessThan(0.05);
    expect(chance(found, 'sensor-silent')).toBeLessThan(0.05);
  });

  it('is the other one where it hears none of it', () => {
    expect(is(assess(jobWith([...gauges(1), holdsWinter, ...noneHeard], twoSets)))).toBeGreaterThan(0.9);
  });

  it('is the other one where the tool hears those on record', () => {
    expect(is(assess(jobWith([...gauges(1), ...scans(3), holdsWinter], twoSets)))).toBeGreaterThan(0.9);
  });

  it('is left open while nobody looked which is on', () => {
    const found = assess(jobWith([...gauges(1), holdsWinter, lamp(9, 'off')], twoSets));
    expect(is(found)).toBeLessThan(0.5);
  });

  it('with a second fault: a silent wheel of the set that is on is silent', () => {
    const lame = lives(8, undefined, 60).map((seen) =>
      'wheel' in seen && seen.wheel === 'RR' ? { ...seen, kPa: null } : seen,
    ) as Observation[];
    const tries = [silent(2, 'RR'), silent(3, 'RR', 'continuous')];
    const seen = [...gauges(1), ...tries, holdsWinter, ...lame, lamp(9, 'flash-then-steady')];
    const found = assess(jobWith(seen, twoSets));
    expect(is(found)).toBeLessThan(0.05);
    expect(chance(found, 'sensor-silent', 'RR')).toBeGreaterThan(0.5);
  });
});
