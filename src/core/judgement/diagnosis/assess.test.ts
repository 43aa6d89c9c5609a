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
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { assessmentSchema } from '../assessment/schema';
import { holds } from '../assessment';
import type { Job, Observation } from '../../job';
import { jobSchema } from '../../job/schema';
import { columnsOf } from '../../visit/column';
import { proofOf } from '../../visit/proof';
import { sheetOf } from '../../visit/sheet';
import { nextMove, stationOf, stations } from '../../visit';
import { inWalkingOrder, type Position } from '../../names/wheel';
import { decibans } from './explanation/weight-of-evidence';
import { assess } from '.';

const mirror: Record<Position, Position> = { LF: 'RF', RF: 'LF', RR: 'LR', LR: 'RR', SP: 'SP' };

/** The same job with left and right exchanged everywhere. */
function mirrored(job: Job): Job {
  const text = JSON.stringify(job, (key, value: unknown) =>
    (key === 'wheel' || key === 'failedAt') && typeof value === 'string' ? mirror[value as Position] : value,
  );
  return JSON.parse(text) as Job;
}
const summary = (job: Job, rename: (wheel: Position) => Position = (wheel) => wheel) =>
  assess(job)
    .findings.map(
      ({ code, wheels, probability }) =>
        `${code} ${wheels.map(rename).sort().join()} ${probability.toFixed(9)}`,
    )
    .sort();

/** Visits with something to say, of several kinds at once. */
const eventful: Observation[][] = [
  [lamp(0, 'steady'), ...gauges(1, { RF: 166, LR: 200 }), ...scans(2), registry(3)],
  [
    lamp(0, 'flash-then-steady'),
    ...gauges(1),
    ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'magnet')] }),
    registry(4),
  ],
  [lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3, { LF: ids.LR, LR: ids.LF }), ...lives(4, null, 0)],
  [
    ...scans(2, { LF: [heard(2, 'LF', { frequencyMHz: 315, battery: 'low' })] }),
    registry(3, { RR: '4B11E0F7' }),
  ],
  [gauge(1, 'LF', 230), gauge(60 * 30, 'LF', 190), lamp(60 * 31, 'steady')],
];

