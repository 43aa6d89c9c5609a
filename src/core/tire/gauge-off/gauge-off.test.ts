import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  jobWith,
  lamp,
  lives,
  placard,
  registry,
  scans,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import { assess } from '../../judgement/diagnosis';
import type { Observation } from '../../job';
import { ledgerOf } from '../../job/ledger';
import { columnsOf } from '../../visit/column';
import { proofOf } from '../../visit/proof';
import { nextMove } from '../../visit';
import { roadWheels, type Position } from '../../names/wheel';

/** Where all sensors agree and one gauge reads beside them all by as much, it is the gauge (common practice). */

const apart = (kPa: number, wheels: readonly Position[] = roadWheels) =>
  Object.fromEntries(wheels.map((wheel) => [wheel, placard[wheel] + kPa]));
const rest: Observation[] = [...scans(5), registry(8), ...lives(9, undefined, 60), lamp(10, 'off')];
const told = (seen: Observation[]) => assess(jobWith(seen));

describe('a gauge that is off', () => {
  it.each([-60, -40, -24, -14, 14, 24, 40, 60])(
    'by %i kPa: no sensor is blamed, no air is let in or out',
    (off) => {
      const found = told([...gauges(1, apart(off)), ...rest]);
      expect(chance(found, 'gauge-off')).toBeGreaterThan(0.9);
      for (const code of ['sensor-inaccurate', 'tire-overinflated', 'tire-low', 'no-fault'] as const)
        expect(chance(found, code), code).toBeLessThan(0.1);
      expect(found.targets.every(({ advice }) => advice === undefined)).toBe(true);
      expect(found.decision.verdict).toBe('check-first');
      expect(found.nextTests[0]?.test).toBe('gauge');
    },
  );

  it('seen at three wheels, the fourth not woken yet', () => {
    const three = scans(5).filter((seen) => seen.kind === 'activation' && seen.wheel !== 'LR');
    expect(chance(told([...gauges(1, apart(24)), ...three]), 'gauge-off')).toBeGreaterThan(0.5);
  });

  it('is the next move of the visit: another gauge, before anything is filled', () => {
    const job = jobWith([...gauges(1, apart(-24)), ...rest]);
    const move = nextMove(job, { assessment: assess(job), handedOver: false, hasLead: true, hasTool: true });
    expect(move).toMatchObject({ kind: 'gauge', wheel: 'LF', again: true });
    expect(proofOf(job).checks[0]).toMatchObject({ name: 'pressures', state: 'open' });
  });

  it('is asked about round the car, and dropped where all read as before: then it was not the gauge', () => {
    const moveOf = (job: ReturnType<typeof jobWith>) =>
      nextMove(job, { assessment: assess(job), handedOver: false, hasLead: true, hasTool: true });
    const first = [...gauges(1, apart(24)), ...rest];
    const lf = gauge(20, 'LF', placard.LF + 24);
    expect(moveOf(jobWith([...first, lf]))).toMatchObject({ kind: 'gauge', wheel: 'RF', again: true });
    const both = [...first, lf, gauge(21, 'RF', placard.RF + 24)];
    expect(chance(told(both), 'gauge-off')).toBeLessThan(0.05);
  });

  it('is what the ledger says of its readings, and no sensor beside them is called wrong', () => {
    const job = jobWith([...gauges(1, apart(24)), ...rest]);
    for (const { gauge: cell, sensor } of columnsOf(job, assess(job))) {
      expect(cell?.state).toBe('gauge-off');
      expect(sensor).toMatchObject({ kind: 'heard', agreement: undefined });
    }
  });

  it('stays said when a second gauge agrees with the sensors, and the tires are judged by that', () => {
    const second = roadWheels.map((wheel) => gauge(20, wheel, placard[wheel]));
    const job = jobWith([...gauges(1, apart(24)), ...rest, ...second]);
    const found = assess(job);
    expect(chance(found, 'gauge-off')).toBeGreaterThan(0.9);
    expect(found.targets.every(({ advice }) => advice === 'leave')).toBe(true);
    expect(proofOf(job).checks[0]).toMatchObject({ name: 'pressures', state: 'met' });
  });

  it('is told by another gauge of the register too', () => {
    const by = (n: number, name: string, off: number) =>
      roadWheels.map((wheel) => gauge(n, wheel, placard[wheel] + off, { gauge: name }));
    const found = told([...by(1, 'blue', 22), ...by(6, 'red', 0)]);
    expect(chance(found, 'gauge-off')).toBeGreaterThan(0.9);
    expect(found.targets.map(({ advice }) => advice)).not.toContain('let-out');
  });

  it('with a second fault: a tire that is really low by its sensor is still said', () => {
    const low = scans(5, { RF: [heard(5, 'RF', { kPa: 150 })] });
    const found = told([...gauges(1, { ...apart(24), RF: 174 }), ...low, registry(8)]);
    expect(chance(found, 'gauge-off')).toBeGreaterThan(0.9);
    expect(chance(found, 'tire-low', 'RF')).toBeGreaterThan(0.5);
  });

  it('with a second fault: one sensor that is wrong beside it', () => {
    const wrong = scans(5, { RF: [heard(5, 'RF', { kPa: 170 })] });
    expect(chance(told([...gauges(1, apart(24)), ...wrong, registry(8)]), 'gauge-off')).toBeGreaterThan(0.5);
  });

  it('names the readings it rests on', () => {
    const { findings } = told([...gauges(1, apart(24)), ...rest]);
    const places = findings
      .find(({ code }) => code === 'gauge-off')
      ?.evidence.map(({ observation }) => observation);
    expect(places).toBeDefined();
  });
});

