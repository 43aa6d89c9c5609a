import { describe, expect, it } from 'vitest';
import { gauges, jobWith, lamp, registry, scans, silent } from '../../../../tests/support/car';
import { findingsThatHold } from '../../../core/judgement/assessment';
import { assess } from '../../../core/judgement/diagnosis';
import { cellsThatSpeak } from './evidence-cells';

describe('the cells that speak for a finding', () => {
  const job = jobWith([
    lamp(0, 'flash-then-steady'),
    ...gauges(1),
    ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'continuous')] }),
    registry(4),
  ]);
  const silence = findingsThatHold(assess(job)).find(({ code }) => code === 'sensor-silent');

  it('are those of its readings, at their wheels', () => {
    const speaks = cellsThatSpeak(job, silence);
    expect(speaks('sensor', 'RR')).toBe('for');
    expect(speaks('live', 'RR')).toBeUndefined();
  });

  it('are none where no finding is looked at', () => {
    const speaks = cellsThatSpeak(job, undefined);
    for (const source of ['gauge', 'sensor', 'held', 'live', 'display'] as const)
      expect(speaks(source, 'RR')).toBeUndefined();
  });

  it('tell what speaks against from what speaks for', () => {
    const speaks = cellsThatSpeak(job, {
      code: 'tire-low',
      wheels: ['LF'],
      probability: 0.6,
      action: '',
      evidence: [
        { observation: 1, decibans: -7 },
        { observation: 2, decibans: 7 },
      ],
    });
    expect(speaks('gauge', 'LF')).toBe('against');
    expect(speaks('gauge', 'RF')).toBe('for');
  });
});
