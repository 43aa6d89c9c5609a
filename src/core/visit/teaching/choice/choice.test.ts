import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  minute,
  registry,
  scans,
} from '../../../../../tests/support/car';
import type { Job, Observation } from '../../../job';
import { roadWheels } from '../../../names/wheel';
import { canBeDone, meansOf, waysFor } from './ways';
import { needOf } from './need';
import { procedureSchema } from '../../../relearn/procedure/schema';
import { needTitle, needWords, wayWords } from './words';

const after = (kind: NonNullable<Job['service']>['kind'], tpms: object = {}, seen: Observation[] = []) =>
  needOf({ ...jobWith(seen, { service: { kind }, tpms }), placard });
const placard = [
  { position: 'front' as const, coldKPa: 230 },
  { position: 'rear' as const, coldKPa: 220 },
  { position: 'spare' as const, coldKPa: 230 },
];
const five = { positions: [...roadWheels, 'SP' as const] };

describe('whether a car must be taught', () => {
  it('is settled by what it holds against what was heard, whatever was done', () => {
    expect(after('rotation', {}, [...scans(1), registry(9)])).toMatchObject({
      action: 'none',
      reason: 'holds-what-was-heard',
      measured: true,
    });
    expect(after('none', {}, [...scans(1), registry(9, { RR: '90FFE0A1' })])).toMatchObject({
      action: 'relearn',
      reason: 'holds-other-ids',
      wheels: ['RR'],
    });
    expect(after('none', {}, [...scans(1), registry(9, { LF: '4B07C2D7' })])).toMatchObject({
      action: 'relearn',
      reason: 'holds-a-slip',
      wheels: ['LF'],
    });
    expect(after('none', {}, [...scans(1), registry(9, { LF: ids.LR, LR: ids.LF })])).toMatchObject({
      action: 'relearn',
      reason: 'wheels-moved',
      wheels: ['LF', 'LR'],
    });
  });

  it('is not settled by a car of which only some wheels were heard', () => {
    const some = [heard(1, 'LF'), registry(9)];
    expect(after('rotation', {}, some)).toMatchObject({ action: 'relearn', measured: false });
  });

  it('after a rotation: where IDs are tied to positions', () => {
    expect(after('rotation')).toMatchObject({ action: 'relearn', reason: 'rotated', measured: false });
    expect(after('rotation', { locates: false })).toMatchObject({ action: 'none' });
    expect(after('rotation', { locates: undefined })).toMatchObject({
      action: 'depends',
      reason: 'rotated-not-known',
    });
  });

  it('is done once it was taught after the change, whoever taught it; a relearn that failed taught nothing', () => {
    const another = [heard(1, 'RR'), heard(5, 'RR', { id: '90FFE0A1' })];
    const taught = (outcome: 'done' | 'failed') =>
      after('none', {}, [...another, { kind: 'relearn', at: minute(9), method: 'typed', outcome }]);
    expect(after('none', {}, another)).toMatchObject({ action: 'relearn', reason: 'new-sensor' });
    expect(taught('done')).toMatchObject({ action: 'none', reason: 'taught', measured: false });
    expect(taught('failed')).toMatchObject({ action: 'relearn' });
  });

  it('after another wheel set: where the car holds one', () => {
    expect(after('wheels-swapped', { holdsSets: 1 })).toMatchObject({ action: 'relearn' });
    expect(after('wheels-swapped')).toMatchObject({ action: 'depends', reason: 'other-set-not-known' });
    expect(after('wheels-swapped', { holdsSets: 2 })).toMatchObject({ action: 'none' });
  });

  it('after another sensor: a clone has the old ID, so the car is read first; one that answers otherwise is new', () => {
    expect(after('sensor-replaced')).toMatchObject({ action: 'depends' });
    const other = [heard(1, 'RF'), heard(20, 'RF', { id: '90FFE0A1' })];
    expect(after('none', {}, other)).toMatchObject({
      action: 'relearn',
      reason: 'new-sensor',
      wheels: ['RF'],
    });
    const clone = [...scans(1), registry(9), heard(20, 'RF')];
    expect(after('sensor-replaced', {}, clone)).toMatchObject({ action: 'none', measured: true });
  });

  it('after tires, a repair, air or nothing: none', () => {
    for (const kind of ['tires-fitted', 'repair', 'none'] as const)
      expect(after(kind)).toMatchObject({ action: 'none' });
    expect(after('none', {}, [gauge(1, 'LF', 180), gauge(5, 'LF', 230)])).toMatchObject({ action: 'none' });
  });

  it('one wheel changed with the spare: acknowledged where the car sees it by itself, taught elsewhere', () => {
    const held = [...roadWheels, 'SP' as const].map((wheel) => ({ wheel, id: ids[wheel] }));
    const withSpare = { kind: 'registry', at: minute(9), entries: held } as Observation;
    const swapped = [
      ...scans(1, { RF: [heard(2, 'RF', { id: ids.SP })] }),
      heard(6, 'SP', { id: ids.RF }),
      withSpare,
    ];
    expect(after('none', { ...five, swapWithSpare: 'acknowledged' }, swapped)).toMatchObject({
      action: 'acknowledge',
      wheels: ['RF', 'SP'],
    });
    expect(after('none', five, swapped)).toMatchObject({ action: 'relearn', reason: 'wheels-moved' });
    const another = [...swapped, heard(7, 'LR', { id: '4B0000FF' })];
    expect(after('none', { ...five, swapWithSpare: 'acknowledged' }, another)).toMatchObject({
      action: 'relearn',
    });
    const three = [
      ...scans(1, { RF: [heard(2, 'RF', { id: ids.SP })], LF: [heard(2, 'LF', { id: ids.RF })] }),
      heard(6, 'SP', { id: ids.LF }),
      withSpare,
    ];
    expect(after('none', { ...five, swapWithSpare: 'acknowledged' }, three)).toMatchObject({
      action: 'relearn',
    });
  });

  it('an indirect car stores its reference again after air or tires, until it has', () => {
    const indirect = { kind: 'indirect' as const };
    const filled = [gauge(1, 'LF', 180), gauge(5, 'LF', 230)];
    const stored = { kind: 'relearn', at: minute(9), method: 'reset', outcome: 'done' } as Observation;
    expect(after('none', indirect)).toMatchObject({ action: 'none' });
    expect(after('tires-fitted', indirect)).toMatchObject({ action: 'store-reference' });
    expect(after('none', indirect, filled)).toMatchObject({ action: 'store-reference' });
    expect(after('tires-fitted', indirect, [...filled, stored])).toMatchObject({ action: 'none' });
    expect(after('none', indirect, [stored, gauge(10, 'LF', 180), gauge(15, 'LF', 230)])).toMatchObject({
      action: 'store-reference',
    });
    expect(after('tires-fitted', { kind: 'none' })).toMatchObject({ reason: 'no-monitoring' });
  });

  it('is not said as if somebody had read the car, where nobody has', () => {
    const unread = after('none');
    expect([unread.measured, needTitle(unread)]).toEqual([false, 'By what was done, no relearn is needed']);
    expect(needTitle(after('none', {}, [...scans(1), registry(9)]))).toBe('No relearn is needed');
    expect(needTitle(after('none', { kind: 'none' }))).toBe('No relearn is needed');
  });

  it('is said in sentences that name the wheels', () => {
    const need = after('none', {}, [...scans(1), registry(9, { RR: '90FFE0A1' })]);
    expect(needWords(need)).toBe('It does not hold what was heard at right rear.');
    const other = [heard(1, 'RF'), heard(20, 'RF', { id: '90FFE0A1' })];
    expect(needWords(after('none', {}, other))).toMatch(/a clone need not\. Here: right front\.$/);
  });
});