describe('nearly so, and the gauge is right', () => {
  it.each([0, 3, -4, 6])('%i kPa beside the sensors', (off) => {
    expect(chance(told([...gauges(1, apart(off)), ...rest]), 'gauge-off')).toBeLessThan(0.5);
  });

  it.each(roadWheels)('one sensor that reads wrong at %s is that sensor', (wheel) => {
    const found = told([
      ...gauges(1),
      ...scans(5, { [wheel]: [heard(5, wheel, { kPa: placard[wheel] - 24 })] }),
      registry(8),
    ]);
    expect(chance(found, 'gauge-off')).toBeLessThan(0.05);
    expect(chance(found, 'sensor-inaccurate', wheel)).toBeGreaterThan(0.5);
  });

  it('two sensors wrong by other figures', () => {
    const two = scans(5, { LF: [heard(5, 'LF', { kPa: 190 })], RR: [heard(5, 'RR', { kPa: 250 })] });
    expect(chance(told([...gauges(1), ...two, registry(8)]), 'gauge-off')).toBeLessThan(0.05);
  });

  it('scanned low, then filled, and only the end of it was written down', () => {
    const low = scans(
      1,
      Object.fromEntries(roadWheels.map((at) => [at, [heard(1, at, { kPa: placard[at] - 30 })]])),
    );
    expect(chance(told([...low, ...gauges(9)]), 'gauge-off')).toBeLessThan(0.5);
  });

  it('an air line that nobody trusts', () => {
    const air = gauges(1, apart(24)).map((seen) => ({ ...seen, trusted: false }));
    expect(chance(told([...air, ...rest]), 'gauge-off')).toBe(0);
  });

  it('two gauges that say the same against all sensors', () => {
    const by = (n: number, name: string) =>
      roadWheels.map((wheel) => gauge(n, wheel, placard[wheel] + 24, { gauge: name }));
    expect(chance(told([...by(1, 'blue'), ...rest, ...by(12, 'red')]), 'gauge-off')).toBeLessThan(0.05);
  });

  it('readings of a job stay on record', () => {
    expect(Object.keys(ledgerOf(jobWith(gauges(1, apart(24)))).gauge)).toHaveLength(4);
  });
});
