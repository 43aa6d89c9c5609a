import fc from 'fast-check';
import Qty from 'js-quantities';
import * as math from 'mathjs';
import { describe, expect, it } from 'vitest';
import {
  distance,
  figure,
  figureAsTyped,
  format,
  formatDifference,
  height,
  metric,
  parse,
  pressure,
  temperature,
  unitNamed,
} from '.';
import { typedAs, typedAsOrEmpty } from './schema';

describe('pressure units', () => {
  it('follow NIST SP 811 (2008) appendix B.8, figures from memory', () => {
    expect(unitNamed(pressure, 'psi').toBase(1)).toBeCloseTo(6.894757, 6);
    expect(unitNamed(pressure, 'bar').toBase(1)).toBe(100);
    expect(unitNamed(pressure, 'kgf/cm2').toBase(1)).toBeCloseTo(98.0665, 6);
  });

  it('agree with js-quantities and mathjs over thousands of values', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000 }), (hundredths) => {
        const kPa = hundredths / 100;
        const psi = unitNamed(pressure, 'psi').fromBase(kPa);
        expect(psi).toBeCloseTo(Qty(kPa, 'kPa').to('psi').scalar, 3);
        expect(psi).toBeCloseTo(math.unit(kPa, 'kPa').toNumber('psi'), 3);
        expect(unitNamed(pressure, 'bar').fromBase(kPa)).toBeCloseTo(Qty(kPa, 'kPa').to('bar').scalar, 9);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('temperature and distance units', () => {
  it('agree with js-quantities and mathjs', () => {
    fc.assert(
      fc.property(fc.integer({ min: -6000, max: 13_000 }), (hundredths) => {
        const celsius = hundredths / 100;
        const fahrenheit = unitNamed(temperature, '°F').fromBase(celsius);
        expect(fahrenheit).toBeCloseTo(Qty(celsius, 'tempC').to('tempF').scalar, 6);
        expect(fahrenheit).toBeCloseTo(math.unit(celsius, 'degC').toNumber('degF'), 6);
      }),
      { numRuns: 1000 },
    );
    expect(unitNamed(distance, 'mi').toBase(1)).toBeCloseTo(math.unit(1, 'mile').toNumber('km'), 9);
    expect(unitNamed(height, 'ft').toBase(5280)).toBeCloseTo(Qty(1, 'mi').to('m').scalar, 6);
  });
});

describe('an entry', () => {
  it.each([
    ['32psi', 'psi', 220.632, '32 psi'],
    ['2.3 bar', 'bar', 230, '2.3 bar'],
    ['2,30 bar', 'bar', 230, '2.30 bar'],
    ['+230', 'kPa', 230, '230 kPa'],
    ['2.2 kgf/cm2', 'kgf/cm2', 215.746, '2.2 kgf/cm2'],
  ])('takes %s in the unit typed after it', (written, unit, kPa, typed) => {
    const entry = parse(pressure, written, 'kPa');
    expect(entry).toMatchObject({ ok: true, value: { unit, typed } });
    expect(entry.ok && entry.value.base).toBeCloseTo(kPa, 2);
  });

  it('shows what was typed as it was typed, in every unit and resolution shown', () => {
    fc.assert(
      fc.property(fc.constantFrom(...pressure.units), fc.nat({ max: 9999 }), (unit, n) => {
        const value = n / 10 ** unit.decimals;
        const typed = value.toFixed(unit.decimals);
        const entry = parse(pressure, `${typed} ${unit.name}`, 'kPa');
        if (entry.ok)
          expect(figure(pressure, entry.value.base, { ...metric, pressure: unit.name })).toBe(typed);
      }),
    );
  });

  it('survives any change of units: to the letter in its own, and what is shown in another is only shown', () => {
    const unit = fc.constantFrom(...pressure.units);
    const typed = fc.tuple(fc.nat({ max: 600 }), fc.stringMatching(/^(\.[0-9]{1,3})?$/));
    fc.assert(
      fc.property(unit, unit, typed, (own, other, [whole, decimals]) => {
        const entry = parse(pressure, `${whole}${decimals}`, own.name);
        if (!entry.ok) return;
        const { base, typed: kept } = entry.value;
        expect(figureAsTyped(pressure, base, { ...metric, pressure: own.name }, kept)).toBe(
          `${whole}${decimals}`,
        );
        if (own !== other)
          expect(figureAsTyped(pressure, base, { ...metric, pressure: other.name }, kept)).toBe(
            figure(pressure, base, { ...metric, pressure: other.name }),
          );
      }),
      { numRuns: 2000 },
    );
  });

  it('that does not say what is stored is passed over: a corrected figure is shown as it is', () => {
    expect(figureAsTyped(pressure, 226, metric, '228.5 kPa')).toBe('226');
    expect(figureAsTyped(pressure, 226, metric, undefined)).toBe('226');
  });

  it.each([
    ['-3', 'impossible'],
    ['900 psi', 'impossible'],
    ['thirty', 'not-a-figure'],
    ['', 'not-a-figure'],
    ['32 furlong', 'unknown-unit'],
  ])('refuses %j with a sentence', (typed, code) => {
    const entry = parse(pressure, typed, 'kPa');
    expect(entry).toMatchObject({ ok: false, problem: { code } });
    expect(!entry.ok && entry.problem.message).toMatch(/\w.*\.$/);
  });

  it('reads its own minus sign back', () => {
    expect(format(temperature, -3, metric)).toBe('−3 °C');
    expect(parse(temperature, '−3', '°C')).toMatchObject({ ok: true, value: { base: -3 } });
  });

  it('is written with the decimal sign of the region, and read with either', () => {
    const bar = { ...metric, pressure: 'bar', region: 'EU' } as const;
    expect(format(pressure, 231, bar)).toBe('2,31 bar');
    expect(formatDifference(pressure, -12, bar)).toBe('−0,12 bar');
    expect(figureAsTyped(pressure, 230, bar, '2.30 bar')).toBe('2,30');
    expect(parse(pressure, '2,31', 'bar')).toEqual(parse(pressure, '2.31', 'bar'));
  });

  it('signs a difference, which has no offset', () => {
    expect(formatDifference(pressure, -12.4, metric)).toBe('−12 kPa');
    expect(formatDifference(temperature, 10, { ...metric, temperature: '°F' })).toBe('+18 °F');
    expect(formatDifference(pressure, 0.2, metric)).toBe('±0 kPa');
  });
});

describe('the text of a form', () => {
  const bar = { ...metric, pressure: 'bar' } as const;

  it('is read in the unit behind it, or the one somebody reads in; nothing typed is nothing known', () => {
    const schema = typedAsOrEmpty(pressure, bar);
    expect(schema.parse('2,3')).toMatchObject({ unit: 'bar', typed: '2.3 bar' });
    expect(schema.parse('230 kPa')).toMatchObject({ base: 230, unit: 'kPa' });
    expect(schema.parse('  ')).toBeUndefined();
  });

  it('says what is wrong with it, and that it is needed where it is', () => {
    const issueOf = (text: string) =>
      typedAs(pressure, bar, 'A figure is needed.')
        .safeParse(text)
        .error?.issues.map(({ message }) => message);
    expect(issueOf('')).toEqual(['A figure is needed.']);
    expect(issueOf('twelve')?.[0]).toMatch(/^Type the pressure as a figure/);
    expect(issueOf('2.3')).toBeUndefined();
  });
});
