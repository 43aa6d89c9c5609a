import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exportedJob } from '../../../../tests/support/arbitrary-job';
import {
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { assessmentSchema } from '../assessment/schema';
import type { FindingCode } from '../../catalogue/finding';
import type { Job, Observation } from '../../job';
import { jobSchema } from '../../job/schema';
import type { Position } from '../../names/wheel';
import { assess, verdictOn } from '.';

const chanceOf = (
  seen: Observation[],
  code: FindingCode,
  wheel?: Position,
  more: Partial<Job> = {},
): number =>
  verdictOn(jobWith(seen, more)).findings.find(
    (finding) => finding.code === code && (!wheel || finding.wheels.includes(wheel)),
  )?.probability ?? 0;

const flashing = [
  lamp(0, 'flash-then-steady'),
  ...gauges(1),
  ...scans(2, { RR: [silent(2, 'RR')] }),
  registry(4),
];
const dtc: Observation = {
  kind: 'dtc',
  at: minute(5),
  code: 'C1B04',
  status: 'active',
  about: 'no-signal',
  wheel: 'RR',
};

describe('more evidence for a thing never lowers it', () => {
  const steps: [string, FindingCode, Position, Observation[], Observation[]][] = [
    ['a second silent try', 'sensor-silent', 'RR', flashing, [silent(3, 'RR', 'continuous')]],
    [
      'a third one',
      'sensor-silent',
      'RR',
      [...flashing, silent(3, 'RR', 'continuous')],
      [silent(4, 'RR', 'magnet')],
    ],
    ['a code about it', 'sensor-silent', 'RR', flashing, [dtc]],
    [
      'an empty figure on a drive where the others are there',
      'sensor-silent',
      'RR',
      flashing,
      [
        ...lives(20, undefined, 60).filter((seen) => seen.kind === 'live' && seen.wheel !== 'RR'),
        { kind: 'live', at: minute(20), wheel: 'RR', kPa: null, speedKmh: 60 },
      ],
    ],
    [
      'a nail',
      'tire-leaking',
      'RF',
      [lamp(0, 'steady'), ...gauges(1, { RF: 150 })],
      [{ kind: 'visual', at: minute(2), wheel: 'RF', sign: 'object' }],
    ],
    ['a steady lamp', 'tire-low', 'LF', [], [lamp(0, 'steady')]],
    [
      'a rubber stem',
      'sensor-absent',
      'RR',
      flashing,
      [{ kind: 'visual', at: minute(2), wheel: 'RR', sign: 'stem-rubber' }],
    ],
  ];
  for (const [name, code, wheel, before, added] of steps) {
    it(name, () => {
      expect(chanceOf([...before, ...added], code, wheel)).toBeGreaterThanOrEqual(
        chanceOf(before, code, wheel),
      );
    });
  }

  it('a lower reading never makes a tire less low, but for a figure so odd that it is doubted a little', () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 320 }), fc.integer({ min: 0, max: 40 }), (kPa, less) => {
        const low = (read: number) => chanceOf([gauge(1, 'LF', read)], 'tire-low', 'LF');
        expect(low(kPa - less)).toBeGreaterThanOrEqual(low(kPa) - 0.01);
      }),
      { numRuns: 60 },
    );
  });
});

describe('a certain fact told again changes little', () => {
  const certain = [
    ...gauges(1, { RF: 150 }),
    ...scans(2, { RF: [heard(2, 'RF', { kPa: 150 })] }),
    registry(4, { LR: '90FFE0A1' }),
    lamp(0, 'steady'),
  ];
  it('a reading, a scan, what the car holds, the lamp', () => {
    const before = assess(jobWith(certain));
    for (const seen of [
      gauge(6, 'RF', 150),
      heard(6, 'LF'),
      registry(6, { LR: '90FFE0A1' }),
      lamp(6, 'steady'),
    ]) {
      const after = assess(jobWith([...certain, seen]));
      for (const { code, wheels, probability } of before.findings.filter(
        (finding) => finding.probability >= 0.5,
      )) {
        const again = after.findings.find((finding) => finding.code === code);
        expect(again?.wheels, `${seen.kind} ${code}`).toEqual(wheels);
        expect(Math.abs((again?.probability ?? 0) - probability), `${seen.kind} ${code}`).toBeLessThan(0.02);
      }
    }
  });
});

