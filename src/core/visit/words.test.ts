import { describe, expect, it } from 'vitest';
import { workOn, type FindingCode } from '../catalogue/finding';
import { jobWith, gauge } from '../../../tests/support/car';
import { assess } from '../judgement/diagnosis';
import { metric } from '../measure/units';
import { stationOf, stations, type Move } from '.';
import { notesOf, plateOf, profileOf } from '../job/header';
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
  { kind: 'support-supply', how: 'connect a charger' },
  { kind: 'write-ids' },
  { kind: 'read-back' },
  { kind: 'clear-codes', tries: 0 },
  { kind: 'drive', tries: 0 },
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

describe('each move says what is done', () => {
  const labels: [Move, RegExp][] = [
    [{ kind: 'placard' }, /placard/],
    [{ kind: 'wake', wheel: 'RR', tries: 0 }, /^Wake RR$/],
    [{ kind: 'wake', wheel: 'RR', tries: 1 }, /^Wake RR again$/],
    [{ kind: 'read-car' }, /^Read the car$/],
    [{ kind: 'support-supply', how: 'connect a charger' }, /^Read the car again$/],
    [{ kind: 'write-ids' }, /^Register/],
    [{ kind: 'read-back' }, /^Read back$/],
    [{ kind: 'clear-codes', tries: 0 }, /^Clear/],
    [{ kind: 'drive', tries: 0 }, /^Drive/],
    [{ kind: 'look-at-lamp' }, /lamp/],
    [{ kind: 'look', wheel: 'RF' }, /RF/],
    [{ kind: 'check', test: 'reception' }, /./],
    [{ kind: 'hand-over' }, /^Hand over/],
    [{ kind: 'program', wheel: 'RR' }, /^Program the sensor for RR$/],
    [{ kind: 'service', wheel: 'RR' }, /^Fit the sensor at RR$/],
    [{ kind: 'relearn', failed: 0 }, /^Relearn$/],
    [{ kind: 'explain', wheel: 'RF' }, /^Say what it was at RF$/],
  ];

  it.each<[FindingCode, RegExp]>([
    ['sensor-silent', /^Replace the RR sensor$/],
    ['tire-leaking', /^Find the leak at RR$/],
    ['receiver-fault', /^Check the receiver$/],
  ])('of %s what is done, not what was found', (code, label) => {
    expect(workOn({ code, wheels: code === 'receiver-fault' ? [] : ['RR'] })).toMatch(label);
  });

  it.each(labels)('%j', (move, label) => {
    expect(moveWords(move, metric).label).toMatch(label);
  });

  it('and no two of them say the same', () => {
    const said = labels.map(([move]) => JSON.stringify(moveWords(move, metric)));
    expect(new Set(said).size).toBe(labels.length);
  });

  it('but a supply that is too low says to connect a charger first', () => {
    expect(moveWords({ kind: 'support-supply', how: 'connect a charger' }, metric).why).toMatch(/charger/);
  });
});

describe('what stands in a job beside what was seen', () => {
  it('is what was noted, the plate and the kind of vehicle; nothing where it was not entered', () => {
    const job = jobWith([], { visit: { number: 7 } });
    const named = { vehicle: { ...job.vehicle, plate: 'VE 204', profile: 'corriente-vela' } };
    expect(notesOf(job)).toEqual({ number: 7 });
    expect(notesOf({})).toEqual({});
    expect([plateOf(named), profileOf(named)]).toEqual(['VE 204', 'corriente-vela']);
    expect([plateOf(job), profileOf(job)]).toEqual(['', undefined]);
  });
});

describe('the stations', () => {
  it('are all named, once each', () => {
    expect(new Set(stations.map((station) => stationNames[station])).size).toBe(stations.length);
  });
});
