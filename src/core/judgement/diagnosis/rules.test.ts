import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  live,
  lives,
  minute,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import type { Job, Observation } from '../../job';
import { holds } from '../assessment';
import { assess } from '.';

/** What is taken to hold, as "code wheels". */
const found = (job: Job) =>
  assess(job)
    .findings.filter(({ probability }) => probability >= holds)
    .map(({ code, wheels }) => [code, ...wheels].join(' '));
const only = (...observations: Observation[][]) => found(jobWith(observations.flat()));
const indirect = {
  tpms: { kind: 'indirect' as const, positions: undefined, lowOnKPa: undefined, lowOffKPa: undefined },
};

describe('a tire', () => {
  it('at the lamp threshold is low, just above it is short of placard', () => {
    expect(only([gauge(1, 'RF', 175)])).toEqual(['tire-low RF']);
    expect(only([gauge(1, 'RF', 176)])).toEqual(['tire-underinflated RF']);
  });

  it('within 7 kPa of placard is neither', () => {
    expect(only([gauge(1, 'LF', 223)])).toEqual([]);
    expect(only([gauge(1, 'LF', 222)])).toEqual(['tire-underinflated LF']);
  });

  it('refilled is no longer low', () => {
    expect(only([gauge(1, 'LF', 150), gauge(20, 'LF', 230)])).toEqual([]);
  });

  it('over the high threshold is overinflated, but only once it is brought to the outdoor temperature', () => {
    expect(only([gauge(1, 'LF', 345)])).toEqual(['tire-overinflated LF']);
    expect(only([gauge(1, 'LF', 345, { tire: 'warm', tireC: 60 })])).toEqual([]);
  });

  it('warm at an unknown temperature stands lower than it reads, and nobody can say by how much', () => {
    expect(only([gauge(1, 'LF', 170, { tire: 'warm' })])).toEqual(['tire-low LF']);
    expect(only([gauge(1, 'LF', 200, { tire: 'warm' })])).toEqual(['tire-underinflated LF']);
    expect(only([gauge(1, 'LF', 240, { tire: 'warm' })])).toEqual([]);
  });

  it('that lost more than the gauge may err leaks; a colder reading of the same air does not', () => {
    expect(only([gauge(0, 'LR', 220), gauge(60 * 24, 'LR', 205)])).toContain('tire-leaking LR');
    const colder = [gauge(0, 'LR', 220, { tireC: 25 }), gauge(600, 'LR', 205, { tireC: 12 })];
    expect(only(colder)).not.toContain('tire-leaking LR');
  });

  it('that lost what seeps through rubber in a month does not leak', () => {
    expect(only([gauge(0, 'LR', 232), gauge(30 * 24 * 60, 'LR', 220)])).not.toContain('tire-leaking LR');
  });

  it('temporary spare is judged by its own figures, not by those of the road wheels', () => {
    const placard = [
      { position: 'front' as const, coldKPa: 230 },
      { position: 'rear' as const, coldKPa: 220 },
      { position: 'spare' as const, coldKPa: 420 },
    ];
    expect(found(jobWith([gauge(1, 'SP', 415)], { placard }))).toEqual([]);
    expect(found(jobWith([gauge(1, 'SP', 310)], { placard }))).toEqual(['tire-low SP']);
  });
});

describe('all tires down together', () => {
  const down = { LF: 205, RF: 205, RR: 196, LR: 196 };
  it('by the share the cold explains is the temperature', () => {
    const job = jobWith(gauges(1, down), { climate: { nowC: -6, lastFillC: 16, altitudeM: 0 } });
    expect(found(job)).toContain('temperature-drop LF RF RR LR');
  });

  it('is not the temperature where one is down further, or the weather did not turn', () => {
    const job = jobWith(gauges(1, { ...down, LR: 170 }), {
      climate: { nowC: -6, lastFillC: 16, altitudeM: 0 },
    });
    expect(found(job).join()).not.toContain('temperature-drop');
    const mild = jobWith(gauges(1, down), { climate: { nowC: 13, lastFillC: 16, altitudeM: 0 } });
    expect(found(mild).join()).not.toContain('temperature-drop');
  });
});

describe('a lit lamp', () => {
  it('is latched between its two figures, and not once every tire is above both', () => {
    expect(only([lamp(0, 'steady')], gauges(1, { LF: 199 }))).toContain('lamp-latched LF');
    expect(only([lamp(0, 'steady')], gauges(1, { LF: 203 })).join()).not.toContain('latched');
  });

  it('that makes no bulb check is a system that may be off; a dark one that does is not', () => {
    expect(only([lamp(0, 'off', false)])).toEqual(['system-disabled']);
    expect(only([lamp(0, 'off')])).toEqual([]);
  });
});

