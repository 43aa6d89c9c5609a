import { describe, expect, it } from 'vitest';
import { gauge, heard, lamp, live, minute, registry } from '../../../tests/support/car';
import { observationSchema, parseJob } from './schema';

const at = minute(0);
const accepted = (seen: unknown) => observationSchema.safeParse(seen).success;
const job = (more: object) =>
  parseJob({ format: 'hacienda.job/1', vehicle: { tpms: { kind: 'direct' } }, observations: [], ...more });
const paths = (more: object) => {
  const parsed = job(more);
  return parsed.ok ? [] : (parsed.problem.issues ?? []).map(({ path, message }) => `${path}: ${message}`);
};

describe('every kind of observation', () => {
  it.each([
    lamp(0, 'off'),
    gauge(0, 'LF', 230),
    heard(0, 'RR'),
    registry(0, { LF: null }),
    live(0, 'LF', null, 0),
    { kind: 'visual', at, wheel: 'LF', sign: 'stem-metal' },
    { kind: 'display', at, wheel: 'LF', kPa: null },
    { kind: 'dtc', at, code: 'C1B04', status: 'active' },
    { kind: 'reception', at, id: '4B', expected: 30, received: 29 },
    { kind: 'wheelspeed', at, wheel: 'LF', ratio: 1.001 },
    { kind: 'voltage', at, volts: 12.4, engine: 'off' },
    { kind: 'relearn', at, method: 'tool', outcome: 'failed', failedAt: 'RR' },
  ])('%# is accepted, with keys of other programs', (seen) => {
    expect(accepted(seen)).toBe(true);
    expect(observationSchema.parse({ ...seen, 'x-other': { deep: [1] } })).toMatchObject({
      'x-other': { deep: [1] },
    });
  });

  it.each([
    ['no time', { ...gauge(0, 'LF', 230), at: undefined }],
    ['a time without its offset', { ...gauge(0, 'LF', 230), at: '2026-10-14T14:00:00' }],
    ['a wheel no car has', { ...gauge(0, 'LF', 230), wheel: 'XX' }],
    ['a pressure below nothing', gauge(0, 'LF', -3)],
    ['a pressure that is no number', gauge(0, 'LF', Number.NaN)],
    ['a pressure beyond any tire', gauge(0, 'LF', 90_000)],
    ['a hotter tire than fire', gauge(0, 'LF', 230, { tireC: 300 })],
    ['a kind nobody knows', { kind: 'smell', at }],
    ['a reply without an ID', heard(0, 'LF', { id: undefined })],
    ['a state no lamp has', { ...lamp(0, 'off'), state: 'purple' }],
    ['a voltage of a power line', { kind: 'voltage', at, volts: 230, engine: 'off' }],
  ])('with %s is refused', (_, seen) => {
    expect(accepted(seen)).toBe(false);
  });

  it('takes an offset of any zone', () => {
    expect(accepted({ ...lamp(0, 'off'), at: '2026-10-14T14:00:00+02:00' })).toBe(true);
    expect(accepted({ ...lamp(0, 'off'), at: '2026-10-14T14:00:00Z' })).toBe(true);
  });
});

describe('a fault', () => {
  it('is named by its path and what was expected there', () => {
    expect(paths({ format: 'other/1' })).toEqual(['format: expected hacienda.job/1']);
    expect(paths({ vehicle: {} })).toEqual(['vehicle.tpms: expected object']);
    expect(paths({ vehicle: { tpms: { kind: 'magic' } } })).toEqual([
      'vehicle.tpms.kind: expected direct | indirect | none',
    ]);
    expect(paths({ climate: { nowC: 'cold' } })).toEqual(['climate.nowC: expected number']);
    expect(paths({ observations: {} })).toEqual(['observations: expected array']);
  });

  it('is named for each place there is one', () => {
    expect(paths({ placard: [{ position: 'front' }, { position: 'roof', coldKPa: 220 }] })).toEqual([
      'placard.0.coldKPa: expected number',
      'placard.1.position: expected front | rear | spare',
    ]);
  });

  it('of what is no object at all is told too', () => {
    for (const document of [null, 3, 'job', [], undefined]) expect(parseJob(document).ok).toBe(false);
  });
});

describe('what is not known', () => {
  it('may be left out: a vehicle and its kind of monitoring are enough', () => {
    expect(job({}).ok).toBe(true);
  });

  it('is kept apart from zero', () => {
    const parsed = job({ climate: { altitudeM: 0 } });
    expect(parsed.ok && parsed.value.climate).toEqual({ altitudeM: 0 });
    const unknown = job({ climate: {} });
    expect(unknown.ok && unknown.value.climate?.altitudeM).toBeUndefined();
  });
});