describe('an assessment', () => {
  it('of any job file is well formed, and so is all that is made of it', () => {
    fc.assert(
      fc.property(exportedJob, (file) => {
        const job = jobSchema.parse(file);
        const assessment = assess(job);
        expect(assessmentSchema.parse(assessment)).toEqual(assessment);
        for (const { evidence } of assessment.findings) {
          for (const { observation } of evidence) expect(job.observations[observation]).toBeDefined();
        }
        expect(JSON.stringify([columnsOf(job, assessment), sheetOf(job), proofOf(job)])).not.toContain('NaN');
        for (const hasLead of [true, false]) {
          const move = nextMove(job, { assessment, handedOver: false, hasLead, hasTool: hasLead });
          expect(stations).toContain(stationOf(move));
        }
      }),
      { numRuns: 300 },
    );
  });

  it('of the same job is the same: nothing is remembered between', () => {
    for (const seen of eventful) expect(assess(jobWith(seen))).toEqual(assess(jobWith(seen)));
  });

  it('does not change the job it is given', () => {
    for (const seen of eventful) {
      const job = jobWith(seen);
      const before = JSON.stringify(job);
      assess(job);
      expect(JSON.stringify(job)).toBe(before);
    }
  });

  it('does not depend on the order in which things of their own time stand in the file', () => {
    fc.assert(
      fc.property(fc.constantFrom(...eventful), fc.infiniteStream(fc.nat()), (seen, order) => {
        const shuffled = seen
          .map((item) => ({ item, at: order.next().value as number }))
          .sort((a, b) => a.at - b.at);
        expect(summary(jobWith(shuffled.map(({ item }) => item)))).toEqual(summary(jobWith(seen)));
      }),
    );
  });

  it('of a car seen in the mirror is the mirrored one', () => {
    for (const seen of eventful)
      expect(summary(mirrored(jobWith(seen)), (wheel) => mirror[wheel])).toEqual(summary(jobWith(seen)));
  });

  it('of a fact seen twice is that of the fact seen once', () => {
    for (const seen of eventful)
      expect(summary(jobWith([...seen, lamp(-5, 'off')]))).toEqual(summary(jobWith(seen)));
  });

  it('of nothing seen gives back what was likely before, and nothing that holds', () => {
    const { findings, registration } = assess(jobWith([]));
    expect(findings.every(({ probability, evidence }) => probability < holds && evidence.length === 0)).toBe(
      true,
    );
    expect(registration).toBeUndefined();
  });

  it('puts the surest first', () => {
    for (const seen of eventful) {
      const sure = assess(jobWith(seen)).findings.map(({ probability }) => probability);
      expect(sure).toEqual([...sure].sort((a, b) => b - a));
    }
  });

  it('offers wheels that nothing tells apart in walking order', () => {
    const placard = (['front', 'rear'] as const).map((position) => ({ position, coldKPa: 230 }));
    for (const state of ['off', 'steady', 'flash-then-steady'] as const) {
      const { nextTests, findings } = assess(jobWith([lamp(0, state)], { placard }));
      const offered = (test: string) =>
        nextTests.filter((next) => next.test === test).flatMap(({ wheel }) => wheel ?? []);
      for (const test of ['gauge', 'activation'])
        expect(offered(test)).toEqual(inWalkingOrder(offered(test)));
      expect(offered('gauge')).toHaveLength(4);
      const told = (code: string) =>
        findings.filter((found) => found.code === code).flatMap(({ wheels }) => wheels);
      for (const { code } of findings) expect(told(code)).toEqual(inWalkingOrder(told(code)));
    }
  });

  it('offers what tells most for its minutes, and nothing where nothing can change', () => {
    const { nextTests, decision } = assess(jobWith([lamp(0, 'flash-then-steady'), gauge(1, 'LF', 230)]));
    const rates = nextTests.map(({ bits, minutes }) => bits / minutes);
    expect(rates).toEqual([...rates].sort((a, b) => b - a));
    expect(
      nextTests
        .filter(({ test }) => test === 'gauge')
        .map(({ wheel }) => wheel)
        .sort(),
    ).toEqual(['LR', 'RF', 'RR']);
    expect(nextTests.map(({ test }) => test)).not.toContain('lamp');
    expect(decision.verdict).toBe('check-first');
    const all = [lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 62)];
    expect(assess(jobWith(all)).decision).toMatchObject({ verdict: 'nothing-to-do', on: [] });
  });
});

describe('the weight of an observation', () => {
  it('in decibans is ten times the logarithm of the odds', () => {
    expect(decibans(0.5)).toBe(0);
    expect(decibans(10 / 11)).toBeCloseTo(10, 9);
    expect(decibans(1 / 11)).toBeCloseTo(-10, 9);
    expect(decibans(1)).toBe(decibans(0.99999999));
  });

  it('is that of setting it aside: the odds are off by so much without it', () => {
    const seen = [
      lamp(0, 'flash-then-steady'),
      ...gauges(1),
      ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'magnet')] }),
    ];
    const chance = (observations: Observation[]) =>
      assess(jobWith(observations)).findings.find(
        ({ code, wheels }) => code === 'sensor-silent' && wheels.includes('RR'),
      )?.probability ?? 0;
    const found = assess(jobWith(seen)).findings.find(({ code }) => code === 'sensor-silent');
    expect(found?.evidence.length).toBeGreaterThan(1);
    for (const { observation, decibans: weight } of found?.evidence ?? []) {
      const without = seen.filter((_, index) => index !== observation);
      // The odds without it leave out what moves no weight by a hundredth of a deciban.
      expect(decibans(chance(seen)) - decibans(chance(without))).toBeCloseTo(weight, 2);
    }
  });

  it('is told for everything that holds', () => {
    for (const seen of eventful) {
      for (const { evidence, probability, code } of assess(jobWith(seen)).findings) {
        if (probability >= holds) expect(evidence.length, code).toBeGreaterThan(0);
      }
    }
  });
});