describe('a sensor', () => {
  it('silent to two triggers is silent; to one, nothing is claimed', () => {
    expect(only([silent(1, 'RR'), silent(2, 'RR', 'continuous')])).toEqual(['sensor-silent RR']);
    expect(only([silent(1, 'RR')])).toEqual([]);
  });

  it('heard after it was silent is not silent, nor is one the car hears on the road', () => {
    expect(only([silent(1, 'RR'), silent(2, 'RR', 'magnet'), heard(3, 'RR')])).toEqual([]);
    expect(only([silent(1, 'RR'), silent(2, 'RR', 'magnet'), live(3, 'RR', 220, 70)])).toEqual([]);
  });

  it('was never there where the stem is rubber and nobody knows of one', () => {
    const stem: Observation = { kind: 'visual', at: minute(0), wheel: 'RR', sign: 'stem-rubber' };
    const tries = [silent(1, 'RR'), silent(2, 'RR', 'continuous')];
    expect(only([stem, ...tries, registry(3, { RR: null })])).toEqual(['sensor-absent RR']);
    expect(only([stem, ...tries, registry(3)])).toEqual(['sensor-silent RR']);
  });

  it('says itself that its battery ends', () => {
    expect(only([heard(1, 'LF', { battery: 'low' })])).toEqual(['sensor-battery-low LF']);
  });

  it('more than 10 kPa off a trusted gauge reads wrong; against a gauge nobody trusts it does not', () => {
    expect(only([gauge(1, 'LF', 230), heard(2, 'LF', { kPa: 241 })])).toEqual(['sensor-inaccurate LF']);
    expect(only([gauge(1, 'LF', 230), heard(2, 'LF', { kPa: 240 })])).toEqual([]);
    expect(only([gauge(1, 'LF', 230, { trusted: false }), heard(2, 'LF', { kPa: 260 })])).toEqual([]);
  });

  it('of another carrier or family is the wrong part', () => {
    expect(only([heard(1, 'LF', { frequencyMHz: 315 })])).toEqual(['sensor-wrong-type LF']);
    expect(only([heard(1, 'LF', { family: 'plover' })])).toEqual(['sensor-wrong-type LF']);
    expect(only([heard(1, 'LF', { frequencyMHz: 433.9 })])).toEqual([]);
  });

  it('that misses check-ins the others make drops out', () => {
    const counts = (rr: number): Observation[] =>
      (['LF', 'RF', 'RR', 'LR'] as const).map((wheel) => ({
        kind: 'reception',
        at: minute(40),
        id: ids[wheel],
        expected: 30,
        received: wheel === 'RR' ? rr : 29,
      }));
    expect(only([registry(1)], counts(18))).toEqual(['sensor-intermittent RR']);
    expect(only([registry(1)], counts(27))).toEqual([]);
  });
});

describe('an ID', () => {
  it('the car holds nowhere is not registered; one slip away it is mistyped, and only that', () => {
    expect(only(scans(1), [registry(2, { RR: '90FFE0A1' })])).toEqual(['id-not-registered RR']);
    expect(only(scans(1), [registry(2, { RR: '4B11E0F8' })])).toEqual(['id-mistyped RR']);
  });

  it('held at other wheels is swapped, unless the car does not tie IDs to wheels', () => {
    const swapped = [...scans(1), registry(2, { LF: ids.LR, LR: ids.LF })];
    expect(found(jobWith(swapped))).toEqual(['positions-swapped LF LR']);
    expect(assess(jobWith(swapped)).positions).toEqual({ LF: 'LR', LR: 'LF' });
    expect(found(jobWith(swapped, { tpms: { locates: false } }))).toEqual([]);
  });

  it('held twice, or sent by two sensors of different pressure, is a duplicate', () => {
    expect(only([registry(1, { RF: ids.LF })])).toEqual(['id-duplicate LF RF']);
    expect(only([heard(1, 'LF'), heard(2, 'RF', { id: ids.LF, kPa: 190 })])).toContain('id-duplicate LF RF');
  });

  it('heard at two wheels alike is a neighbour heard, at the weaker of the two', () => {
    expect(only([heard(1, 'LF'), heard(2, 'RF', { id: ids.LF, rssiDbm: -70 })])).toEqual(['cross-read RF']);
    expect(only([heard(1, 'LF'), heard(2, 'RF', { id: ids.LF, rssiDbm: -70 }), heard(3, 'RF')])).toEqual([]);
  });

  it('of the other wheel set is told as that', () => {
    const winter = ['51A00001', '51A00002', '51A00003', '51A00004'];
    const held = registry(2, {
      LF: winter[0] ?? '',
      RF: winter[1] ?? '',
      RR: winter[2] ?? '',
      LR: winter[3] ?? '',
    });
    const job = jobWith([...scans(1), held], { otherSets: [{ label: 'winter', ids: winter }] });
    expect(found(job)).toContain('other-set-registered');
    expect(found(jobWith([...scans(1), held])).join()).not.toContain('other-set');
  });
});

