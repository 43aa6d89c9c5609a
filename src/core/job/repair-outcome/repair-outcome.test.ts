import { describe, expect, it } from 'vitest';
import { gauge, gauges, heard, jobWith, lamp, minute, silent } from '../../../../tests/support/car';
import { repairOutcomesOf, partName, partsOf } from '.';
import { faultsOf, findingCodes, partKinds } from '../../catalogue/finding';
import { experienceOf } from '../../judgement/diagnosis/learning/counting';
import { historyMayMoveBy } from '../../judgement/diagnosis/learning/experience';
import { contextOf } from '../../judgement/diagnosis/evidence';
import { chancesFor, plainChance } from '../../judgement/diagnosis/learning/priors';
import { suspectsOf } from '../../visit/suspects';

const names = (job: ReturnType<typeof jobWith>) =>
  suspectsOf(job).map((suspect) => `${partName(suspect)}: ${suspect.code}`);

describe('the parts of a car', () => {
  it('of a direct system are each tire, sensor and ID, the order, the receiver and the lamp', () => {
    const parts = partsOf(jobWith([])).map(partName);
    expect(parts).toContain('Sensor, LR');
    expect(parts).toContain('Receiver');
    expect(parts).toHaveLength(3 * 4 + 3);
  });

  it('of an indirect system have no sensors, and of a car without a system are its tires', () => {
    const indirect = partsOf(jobWith([], { tpms: { kind: 'indirect' } })).map(({ part }) => part);
    expect(indirect).not.toContain('sensor');
    expect(indirect).toContain('reference');
    expect(partsOf(jobWith([], { tpms: { kind: 'none' } })).map(({ part }) => part)).toEqual(
      Array(4).fill('tire'),
    );
  });

  it('have between them each fault the model has a chance for, once', () => {
    const faults = partKinds.flatMap(faultsOf);
    expect(new Set(faults).size).toBe(faults.length);
    expect([...faults].sort()).toEqual(findingCodes.filter((code) => plainChance(code) !== undefined).sort());
  });
});

describe('the chance of a fault before anything was seen', () => {
  const chancesOf = (more: Parameters<typeof jobWith>[1] = {}) =>
    chancesFor(contextOf(jobWith([], more), []));

  it('of a plain part is the usual one, for every fault there is', () => {
    const chanceOf = chancesOf({ otherSets: [{ label: 'winter', ids: ['51A00001'] }] });
    for (const code of partKinds.flatMap(faultsOf)) {
      expect(chanceOf(code, 'LF'), code).toBeCloseTo(plainChance(code) ?? Number.NaN, 9);
    }
  });

  it('of a forgotten relearn is higher once a sensor was replaced, and fades with the hours', () => {
    const after = (hoursAgo: number) =>
      chancesOf({ service: { kind: 'sensor-replaced', hoursAgo } })('id-not-registered', 'RR');
    expect(after(1)).toBeGreaterThan(after(500));
    expect(after(500)).toBeGreaterThan(chancesOf()('id-not-registered', 'RR'));
  });

  it('of another set held is none where no other set is on file', () => {
    expect(chancesOf()('other-set-registered')).toBe(0);
  });

  it('of an old sensor is higher than of a new one, at its own wheel only', () => {
    const sensors = [
      { id: '4B07C2D1', wheel: 'LF' as const, ageYears: 9 },
      { id: '4B07D93A', wheel: 'RF' as const, ageYears: 1 },
    ];
    const chanceOf = chancesOf({ sensors });
    expect(chanceOf('sensor-silent', 'LF')).toBeGreaterThan(10 * chanceOf('sensor-silent', 'RF'));
    expect(chanceOf('sensor-battery-low', 'LF')).toBeGreaterThan(chanceOf('sensor-battery-low', 'RF'));
  });

  it('of a low tire is none: that is measured, and no part is to blame', () => {
    expect(chancesOf()('tire-low', 'LF')).toBe(0);
    expect(plainChance('tire-low')).toBeUndefined();
  });
});

describe('what was suspected during a visit', () => {
  it('stays in sight after the sensor was changed: what it turned out to be is still to be said', () => {
    const seen = [
      lamp(0, 'flash-then-steady'),
      silent(1, 'RR'),
      silent(2, 'RR', 'continuous'),
      silent(3, 'RR', 'magnet'),
    ];
    expect(names(jobWith(seen))).toContain('Sensor, RR: sensor-silent');
    expect(names(jobWith([...seen, heard(30, 'RR', { id: '5C0AA001' }), lamp(40, 'off')]))).toContain(
      'Sensor, RR: sensor-silent',
    );
  });

  it('is nothing where nothing was found, and a low tire is no part at fault', () => {
    expect(names(jobWith([lamp(0, 'off'), ...gauges(1)]))).toEqual([]);
    expect(names(jobWith([lamp(0, 'steady'), gauge(1, 'LF', 150)]))).not.toContain('Tire, LF: tire-low');
  });
});

describe('what the parts turned out to be', () => {
  const said = (was: 'sensor-silent' | 'in-order', wheel: 'LF' | 'RR') => ({
    part: 'sensor' as const,
    wheel,
    was,
  });

  it('counts each part that was spoken of, against what the model expects of that very car', () => {
    const plainCar = { job: jobWith([]), parts: [said('sensor-silent', 'RR'), said('in-order', 'LF')] };
    const oldCar = {
      job: jobWith([], { sensors: [{ id: '4B07C2D1', wheel: 'LF', ageYears: 9 }] }),
      parts: [said('in-order', 'LF')],
    };
    const plain = experienceOf([plainCar]);
    expect(plain['sensor-silent']).toMatchObject({ had: 1, of: 2 });
    expect(plain['sensor-silent']?.expected).toBeCloseTo(2 * (plainChance('sensor-silent') ?? 0), 9);
    expect(plain['receiver-fault']).toBeUndefined();
    // Of a nine-year-old sensor more was to be expected: that it was in order says more.
    const old = experienceOf([oldCar]);
    expect(old['sensor-silent']?.expected).toBeGreaterThan(plain['sensor-silent']?.expected ?? 1);
  });

  it('as often as the model expects leaves the prior where it is, whatever work the shop does', () => {
    // Practice: a shop that fits tires sees more forgotten relearns, and must not be told twice for it.
    const prior = plainChance('id-not-registered') ?? 0;
    const jobs = Array.from({ length: 200 }, () => ({
      job: jobWith([], { service: { kind: 'sensor-replaced', hoursAgo: 1 } }),
      parts: [{ part: 'id' as const, wheel: 'RR' as const, was: 'in-order' as const }],
    }));
    const counted = experienceOf(jobs)['id-not-registered'];
    const asExpected = { had: counted?.expected ?? 0, of: 200, expected: counted?.expected ?? 0 };
    expect(asExpected.had).toBeGreaterThan(5 * 200 * prior);
    expect(historyMayMoveBy('id-not-registered', prior, { 'id-not-registered': asExpected })).toBeCloseTo(
      1,
      9,
    );
  });

  it('is what was said last, and nothing once that was taken back', () => {
    const first = { key: 'a', at: minute(1), by: 'Ines', parts: [said('sensor-silent', 'RR')] };
    const job = jobWith([]);
    expect(repairOutcomesOf({ ...job, confirmations: [first] })).toEqual(first.parts);
    expect(repairOutcomesOf({ ...job, confirmations: [first, { ...first, key: 'b', parts: [] }] })).toEqual(
      [],
    );
    expect(repairOutcomesOf(job)).toEqual([]);
  });
});
