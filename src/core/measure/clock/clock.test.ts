import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betterOf, clockWords, offsetOf, setRight } from '.';

const noon = Date.parse('2026-03-02T12:00:00Z');
const iso = (ms: number) => new Date(ms).toISOString();

describe('the clock of a device against the shop’s', () => {
  it('is known to half of what the answer took, as in RFC 5905, section 8 (from memory)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.integer({ min: 0, max: 5000 }),
        fc.integer({ min: 0, max: 5000 }),
        (aheadMs, thereMs, backMs) => {
          const sentMs = noon - aheadMs;
          const shopMs = noon + thereMs;
          const heardMs = shopMs + backMs - aheadMs;
          const { ms, doubtMs } = offsetOf({ shopMs, sentMs, heardMs });
          expect(Math.abs(ms - aheadMs)).toBeLessThanOrEqual(doubtMs + 1e-6);
        },
      ),
    );
  });

  it('keeps the better known offset, until the clock was set', () => {
    const good = { ms: 300_000, doubtMs: 20 };
    expect(betterOf(undefined, good)).toBe(good);
    expect(betterOf(good, { ms: 300_400, doubtMs: 900 })).toBe(good);
    expect(betterOf(good, { ms: 10, doubtMs: 900 })).toEqual({ ms: 10, doubtMs: 900 });
    expect(betterOf(good, { ms: 300_001, doubtMs: 5 })).toEqual({ ms: 300_001, doubtMs: 5 });
  });

  it('is told from a minute on', () => {
    expect(clockWords({ ms: 59_000, doubtMs: 0 })).toBeUndefined();
    expect(clockWords({ ms: -300_000, doubtMs: 0 })).toBe('5 min fast');
    expect(clockWords({ ms: 3 * 3_600_000, doubtMs: 0 })).toBe('3 h slow');
    expect(clockWords({ ms: -1900 * 86_400_000, doubtMs: 0 })).toBe('1900 days fast');
  });
});

describe('what comes from the future', () => {
  it('is set to when it arrived, and keeps what the clock said', () => {
    const lamp = { kind: 'lamp', at: '2031-01-01T00:00:00Z' };
    expect(setRight(lamp, noon)).toEqual({ kind: 'lamp', at: iso(noon), saidAt: lamp.at });
    expect(setRight({ at: iso(noon + 900) }, noon)).toEqual({ at: iso(noon) });
    expect(setRight({ at: iso(noon - 900) }, noon)).toEqual({ at: iso(noon - 900) });
    expect(setRight({ at: '2026-03-02T13:00:00+02:00' }, noon)).toEqual({ at: '2026-03-02T13:00:00+02:00' });
  });
});
