import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  idsHeld,
  jobWith,
  lamp,
  minute,
  registry,
  registryWrite,
  scans,
} from '../../../../tests/support/car';
import { beforeChanges } from './claims';

const write = () => registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld() });
const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(3, { RR: '90FFE0A1' })];

describe('the car as it was found', () => {
  const kinds = (job: Parameters<typeof beforeChanges>[0]) =>
    beforeChanges(job).observations.map(({ kind }) => kind);

  it('is all that was seen, where nothing was changed', () => {
    expect(beforeChanges(jobWith(seen)).observations).toEqual(seen);
  });

  it('ends with the first fill for what air changes, and with the first write for what the car holds', () => {
    const filled = jobWith([
      gauge(1, 'LF', 180),
      gauge(5, 'LF', 230),
      heard(6, 'LF'),
      registry(7),
      lamp(8, 'off'),
    ]);
    expect(kinds(filled)).toEqual(['gauge', 'registry']);
    const written = jobWith([registry(7), lamp(8, 'steady'), registry(12), lamp(13, 'off')], {
      carWrites: [write()],
    });
    expect(kinds(written)).toEqual(['registry', 'lamp']);
    expect(beforeChanges(written).carWrites).toEqual([]);
  });

  it('goes on past a tire that was only gauged again', () => {
    expect(kinds(jobWith([gauge(1, 'LF', 230), gauge(5, 'LF', 231), lamp(8, 'off')]))).toEqual([
      'gauge',
      'gauge',
      'lamp',
    ]);
  });
});
