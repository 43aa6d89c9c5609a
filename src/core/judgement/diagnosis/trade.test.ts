import { describe, expect, it } from 'vitest';
import {
  display,
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
import { expectationSchema, expectCase } from '../../../../tests/support/case';
import { findingCodes, type FindingCode } from '../../catalogue/finding';
import type { Job, Observation, Tpms } from '../../job';
import type { Position } from '../../names/wheel';

/**
 * Cases of the trade: what a practitioner would say to each, by the patterns common in it. Every finding
 * stands here where it is true and where it nearly is; some with two faults, little known, or readings that
 * contradict one another.
 */
type More = Partial<Job> & { tpms?: Partial<Tpms> };
interface Told {
  is?: Partial<Record<FindingCode, Position[]>>;
  not?: FindingCode[];
  allowed?: FindingCode[];
  positions?: Partial<Record<Position, Position>>;
}

const told: { name: string; is: FindingCode[]; not: FindingCode[] }[] = [];
const on = (
  name: string,
  seen: Observation[][],
  { is = {}, not = [], allowed = [], positions }: Told,
  more: More = {},
) => {
  told.push({ name, is: Object.keys(is) as FindingCode[], not });
  it(name, () => {
    expectCase({
      name,
      job: jobWith(seen.flat(), more),
      expect: expectationSchema.parse({
        findings: Object.entries(is).map(([code, wheels]) => ({ code, wheels })),
        not,
        allowed,
        ...(positions && { positions }),
      }),
    });
  });
};

const all: Position[] = ['LF', 'RF', 'RR', 'LR'];
const day = 24 * 60;
const off = [lamp(0, 'off')];
const steady = [lamp(0, 'steady')];
const flashing = [lamp(0, 'flash-then-steady')];
const visual = (
  wheel: Position,
  sign: 'flat' | 'object' | 'stem-damaged' | 'stem-metal' | 'stem-rubber' | 'odd-size',
): Observation => ({
  kind: 'visual',
  at: minute(0),
  wheel,
  sign,
});
const dtc = (
  about: 'no-signal' | 'low-battery' | 'low-pressure' | 'receiver' | 'wheel-speed' | 'baseline',
  wheel?: Position,
  status: 'active' | 'stored' = 'active',
): Observation => ({ kind: 'dtc', at: minute(10), code: 'C1B04', status, about, ...(wheel && { wheel }) });
const counts = (received: Partial<Record<Position, number>>, expected = 60): Observation[] =>
  all.map((wheel) => ({
    kind: 'reception',
    at: minute(50),
    id: ids[wheel],
    expected,
    received: received[wheel] ?? Math.round(expected * 0.97),
  }));
const relearn = (
  method: 'write' | 'tool' | 'drive' | 'reset' | 'typed',
  outcome: 'done' | 'waiting-for-drive' | 'failed' = 'done',
): Observation => ({
  kind: 'relearn',
  at: minute(30),
  method,
  outcome,
});
const volts = (value: number, engine: 'on' | 'off' = 'off'): Observation => ({
  kind: 'voltage',
  at: minute(9),
  volts: value,
  engine,
});
const turns = (wheel: Position, ratio: number): Observation => ({
  kind: 'wheelspeed',
  at: minute(40),
  wheel,
  ratio,
});
const shows = (kPa: Record<'LF' | 'RF' | 'RR' | 'LR', number>): Observation[] =>
  (['LF', 'RF', 'RR', 'LR'] as const).map((wheel) => display(6, wheel, kPa[wheel]));
const twoTries = (wheel: Position): Observation[] => [silent(3, wheel), silent(4, wheel, 'continuous')];
const looked = (but: Partial<Record<Position, Observation[]>> = {}): Observation[] => [
  ...gauges(1),
  ...scans(3, but),
  registry(8),
];
const aged = (years: number): More => ({
  sensors: all.map((wheel) => ({ id: ids[wheel], wheel, ageYears: years })),
});
const indirect: More = {
  tpms: { kind: 'indirect', positions: undefined, lowOnKPa: undefined, lowOffKPa: undefined },
};
const after = (kind: NonNullable<Job['service']>['kind'], hoursAgo: number): More => ({
  service: { kind, hoursAgo },
});
const winter = ['51A00017', '51A0B2C4', '51A1935E', '51A27F08'];
const winterSet: More = { otherSets: [{ label: 'winter', ids: winter }] };
const winterHeld = registry(8, {
  LF: winter[0] ?? '',
  RF: winter[1] ?? '',
  RR: winter[2] ?? '',
  LR: winter[3] ?? '',
});

describe('air', () => {
  on('one tire well under the lamp is low', [steady, gauges(1, { RF: 160 })], {
    is: { 'tire-low': ['RF'] },
    not: ['tire-leaking'],
  });
  on('two tires low at once', [steady, gauges(1, { RF: 160, LR: 150 })], {
    is: { 'tire-low': ['RF', 'LR'] },
  });
  on('a tire at the very figure of the lamp is low', [gauges(1, { LF: 175 })], {
    is: { 'tire-low': ['LF'] },
  });
  on('a tire five above that figure is short, not low', [gauges(1, { LF: 180 })], {
    is: { 'tire-underinflated': ['LF'] },
    not: ['tire-low'],
  });
  on('a tire ten short of placard is short of it', [gauges(1, { RR: 210 })], {
    is: { 'tire-underinflated': ['RR'] },
  });
  on('a tire five short of placard is at it', [gauges(1, { RR: 215 })], { not: ['tire-underinflated'] });
  on('a tire far over is over', [gauges(1, { LF: 345 })], { is: { 'tire-overinflated': ['LF'] } });
  on(
    'a tire at the pressure of a spare is over, however far that is from placard',
    [[gauge(1, 'LF', 365)]],
    { is: { 'tire-overinflated': ['LF'] } },
    { placard: [{ position: 'front', coldKPa: 200 }] },
  );
  on('a tire just under the high figure is not', [gauges(1, { LF: 325 })], { not: ['tire-overinflated'] });
  on(
    'a hot tire over the high figure is not over once it has cooled',
    [[gauge(1, 'LF', 345, { tire: 'warm', tireC: 60 })]],
    { not: ['tire-overinflated'] },
  );
  on(
    'a fifth over placard is over where the car has no figure',
    [gauges(1, { LF: 285 })],
    { is: { 'tire-overinflated': ['LF'] } },
    { tpms: { highOnKPa: undefined } },
  );
  on('a warm tire low even as it reads is low', [[gauge(1, 'LF', 172, { tire: 'warm' })]], {
    is: { 'tire-low': ['LF'] },
  });
  on('a low tire filled again is no longer low', [steady, gauges(1, { LF: 150 }), [gauge(20, 'LF', 230)]], {
    not: ['tire-low', 'tire-leaking', 'sensor-inaccurate'],
  });
  on(
    'a low tire filled after its scan is neither low nor its sensor wrong',
    [
      steady,
      gauges(1, { LF: 150 }),
      scans(3, { LF: [heard(3, 'LF', { kPa: 150 })] }),
      [registry(8)],
      [gauge(20, 'LF', 230)],
    ],
    { not: ['tire-low', 'sensor-inaccurate'] },
  );
  on(
    'without placard or car figures nothing is low',
    [[gauge(1, 'LF', 160)]],
    { not: ['tire-low', 'tire-underinflated'] },
    { placard: [], tpms: { lowOnKPa: undefined, lowOffKPa: undefined, highOnKPa: undefined } },
  );
});

describe('leaks', () => {
  on('fifteen lost in a day is a leak', [[gauge(0, 'LR', 220), gauge(day, 'LR', 205)]], {
    is: { 'tire-leaking': ['LR'] },
    allowed: ['tire-underinflated'],
  });
  on(
    'forty lost in a week is a leak, and the tire is low',
    [[gauge(0, 'LR', 212), gauge(7 * day, 'LR', 172)]],
    { is: { 'tire-leaking': ['LR'], 'tire-low': ['LR'] } },
  );
  on('twelve lost in a month is rubber', [[gauge(0, 'LR', 226), gauge(30 * day, 'LR', 214)]], {
    not: ['tire-leaking'],
  });
  on(
    'fifteen lost within the hour, of a tire nobody had over, is a leak',
    [gauges(0), [gauge(75, 'RF', 215)]],
    { is: { 'tire-leaking': ['RF'] }, allowed: ['tire-underinflated'] },
  );
  on('three lost within the hour is the gauge', [gauges(0), [gauge(75, 'RF', 227)]], {
    not: ['tire-leaking'],
  });
  on(
    'twenty-five gone within minutes, with the display looked at before and after, was let out: to see which figure moves',
    [gauges(2), [display(1, 'RF', 230), gauge(10, 'RF', 205), display(12, 'RF', 205)]],
    { is: { 'tire-underinflated': ['RF'] }, not: ['tire-leaking'] },
  );
  on(
    'twenty-five gone within nine minutes is a leak where nobody had a reason to let air out',
    [gauges(0), [gauge(9, 'RF', 205)]],
    { is: { 'tire-underinflated': ['RF'], 'tire-leaking': ['RF'] } },
  );
  on(
    'a tire over placard brought down to it within the stop was let down',
    [gauges(0, { RF: 250 }), [gauge(15, 'RF', 230)]],
    { not: ['tire-leaking', 'tire-overinflated'] },
  );
  on(
    'fifteen lost in five days, while the others kept theirs, is a leak',
    [gauges(0), gauges(5 * day, { LF: 229, RF: 229, RR: 218, LR: 205 })],
    { is: { 'tire-leaking': ['LR'] }, allowed: ['tire-underinflated'] },
  );
  on('two lost in a day is the gauge', [[gauge(0, 'LR', 220), gauge(day, 'LR', 218)]], {
    not: ['tire-leaking'],
  });
  on(
    'what the colder air takes is no leak',
    [[gauge(0, 'LR', 220, { tireC: 30 }), gauge(600, 'LR', 202, { tireC: 12 })]],
    { not: ['tire-leaking'], allowed: ['tire-underinflated'] },
  );
  on(
    'all four down alike in a day is another gauge or a hand, not four leaks',
    [gauges(0), gauges(day, { LF: 215, RF: 215, RR: 205, LR: 205 })],
    { not: ['tire-leaking'], allowed: ['tire-underinflated'] },
  );
  on('a nail in a low tire is a leak', [steady, [visual('RF', 'object')], gauges(1, { RF: 150 })], {
    is: { 'tire-low': ['RF'], 'tire-leaking': ['RF'] },
  });
  on('one tire low, seen once, may leak or may have been left', [steady, gauges(1, { RF: 120 })], {
    is: { 'tire-low': ['RF'] },
    not: ['tire-leaking'],
  });
});

describe('weather', () => {
  const turned: More = { climate: { nowC: -6, lastFillC: 16, altitudeM: 0 } };
  const down = { LF: 205, RF: 205, RR: 196, LR: 196 };
  on(
    'all down by what the cold takes is the cold',
    [steady, gauges(1, down)],
    {
      is: { 'temperature-drop': all, 'tire-underinflated': all },
      not: ['tire-leaking'],
      allowed: ['lamp-latched'],
    },
    turned,
  );
  on(
    'one of them further down is not the cold alone',
    [steady, gauges(1, { ...down, LR: 160 })],
    { is: { 'tire-low': ['LR'], 'tire-underinflated': ['LF', 'RF', 'RR'] }, not: ['temperature-drop'] },
    turned,
  );
  on('at placard in the cold, nothing went with it', [gauges(1)], { not: ['temperature-drop'] }, turned);
  on(
    'with mild weather it is not the cold',
    [gauges(1, down)],
    { is: { 'tire-underinflated': all }, not: ['temperature-drop'] },
    { climate: { nowC: 13, lastFillC: 16, altitudeM: 0 } },
  );
  on(
    'with no word of the last fill, the cold is not blamed',
    [gauges(1, down)],
    { is: { 'tire-underinflated': all }, not: ['temperature-drop'] },
    { climate: { nowC: -6, altitudeM: 0 } },
  );
});

describe('the lamp', () => {
  on('is held between its two figures', [steady, gauges(1, { RR: 188 })], {
    is: { 'lamp-latched': ['RR'], 'tire-underinflated': ['RR'] },
  });
  on('is held by two tires at once', [steady, gauges(1, { RR: 188, LF: 190 })], {
    is: { 'lamp-latched': ['RR', 'LF'], 'tire-underinflated': ['RR', 'LF'] },
  });
  on('is not held where a tire is low', [steady, gauges(1, { RR: 188, LF: 150 })], {
    is: { 'tire-low': ['LF'], 'tire-underinflated': ['RR'] },
    not: ['lamp-latched'],
  });
  on('is not held where it is dark', [off, gauges(1, { RR: 188 })], {
    is: { 'tire-underinflated': ['RR'] },
    not: ['lamp-latched'],
  });
  on('is held still after a fill that fell short', [steady, gauges(1, { LF: 150 }), [gauge(20, 'LF', 190)]], {
    is: { 'lamp-latched': ['LF'], 'tire-underinflated': ['LF'] },
  });
  on('dark at ignition on is a lamp that cannot speak', [[lamp(0, 'off', false)], gauges(1)], {
    is: { 'system-disabled': [] },
  });
  on('dark with a low tire and no bulb check', [[lamp(0, 'off', false)], gauges(1, { LF: 140 })], {
    is: { 'system-disabled': [], 'tire-low': ['LF'] },
  });
  on('dark with a bulb check is in order', [off, gauges(1, { LF: 140 })], {
    is: { 'tire-low': ['LF'] },
    not: ['system-disabled'],
  });
});

describe('a sensor', () => {
  on(
    'silent to two triggers, with the lamp flashing, is silent',
    [flashing, gauges(1), scans(3, { RR: twoTries('RR') }), [registry(8)]],
    { is: { 'sensor-silent': ['RR'] } },
  );
  on(
    'silent to one try, with the lamp off, may only have been missed',
    [off, gauges(1), scans(3, { RR: [silent(3, 'RR')] }), [registry(8)]],
    { not: ['sensor-silent', 'no-fault'] },
  );
  on(
    'heard at the third try is not silent',
    [off, gauges(1), scans(3, { RR: [...twoTries('RR'), heard(5, 'RR')] }), [registry(8)]],
    { not: ['sensor-silent'], allowed: ['no-fault'] },
  );
  on(
    'silent to the tool and heard by the car on a drive is not silent',
    [off, scans(3, { RR: twoTries('RR') }), lives(20, undefined, 62)],
    { not: ['sensor-silent'] },
  );
  on(
    'silent, with a low tire elsewhere: two faults at once',
    [
      flashing,
      gauges(1, { LF: 150 }),
      scans(3, { RR: twoTries('RR'), LF: [heard(3, 'LF', { kPa: 150 })] }),
      [registry(8)],
    ],
    { is: { 'sensor-silent': ['RR'], 'tire-low': ['LF'] } },
  );
  on(
    'two silent at eight years',
    [flashing, gauges(1), scans(3, { RR: twoTries('RR'), LF: twoTries('LF') }), [registry(8)]],
    { is: { 'sensor-silent': ['RR', 'LF'] } },
    aged(8),
  );
  on(
    'hurt at the tire machine: silent hours after tires were fitted',
    [flashing, gauges(1), scans(3, { LF: twoTries('LF') }), [registry(8), dtc('no-signal', 'LF')]],
    { is: { 'sensor-silent': ['LF'] } },
    after('tires-fitted', 3),
  );
  on(
    'broken with its stem',
    [flashing, [visual('LF', 'stem-damaged')], gauges(1), scans(3, { LF: twoTries('LF') }), [registry(8)]],
    { is: { 'sensor-silent': ['LF'] }, allowed: ['tire-leaking'] },
  );
  on(
    'the one that stays empty on the drive, with the others there',
    [
      flashing,
      [registry(8), dtc('no-signal', 'RR')],
      lives(20, undefined, 62).slice(0, 2),
      [live(20, 'RR', null, 62), live(20, 'LR', 220, 62)],
    ],
    { is: { 'sensor-silent': ['RR'] } },
  );
  on(
    'never there: rubber stem, none on record, none held',
    [
      flashing,
      [visual('RR', 'stem-rubber')],
      gauges(1),
      scans(3, { RR: twoTries('RR') }),
      [registry(8, { RR: null })],
    ],
    { is: { 'sensor-absent': ['RR'] }, not: ['sensor-silent'] },
  );
  on(
    'a winter set without sensors',
    [flashing, all.map((wheel) => visual(wheel, 'stem-rubber')), gauges(1), all.flatMap(twoTries)],
    { is: { 'sensor-absent': all }, not: ['sensor-silent'] },
    after('wheels-swapped', 5),
  );
  on('rubber stem, but it answers: it is there', [off, [visual('RR', 'stem-rubber')], looked()], {
    not: ['sensor-absent', 'sensor-silent'],
    allowed: ['no-fault'],
  });
  on('with its battery flag low', [off, looked({ LF: [heard(3, 'LF', { battery: 'low' })] })], {
    is: { 'sensor-battery-low': ['LF'] },
  });
  on(
    'old and heard weakly has a battery near its end',
    [off, looked({ LF: [heard(3, 'LF', { rssiDbm: -82, battery: undefined })] })],
    { is: { 'sensor-battery-low': ['LF'] }, allowed: ['no-fault'] },
    aged(8.5),
  );
  on(
    'of eight years and heard weakly is near its end, even if its flag is not up yet',
    [off, looked({ LF: [heard(3, 'LF', { rssiDbm: -84, battery: 'ok' })] })],
    { is: { 'sensor-battery-low': ['LF'] }, allowed: ['no-fault'] },
    aged(8),
  );
  on(
    'of eight years and heard well, with its flag not up, is only old',
    [off, looked({ LF: [heard(3, 'LF', { rssiDbm: -52, battery: 'ok' })] })],
    { not: ['sensor-battery-low'], allowed: ['no-fault'] },
    aged(8),
  );
  on(
    'young and heard weakly was held badly',
    [off, looked({ LF: [heard(3, 'LF', { rssiDbm: -74 })] })],
    { not: ['sensor-battery-low'], allowed: ['no-fault'] },
    aged(2),
  );
  on(
    'old and heard well is only old',
    [off, looked()],
    { not: ['sensor-battery-low'], allowed: ['no-fault'] },
    aged(8),
  );
  on('fifteen off the gauge reads wrong', [off, looked({ LF: [heard(3, 'LF', { kPa: 245 })] })], {
    is: { 'sensor-inaccurate': ['LF'] },
  });
  on('twenty under the gauge reads wrong', [off, looked({ LF: [heard(3, 'LF', { kPa: 210 })] })], {
    is: { 'sensor-inaccurate': ['LF'] },
  });
  on('eight off the gauge agrees', [off, looked({ LF: [heard(3, 'LF', { kPa: 238 })] })], {
    not: ['sensor-inaccurate'],
    allowed: ['no-fault'],
  });
  on(
    'twenty off a gauge nobody trusts says nothing',
    [off, [gauge(1, 'LF', 250, { trusted: false }), ...gauges(1).slice(1)], scans(3), [registry(8)]],
    { not: ['sensor-inaccurate'], allowed: ['no-fault', 'tire-overinflated'] },
  );
  on(
    'of another carrier is the wrong part',
    [flashing, looked({ RF: [heard(3, 'RF', { frequencyMHz: 315 })] })],
    { is: { 'sensor-wrong-type': ['RF'] } },
    after('sensor-replaced', 2),
  );
  on(
    'of another family is the wrong part, with the lamp still off',
    [off, looked({ RF: [heard(3, 'RF', { family: 'plover' })] })],
    { is: { 'sensor-wrong-type': ['RF'] } },
  );
  on(
    'a little off its carrier is the right one',
    [off, looked({ RF: [heard(3, 'RF', { frequencyMHz: 433.8 })] })],
    { not: ['sensor-wrong-type'], allowed: ['no-fault'] },
  );
  on(
    'of the wrong kind and never registered',
    [
      flashing,
      gauges(1),
      scans(3, { RF: [heard(3, 'RF', { id: '90AA1277', family: 'plover' })] }),
      [registry(8)],
    ],
    { is: { 'sensor-wrong-type': ['RF'], 'id-not-registered': ['RF'] } },
    after('sensor-replaced', 2),
  );
  on(
    'that misses a third of its check-ins drops out',
    [[lamp(0, 'flash-while-driving')], scans(3), [registry(8)], counts({ RR: 38 })],
    { is: { 'sensor-intermittent': ['RR'] } },
  );
  on(
    'that misses three more than the others does not',
    [[lamp(0, 'off')], scans(3), [registry(8)], counts({ RR: 55 })],
    { not: ['sensor-intermittent'] },
  );
  on(
    'is not blamed where all are received badly',
    [[lamp(0, 'off')], scans(3), [registry(8)], counts({ LF: 42, RF: 44, RR: 41, LR: 43 })],
    { not: ['sensor-intermittent'] },
  );
  on(
    'that drops out is known by the ID on record for it',
    [[lamp(0, 'flash-while-driving')], counts({ LF: 20 })],
    { is: { 'sensor-intermittent': ['LF'] } },
    aged(4),
  );
  on(
    'that drops out is known by the ID the car holds for it',
    [[lamp(0, 'flash-while-driving'), registry(8)], counts({ LF: 20 })],
    { is: { 'sensor-intermittent': ['LF'] } },
  );
});

describe('an ID', () => {
  on(
    'held as the record names it, where a sensor was replaced since and the car hears none: not known to be dead',
    [[lamp(0, 'flash-then-steady')], [registry(1)], [dtc('no-signal', 'RR')]],
    { not: ['sensor-silent', 'id-not-registered'] },
    { ...aged(4), service: { kind: 'sensor-replaced', hoursAgo: 60 } },
  );
  on(
    'of a new sensor that was never learned',
    [flashing, gauges(1), scans(3, { RR: [heard(3, 'RR', { id: '90FFE0A1' })] }), [registry(8)]],
    { is: { 'id-not-registered': ['RR'] }, not: ['id-mistyped'] },
    after('sensor-replaced', 30),
  );
  on('of a new sensor where the car holds nothing', [flashing, scans(3), [registry(8, { RR: null })]], {
    is: { 'id-not-registered': ['RR'] },
  });
  on('with two digits exchanged', [flashing, looked(), [registry(9, { LF: '4B07C21D' })]], {
    is: { 'id-mistyped': ['LF'] },
    not: ['id-not-registered'],
  });
  on('with a digit lost', [flashing, looked(), [registry(9, { LF: '4B07C2D' })]], {
    is: { 'id-mistyped': ['LF'] },
  });
  on('with a digit doubled', [flashing, looked(), [registry(9, { RF: '4B077D93A' })]], {
    is: { 'id-mistyped': ['RF'] },
  });
  on('with B taken for 8', [flashing, looked(), [registry(9, { RR: '4811E0F6' })]], {
    is: { 'id-mistyped': ['RR'] },
  });
  on('two digits off is another sensor', [flashing, looked(), [registry(9, { RR: '4811E0F0' })]], {
    is: { 'id-not-registered': ['RR'] },
    not: ['id-mistyped'],
  });
  on(
    'one slip off the one on record there is a new sensor of like number',
    [flashing, gauges(1), scans(3, { RR: [heard(3, 'RR', { id: '4B11E0F7' })] }), [registry(8)]],
    { is: { 'id-not-registered': ['RR'] }, not: ['id-mistyped'] },
    { ...aged(4), ...after('sensor-replaced', 5) },
  );
  on('written in small letters and groups is the same', [off, looked(), [registry(9, { LF: '4b07-c2d1' })]], {
    not: ['id-mistyped', 'id-not-registered'],
    allowed: ['no-fault'],
  });
  on('held at two positions', [flashing, gauges(1), scans(3), [registry(8, { RF: ids.LF })]], {
    is: { 'id-duplicate': ['LF', 'RF'], 'id-not-registered': ['RF'] },
  });
  on(
    'sent by two sensors of different pressure',
    [
      [gauge(1, 'LF', 230), gauge(1, 'RF', 190)],
      [heard(3, 'LF'), heard(4, 'RF', { id: ids.LF, kPa: 190 })],
    ],
    { is: { 'id-duplicate': ['LF', 'RF'], 'tire-underinflated': ['RF'] }, not: ['cross-read'] },
  );
  on(
    'heard at two wheels is a neighbour heard where it is weaker',
    [[heard(3, 'LF'), heard(4, 'RF', { id: ids.LF, kPa: 230, rssiDbm: -70 })]],
    { is: { 'cross-read': ['RF'] }, not: ['id-duplicate', 'sensor-silent'] },
  );
  on(
    'of a neighbour, heard clearly weaker beside the own one, is no cross-read',
    [
      [
        {
          ...heard(3, 'LF'),
          replies: [
            { id: ids.LF, kPa: 230, rssiDbm: -48 },
            { id: ids.RF, kPa: 230, rssiDbm: -70 },
          ],
        } as Observation,
      ],
    ],
    { not: ['cross-read'] },
  );
  on(
    'of the other set, with the winter wheels still registered',
    [flashing, gauges(1), scans(3), [winterHeld]],
    { is: { 'other-set-registered': [], 'id-not-registered': all } },
    { ...winterSet, ...after('wheels-swapped', 4) },
  );
  on(
    'none registered and no set on file that fits',
    [
      flashing,
      gauges(1),
      scans(3),
      [registry(8, { LF: '61C0FF01', RF: '61D17702', RR: '61E01203', LR: '6200AB04' })],
    ],
    { is: { 'id-not-registered': all }, not: ['other-set-registered'] },
    winterSet,
  );
});

describe('positions', () => {
  on(
    'exchanged front to rear since the rotation, by the IDs',
    [off, scans(3), [registry(8, { LF: ids.LR, LR: ids.LF, RF: ids.RR, RR: ids.RF })]],
    { is: { 'positions-swapped': all }, positions: { LF: 'LR', LR: 'LF', RF: 'RR', RR: 'RF' } },
    after('rotation', 20),
  );
  on(
    'two wheels exchanged while IDs were typed',
    [off, scans(3), [registry(8, { LF: ids.RF, RF: ids.LF })]],
    { is: { 'positions-swapped': ['LF', 'RF'] }, positions: { LF: 'RF', RF: 'LF' } },
    after('sensor-replaced', 2),
  );
  on(
    'of a car that ties no ID to a wheel are no matter',
    [off, gauges(1), scans(3), [registry(8, { LF: ids.RF, RF: ids.LF })]],
    { not: ['positions-swapped'], allowed: ['no-fault'] },
    { tpms: { locates: false } },
  );
  on(
    'too alike to tell after a rotation',
    [off, gauges(1, { LF: 230, RF: 230, RR: 230, LR: 230 }), shows({ LF: 230, RF: 231, RR: 230, LR: 229 })],
    { not: ['positions-swapped'] },
    {
      ...after('rotation', 20),
      placard: [
        { position: 'front', coldKPa: 230 },
        { position: 'rear', coldKPa: 230 },
      ],
    },
  );
  on(
    'told apart by the one low tire that shows at another wheel',
    [steady, gauges(1, { LR: 165 }), shows({ LF: 165, RF: 230, RR: 220, LR: 230 })],
    { is: { 'tire-low': ['LR'], 'positions-swapped': ['LF', 'LR'] }, positions: { LF: 'LR', LR: 'LF' } },
    after('rotation', 50),
  );
  on(
    'in place where display and gauge agree on the low one',
    [steady, gauges(1, { LR: 165 }), shows({ LF: 230, RF: 229, RR: 221, LR: 166 })],
    { is: { 'tire-low': ['LR'] }, not: ['positions-swapped'] },
    after('rotation', 50),
  );
  on(
    'exchanged, and one ID never learned',
    [
      flashing,
      scans(3, { RR: [heard(3, 'RR', { id: '90FFE0A1' })] }),
      [registry(8, { LF: ids.RF, RF: ids.LF })],
    ],
    { is: { 'positions-swapped': ['LF', 'RF'], 'id-not-registered': ['RR'] } },
  );
  on(
    'a tool that heard the neighbour: one ID at two wheels, both in place',
    [
      off,
      gauges(1),
      [
        heard(3, 'LF'),
        heard(3, 'RF'),
        heard(3, 'RR'),
        heard(4, 'LR', { id: ids.RR, kPa: 220, rssiDbm: -69 }),
      ],
      [registry(8)],
    ],
    { is: { 'cross-read': ['LR'] }, not: ['positions-swapped', 'id-not-registered', 'sensor-silent'] },
  );
});

describe('the car', () => {
  on(
    'that hears none on a drive has a fault of its own',
    [flashing, gauges(1), scans(3), [registry(8)], lives(20, null, 62)],
    { is: { 'receiver-fault': [] }, not: ['sensor-silent', 'sensors-asleep'] },
  );
  on('with a receiver code', [flashing, scans(3), [registry(8), dtc('receiver')], lives(20, 0, 70)], {
    is: { 'receiver-fault': [] },
  });
  on(
    'that hears three of four hears',
    [
      flashing,
      gauges(1),
      scans(3),
      [registry(8)],
      lives(20, undefined, 62).slice(0, 3),
      [live(20, 'LR', null, 62)],
    ],
    { not: ['receiver-fault'], allowed: ['sensor-intermittent', 'sensor-silent'] },
  );
  on(
    'parked gets nothing, and that is no fault',
    [off, gauges(1), scans(3), [registry(8)], lives(20, null, 0)],
    { is: { 'sensors-asleep': all }, not: ['receiver-fault', 'no-fault'] },
  );
  on(
    'parked after a drive on which it heard all is awake enough',
    [off, gauges(1), scans(3), [registry(8)], lives(20, undefined, 62), lives(25, null, 0)],
    { not: ['sensors-asleep', 'receiver-fault'], allowed: ['no-fault'] },
  );
  on(
    'just written waits for its drive',
    [
      flashing,
      gauges(1),
      scans(3),
      [registry(8, { RR: '90FFE0A1' }), relearn('write', 'waiting-for-drive'), registry(31)],
    ],
    { is: { 'waiting-for-drive': [] } },
  );
  on(
    'written, still flagged, nothing heard yet',
    [gauges(1), scans(3), [relearn('write'), registry(31), lamp(33, 'flash-then-steady')]],
    { is: { 'waiting-for-drive': [] }, not: ['receiver-fault'] },
  );
  on(
    'written and driven has heard all',
    [gauges(1), scans(3), [relearn('write'), registry(31)], lives(50, undefined, 60), [lamp(55, 'off')]],
    { not: ['waiting-for-drive'], allowed: ['no-fault'] },
  );
  on('under 12.2 V is not to be written', [[volts(11.9)]], { is: { 'supply-voltage-low': [] } });
  on('just under 12.2 V either', [[volts(12.15)]], { is: { 'supply-voltage-low': [] } });
  on('at 12.2 V may', [[volts(12.2)]], { not: ['supply-voltage-low'] });
  on('with the engine on may', [[volts(11.9, 'on')]], { not: ['supply-voltage-low'] });
  on('all looked at and right is in order', [off, looked(), lives(20, undefined, 60)], {
    is: { 'no-fault': [] },
  });
  on(
    'all right but one wheel never woken is not yet',
    [off, gauges(1), scans(3).slice(0, 3), [registry(8)]],
    { not: ['no-fault'] },
  );
  on('all right but a code is not in order', [off, looked(), [dtc('no-signal', 'RR', 'stored')]], {
    not: ['no-fault'],
  });
});

describe('an indirect system', () => {
  on(
    'with its lamp on after new tires has no reference',
    [steady, gauges(1)],
    { is: { 'baseline-not-set': [] } },
    { ...indirect, ...after('tires-fitted', 20) },
  );
  on(
    'with a code about it has none',
    [steady, gauges(1), [dtc('baseline')]],
    { is: { 'baseline-not-set': [] } },
    indirect,
  );
  on(
    'stored again has one',
    [steady, gauges(1), [relearn('reset')]],
    { not: ['baseline-not-set'] },
    { ...indirect, ...after('tires-fitted', 20) },
  );
  on(
    'with a low tire has a low tire',
    [steady, gauges(1, { LF: 150 })],
    { is: { 'tire-low': ['LF'] }, not: ['baseline-not-set'] },
    indirect,
  );
  on(
    'with the other lamps lit lost its data',
    [
      [{ kind: 'lamp', at: minute(0), state: 'steady', bulbCheck: true, otherLamps: ['abs', 'stability'] }],
      gauges(1),
    ],
    { is: { 'wheel-speed-sensor-fault': [] } },
    indirect,
  );
  on(
    'with a wheel-speed code lost its data',
    [flashing, gauges(1), [dtc('wheel-speed')]],
    { is: { 'wheel-speed-sensor-fault': [] } },
    indirect,
  );
  on(
    'with only its own lamp lit has its data',
    [steady, gauges(1)],
    { not: ['wheel-speed-sensor-fault'] },
    indirect,
  );
  on(
    'with one wheel half a percent faster and its gauge good',
    [steady, gauges(1), [turns('LF', 0.999), turns('RF', 1.005), turns('RR', 0.998), turns('LR', 0.998)]],
    { is: { 'rolling-radius-off': ['RF'] }, allowed: ['baseline-not-set'] },
    indirect,
  );
  on(
    'with one wheel faster for want of air',
    [
      steady,
      gauges(1, { RF: 150 }),
      [turns('RF', 1.004), turns('LF', 0.999), turns('RR', 0.999), turns('LR', 0.998)],
    ],
    { is: { 'tire-low': ['RF'] }, not: ['rolling-radius-off'] },
    indirect,
  );
  on(
    'with all wheels within a tenth of a percent',
    [off, gauges(1), [turns('LF', 1.001), turns('RF', 0.999), turns('RR', 1), turns('LR', 1)]],
    { not: ['rolling-radius-off'], allowed: ['no-fault'] },
    indirect,
  );
  on(
    'with an odd size in sight',
    [steady, [visual('LR', 'odd-size')], gauges(1), [turns('LR', 0.996)]],
    { is: { 'rolling-radius-off': ['LR'] }, allowed: ['baseline-not-set'] },
    indirect,
  );
  on('in order', [off, gauges(1)], { is: { 'no-fault': [] } }, indirect);
});

describe('a tire that is hot', () => {
  const driven = (tempC: number) => [
    off,
    [gauge(1, 'LF', 337, { tire: 'warm', tireC: tempC }), ...gauges(1).slice(1)],
    scans(2, { LF: [heard(2, 'LF', { tempC, kPa: 337 })] }),
    [registry(3)],
    lives(4, undefined, 60).slice(1),
  ];
  on('by its sensor, well over what is usual on the road', driven(104), { is: { 'tire-hot': ['LF'] } });
  on('from the motorway, and no more than that', driven(90), {
    not: ['tire-hot'],
    allowed: ['no-fault', 'tire-underinflated'],
  });
});

describe('a small spare on the road', () => {
  const carries: More = {
    placard: [
      { position: 'front', coldKPa: 230 },
      { position: 'rear', coldKPa: 220 },
      { position: 'spare', coldKPa: 420 },
    ],
  };
  on(
    'by its size, its pressure and its silence',
    [flashing, [visual('RR', 'odd-size')], gauges(1, { RR: 415 }), scans(3, { RR: twoTries('RR') })],
    { is: { 'spare-in-use': ['RR'] }, not: ['tire-overinflated', 'sensor-silent'] },
    carries,
  );
  on(
    'not where a road tire is over by a lot',
    [gauges(1, { RR: 345 })],
    { is: { 'tire-overinflated': ['RR'] }, not: ['spare-in-use'] },
    carries,
  );
});

describe('an instrument', () => {
  const over = { LF: 254, RF: 253, RR: 245, LR: 243 };
  on('that reads beside all sensors by as much is off', [off, gauges(1, over), scans(5), [registry(8)]], {
    is: { 'gauge-off': [] },
    not: ['sensor-inaccurate', 'tire-overinflated', 'no-fault'],
  });
  on(
    'that one sensor alone speaks against is not',
    [off, gauges(1), scans(5, { RF: [heard(5, 'RF', { kPa: 206 })] })],
    {
      is: { 'sensor-inaccurate': ['RF'] },
      not: ['gauge-off'],
    },
  );
});

describe('little known', () => {
  on('a flashing lamp alone blames nobody', [flashing], { not: ['no-fault'] });
  on('a steady lamp alone blames nobody', [steady], { not: ['no-fault'] });
  on('a lamp that flashes on the road alone blames nobody', [[lamp(0, 'flash-while-driving')]], {});
  on('three tires gauged, the fourth open', [steady, gauges(1).slice(0, 3)], {});
  on('a rotation alone is no swap', [off], { not: ['positions-swapped'] }, after('rotation', 10));
  on('a display alone', [shows({ LF: 230, RF: 230, RR: 220, LR: 220 })], {});
});

describe('the cases', () => {
  it('hold every finding where it is true and where it nearly is', () => {
    for (const code of findingCodes) {
      expect(told.filter(({ is }) => is.includes(code)).length, `${code} is true`).toBeGreaterThan(0);
      expect(told.filter(({ not }) => not.includes(code)).length, `${code} is nearly`).toBeGreaterThan(0);
    }
    expect(told.length).toBeGreaterThanOrEqual(60);
  });
});
