import { describe, expect, it } from 'vitest';
import {
  display,
  gauge,
  gauges,
  heard,
  jobWith,
  lamp,
  live,
  lives,
  minute,
  placard,
  registry,
  scans,
  silent,
} from '../../../../tests/support/car';
import { chance } from '../../../../tests/support/verdict';
import { findingCodes } from '../../catalogue/finding';
import type { Job, Observation } from '../../job';
import { setAside } from '../../tire/set-aside';
import { chanceFrom, drawCar } from '../../../simulation';
import { doTest, lampOf } from '../../../simulation/look';
import { pushedOff, worlds } from '../../../simulation/world';
import { roadWheels, type Position } from '../../names/wheel';
import { assess, verdictOn } from '.';

/**
 * What was seen grows old: a reading speaks for its own moment, and for what was not worked on since (common practice).
 * Figures are invented.
 */

const day = 24 * 60;
const relearn = (
  n: number,
  method: 'write' | 'tool' | 'drive' | 'reset',
  outcome: 'done' | 'failed' | 'waiting-for-drive' = 'done',
  failedAt?: Position,
): Observation => ({ kind: 'relearn', at: minute(n), method, outcome, ...(failedAt && { failedAt }) });
const deaf = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(3), ...lives(4, null, 60)];
const oneSilent = [
  lamp(0, 'flash-then-steady'),
  ...gauges(1),
  ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'continuous')] }),
  registry(4),
];
const shown = (n: number): Observation[] => roadWheels.map((wheel) => display(n, wheel, placard[wheel]));

describe('what is old speaks not for today', () => {
  it.each([-400, -90, -30, -10, -3])(
    'a relearn %i days ago makes no deaf receiver wait for its drive',
    (days) => {
      const told = assess(jobWith([relearn(days * day, 'write'), ...deaf]));
      expect(chance(told, 'receiver-fault')).toBeGreaterThan(0.8);
      expect(chance(told, 'waiting-for-drive')).toBeLessThan(0.2);
    },
  );

  it('nearly so: one that was done within the hour does', () => {
    const told = assess(jobWith([...deaf, relearn(10, 'write')]));
    expect(chance(told, 'waiting-for-drive')).toBeGreaterThan(0.5);
  });

  it.each([-400, -60, -20, -5, -3])('a display of %i days ago excuses no deaf receiver', (days) => {
    expect(chance(assess(jobWith([...shown(days * day), ...deaf])), 'receiver-fault')).toBeGreaterThan(0.9);
  });

  it.each([-400, -60, -20, -5, -3])('live figures of %i days ago excuse no silent sensor', (days) => {
    const told = assess(jobWith([live(days * day, 'RR', 220, 60), ...oneSilent]));
    expect(chance(told, 'sensor-silent', 'RR')).toBeGreaterThan(0.8);
  });

  it.each([-400, -60, -20])('a sensor heard %i days ago is not heard now', (days) => {
    const told = assess(jobWith([...scans(days * day), lamp(0, 'off'), ...gauges(1), registry(2)]));
    expect(chance(told, 'no-fault')).toBe(0);
    expect(told.nextTests.some(({ test }) => test === 'activation')).toBe(true);
  });

  it.each([-400, -30, -10])('a lamp of %i days ago lights nothing today', (days) => {
    const told = assess(jobWith([lamp(days * day, 'flash-then-steady'), ...gauges(1)]));
    expect(told.lamp.meaning).toBe('none');
  });

  it('a relearn that failed long ago blames no sensor of today', () => {
    const told = assess(jobWith([relearn(-60 * day, 'tool', 'failed', 'RR'), ...gauges(1)]));
    expect(chance(told, 'sensor-silent', 'RR')).toBeLessThan(0.05);
  });

  it('damage stands however old it is, until it was said what it was', () => {
    const nail: Observation = { kind: 'visual', at: minute(-60 * day), wheel: 'LF', sign: 'object' };
    const told = assess(
      jobWith([nail, lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 60)]),
    );
    expect(chance(told, 'no-fault')).toBe(0);
  });

  it('old gauge readings stay, to tell a leak by', () => {
    const job = jobWith([...gauges(-20 * day), ...gauges(0, { LR: 190 })]);
    expect(setAside(job).job.history).toHaveLength(4);
    expect(chance(assess(job), 'tire-leaking', 'LR')).toBeGreaterThan(0.5);
  });
});

