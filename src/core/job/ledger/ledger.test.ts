import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  live,
  minute,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { assess } from '../../judgement/diagnosis';
import type { Job, Observation } from '..';
import { columnsOf } from '../../visit/column';
import { ledgerOf, strongest } from '.';

const ledger = (...observations: Observation[]) => ledgerOf(jobWith(observations));
const column = (job: Job, wheel: 'LF' | 'RF' | 'RR' | 'LR' | 'SP') =>
  columnsOf(job, assess(job)).find((found) => found.wheel === wheel);
const code = (n: number, status: 'active' | 'stored' = 'active'): Observation => ({
  kind: 'dtc',
  at: minute(n),
  code: 'C1B31',
  status,
  about: 'no-signal',
  wheel: 'RR',
});

describe('what is now', () => {
  it('is the later of two readings by their time, not by their place in the file', () => {
    expect(ledger(gauge(9, 'LF', 230), gauge(3, 'LF', 180)).gauge.LF?.seen.kPa).toBe(230);
    expect(
      ledger(gauge(9, 'LF', 230), gauge(3, 'LF', 180)).gaugeHistory.LF?.map(({ seen }) => seen.kPa),
    ).toEqual([180, 230]);
  });

  it('is the one recorded later where two have the same time', () => {
    expect(ledger(gauge(3, 'LF', 180), gauge(3, 'LF', 230)).gauge.LF?.seen.kPa).toBe(230);
  });

  it('keeps each wheel apart', () => {
    const now = ledger(gauge(1, 'LF', 230), heard(2, 'RF'), live(3, 'RR', 219, 60));
    expect(now.gauge.RF).toBeUndefined();
    expect(now.sensor.LF).toBeUndefined();
    expect(now.live.RR?.seen.kPa).toBe(219);
  });

  it('tells nothing registered at a wheel from not read', () => {
    expect(ledger().registered.LF).toBeUndefined();
    expect(ledger(registry(1, { LF: null })).registered.LF).toBeNull();
  });
});

describe('a scan', () => {
  it('counts silent tries since the sensor was last heard', () => {
    expect(
      ledger(silent(1, 'RR'), heard(2, 'RR'), silent(3, 'RR'), silent(4, 'RR', 'magnet')).sensor.RR,
    ).toMatchObject({
      kind: 'silent',
      tries: [{ index: 2 }, { index: 3 }],
    });
  });

  it('is still heard after one silent try: a single try proves nothing', () => {
    expect(ledger(heard(2, 'RR'), silent(3, 'RR')).sensor.RR?.kind).toBe('heard');
  });

  it('of several replies is clear only where one is 6 dB stronger', () => {
    const reply = (id: string, rssiDbm: number) => ({ id, rssiDbm });
    expect(strongest([reply('A1', -50), reply('B2', -56)])?.id).toBe('A1');
    expect(strongest([reply('A1', -50), reply('B2', -55)])).toBeUndefined();
    expect(strongest([reply('A1', -50), reply('a1', -50)])?.id).toBe('A1');
    expect(strongest([{ id: 'A1' }])?.id).toBe('A1');
    expect(strongest([])).toBeUndefined();
  });
});

describe('a trouble code', () => {
  it('stands until a reading of the car no longer has it', () => {
    expect(ledger(code(1)).codes).toHaveLength(1);
    const read = (n: number, codes: { code: string; status: 'active' }[]): Observation =>
      ({ ...registry(n), codes }) as Observation;
    expect(ledger(code(1), read(5, [])).codes).toEqual([]);
    expect(ledger(code(1), read(5, [{ code: 'C1B31', status: 'active' }])).codes).toHaveLength(1);
  });

  it('stands again when it comes back after it was cleared', () => {
    const clear = {
      kind: 'clear-codes' as const,
      key: '0190a000-0000-7000-8000-000000000003',
      askedAt: minute(4),
      before: [],
      readBackAt: minute(5),
      readBack: [],
    };
    expect(ledgerOf(jobWith([code(1)], { carWrites: [clear] })).codes).toEqual([]);
    expect(ledgerOf(jobWith([code(1), code(9)], { carWrites: [clear] })).codes).toHaveLength(1);
  });

  it('cleared and never read back stands', () => {
    const asked = {
      kind: 'clear-codes' as const,
      key: '0190a000-0000-7000-8000-000000000004',
      askedAt: minute(4),
      before: [],
    };
    expect(ledgerOf(jobWith([code(1)], { carWrites: [asked] })).codes).toHaveLength(1);
  });
});

describe('a column', () => {
  it('states the difference from placard at the outdoor temperature, not as read', () => {
    const warm = column(jobWith([gauge(1, 'LF', 236, { tire: 'warm', tireC: 33 })]), 'LF');
    expect(warm?.gauge?.differenceKPa).toBeLessThan(-10);
    expect(warm?.gauge?.state).toBe('short');
  });

  it('does not compare a warm tire nobody measured', () => {
    expect(column(jobWith([gauge(1, 'LF', 236, { tire: 'warm' })]), 'LF')?.gauge).toMatchObject({
      state: 'not-comparable',
      differenceKPa: undefined,
    });
  });

  it('keeps the reading before the fill', () => {
    const filled = column(jobWith([gauge(1, 'LF', 180), gauge(9, 'LF', 230)]), 'LF');
    expect(filled?.gauge).toMatchObject({ kPa: 230, earlierKPa: [180], state: 'good' });
  });

  it('says whether what the car holds agrees with what was heard', () => {
    const job = jobWith([...gauges(1), ...scans(2), registry(3, { RR: '4B11E0F7', LR: null })]);
    expect(column(job, 'LF')?.held).toEqual({ id: ids.LF, agrees: true });
    expect(column(job, 'RR')?.held).toEqual({ id: '4B11E0F7', agrees: false });
    expect(column(job, 'LR')?.held).toEqual({ id: null, agrees: false });
    expect(column(jobWith([registry(3)]), 'LF')?.held).toEqual({ id: ids.LF, agrees: undefined });
    expect(column(jobWith([]), 'LF')?.held).toBe('not-read');
  });

  it('of a car that holds a set without places agrees wherever the ID is', () => {
    const job = jobWith([...scans(2), registry(3, { LF: ids.RR, RR: ids.LF })], { tpms: { locates: false } });
    expect(column(job, 'LF')?.held).toMatchObject({ agrees: true });
  });

  it('is there for the spare only where the placard or the sensors speak of one', () => {
    expect(column(jobWith([]), 'SP')).toBeUndefined();
    const five = jobWith([], { tpms: { positions: ['LF', 'RF', 'RR', 'LR', 'SP'] } });
    expect(column(five, 'SP')?.sensor).toEqual({ kind: 'not-woken' });
    const four = jobWith([], { placard: [{ position: 'spare', coldKPa: 420 }] });
    expect(column(four, 'SP')).toMatchObject({ placardKPa: 420, sensor: undefined, held: undefined });
  });

  it('of an indirect system has no sensor to look for', () => {
    const job = jobWith([lamp(0, 'steady')], { tpms: { kind: 'indirect', positions: undefined } });
    expect(column(job, 'LF')).toMatchObject({ sensor: undefined, held: undefined });
  });

  it('flags a sensor of another carrier as the wrong part', () => {
    expect(column(jobWith([heard(1, 'LF', { frequencyMHz: 315 })]), 'LF')?.sensor).toMatchObject({
      right: false,
    });
    expect(column(jobWith([heard(1, 'LF')]), 'LF')?.sensor).toMatchObject({ right: true });
  });
});
