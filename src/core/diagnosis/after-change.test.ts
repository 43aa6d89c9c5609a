import { describe, expect, it } from 'vitest';
import {
  display,
  gauge,
  gauges,
  heard,
  ids,
  jobWith,
  lamp,
  live,
  lives,
  minute,
  registry,
  scans,
  silent,
} from '../../../tests/support/car';
import type { Job, Observation } from '../job';
import { ledgerOf } from '../ledger';
import { roadWheels } from '../wheel';
import { posteriorAfter } from './after-change';
import { Cells } from './cells';
import { evidenceOf } from './evidence';
import { carFacts } from './tally';
import { posteriorOf, type Posterior } from './posterior';
import { priorsFor } from './priors';
import { wheelFindings } from '../finding';
import { allRows } from './states';
import { judgeChange } from './weights';

const looked: Observation[] = roadWheels.map((wheel) => ({
  kind: 'visual',
  at: minute(1),
  wheel,
  sign: 'stem-metal',
}));

/** A car with little or much seen of it, in order or in trouble. */
const cars: Record<string, Job> = {
  'all in order': jobWith([
    lamp(0, 'off'),
    ...looked,
    ...gauges(2),
    ...scans(3),
    registry(4),
    ...lives(5, undefined, 60),
  ]),
  'two changed places, one silent, one low': jobWith(
    [
      lamp(0, 'flash-then-steady'),
      ...looked,
      ...gauges(2, { RR: 168 }),
      ...scans(3, { LR: [silent(3, 'LR'), silent(4, 'LR', 'continuous')] }),
      registry(5, { LF: ids.RF, RF: ids.LF }),
      { kind: 'dtc', at: minute(6), code: 'C1B34', status: 'active', about: 'no-signal', wheel: 'LR' },
      ...lives(7, undefined, 60).filter((seen) => !('wheel' in seen) || seen.wheel !== 'LR'),
      live(7, 'LR', null, 60),
    ],
    { service: { kind: 'rotation', hoursAgo: 30 } },
  ),
  'a neighbour heard, a warm tire, nothing on file': jobWith([
    lamp(0, 'steady'),
    gauge(1, 'LF', 231, { tire: 'warm', tireC: 30 }),
    gauge(2, 'RF', 171),
    heard(3, 'LF', { kPa: 224, tempC: 28 }),
    heard(4, 'RF', { id: ids.LF, rssiDbm: -68 }),
    display(5, 'LF', 172),
    display(5, 'RF', 229),
    { kind: 'relearn', at: minute(6), method: 'tool', outcome: 'done' },
  ]),
  'another set away, a fall in temperature, no sensor known by name': jobWith(
    [lamp(0, 'steady'), ...gauges(1, { LF: 205, RF: 206, RR: 196, LR: 197 }), ...scans(2), registry(3)],
    {
      climate: { nowC: -4, lastFillC: 18, altitudeM: 300 },
      otherSets: [{ label: 'winter', ids: ['51A00001', '51A00002', '51A00003', '51A00004'] }],
    },
  ),
  'one sensor heard of those the car holds': jobWith([registry(1), heard(2, 'LF'), gauge(3, 'LF', 229)], {
    service: { kind: 'wheels-swapped', hoursAgo: 2 },
  }),
  'check-ins counted, a spare that is not watched': jobWith(
    [
      lamp(0, 'flash-while-driving'),
      ...gauges(1),
      gauge(1, 'SP', 300),
      ...scans(2),
      ...roadWheels.map((wheel): Observation => ({
        kind: 'reception',
        at: minute(9),
        id: ids[wheel],
        expected: 60,
        received: wheel === 'RR' ? 31 : 58,
      })),
    ],
    {
      placard: [
        { position: 'front', coldKPa: 230 },
        { position: 'rear', coldKPa: 220 },
        { position: 'spare', coldKPa: 420 },
      ],
    },
  ),
};

const judged = (job: Job) => {
  const ledger = ledgerOf(job);
  const evidence = evidenceOf(job, ledger);
  const priors = priorsFor(evidence.context);
  const cells = new Cells(priors);
  return { evidence, ledger, priors, cells, posterior: posteriorOf(evidence, priors, cells) };
};

function expectSame(one: Posterior, other: Posterior, wheels: number): void {
  expect(one.logEvidence).toBeCloseTo(other.logEvidence, 8);
  const near = (chance: number, expected: number, what: string) => {
    expect(Math.abs(chance - expected), what).toBeLessThan(1e-8);
  };
  for (const fact of carFacts) near(one.car(fact), other.car(fact), fact);
  for (let place = 0; place < wheels; place += 1) {
    near(one.moved(place), other.moved(place), `moved ${place}`);
    near(one.misheard(place), other.misheard(place), `misheard ${place}`);
    near(one.twin(place), other.twin(place), `twin ${place}`);
    for (const code of wheelFindings) near(one.wheel(code, place), other.wheel(code, place), code);
  }
}

describe('a judgement without one of its observations', () => {
  for (const [name, job] of Object.entries(cars)) {
    it(`is the one summed from nothing: ${name}`, () => {
      const before = judged(job);
      job.observations.forEach((seen, index) => {
        const rest = { ...job, observations: job.observations.filter((_, at) => at !== index) };
        const after = judgeChange(rest, seen, before, before.priors, before.cells);
        // What stands at a wheel or a position is taken anew from the changed evidence, with sums of its own.
        const anew = posteriorOf(after.evidence, before.priors, new Cells(before.priors));
        expectSame(after.posterior, anew, after.evidence.wheels.length);
      });
    });
  }

  it('goes over the orders that counted before, where no others can count without it', () => {
    const { evidence, posterior, priors, cells } = judged(cars['all in order'] ?? jobWith([]));
    const after = posteriorAfter({ positions: [] }, posterior.account, evidence, priors, cells, allRows);
    expect(after.account).toBe(posterior.account);
    expect(ordersTaken(posterior)).toBeLessThan(posterior.account.maps.length);
  });

  it('is summed anew where what was left out may count', () => {
    const { evidence, posterior, priors, cells } = judged(cars['all in order'] ?? jobWith([]));
    const leaving = (left: number) => ({
      ...posterior.account,
      ways: posterior.account.ways.map((taken) => ({ ...taken, left: left * taken.way.size })),
    });
    for (const [left, isSummedAnew] of [
      [1e-12, false],
      [1e-3, true],
      [Number.NaN, true],
    ] as const) {
      const account = leaving(left);
      const after = posteriorAfter({ wheel: 0, positions: [] }, account, evidence, priors, cells, allRows);
      expect(after.account !== account).toBe(isSummedAnew);
    }
  });

  it('goes over all of them anew, where what spoke against them is gone', () => {
    const job = cars['all in order'] ?? jobWith([]);
    const before = judged(job);
    const index = job.observations.findIndex(({ kind }) => kind === 'registry');
    const read = job.observations[index];
    if (!read) throw new RangeError('the car was read');
    const rest = { ...job, observations: job.observations.filter((_, at) => at !== index) };
    const after = judgeChange(rest, read, before, before.priors, before.cells);
    expect(after.posterior.account).not.toBe(before.posterior.account);
    expect(ordersTaken(after.posterior)).toBeGreaterThan(ordersTaken(before.posterior));
  });
});

const ordersTaken = ({ account }: Posterior): number =>
  account.ways.reduce((sum, { orders }) => sum + (orders?.kept.length ?? 0), 0);