describe('air put in between two stops', () => {
  it('is not a sensor that reads wrong: 165 with the lamp lit, an hour later 231 and the lamp out', () => {
    const seen = [lamp(0, 'steady'), ...gauges(1, { RR: 165 }), ...scans(65), registry(66), lamp(67, 'off')];
    const told = assess(jobWith(seen));
    expect(chance(told, 'sensor-inaccurate', 'RR')).toBeLessThan(0.2);
    expect(chance(told, 'tire-low', 'RR')).toBeLessThan(0.2);
    expect(told.nextTests[0]).toMatchObject({ test: 'gauge', wheel: 'RR' });
  });

  it('nearly so: at one stop it is', () => {
    const told = assess(jobWith([...gauges(1, { RR: 165 }), ...scans(5), registry(6)]));
    expect(chance(told, 'sensor-inaccurate', 'RR')).toBeGreaterThan(0.5);
  });
});

describe('the reference of a car without sensors', () => {
  const indirect = {
    tpms: { kind: 'indirect' as const, positions: undefined, lowOnKPa: undefined, lowOffKPa: undefined },
  };
  const low = [lamp(0, 'steady'), ...gauges(1, { RF: 160 })];

  it.each([-10, -7, -3])('stored %i days ago with all in order: the tire, not the reference', (days) => {
    for (const before of [[], gauges(days * day - 10)]) {
      const told = assess(jobWith([...before, relearn(days * day, 'reset'), ...low], indirect));
      expect(chance(told, 'tire-low', 'RF')).toBeGreaterThan(0.9);
      expect(chance(told, 'baseline-not-set')).toBeLessThan(0.2);
    }
  });

  it('stored before tires were fitted is to blame', () => {
    const service = { kind: 'tires-fitted' as const, hoursAgo: 30 };
    const told = assess(
      jobWith([relearn(-7 * day, 'reset'), lamp(0, 'steady'), ...gauges(1)], { ...indirect, service }),
    );
    expect(chance(told, 'baseline-not-set')).toBeGreaterThan(0.5);
  });

  it('stored after that is not', () => {
    const service = { kind: 'tires-fitted' as const, hoursAgo: 300 };
    const told = assess(jobWith([relearn(-7 * day, 'reset'), ...low], { ...indirect, service }));
    expect(chance(told, 'baseline-not-set')).toBeLessThan(0.2);
  });
});

describe('figures in another unit', () => {
  const rest = [...scans(4), registry(5)];
  it.each([
    [33, 'psi'],
    [2.3, 'bar'],
  ])('one wheel typed as %d %s beside its own sensor is asked about', (figure) => {
    const told = assess(jobWith([...gauges(1, { RF: figure }), ...rest]));
    expect(told.inconsistencies?.map(({ path }) => path)).toEqual(['observations.1.kPa']);
    for (const code of ['tire-low', 'sensor-inaccurate', 'tire-leaking'] as const)
      expect(chance(told, code), code).toBeLessThan(0.05);
    expect(told.nextTests[0]).toMatchObject({ test: 'gauge', wheel: 'RF' });
  });

  it('nearly so: one whose sensor says 33 as well is flat', () => {
    const told = assess(
      jobWith([...gauges(1, { RF: 33 }), ...scans(4, { RF: [heard(4, 'RF', { kPa: 33 })] })]),
    );
    expect(chance(told, 'tire-low', 'RF')).toBeGreaterThan(0.9);
  });

  it.each(['live', 'display'] as const)(
    '%s figures in psi beside good gauges are asked about, never judged by',
    (kind) => {
      const figures = roadWheels.map((wheel) =>
        kind === 'live' ? live(3, wheel, 33, 60) : display(3, wheel, 33),
      );
      const told = assess(jobWith([...gauges(1), ...figures, ...rest]));
      expect(told.inconsistencies).toHaveLength(4);
      for (const code of ['tire-low', 'sensor-inaccurate', 'receiver-fault'] as const)
        expect(chance(told, code), code).toBeLessThan(0.05);
    },
  );
});

