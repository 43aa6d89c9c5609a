import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../../tests/support/car';
import { procedureSchema } from '../../relearn/procedure/schema';
import { cautionForWork, cautionsFor, cautionsOfRelearn, comesFirst, fillingCaution } from '.';

describe('a caution', () => {
  it('stands by work on a wheel: deflate before the stem is loosened; local codes first', () => {
    for (const code of ['sensor-silent', 'sensor-wrong-type', 'tire-leaking'] as const) {
      expect(cautionForWork(code)).toMatch(/Let the tire down fully.*Local codes/);
    }
    expect(cautionForWork('id-not-registered')).toBeUndefined();
  });

  it('stands by filling: clear of the sidewall, not over its maximum, no bleeding hot', () => {
    expect(fillingCaution).toMatch(/sidewall.*maximum.*Never bleed a hot tire/);
  });
});

describe('while a car is taught', () => {
  const procedure = (more: object) =>
    procedureSchema.parse({
      format: 'hacienda.procedure/1',
      name: 'made-up',
      title: 'Made up',
      method: 'tool',
      proof: ['lamp'],
      ...more,
    });
  const said = (more: object) => cautionsOfRelearn(procedure(more)).join(' ');

  it('what its steps can do to somebody is said, and what comes first', () => {
    expect(said({})).toBe(comesFirst);
    expect(said({ wheels: ['LF'], each: [{ do: 'wake' }] })).toMatch(
      /does not start the car.*maker's procedure/,
    );
    expect(said({ finish: [{ do: 'drive', leastKmh: 40, leastS: 60 }] })).toMatch(/licensed driver/);
    expect(said({ wheels: ['LF'], each: [{ do: 'air' }] })).toMatch(/stand clear of the sidewall/);
  });
});

describe('the customer takes along', () => {
  it('the monthly gauge, and what comes first', () => {
    const always = cautionsFor(jobWith([])).join(' ');
    expect(always).toMatch(/once a month/);
    expect(always).toMatch(/licensed practice/);
    expect(always).toMatch(/maximum on the sidewall.*never bleed a hot tire/);
    expect(always).not.toMatch(/nuts/);
    expect(always).not.toMatch(/lamp stays on/);
    const unsaid = { ...jobWith([]) };
    delete unsaid.service;
    expect(cautionsFor(unsaid).join(' ')).not.toMatch(/nuts/);
    expect(cautionsFor(jobWith([], { visit: { number: 7 } })).join(' ')).not.toMatch(/lamp stays on/);
  });

  it('the nuts, where wheels were off', () => {
    expect(cautionsFor(jobWith([], { service: { kind: 'rotation' } })).join(' ')).toMatch(/nuts.*100 km/);
  });

  it('that the lamp stays on, where the car leaves unproved', () => {
    expect(cautionsFor(jobWith([], { visit: { unproved: 'part on order' } })).join(' ')).toMatch(
      /lamp stays on/,
    );
  });
});
