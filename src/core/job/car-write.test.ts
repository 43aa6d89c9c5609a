import { describe, expect, it } from 'vitest';
import { minute } from '../../../tests/support/car';
import { writeVerdict } from './car-write';

const thresholds = (lowOnKPa: number, lowOffKPa: number) =>
  writeVerdict({
    kind: 'thresholds',
    key: 'a',
    askedAt: minute(0),
    answer: 'yes',
    asked: { lowOnKPa: 190, lowOffKPa: 215 },
    readBackAt: minute(1),
    readBack: { lowOnKPa, lowOffKPa },
  });

describe('a write to the car', () => {
  it('of the lamp’s figures worked where both read back the same, to what a car rounds in sending them', () => {
    expect(thresholds(190, 215)).toBe('worked');
    expect(thresholds(190.04, 214.96)).toBe('worked');
    expect(thresholds(190.1, 215)).toBe('failed');
    expect(thresholds(190, 214.9)).toBe('failed');
  });
});
