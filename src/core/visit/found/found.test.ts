import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  idsHeld,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  registryWrite,
  scans,
  silent,
} from '../../../../tests/support/car';
import type { Job } from '../../job';
import { foundOn } from '.';

const namesOn = (job: Job) => foundOn(job).map(({ code, wheels }) => [code, ...wheels].join(' '));
const wasFound = (was: 'sensor-silent' | 'in-order', wheel: 'RR' | 'RF' = 'RR') => [
  {
    key: 'said',
    at: minute(70),
    by: 'Ines',
    parts: [{ part: was === 'in-order' ? ('tire' as const) : ('sensor' as const), wheel, was }],
  },
];

describe('what was found on a visit', () => {
  const dead = [
    lamp(0, 'flash-then-steady'),
    ...gauges(1, { RR: 205 }),
    ...scans(2).filter((seen) => seen.kind !== 'activation' || seen.wheel !== 'RR'),
    gauge(4, 'RR', 221),
    registry(5),
    ...[6, 7, 8].map((at) => silent(at, 'RR')),
  ];
  const replaced = [heard(40, 'RR', { id: '71C40B1F' }), registry(45, { RR: '71C40B1F' }), lamp(60, 'off')];

  it('is the dead sensor that was replaced, though air was put in before it was tried', () => {
    const names = namesOn(jobWith([...dead, ...replaced]));
    expect(names).toContain('sensor-silent RR');
    expect(names).toContain('tire-underinflated RR');
    expect(names).not.toContain('no-fault');
  });

  it('is no ID that is new because its sensor is', () => {
    const names = namesOn(
      jobWith([...dead, heard(40, 'RR', { id: '71C40B1F' }), registry(45), lamp(60, 'steady')]),
    );
    expect(names.join()).not.toContain('id-not-registered');
    expect(names).toContain('sensor-silent RR');
  });

  it('is no tire that was filled to too little', () => {
    const short = jobWith([...gauges(1, { RF: 150 }), gauge(9, 'RF', 215)]);
    expect(namesOn(short)).toContain('tire-low RF');
    expect(namesOn(short).join()).not.toContain('tire-underinflated');
  });

  it('is what stands, where nobody changed anything', () => {
    const low = jobWith([lamp(0, 'steady'), ...gauges(1, { RF: 150 })]);
    expect(namesOn(low)).toContain('tire-low RF');
  });

  it('is as sure as it ever was before it was put right', () => {
    const [once, thrice] = [dead.slice(0, -2), dead].map((seen) =>
      foundOn(jobWith([...seen, ...replaced])).find(({ code }) => code === 'sensor-silent'),
    );
    expect(thrice?.probability).toBeGreaterThan(once?.probability ?? 1);
  });

  it('is no silence that ended with a luckier try', () => {
    const shy = jobWith([...gauges(1), ...scans(2), silent(3, 'RR'), heard(4, 'RR'), registry(5)]);
    expect(namesOn(shy).join()).not.toContain('sensor-silent');
  });

  it('is that nothing was wrong, once all was looked at', () => {
    const seen = [...gauges(1), ...scans(2), registry(5), ...lives(6, undefined, 62), lamp(9, 'off')];
    expect(namesOn(jobWith(seen))).toEqual(['no-fault']);
    expect(namesOn(jobWith([]))).toEqual([]);
  });

  it('is what a part turned out to be, and nothing else of that part', () => {
    const confirmed = jobWith([...dead, ...replaced], { confirmations: wasFound('sensor-silent') });
    expect(foundOn(confirmed)[0]).toEqual({ code: 'sensor-silent', wheels: ['RR'], probability: 1 });
    const leaking = jobWith([lamp(0, 'steady'), ...gauges(1, { RF: 100 }), gauge(9, 'RF', 230)]);
    expect(namesOn(leaking)).toContain('tire-leaking RF');
    expect(namesOn({ ...leaking, confirmations: wasFound('in-order', 'RF') })).toEqual(['tire-low RF']);
  });

  it('is an ID that was not registered, once it is', () => {
    const job = jobWith(
      [
        lamp(0, 'flash-then-steady'),
        ...gauges(1),
        ...scans(2),
        registry(3, { RR: '90FFE0A1' }),
        registry(12),
        ...lives(20, undefined, 62),
        lamp(25, 'off'),
      ],
      { carWrites: [registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld() })] },
    );
    expect(namesOn(job)).toContain('id-not-registered RR');
  });
});
