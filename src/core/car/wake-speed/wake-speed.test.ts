import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../../tests/support/car';
import { isAboveWakeSpeed } from '.';

describe('wake speed', () => {
  it("is the car's own where it is known", () => {
    expect(isAboveWakeSpeed(jobWith([], { tpms: { wakeSpeedKmh: 25 } }), 26)).toBe(true);
    expect(isAboveWakeSpeed(jobWith([], { tpms: { wakeSpeedKmh: 25 } }), 25)).toBe(false);
  });

  it('is about 40 km/h otherwise (common practice); a car of unknown speed stands', () => {
    const unknown = jobWith([], { tpms: { wakeSpeedKmh: undefined } });
    expect(isAboveWakeSpeed(unknown, 41)).toBe(true);
    expect(isAboveWakeSpeed(unknown, 40)).toBe(false);
    expect(isAboveWakeSpeed(unknown, undefined)).toBe(false);
  });
});
