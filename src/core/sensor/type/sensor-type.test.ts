import { describe, expect, it } from 'vitest';
import { direct } from '../../../../tests/support/car';
import { isRightType } from '.';

const reply = (more: { frequencyMHz?: number; family?: string }) => ({ id: '4B07C2D1', ...more });

describe('a sensor', () => {
  it('is right where carrier and family are the car’s, however the family is spelled', () => {
    expect(isRightType(direct, reply({ frequencyMHz: 433.9, family: 'Kestrel' }))).toBe(true);
  });

  it('is wrong on another carrier or in another family', () => {
    expect(isRightType(direct, reply({ frequencyMHz: 315, family: 'kestrel' }))).toBe(false);
    expect(isRightType(direct, reply({ frequencyMHz: 433.92, family: 'plover' }))).toBe(false);
    expect(isRightType(direct, reply({ frequencyMHz: 434.93 }))).toBe(false);
    expect(isRightType(direct, reply({ frequencyMHz: 434.92 }))).toBe(true);
  });

  it('goes by what is known of it, and is neither where nothing is', () => {
    expect(isRightType(direct, reply({ family: 'kestrel' }))).toBe(true);
    expect(isRightType(direct, reply({}))).toBeUndefined();
    expect(isRightType({ kind: 'direct' }, reply({ frequencyMHz: 315, family: 'plover' }))).toBeUndefined();
  });
});