describe('contradiction', () => {
  it('is blamed on the scan that heard the neighbour, not on the wheels', () => {
    const seen = [
      lamp(0, 'off'),
      ...gauges(1),
      heard(2, 'LF'),
      heard(2, 'RF'),
      heard(2, 'RR'),
      heard(3, 'LR', { id: ids.RR, kPa: 220, rssiDbm: -70 }),
      registry(5),
    ];
    expect(chanceOf(seen, 'cross-read', 'LR')).toBeGreaterThan(0.9);
    expect(chanceOf(seen, 'positions-swapped', 'LR')).toBeLessThan(0.1);
  });

  it('with a gauge nobody trusts is blamed on the gauge', () => {
    const seen = [lamp(0, 'off'), gauge(1, 'LF', 150, { trusted: false }), heard(2, 'LF')];
    expect(chanceOf(seen, 'sensor-inaccurate', 'LF')).toBeLessThan(0.2);
    expect(chanceOf(seen, 'tire-low', 'LF')).toBeLessThan(0.2);
  });

  it('with a trusted gauge is blamed on the sensor', () => {
    expect(
      chanceOf(
        [lamp(0, 'off'), gauge(1, 'LF', 230), heard(2, 'LF', { kPa: 180 })],
        'sensor-inaccurate',
        'LF',
      ),
    ).toBeGreaterThan(0.9);
  });
});

describe('a job that cannot be', () => {
  const cannot: [string, Job, string][] = [
    ['a wheel the car does not have', jobWith([gauge(1, 'SP', 100)]), 'observations.0.wheel'],
    [
      "a registry with a stranger's position",
      jobWith([{ kind: 'registry', at: minute(1), entries: [{ wheel: 'SP', id: 'AA' }] }]),
      'observations.0.entries.0.wheel',
    ],
    [
      'two entries for one wheel',
      jobWith([
        {
          kind: 'registry',
          at: minute(1),
          entries: [
            { wheel: 'LF', id: 'AA' },
            { wheel: 'LF', id: 'BB' },
          ],
        },
      ]),
      'observations.0.entries.1.wheel',
    ],
    ['times out of order', jobWith([gauge(200, 'LF', 230), gauge(1, 'LF', 150)]), 'observations.1.at'],
    [
      'a lamp that goes out below where it comes on',
      jobWith([], { tpms: { lowOffKPa: 150 } }),
      'vehicle.tpms.lowOffKPa',
    ],
    [
      'a direct system with no sensor',
      jobWith(gauges(1), { tpms: { positions: [] } }),
      'vehicle.tpms.positions',
    ],
    [
      'more heard than sent',
      jobWith([registry(1), { kind: 'reception', at: minute(2), id: ids.LF, expected: 10, received: 50 }]),
      'observations.1.received',
    ],
    [
      'a wheel that turns twice as fast',
      jobWith([{ kind: 'wheelspeed', at: minute(2), wheel: 'LF', ratio: 2 }], { tpms: { kind: 'indirect' } }),
      'observations.0.ratio',
    ],
    [
      'two sensors on record at one wheel',
      jobWith([], {
        sensors: [
          { id: 'AA', wheel: 'LF' },
          { id: 'BB', wheel: 'LF' },
        ],
      }),
      'sensors.1.wheel',
    ],
  ];
  for (const [name, job, path] of cannot) {
    it(`is told where: ${name}`, () => {
      const assessment = assess(job);
      expect(assessment.inconsistencies?.map((found) => found.path)).toContain(path);
      expect(assessmentSchema.parse(assessment)).toEqual(assessment);
      expect(JSON.stringify(assessment)).not.toMatch(/NaN|null/);
    });
  }

  it('of any kind never gives a certainty that is none, or no number', () => {
    fc.assert(
      fc.property(exportedJob, (file) => {
        const { findings, nextTests, decision } = assess(jobSchema.parse(file));
        for (const { probability, evidence } of findings) {
          expect(probability).toBeGreaterThanOrEqual(0);
          expect(probability).toBeLessThanOrEqual(1);
          expect(evidence.every(({ decibans }) => Number.isFinite(decibans))).toBe(true);
        }
        for (const { bits, minutes } of nextTests) expect(Number.isFinite(bits + minutes)).toBe(true);
        expect(Number.isFinite(decision.wrongMinutes + decision.leftMinutes)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
});
