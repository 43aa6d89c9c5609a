import { describe, expect, it } from 'vitest';
import { gauge, jobWith } from '../../../tests/support/car';
import { changesOf } from './history';
import { oneStopMs, oneVisitMs } from './together';

/** Figures of the trade by their literal: whoever changes one changes it here too. */
describe('a figure of the job', () => {
  it('readings of one stop lie within 45 minutes: nobody drove in between (common practice)', () => {
    expect(oneStopMs).toBe(45 * 60 * 1000);
  });

  it('readings of one visit lie within 12 hours (judgement)', () => {
    expect(oneVisitMs).toBe(12 * 60 * 60 * 1000);
  });

  it('a tire was filled or let out of where two readings differ by more than 6 kPa: two gauges may be off by as much (common practice)', () => {
    const isHandled = (kPa: number) =>
      changesOf(jobWith([gauge(1, 'LF', 220), gauge(5, 'LF', kPa)])).length > 0;
    expect([226, 214, 226.1, 213.9].map(isHandled)).toEqual([false, false, true, true]);
  });
});
