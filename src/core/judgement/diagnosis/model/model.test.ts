import { describe, expect, it } from 'vitest';
import { priorsFor } from '../learning/priors';
import { contextOf } from '../evidence';
import { historyMayMoveBy } from '../learning/experience';
import { jobWith } from '../../../../../tests/support/car';
import { figuresIn } from '../../../measure/figure';
import { figures, model, patterns } from '.';

describe('the numbers of the engine', () => {
  it('each say where they come from and why', () => {
    const all = figuresIn(figures);
    expect(all.length).toBeGreaterThan(200);
    for (const { path, figure } of all) {
      expect(Number.isFinite(figure.value), path).toBe(true);
      expect(figure.why.length, path).toBeGreaterThan(2);
    }
  });

  it('of the lamp add up to one for each cause', () => {
    for (const [cause, row] of [
      ...Object.entries(model.telltale),
      ...Object.entries(model.indirectLamp).filter(([name]) => name !== 'othersLit'),
    ]) {
      expect(
        Object.values(row as Record<string, number>).reduce((sum, chance) => sum + chance, 0),
        cause,
      ).toBeCloseTo(1, 9);
    }
  });

  it('of rotations are shares, and leave something for any other order', () => {
    const shares = patterns.reduce((sum, { share }) => sum + share.value, 0);
    expect(shares).toBeLessThan(1);
    for (const { name, moves } of patterns) {
      expect(new Set(Object.keys(moves)), name).toEqual(new Set(Object.values(moves)));
    }
  });

  it('of survival are those of common practice: most sensors last five years, few ten', () => {
    const { shape, scaleYears } = model.survival;
    const alive = (years: number) => Math.exp(-((years / scaleYears) ** shape));
    expect(alive(5)).toBeGreaterThan(0.9);
    expect(alive(10)).toBeLessThan(0.25);
  });
});

const priorsOf = (more: Parameters<typeof jobWith>[1] = {}, experience?: Parameters<typeof priorsFor>[1]) =>
  priorsFor(contextOf(jobWith([], more), []), experience);

describe('the priors', () => {
  it('rise with the work done, and fade with the time since', () => {
    const usual = priorsOf();
    const fresh = priorsOf({ service: { kind: 'sensor-replaced', hoursAgo: 1 } });
    const old = priorsOf({ service: { kind: 'sensor-replaced', hoursAgo: 5000 } });
    expect(fresh.of['id-not-registered']).toBeGreaterThan(10 * usual.of['id-not-registered']);
    expect(old.of['id-not-registered']).toBeLessThan(1.5 * usual.of['id-not-registered']);
    expect(priorsOf({ service: { kind: 'rotation', hoursAgo: 1 } }).of['positions-swapped']).toBeGreaterThan(
      0.3,
    );
    expect(priorsOf({ service: { kind: 'rotation', hoursAgo: 1 } }).of['positions-swapped']).toBeLessThan(
      0.5,
    );
  });

  it('of a battery rise with age', () => {
    const { battery } = priorsOf();
    const ages = [1, 3, 5, 7, 9].map((age) => battery(age));
    for (const [older, younger] of ages.slice(1).map((at, n) => [at, ages[n]] as const)) {
      expect(older.dead).toBeGreaterThan(younger?.dead ?? 1);
      expect(older.ending).toBeGreaterThan(younger?.ending ?? 1);
    }
  });
});

describe("a shop's own outcomes", () => {
  it('move a prior as counts added to a Beta distribution do', () => {
    const prior = 0.008;
    const { strength } = model.faults;
    expect(
      historyMayMoveBy('id-not-registered', prior, {
        'id-not-registered': { had: 12, of: 400, expected: 400 * prior },
      }),
    ).toBeCloseTo((prior * strength + 12) / (strength + 400) / prior, 9);
    expect(historyMayMoveBy('id-not-registered', prior, undefined)).toBe(1);
    expect(historyMayMoveBy('id-not-registered', prior, {})).toBe(1);
  });

  it('never move it further than a floor and a ceiling, however much luck a small shop has', () => {
    const most = model.historyMayMove;
    expect(
      historyMayMoveBy('sensor-silent', 0.02, { 'sensor-silent': { had: 4000, of: 4000, expected: 80 } }),
    ).toBe(most);
    expect(
      historyMayMoveBy('sensor-silent', 0.02, { 'sensor-silent': { had: 0, of: 1e6, expected: 2e4 } }),
    ).toBe(1 / most);
    // Five cars out of five weigh little against four hundred.
    expect(
      historyMayMoveBy('sensor-silent', 0.02, { 'sensor-silent': { had: 5, of: 5, expected: 0.1 } }),
    ).toBeLessThan(1.7);
  });

  it('taken back leave the prior as it was', () => {
    expect(priorsOf({}, {}).of['receiver-fault']).toBe(priorsOf().of['receiver-fault']);
    expect(
      priorsOf({}, { 'receiver-fault': { had: 30, of: 300, expected: 1.8 } }).of['receiver-fault'],
    ).toBeGreaterThan(priorsOf().of['receiver-fault']);
  });
});
