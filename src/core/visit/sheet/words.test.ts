import { describe, expect, it } from 'vitest';
import { gauge, gauges, jobWith, lamp, minute } from '../../../../tests/support/car';
import type { Job, Seen } from '../../job';
import { metric } from '../../measure/units';
import { declinedWords, deedWords, doneWords, watchWords, foundWords } from './words';
import { sheetOf } from '.';

const leaves = new Date('2026-11-26T15:00:00Z');
const told = (job: Job) => {
  const sheet = sheetOf(job);
  return {
    wrong: foundWords(sheet, job),
    done: doneWords(sheet, job, metric),
    watch: watchWords(job, sheet, leaves, metric),
  };
};
const indirect = { tpms: { kind: 'indirect' as const } };

describe('the sheet in words', () => {
  it('says of a car nobody looked at that nothing was checked, and never that it is in order', () => {
    expect(told(jobWith([], indirect))).toMatchObject({
      wrong: 'Nothing was checked.',
      done: 'Nothing was done.',
    });
  });

  it('says in a sentence what was wrong and what was done, and by when a large fill is gauged again', () => {
    const job = jobWith([lamp(0, 'steady'), ...gauges(1, { RF: 166 }), gauge(9, 'RF', 230)]);
    const { wrong, done, watch } = told(job);
    expect(wrong).toMatch(/^Tire low: RF \((sure|very likely)\)\.$/);
    expect(done).toBe('RF filled from 166 kPa to 230 kPa.');
    expect(watch[0]).toBe(
      'RF was found at 166 kPa and filled; nobody looked for a leak. Have it gauged again by 3 December.',
    );
    // All four alike is the season: no leak stands open, and each took much air.
    const seasons = jobWith([...gauges(1, { LF: 195, RF: 195, RR: 185, LR: 185 }), ...gauges(9)]);
    expect(told(seasons).watch[0]).toMatch(/^Have LF gauged again by 3 December: it took 35 kPa/);
  });

  it('asks for no second look at a tire whose leak was mended, or that took a breath of air', () => {
    const mended = jobWith([...gauges(1, { RF: 166 }), gauge(9, 'RF', 230)], {
      repairs: [{ wheel: 'RF', at: minute(5) }],
    });
    expect(told(mended).watch.filter((line) => /gauged again/.test(line))).toEqual([]);
    const topped = jobWith([...gauges(1, { RF: 215 }), gauge(9, 'RF', 230)]);
    expect(told(topped).watch.filter((line) => /gauged again/.test(line))).toEqual([]);
  });

  it('names a reset that was done by hand', () => {
    const reset: Seen<'relearn'> = {
      kind: 'relearn',
      at: minute(5),
      method: 'reset',
      outcome: 'done',
      source: 'hand',
    };
    expect(told(jobWith([...gauges(1), reset], indirect)).done).toBe('Relearn, reset the system: done.');
  });

  it('lists what was declined and what was put off, with the reason', () => {
    const job = jobWith([], {
      replacement: { at: minute(3), wheels: [], declined: ['LR'] },
      putOff: [{ move: 'drive', reason: 'No time, later visit', at: minute(4) }],
    });
    expect(declinedWords(job)).toEqual([
      'New sensors at LR: advised and declined.',
      'Not done: The drive. No time, later visit.',
    ]);
  });

  it('shows pressures in the units that were chosen', () => {
    const words = deedWords(
      { kind: 'filled', wheel: 'RF', fromKPa: 166, toKPa: 230 },
      { ...metric, pressure: 'psi' },
    );
    expect(words).toBe('RF filled from 24.1 psi to 33.4 psi.');
  });
});
