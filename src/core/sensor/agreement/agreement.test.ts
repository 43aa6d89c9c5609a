import { describe, expect, it } from 'vitest';
import { gauge, heard, jobWith, silent } from '../../../../tests/support/car';
import type { Observation } from '../../job';
import { agreementAt, agreementOf } from '.';

const at = (...seen: Observation[]) => agreementAt(jobWith(seen), 'LF');

describe('a sensor and a gauge', () => {
  it('agree within what both may be off: by hand √(7² + 4²) = 8.06 kPa', () => {
    expect(agreementOf(238, 230)).toMatchObject({ verdict: 'agrees', differenceKPa: 8 });
    expect(agreementOf(238, 230).uncertaintyKPa).toBeCloseTo(8.06, 2);
  });

  it('drift apart beyond that, and the sensor is wrong beyond 10 kPa', () => {
    expect(agreementOf(221, 230).verdict).toBe('drifts');
    expect(agreementOf(241, 230).verdict).toBe('wrong');
  });

  it('cannot be told apart by a gauge that is itself off by more', () => {
    expect(agreementOf(241, 230, 12).verdict).toBe('agrees');
  });

  it('are compared within one stop, with the reading it agrees with best', () => {
    expect(at(gauge(1, 'LF', 230), heard(3, 'LF', { kPa: 200 }))?.verdict).toBe('wrong');
    expect(at(gauge(1, 'LF', 200), gauge(2, 'LF', 230), heard(3, 'LF', { kPa: 198 }))?.verdict).toBe(
      'agrees',
    );
    expect(at(gauge(1, 'LF', 180), gauge(5, 'LF', 230), heard(3, 'LF', { kPa: 205 }))?.verdict).toBe(
      'agrees',
    );
    expect(at(gauge(1, 'LF', 230), heard(90, 'LF', { kPa: 200 }))).toBeUndefined();
  });

  it('are not compared with a gauge that is not trusted, nor without a pressure', () => {
    expect(at(gauge(1, 'LF', 230, { trusted: false }), heard(3, 'LF', { kPa: 200 }))).toBeUndefined();
    expect(at(gauge(1, 'LF', 230), heard(3, 'LF', { kPa: null }))).toBeUndefined();
  });
});

describe('the lines between agreeing, drifting and being wrong', () => {
  it('are themselves on the good side', () => {
    // √(7² + 24²) = 25, so a difference of just that agrees.
    expect(agreementOf(255, 230, 24).verdict).toBe('agrees');
    expect(agreementOf(205, 230, 24).verdict).toBe('agrees');
    expect(agreementOf(240, 230).verdict).toBe('drifts');
    expect(agreementOf(240.1, 230).verdict).toBe('wrong');
    expect(agreementOf(219.9, 230).verdict).toBe('wrong');
  });

  it('take in readings up to three quarters of an hour apart, before and after', () => {
    const sensor = heard(50, 'LF', { kPa: 200 });
    expect(at(gauge(5, 'LF', 230), sensor)?.verdict).toBe('wrong');
    expect(at(gauge(95, 'LF', 230), sensor)?.verdict).toBe('wrong');
    expect(at(gauge(4.9, 'LF', 230), sensor)).toBeUndefined();
    expect(at(gauge(95.1, 'LF', 230), sensor)).toBeUndefined();
  });

  it('name the readings that were compared, and the one that is nearest whichever came first', () => {
    const apart = at(gauge(1, 'LF', 260), gauge(2, 'LF', 215), heard(3, 'LF', { kPa: 200 }));
    expect(apart).toMatchObject({ verdict: 'wrong', differenceKPa: -15 });
    expect(apart?.readings).toHaveLength(2);
    expect(at(gauge(1, 'LF', 215), gauge(2, 'LF', 260), heard(3, 'LF', { kPa: 200 }))?.differenceKPa).toBe(
      -15,
    );
    expect(at(gauge(1, 'LF', 215), gauge(2, 'LF', 260), heard(3, 'LF', { kPa: 290 }))?.verdict).toBe('wrong');
  });

  it('are not drawn for a sensor that is silent or that several answered for', () => {
    expect(at(gauge(1, 'LF', 230), silent(3, 'LF'))).toBeUndefined();
    expect(at(gauge(1, 'LF', 230))).toBeUndefined();
    const two = heard(3, 'LF', { kPa: 200 });
    if (two.kind === 'activation') two.replies.push({ id: 'FFFF0001', kPa: 231, rssiDbm: -48 });
    expect(at(gauge(1, 'LF', 230), two)).toBeUndefined();
  });
});