describe('the car', () => {
  it('that hears none above wake speed has a receiver fault; below it, its sensors sleep', () => {
    expect(only(scans(1), [registry(2)], lives(3, null, 62))).toEqual(['receiver-fault']);
    expect(only(scans(1), [registry(2)], lives(3, null, 30))).toEqual(['sensors-asleep LF RF RR LR']);
    expect(only(scans(1), [registry(2)], lives(3, undefined, 62))).toEqual([]);
  });

  it('relearned and not yet driven waits for the drive, until it hears every wheel', () => {
    const relearn: Observation = {
      kind: 'relearn',
      at: minute(5),
      method: 'write',
      outcome: 'waiting-for-drive',
    };
    expect(only([relearn])).toEqual(['waiting-for-drive']);
    expect(only([relearn], lives(9, undefined, 62))).toEqual([]);
  });

  it('under 12.2 V with the engine off is not written', () => {
    const volts = (value: number, engine: 'on' | 'off'): Observation => ({
      kind: 'voltage',
      at: minute(1),
      volts: value,
      engine,
    });
    expect(only([volts(12.1, 'off')])).toEqual(['supply-voltage-low']);
    expect(only([volts(12.2, 'off')])).toEqual([]);
    expect(only([volts(11.9, 'on')])).toEqual([]);
  });

  it('with all looked at and right is in order; with one wheel not looked at, nothing is said', () => {
    const all = [lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3)];
    expect(only(all)).toEqual(['no-fault']);
    expect(only(all.filter((seen) => !(seen.kind === 'gauge' && seen.wheel === 'LR')))).toEqual([]);
  });
});

describe('an indirect system', () => {
  it('has not stored its reference after new tires, until a reset is done', () => {
    const seen = [lamp(0, 'steady'), ...gauges(1)];
    const service = { kind: 'tires-fitted' as const, hoursAgo: 20 };
    expect(found(jobWith(seen, { ...indirect, service }))).toEqual(['baseline-not-set']);
    const reset: Observation = { kind: 'relearn', at: minute(4), method: 'reset', outcome: 'done' };
    expect(found(jobWith([...seen, reset], { ...indirect, service }))).toEqual([]);
  });

  it('loses its data with a wheel-speed sensor', () => {
    const both: Observation = { kind: 'lamp', at: minute(0), state: 'steady', otherLamps: ['abs'] };
    expect(found(jobWith([both], indirect))).toEqual(['wheel-speed-sensor-fault']);
    expect(found(jobWith([lamp(0, 'steady')], indirect))).toEqual([]);
  });

  it('rolls on another radius where a wheel turns 0.2 % off and its pressure does not explain it', () => {
    const turns = (ratio: number): Observation => ({ kind: 'wheelspeed', at: minute(9), wheel: 'RF', ratio });
    expect(found(jobWith([...gauges(1), turns(1.002)], indirect))).toEqual(['rolling-radius-off RF']);
    expect(found(jobWith([...gauges(1), turns(1.0015)], indirect))).toEqual([]);
    expect(found(jobWith([...gauges(1, { RF: 150 }), turns(1.004)], indirect)).join()).not.toContain(
      'rolling',
    );
  });
});

describe('displayed pressures', () => {
  const display = (wheel: 'LF' | 'RF' | 'RR' | 'LR', kPa: number): Observation => ({
    kind: 'display',
    at: minute(6),
    wheel,
    kPa,
  });
  it('that fit the gauge are not swapped', () => {
    const seen = [
      ...gauges(1, { LR: 171 }),
      display('LF', 230),
      display('RF', 229),
      display('RR', 221),
      display('LR', 171),
    ];
    expect(found(jobWith(seen)).join()).not.toContain('swapped');
  });

  it('that fit no permutation claim nothing', () => {
    const seen = [
      ...gauges(1),
      display('LF', 120),
      display('RF', 130),
      display('RR', 140),
      display('LR', 150),
    ];
    expect(found(jobWith(seen)).join()).not.toContain('swapped');
  });
});

describe('what to check next', () => {
  const registryTells = (service: Job['service'], ...seen: Observation[]) =>
    assess(jobWith([lamp(0, 'flash-then-steady'), ...seen], { service })).nextTests.find(
      ({ test }) => test === 'registry',
    )?.about;

  it('names every wheel that reading the car tells as much about: none stands out where all were woken', () => {
    expect(registryTells({ kind: 'sensor-replaced', hoursAgo: 30 }, ...scans(1))).toEqual({
      code: 'id-not-registered',
      wheels: ['LF', 'RF', 'RR', 'LR'],
    });
  });

  it('asks nothing of IDs before there is one to hold against what the car holds', () => {
    expect(registryTells({ kind: 'sensor-replaced', hoursAgo: 30 })?.code).not.toBe('id-not-registered');
  });

  it('names the one wheel that stands out', () => {
    const seen = scans(1, { RR: [silent(1, 'RR'), silent(2, 'RR', 'continuous')] });
    const about = registryTells({ kind: 'sensor-replaced', hoursAgo: 30 }, ...seen);
    expect(about?.wheels.length).toBeLessThan(4);
  });
});
