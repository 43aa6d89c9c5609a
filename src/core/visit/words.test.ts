import { describe, expect, it } from 'vitest';
import { jobWith, gauge } from '../../../tests/support/car';
import { assess } from '../diagnosis';
import { metric } from '../units';
import { stationOf, stations, type Move } from '.';
import { moveWords, stationNames } from './words';

const [finding] = assess(jobWith([gauge(1, 'RF', 160)])).findings;
if (!finding) throw new Error('a tire at 160 kPa is low');

const moves: Move[] = [
  { kind: 'placard' },
  { kind: 'gauge', wheel: 'LF', again: false },
  { kind: 'fill', wheel: 'RF', addKPa: 62 },
  { kind: 'wake', wheel: 'RR', tries: 0 },
  { kind: 'wake', wheel: 'RR', tries: 1 },
  { kind: 'read-car' },
  { kind: 'support-supply' },
  { kind: 'write-ids' },
  { kind: 'read-back' },
  { kind: 'clear-codes' },
  { kind: 'drive' },
  { kind: 'look-at-lamp' },
  { kind: 'act', finding },
  { kind: 'hand-over' },
  { kind: 'done' },
];

describe('a move', () => {
  it.each(moves)('%# has a short label, a reason in a sentence, and a station', (move) => {
    const { label, why } = moveWords(move, metric);
    expect(label.length).toBeGreaterThan(3);
    expect(label.length).toBeLessThan(32);
    expect(why).toMatch(/^[A-Z+−].*\.$/);
    expect(stationNames[stationOf(move)]).toBeTruthy();
  });

  it('says a wheel by its letters on the button and in words beside it', () => {
    expect(moveWords({ kind: 'gauge', wheel: 'LR', again: false }, metric)).toEqual({
      label: 'Gauge LR',
      why: 'Read the left rear tire, cold if it can be.',
    });
  });

  it('says how much air in the units of whoever reads it', () => {
    expect(moveWords({ kind: 'fill', wheel: 'RF', addKPa: 62 }, metric).why).toBe(
      '+62 kPa to the target at RF.',
    );
    expect(moveWords({ kind: 'fill', wheel: 'RF', addKPa: 62 }, { ...metric, pressure: 'psi' }).why).toBe(
      '+9.0 psi to the target at RF.',
    );
  });

  it('names the finding to work on', () => {
    expect(moveWords({ kind: 'act', finding }, metric).label).toBe('Tire low: RF');
  });
});

describe('the stations', () => {
  it('are all named, once each', () => {
    expect(new Set(stations.map((station) => stationNames[station])).size).toBe(stations.length);
  });
});
