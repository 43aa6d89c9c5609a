import { describe, expect, it } from 'vitest';
import type { Position } from '../../names/wheel';
import { afterSwap, idsTwice, inOrderOfWalk, wheelsWithoutId, type SetWheel, type WheelSet } from '.';
import { rotated, rotationPlan, wearAcrossAxles, wearsAlike } from './rotation';
import { bornOn, madeIn, tireAgeYears, tireState } from './tire';

const wheel = (at: Position | null, more: Partial<SetWheel> = {}): SetWheel => ({
  wheel: at,
  sensorId: null,
  newOn: null,
  treadMm: null,
  dot: null,
  size: null,
  ...more,
});
const set = (wheels: SetWheel[]): WheelSet => ({
  id: 'set',
  vehicleId: 'car',
  label: 'winter',
  season: 'winter',
  place: 'shop',
  rack: 'B 4',
  version: 1,
  wheels,
});

describe('a set that goes onto a car', () => {
  const four = set([wheel('RR', { sensorId: 'A1' }), wheel('LF', { sensorId: 'A2' }), wheel('LR')]);

  it('is only read where the car holds two sets', () => {
    expect(afterSwap(four, { kind: 'direct', holdsSets: 2 })).toEqual({ needs: 'read', sets: 2 });
  });

  it('is taught in walking order where it holds one, and wheels without an ID are woken first', () => {
    expect(afterSwap(four, { kind: 'direct' })).toEqual({ needs: 'teach', wheels: ['LF', 'RR'] });
    expect(wheelsWithoutId(four, ['LF', 'RF', 'RR', 'LR'])).toEqual(['RF', 'LR']);
  });

  it('needs a reset where wheel speeds are compared, and nothing where nothing monitors', () => {
    expect(afterSwap(four, { kind: 'indirect' })).toEqual({ needs: 'reset' });
    expect(afterSwap(four, { kind: 'none' })).toEqual({ needs: 'nothing' });
  });

  it('has no ID at two wheels', () => {
    expect(idsTwice([{ sensorId: '4b07 c2d1' }, { sensorId: '4B07C2D1' }, { sensorId: null }])).toEqual([
      '4B07C2D1',
    ]);
  });

  it('is listed in walking order, wheels nobody gave a place last', () => {
    expect(inOrderOfWalk([wheel(null), wheel('LR'), wheel('LF')]).map((one) => one.wheel)).toEqual([
      'LF',
      'LR',
      null,
    ]);
  });
});

describe('a tire', () => {
  it('was made in the week and year its sidewall ends with', () => {
    // 49 CFR 574.5 has "3503" made in the 35th week of 2003 (from memory).
    expect(madeIn('3503')).toEqual({ ok: true, value: { week: 35, year: 2003 } });
    expect(madeIn('DOT B9YR E5W 3421')).toEqual({ ok: true, value: { week: 34, year: 2021 } });
    expect(madeIn('5421')).toMatchObject({ ok: false, problem: { code: 'not-a-figure' } });
    expect(madeIn('421')).toMatchObject({ ok: false });
    expect(bornOn({ week: 1, year: 2021 }).toISOString().slice(0, 10)).toBe('2021-01-01');
    expect(tireAgeYears({ week: 1, year: 2021 }, new Date('2026-01-01'))).toBeCloseTo(5, 2);
  });

  it('is spent under the least tread there may be, worn sooner in winter, old whatever its tread', () => {
    const now = new Date('2026-11-27');
    const state = (treadMm: number | null, dot: string | null, season: 'summer' | 'winter' = 'summer') =>
      tireState({ treadMm, dot }, season, now);
    expect(state(1.5, '3425')).toBe('spent');
    expect(state(3.5, '3425')).toBe('good');
    expect(state(3.5, '3425', 'winter')).toBe('worn');
    expect(state(7, '0115')).toBe('old');
    expect(state(7, '0119')).toBe('ageing');
    expect(state(null, null)).toBe('not-known');
  });
});

describe('a rotation', () => {
  const even = { drive: 'front', directional: false, staggered: false } as const;

  it('takes the driven wheels straight across, the others crosswise (common practice)', () => {
    expect(rotationPlan(even)).toEqual({ LF: 'LR', RF: 'RR', LR: 'RF', RR: 'LF' });
    expect(rotationPlan({ ...even, drive: 'rear' })).toEqual({ LR: 'LF', RR: 'RF', LF: 'RR', RF: 'LR' });
  });

  it('keeps directional tires on their side, other sizes on their axle', () => {
    const side = (one: string | undefined) => one?.[0];
    const axle = (one: string | undefined) => one?.[1];
    for (const [from, to] of Object.entries(rotationPlan({ ...even, directional: true })))
      expect(side(from)).toBe(side(to));
    for (const [from, to] of Object.entries(rotationPlan({ ...even, staggered: true })))
      expect(axle(from)).toBe(axle(to));
    expect(rotationPlan({ ...even, directional: true, staggered: true })).toEqual({});
  });

  it('fills each place once, and after four of a kind every wheel has been everywhere', () => {
    for (const drive of ['front', 'rear', 'all'] as const) {
      const plan = rotationPlan({ ...even, drive });
      expect(new Set(Object.values(plan)).size).toBe(4);
      const seen = new Set<string>();
      let at: Position = 'LF';
      for (let n = 0; n < 4; n += 1) {
        seen.add(at);
        at = plan[at] ?? at;
      }
      expect(seen.size).toBe(4);
      expect(at).toBe('LF');
    }
  });

  it('moves sensors with their wheels', () => {
    const before = set([wheel('LF', { sensorId: 'A1' }), wheel('SP', { sensorId: 'A5' })]);
    expect(rotated(before, rotationPlan(even)).wheels.map((one) => [one.sensorId, one.wheel])).toEqual([
      ['A1', 'LR'],
      ['A5', 'SP'],
    ]);
  });

  it('is called for by treads that differ between the axles', () => {
    const treads = (front: number, rear: number) =>
      set([
        wheel('LF', { treadMm: front }),
        wheel('RF', { treadMm: front }),
        wheel('LR', { treadMm: rear }),
        wheel('RR', { treadMm: rear }),
      ]);
    expect(wearAcrossAxles(treads(4, 6))).toBeCloseTo(-2);
    expect(wearAcrossAxles(set([wheel('LF', { treadMm: 4 })]))).toBeUndefined();
  });
});

describe('a figure of the wheels', () => {
  it('1.6 mm of tread is the least, and still enough (Directive 89/459/EEC, from memory)', () => {
    const at = (treadMm: number) => tireState({ treadMm, dot: null }, 'summer', new Date('2026-10-14'));
    expect([1.5, 1.6, 2.9, 3].map(at)).toEqual(['spent', 'worn', 'worn', 'good']);
  });

  it('treads of axles that differ by a millimetre wear alike, by more they do not (judgement)', () => {
    expect([0, 1, -1, 1.1, -1.1].map(wearsAlike)).toEqual([true, true, true, false, false]);
  });
});
