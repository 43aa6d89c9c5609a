import { describe, expect, it } from 'vitest';
import {
  display,
  gauge,
  gauges,
  heard,
  jobWith,
  lamp,
  registry,
  scans,
  silent,
} from '../../../../../tests/support/car';
import { findingsThatHold } from '../../assessment';
import type { Job, Observation } from '../../../job';
import { metric } from '../../../measure/units';
import { assess } from '..';
import { couldChange, notKnown, testWords, triedBefore } from './checks';
import { findingKey } from '../../../catalogue/finding';
import { reasonsFor } from './reasons';
import { tests } from '../../../catalogue/tests';

/** What is said of the first finding of a code that holds. */
function said(job: Job, code: string, units = metric): string | undefined {
  const assessment = assess(job);
  const finding = findingsThatHold(assessment).find((held) => held.code === code);
  return finding && reasonsFor(job, assessment, units)[findingKey(finding)];
}

describe('a reason', () => {
  it('holds display, gauge and the wheel that really has it against one another', () => {
    const seen = [
      ...gauges(1, { LR: 170 }),
      display(6, 'LF', 171),
      display(6, 'RF', 230),
      display(6, 'RR', 220),
      display(6, 'LR', 231),
    ];
    const job = jobWith(seen, { service: { kind: 'rotation', hoursAgo: 5 } });
    expect(said(job, 'positions-swapped')).toContain(
      'The gauge says 230 at LF where the display shows 171, and LR really has 170.',
    );
  });

  it('names where the lamp lights, in the units of who reads it', () => {
    const job = jobWith([lamp(0, 'steady'), ...gauges(1, { RF: 160 })]);
    expect(said(job, 'tire-low')).toBe('RF has 160 where the lamp lights at 175.');
    expect(said(job, 'tire-low', { ...metric, pressure: 'psi' })).toBe(
      'RF has 23.2 where the lamp lights at 25.4.',
    );
  });

  it('shows a slip digit by digit', () => {
    const job = jobWith([...scans(2), registry(3, { LR: '4B2A7CD8' })]);
    expect(said(job, 'id-mistyped')).toBe(
      'LR answers 4B2A 7C08, the car holds 4B2A 7CD8: digit 7 is D, should be 0.',
    );
  });

  it('says what the car holds where it does not hold the sensor', () => {
    const job = jobWith([...scans(2, { RR: [heard(2, 'RR', { id: '90FFE0A1' })] }), registry(3)]);
    expect(said(job, 'id-not-registered')).toBe(
      `RR answers 90FF E0A1; the car holds 4B11 E0F6 for it, and does not know that ID.`,
    );
  });

  it('names the triggers a wheel stayed silent to, once each', () => {
    const job = jobWith([
      lamp(0, 'flash-then-steady'),
      ...gauges(1),
      ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'magnet'), silent(4, 'RR', 'magnet')] }),
    ]);
    expect(said(job, 'sensor-silent')).toBe('RR answers neither the pulsed nor the magnet trigger.');
  });

  it('holds sensor and gauge, part and car, against each other', () => {
    expect(said(jobWith([gauge(1, 'LF', 230), heard(2, 'LF', { kPa: 260 })]), 'sensor-inaccurate')).toBe(
      'The sensor at LF says 260 where the gauge says 230.',
    );
    expect(
      said(jobWith([heard(2, 'LF', { family: 'plover', frequencyMHz: 315 })]), 'sensor-wrong-type'),
    ).toBe('LF sends plover at 315 MHz; the car hears kestrel at 433.92 MHz.');
  });

  it('is short where many wheels have it', () => {
    const job = jobWith(gauges(1, { LF: 200, RF: 200, RR: 190, LR: 190 }));
    expect(said(job, 'tire-underinflated')).toBe(
      'LF has 200 where the placard asks for 230. RF has 200 where the placard asks for 230. Likewise at RR and LR.',
    );
  });
});

describe('what is not known', () => {
  it('is said, and gets less with every reading', () => {
    expect(notKnown(jobWith([]))).toEqual([
      'the lamp',
      'the pressure of LF, RF, RR and LR',
      'the sensor of LF, RF, RR and LR',
      'what the car holds',
    ]);
    expect(notKnown(jobWith([lamp(0, 'off'), ...gauges(1), heard(2, 'LF'), registry(3)]))).toEqual([
      'the sensor of RF, RR and LR',
    ]);
    expect(notKnown(jobWith([lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3)]))).toEqual([]);
  });
});

describe('what could change a verdict', () => {
  it('is a test that asks about it', () => {
    const assessment = assess(
      jobWith([
        lamp(0, 'flash-then-steady'),
        ...gauges(1),
        ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'continuous')] }),
        registry(5),
      ]),
    );
    const [finding] = findingsThatHold(assessment).filter(({ code }) => code === 'sensor-silent');
    expect(
      couldChange(assessment, finding ?? { code: 'no-fault', wheels: [] }).map(({ test }) => test),
    ).toContain('activation');
  });

  it('has words for every test', () => {
    const words = tests.map((test) => testWords({ test, wheel: 'LF' }));
    expect(new Set(words).size).toBe(words.length);
    const waking = { test: 'activation' as const, wheel: 'RR' as const };
    const of = (...seen: Observation[]) => testWords(waking, triedBefore(jobWith(seen), 'RR'));
    expect(of()).toBe('wake RR');
    expect(of(silent(1, 'RR'))).toBe('wake RR with another trigger');
    expect(of(heard(1, 'RR'))).toBe('wake RR once more');
  });
});
