import { describe, expect, it } from 'vitest';
import { gauge, jobWith, minute } from '../../../../tests/support/car';
import { standOf } from '.';

const at = (n: number) => Date.parse(minute(n));
const warm = { tire: 'warm', driven: { drive: 'road', minutes: 20, stoodMinutes: 5, outdoorC: 12 } } as const;

describe('how the tires stand', () => {
  it('is asked for a car that just came in: nobody knows how far it was driven', () => {
    expect(standOf(jobWith([]), minute(0), at(10))).toBeUndefined();
    expect(standOf(jobWith([]), undefined, at(10))).toBeUndefined();
  });

  it('is cold three hours after it was booked in (common practice)', () => {
    expect(standOf(jobWith([]), minute(0), at(179))).toBeUndefined();
    expect(standOf(jobWith([]), minute(0), at(180))).toEqual({ tire: 'cold' });
  });

  it('goes on as at the last reading, with the minutes stood since', () => {
    expect(standOf(jobWith([gauge(0, 'LF', 230)]), minute(0), at(10))).toEqual({ tire: 'cold' });
    const read = { ...gauge(0, 'LF', 230), ...warm };
    expect(standOf(jobWith([read]), minute(0), at(10))).toEqual({
      tire: 'warm',
      driven: { ...warm.driven, stoodMinutes: 15 },
    });
    expect(standOf(jobWith([read]), minute(0), at(200))).toEqual({ tire: 'cold' });
  });

  it('is asked again after a drive', () => {
    const drive = { kind: 'live', at: minute(20), wheel: 'LF', kPa: 240, speedKmh: 60 } as const;
    expect(standOf(jobWith([gauge(0, 'LF', 230), drive]), minute(0), at(25))).toBeUndefined();
    expect(standOf(jobWith([gauge(0, 'LF', 230), drive]), minute(0), at(190))).toBeUndefined();
    expect(standOf(jobWith([gauge(0, 'LF', 230), drive]), minute(0), at(200))).toEqual({ tire: 'cold' });
    const relearned = { kind: 'relearn', at: minute(20), method: 'drive', outcome: 'done' } as const;
    expect(standOf(jobWith([gauge(0, 'LF', 230), relearned]), minute(0), at(25))).toBeUndefined();
  });
});