describe('the ways to teach a car', () => {
  const procedure = (name: string, method: string, more: object = {}) =>
    procedureSchema.parse({
      format: 'hacienda.procedure/1',
      name,
      title: name,
      method,
      for: { profiles: ['vela'] },
      proof: ['registry'],
      ...more,
    });
  const wake = { wheels: ['LF'], each: [{ do: 'wake' }] };
  const tool = procedure('by-tool', 'tool', { ...wake, minutes: 6 });
  const write = procedure('by-write', 'write', { ...wake, finish: [{ do: 'write' }], minutes: 5 });
  const drive = procedure('by-road', 'drive', {
    finish: [{ do: 'drive', leastKmh: 40, leastS: 600 }],
    minutes: 20,
  });
  const air = procedure('by-air', 'air', { wheels: ['LF'], each: [{ do: 'air' }], minutes: 6 });
  const all = [drive, tool, write, air];
  const everything = { tool: true, lead: true, road: true };
  const car = (seen: Observation[] = [], vehicle: object = {}): Job => {
    const job = jobWith(seen);
    return { ...job, vehicle: { ...job.vehicle, profile: 'vela', ...vehicle } };
  };
  const names = (...asked: Parameters<typeof waysFor>) => waysFor(...asked).map((way) => way.procedure.name);

  it('what they are done with follows from their steps', () => {
    expect([tool, write, drive, air].map(meansOf)).toEqual([['tool'], ['tool', 'lead'], ['road'], []]);
  });

  it('the quickest first; of two alike the one the shop prefers', () => {
    expect(names(all, car(), everything)).toEqual(['by-write', 'by-tool', 'by-air', 'by-road']);
    expect(names(all, car(), everything, ['air'])).toEqual(['by-write', 'by-air', 'by-tool', 'by-road']);
  });

  it('what cannot be done here comes last, and says what it needs', () => {
    const ways = waysFor(all, car(), { tool: false, lead: false, road: true });
    expect(ways.map((way) => way.procedure.name)).toEqual(['by-air', 'by-road', 'by-write', 'by-tool']);
    expect(ways.filter(canBeDone)).toHaveLength(2);
    expect(ways.map(wayWords)).toEqual([
      [],
      [],
      ['Needs an activation tool and a lead to the car'],
      ['Needs an activation tool'],
    ]);
  });

  it('what failed on this visit comes after what did not', () => {
    const failed = { kind: 'relearn', at: minute(9), method: 'write', outcome: 'failed' } as Observation;
    const ways = waysFor(all, car([failed]), everything);
    expect(ways.map((way) => way.procedure.name)).toEqual(['by-tool', 'by-air', 'by-road', 'by-write']);
    expect(wayWords(ways[3] ?? expect.fail())).toEqual(['Failed once on this visit']);
  });

  it('a write waits for the supply', () => {
    const low = { kind: 'voltage', at: minute(9), volts: 11.9, engine: 'off' } as Observation;
    expect(names(all, car([low]), everything)).toEqual(['by-tool', 'by-air', 'by-road', 'by-write']);
    const charged = { ...low, at: minute(12), volts: 12.6 } as Observation;
    expect(names(all, car([low, charged]), everything)[0]).toBe('by-write');
  });

  it('one that rests on the pressures waits until they are set, and says where they are not', () => {
    const set = procedure('set', 'air', { before: ['pressures-set'], minutes: 1 });
    const half = car(gauges(1, { RR: 190 }).slice(0, 3));
    const [first, last] = waysFor([set, drive], half, everything);
    expect([first?.procedure.name, last?.procedure.name]).toEqual(['by-road', 'set']);
    expect(last && wayWords(last)).toEqual([
      'Set the pressures first: RR and LR not at target or not gauged',
    ]);
    expect(names([set, drive], car(gauges(1)), everything)).toEqual(['set', 'by-road']);
    // Nobody gauged the spare: it has a say only where it is taught.
    const spared = jobWith(gauges(1), { tpms: five, placard });
    const withSpare = { ...spared, vehicle: { ...spared.vehicle, profile: 'vela' } };
    const taught = procedure('five', 'air', {
      before: ['pressures-set'],
      wheels: ['LF', 'RF', 'RR', 'LR', 'SP'],
    });
    const waits = waysFor([set, taught], withSpare, everything).map((way) => way.waitsForPressures);
    expect(waits).toEqual([[], ['SP']]);
  });

  it('only those for this kind of vehicle, its year, and what is needed', () => {
    const old = procedure('old', 'tool', { for: { profiles: ['vela'], toYear: 2015 } });
    const other = procedure('other', 'tool', { for: { profiles: ['brisa'] } });
    const any = procedure('any', 'typed', { for: { profiles: [] } });
    const reset = procedure('store', 'reset');
    const procedures = [old, other, any, reset];
    expect(names(procedures, car([], { modelYear: 2019 }), everything)).toEqual(['any']);
    expect(names(procedures, car(), everything)).toEqual(['old', 'any']);
    const indirect = car();
    indirect.vehicle.tpms = { kind: 'indirect' };
    expect(names(procedures, indirect, everything)).toEqual(['store']);
  });
});
