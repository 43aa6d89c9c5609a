import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  ids,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  scans,
  silent,
  heard,
} from '../../../tests/support/car';
import type { CarWrite } from '../job';
import { suspectsOf } from './suspects';

const parts = (...job: Parameters<typeof jobWith>) =>
  suspectsOf(jobWith(...job)).map(({ part, wheel, code }) => [part, wheel, code].filter(Boolean).join(' '));
const write = (at: number, more: Partial<CarWrite> = {}): CarWrite =>
  ({
    kind: 'registry',
    key: '0190a000-0000-7000-8000-000000000001',
    askedAt: minute(at),
    asked: [],
    before: [],
    answer: 'yes',
    ...more,
  }) as CarWrite;

describe('the parts found at fault during a visit', () => {
  const flashing = [lamp(0, 'flash-then-steady'), ...gauges(1)];
  const deaf = [
    ...flashing,
    ...scans(2, { LR: [silent(2, 'LR'), silent(3, 'LR', 'continuous'), silent(4, 'LR', 'magnet')] }),
    registry(5),
  ];

  it('are those that are at fault now', () => {
    expect(parts(deaf)).toEqual(['sensor LR sensor-silent']);
    const [suspect] = suspectsOf(jobWith(deaf));
    expect(suspect?.probability).toBeGreaterThan(0.5);
  });

  it('and those that were before they were put right: another sensor, an ID that was sent', () => {
    const replaced = [...deaf, heard(30, 'LR', { id: '4B0FFFFF' })];
    expect(parts(replaced)).toContain('sensor LR sensor-silent');
    const unknown = [...flashing, ...scans(2), registry(3, { RR: '90FFE0A1' })];
    const sent = [...unknown, registry(12), ...lives(20, undefined, 62), lamp(25, 'off')];
    expect(parts(sent, { carWrites: [write(10)] })).toEqual(['id RR id-not-registered']);
  });

  it('are told each once, as sure as it ever was, in the order of the car', () => {
    const both = [
      ...flashing,
      ...scans(2, { LF: [heard(2, 'LF', { family: 'plover' })] }),
      registry(3, { RR: '90FFE0A1' }),
      registry(12, { RR: ids.RR }),
    ];
    const found = suspectsOf(jobWith(both, { carWrites: [write(10)] }));
    expect(found.map(({ part, wheel }) => `${part} ${wheel ?? ''}`)).toEqual(['sensor LF', 'id RR']);
    for (const { probability } of found) expect(probability).toBeGreaterThan(0.9);
  });

  it('are none on a car in order, nor for want of air: pressures are measured, not at fault', () => {
    expect(
      parts([lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 62)]),
    ).toEqual([]);
    expect(parts([lamp(0, 'steady'), ...gauges(1, { RF: 160 }), gauge(9, 'RF', 230)])).toEqual([]);
  });

  it('name a leak from before it was mended, and the car where it has only one of a part', () => {
    const history = [{ ...gauge(0, 'LF', 230), at: '2026-09-20T14:00:00Z' }].flatMap((seen) =>
      seen.kind === 'gauge' ? [seen] : [],
    );
    const leaking = [gauge(1, 'LF', 150), ...gauges(1).slice(1)];
    expect(
      parts([...leaking, gauge(40, 'LF', 230)], { history, repairs: [{ wheel: 'LF', at: minute(30) }] }),
    ).toContain('tire LF tire-leaking');
    const dark = [lamp(0, 'off', false), ...gauges(1)];
    expect(parts(dark)).toEqual(['lamp system-disabled']);
  });
});
