import { describe, expect, it } from 'vitest';
import { pressure, unitNamed } from '../../measure/units';
import { doubtAboutPlacard } from '.';

describe('a placard figure', () => {
  const typed = (value: number, unit: 'kPa' | 'psi' | 'bar') =>
    doubtAboutPlacard(unitNamed(pressure, unit).toBase(value), value);

  it('of 42 kPa is asked about: 42 psi was more likely meant', () => {
    const doubt = typed(42, 'kPa');
    expect(doubt?.meant?.unit).toBe('psi');
    expect(doubt?.meant?.kPa).toBeCloseTo(289.58, 2);
  });

  it('of 2.3 kPa was more likely meant in bar', () => {
    expect(typed(2.3, 'kPa')?.meant?.unit).toBe('bar');
    expect(typed(2.3, 'kPa')?.meant?.kPa).toBeCloseTo(230, 9);
  });

  it('of 230 psi was more likely meant in kPa', () => {
    expect(typed(230, 'psi')?.meant).toEqual({ kPa: 230, unit: 'kPa' });
  });

  it('that no unit makes sense of is asked about all the same', () => {
    expect(typed(120, 'kPa')).toEqual({ meant: undefined });
  });

  it.each([
    [230, 'kPa'],
    [33, 'psi'],
    [2.3, 'bar'],
    [420, 'kPa'],
    [80, 'psi'],
  ] as const)('of %f %s is usual', (value, unit) => {
    expect(typed(value, unit)).toBeUndefined();
  });
});
