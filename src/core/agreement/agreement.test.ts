import { describe, expect, it } from 'vitest';
import { gauge, heard, jobWith } from '../../../tests/support/car';
import { ledgerOf } from '../ledger';
import type { Observation } from '../job';
import { agreementAt, agreementOf } from '.';

const at = (...seen: Observation[]) => agreementAt(ledgerOf(jobWith(seen)), 'LF');

describe('a sensor and a gauge', () => {
  it('agree within what both may be off: by hand √(7² + 4²) = 8.06 kPa', () => {
    expect(agreementOf(238, 230)).toMatchObject({ verdict: 'agrees', differenceKPa: 8 });
    expect(agreementOf(238, 230).plusMinusKPa).toBeCloseTo(8.06, 2);
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