describe('the next check', () => {
  it.each(roadWheels)('after a relearn that failed at %s is that wheel', (wheel) => {
    for (const before of [[], scans(2)]) {
      const told = assess(jobWith([...gauges(1), ...before, relearn(3, 'tool', 'failed', wheel)]));
      expect(told.nextTests[0]).toMatchObject({ test: 'activation', wheel });
    }
  });

  it('after one that failed at the spare is the spare', () => {
    const tpms = { positions: [...roadWheels, 'SP' as const] };
    const told = assess(jobWith([...gauges(1), ...scans(2), relearn(3, 'tool', 'failed', 'SP')], { tpms }));
    expect(told.nextTests[0]).toMatchObject({ test: 'activation', wheel: 'SP' });
  });

  it('where all are silent and the lamp is dark: another trigger, before four sensors are missing', () => {
    for (const tries of [['pulsed'], ['pulsed', 'continuous']] as const) {
      const none = roadWheels.flatMap((wheel) => tries.map((trigger, at) => silent(3 + at, wheel, trigger)));
      const told = assess(jobWith([lamp(0, 'off'), ...gauges(1), ...none]));
      for (const code of ['sensor-absent', 'sensor-silent'] as const)
        expect(chance(told, code)).toBeLessThan(0.5);
      expect(told.decision.verdict).toBe('check-first');
      expect(told.nextTests[0]?.test).toBe('activation');
    }
  });

  it('where two trusted gauges disagree is a third reading, and nothing is claimed above 0.8', () => {
    const told = assess(
      jobWith([lamp(0, 'off'), ...gauges(1), gauge(3, 'RF', 185), ...scans(5), registry(6)]),
    );
    for (const { wheels, probability } of told.findings)
      if (wheels.includes('RF')) expect(probability).toBeLessThanOrEqual(0.8);
    expect(told.nextTests[0]).toMatchObject({ test: 'gauge', wheel: 'RF' });
  });

  it('a registry that was read in the minute before IDs were sent is older than they', () => {
    const told = assess(
      jobWith([
        ...gauges(1),
        ...scans(2),
        registry(3, { RR: '90FFE0A1' }),
        relearn(3.5, 'write'),
        lamp(4, 'off'),
      ]),
    );
    expect(chance(told, 'id-not-registered', 'RR')).toBeLessThan(0.5);
    expect(told.registration).toBeUndefined();
  });
});

describe('of four hundred cars', () => {
  const chanceOf = chanceFrom(20_261_201);
  const off = pushedOff(chanceOf);
  const jobs = Array.from({ length: 400 }, (): Job => {
    const car = drawCar(chanceOf, off, worlds.fitting);
    const steps = ['gauge', 'activation', 'visual'] as const;
    car.job = { ...car.job, observations: [lampOf(car, chanceOf)] };
    for (let n = 1; n <= 8; n += 1) {
      const test = n === 6 && car.kind === 'direct' ? 'registry' : chanceOf.oneOf(steps);
      if (car.kind === 'indirect' && test === 'activation') continue;
      const seen = doTest(car, test, chanceOf.oneOf(roadWheels), n, chanceOf);
      car.job = { ...car.job, observations: [...car.job.observations, ...seen] };
    }
    return car.job;
  });

  const oldOf = (at: string): Observation[][] => [
    [{ kind: 'lamp', at, state: 'flash-then-steady', bulbCheck: true }],
    roadWheels.map((wheel): Observation => ({ kind: 'display', at, wheel, kPa: placard[wheel] })),
    roadWheels.map((wheel): Observation => ({ kind: 'live', at, wheel, kPa: null, speedKmh: 60 })),
    roadWheels.map((wheel): Observation => ({
      kind: 'activation',
      at,
      wheel,
      trigger: 'pulsed',
      replies: [],
    })),
    [{ ...registry(0), at } as Observation],
    [{ kind: 'relearn', at, method: 'write', outcome: 'done' }],
    [{ kind: 'relearn', at, method: 'tool', outcome: 'failed', failedAt: 'RR' }],
    [{ kind: 'voltage', at, volts: 11.8, engine: 'off' }],
    [{ kind: 'dtc', at, code: 'C1B04', status: 'stored', about: 'no-signal', wheel: 'RR' }],
    roadWheels.map((wheel): Observation => ({ kind: 'wheelspeed', at, wheel, ratio: 1.01 })),
    [{ kind: 'visual', at, wheel: 'RR', sign: 'flat' }],
    [{ kind: 'reception', at, id: '4B11E0F6', expected: 60, received: 20 }],
  ];

  it('an old reading of each kind changes no chance by more than 0.05', () => {
    jobs.forEach((job, n) => {
      const first = Math.min(...job.observations.map(({ at }) => Date.parse(at)));
      const kinds = oldOf(new Date(first - 200 * 86_400_000).toISOString());
      const old = kinds[n % kinds.length] ?? [];
      const before = verdictOn(job);
      const after = verdictOn({ ...job, observations: [...old, ...job.observations] });
      for (const code of findingCodes)
        for (const wheel of [undefined, ...roadWheels]) {
          const apart = Math.abs(chance(before, code, wheel) - chance(after, code, wheel));
          expect(apart, `${code} ${wheel} by ${old[0]?.kind}`).toBeLessThan(0.05);
        }
    });
  });
});
