import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../../tests/support/car';
import { compareSizes, parseTireSize } from '../../../core/names/tire-size';
import { metric } from '../../../core/measure/units';
import { fitWords } from '../../../core/names/tire-size/words';
import { lampFigures } from './lamp-figures';

const unknown = { lowOnKPa: undefined, lowOffKPa: undefined };

describe('what lights the lamp', () => {
  it("is said with the car's own figures", () => {
    expect(lampFigures(jobWith([]), metric)).toBe("175 kPa, out at 200 kPa: the car's own figures");
  });

  it('is said axle by axle where a rule makes them differ, with the rule in force', () => {
    expect(lampFigures(jobWith([], { tpms: { ...unknown, regulation: 'UN' } }), metric)).toBe(
      '184 kPa at the front, 176 kPa at the rear: UN rule, 20 % below placard (UN Regulation 141, 5.2 and 5.3)',
    );
    expect(lampFigures(jobWith([], { tpms: unknown }), { ...metric, pressure: 'psi' })).toMatch(
      /^25\.0 psi at the front, 23\.9 psi at the rear: US rule/,
    );
  });

  it('is not said while nothing is known', () => {
    expect(lampFigures(jobWith([], { tpms: unknown, placard: [] }), metric)).toBeUndefined();
  });
});

describe('a fit in words', () => {
  const words = (placard: string, fitted: string) => {
    const [asked, found] = [parseTireSize(placard), parseTireSize(fitted)];
    if (!asked.ok || !found.ok) throw new Error('not a size');
    return fitWords(compareSizes(asked.value, found.value, 230), '230 kPa');
  };

  it('is good for the same size that carries enough', () => {
    const found = words('205/55R16 91V', '205/55R16 94V');
    expect(found).toMatchObject({ good: true, verdict: 'The size the placard names.' });
    expect(found.details.join(', ')).toMatch(/carries \d+ kg at 230 kPa, enough for the \d+ kg/);
  });

  it.each([
    ['205/55R16 91V', '195/55R15 85H', /Carries too little: do not leave it on/],
    ['205/55R16 91V', '215/65R16 98V', /Rolls differently/],
    ['205/55R16 91V', '225/45R17 91V', /on another rim/],
  ])('%s replaced by %s is not', (placard, fitted, verdict) => {
    expect(words(placard, fitted)).toMatchObject({ good: false, verdict: expect.stringMatching(verdict) });
  });

  it('says what is missing where no index is known, and a speed symbol that is too low', () => {
    expect(words('205/55R16', '205/55R16').details).toContain('load not known: type its load index');
    expect(words('205/55R16 91V', '205/55R16 91T').good).toBe(false);
  });
});
