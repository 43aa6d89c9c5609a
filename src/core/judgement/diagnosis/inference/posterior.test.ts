import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  gauge,
  heard,
  ids,
  jobWith,
  lamp,
  live,
  minute,
  registry,
  silent,
} from '../../../../../tests/support/car';
import type { Job, Observation } from '../../../job';
import { ledgerOf } from '../../../job/ledger';
import { assumptionsOf, checkInsOf, Factors } from './factors';
import { bareTire, ownReply, tireStatesIn } from './sensed-tire';
import { evidenceOf, type Evidence } from '../evidence';
import { assignmentsOf, type Assignment } from '../hypotheses/assignment';
import { permutationsOf } from '../hypotheses/permutation';
import { posteriorOf } from './posterior';
import { priorsFor, priorsWith } from '../learning/priors';
import { figureKinds, mountedFactor, sensorStates } from '../likelihoods';
import { wheelFindings } from '../../../catalogue/finding';
import { bit, causeIndex, isSound } from '../hypotheses/wheel-state';
import { systemsOf, wheelSets, type System } from '../hypotheses/system';
import type { Priors } from '../learning';
import { lampLikelihood } from '../likelihoods/lamp';

/** One way a whole wheel can be. */
interface State {
  weight: number;
  findings: number;
  cause: number;
}

/** Every state of a wheel at a position, one by one: sensor states by tire states. */
function statesOf(
  evidence: Evidence,
  place: number,
  at: number,
  assignment: Assignment,
  system: System,
): State[] {
  const priors = priorsFor(evidence.context);
  const wheel = evidence.wheels[place];
  const position = evidence.positions[at];
  if (!wheel || !position) throw new RangeError('no such factor');
  const isElsewhere = evidence.wheels.some(
    (_, other) =>
      other !== place &&
      ownReply(evidence.wheels[other] ?? wheel, assignment.own[other])?.id === position.held,
  );
  const reply = assignment.own[place] ?? 0;
  const sensed = { evidence, place, wheel, position, reply, heldIsElsewhere: isElsewhere, system };
  const assumed = assumptionsOf(sensed, checkInsOf(sensed, evidence.car.reception));
  const byKind = new Map<number, State>();
  const join = (weight: number, findings: number, cause: number, kind: number) => {
    const figures = figureKinds[kind] ?? 'none';
    for (const accuracy of ['sound', 'off'] as const) {
      const share =
        figures === 'none'
          ? Number(accuracy === 'sound')
          : accuracy === 'off'
            ? priors.of['sensor-inaccurate']
            : 1 - priors.of['sensor-inaccurate'];
      if (share === 0) continue;
      const add = (ofTire: number, tireFindings: number, tireCause: number) => {
        // States that differ in nothing that can be asked are one: the list stays short enough to go through.
        const kind = ((findings | tireFindings) << 3) | Math.max(cause, tireCause);
        let state = byKind.get(kind);
        if (!state)
          byKind.set(kind, (state = { weight: 0, findings: findings | tireFindings, cause: kind & 7 }));
        state.weight += weight * share * ofTire;
      };
      tireStatesIn(
        evidence,
        priors,
        place,
        {
          position,
          replyKPa: figures === 'none' ? undefined : (assumed.own?.kPa ?? undefined),
          system,
          figures,
        },
        add,
        accuracy,
      );
    }
  };
  sensorStates(evidence.context, priorsWith(priors, system.set), wheel, position, assumed, { add: join });
  return [...byKind.values()];
}

/** The share of a tire without sensor that is in order, while the car is this way. */
function soundShare(evidence: Evidence, place: number, system: System): number {
  const total = { all: 0, sound: 0 };
  const priors = priorsFor(evidence.context);
  tireStatesIn(evidence, priors, place, bareTire(system), (weight, findings) => {
    total.all += weight;
    if (isSound(findings)) total.sound += weight;
  });
  return total.sound / total.all;
}

/** The full joint, every combination of everything, added up one by one. */
function bruteForce(job: Job) {
  const evidence = evidenceOf(job, ledgerOf(job));
  const priors = priorsFor(evidence.context);
  const lampSays = lampLikelihood(evidence);
  const found = [new Float64Array(wheelFindings.length), new Float64Array(wheelFindings.length)];
  const sum = { all: 0, lampDark: 0, receiverFault: 0, moved: 0, sound: 0 };
  const latched = bit['lamp-latched'];
  /** What a state weighs, with whatever is at the other wheel; a latched lamp is none while any tire is low. */
  const add = (wheel: number, findings: number, { noneLow, low }: { noneLow: number; low: number }) => {
    const rows = found[wheel];
    for (let at = 0; rows && at < wheelFindings.length; at += 1) {
      const is = findings & (1 << at);
      if (is !== 0) rows[at] = (rows[at] ?? 0) + noneLow + (is === latched ? 0 : low);
    }
  };
  for (const assignment of assignmentsOf(evidence, priors)) {
    for (const system of systemsOf(evidence, priors)) {
      const usual =
        system.set === 'own' &&
        !system.receiverFault &&
        !system.pending &&
        !assignment.misheard.includes(true);
      const others = soundShare(evidence, 2, system) * soundShare(evidence, 3, system);
      for (const { wheelAt, prior } of permutationsOf(evidence.context, priors)) {
        const [left, right] = wheelAt.map((wheel, at) => ({
          wheel,
          states: statesOf(evidence, wheel, at, assignment, system),
        }));
        if (!left || !right) throw new RangeError('two wheels');
        const ofOther = right.states.map(() => ({ noneLow: 0, low: 0 }));
        for (const one of left.states) {
          const ofOne = { noneLow: 0, low: 0 };
          for (const [n, other] of right.states.entries()) {
            const worst = Math.max(one.cause, other.cause);
            const lowness = worst < causeIndex.low ? 'noneLow' : 'low';
            const lit = lampSays.byCause[Math.max(worst, system.cause)] ?? 0;
            for (const dark of [false, true]) {
              const shown = dark
                ? priors.of['system-disabled'] * lampSays.dark
                : (1 - priors.of['system-disabled']) * lit;
              const ofSet = mountedFactor(assignment.heard, system.mounted);
              const weight =
                assignment.weight * system.weight * ofSet * prior * one.weight * other.weight * shown;
              sum.all += weight;
              if (dark) sum.lampDark += weight;
              if (system.receiverFault) sum.receiverFault += weight;
              if (left.wheel !== 0 && system.set === 'own') sum.moved += weight;
              if (usual && !dark && left.wheel === 0 && isSound(one.findings | other.findings))
                sum.sound += weight * others;
              ofOne[lowness] += weight;
              const there = ofOther[n];
              if (there) there[lowness] += weight;
            }
          }
          add(left.wheel, one.findings, ofOne);
        }
        for (const [n, other] of right.states.entries())
          add(right.wheel, other.findings, ofOther[n] ?? { noneLow: 0, low: 0 });
      }
    }
  }
  return {
    logEvidence: Math.log(sum.all),
    chance: (name: 'lampDark' | 'receiverFault' | 'moved' | 'sound') => sum[name] / sum.all,
    wheel: (code: (typeof wheelFindings)[number], place: number) =>
      (found[place]?.[wheelFindings.indexOf(code)] ?? 0) / sum.all,
  };
}

/** A car with sensors at two wheels: small enough to list every state. */
const small = (seen: Observation[], more: Partial<Job> = {}): Job =>
  jobWith(seen, { ...more, tpms: { positions: ['LF', 'RF'] } });

const examples: [string, Job][] = [
  ['nothing seen', small([])],
  [
    'a flashing lamp and a silent wheel',
    small([
      lamp(0, 'flash-then-steady'),
      gauge(1, 'LF', 230),
      live(1, 'LF', 231, 60),
      silent(2, 'RF'),
      silent(3, 'RF', 'magnet'),
    ]),
  ],
  [
    'a low tire, its scan before the fill',
    small([
      lamp(0, 'steady'),
      gauge(1, 'LF', 160),
      heard(2, 'LF', { kPa: 160 }),
      registry(3),
      gauge(9, 'LF', 230),
      gauge(1, 'RF', 228),
    ]),
  ],
  [
    'displays that show the other wheel',
    small(
      [
        gauge(1, 'LF', 231),
        gauge(1, 'RF', 170),
        { kind: 'display', at: minute(2), wheel: 'LF', kPa: 171 },
        { kind: 'display', at: minute(2), wheel: 'RF', kPa: 230 },
        heard(3, 'LF', { kPa: 231 }),
        registry(4),
      ],
      { service: { kind: 'rotation', hoursAgo: 4 } },
    ),
  ],
  [
    'one ID heard at both wheels',
    small([heard(1, 'LF'), heard(2, 'RF', { id: ids.LF, rssiDbm: -66 }), registry(3)]),
  ],
  [
    'a sensor that reads wrong and a car that hears it',
    small([
      lamp(0, 'steady'),
      gauge(1, 'LF', 230),
      heard(2, 'LF', { kPa: 168 }),
      live(5, 'LF', 172, 60),
      live(5, 'RF', null, 60),
      registry(6),
    ]),
  ],
  [
    'all down with the cold',
    small([lamp(0, 'steady'), gauge(1, 'LF', 204), gauge(1, 'RF', 205), live(2, 'RF', 209, 60)], {
      climate: { nowC: -6, lastFillC: 16, altitudeM: 0 },
    }),
  ],
];

const wholeSetsOf = ({ wholeSet }: Priors): number =>
  Object.values(wholeSet).reduce((sum, share) => sum + share, 0);

describe('the posterior', () => {
  for (const [name, job] of examples) {
    it(`is that of the full joint, listed state by state: ${name}`, () => {
      const evidence = evidenceOf(job, ledgerOf(job));
      const priors = priorsFor(evidence.context);
      const exact = posteriorOf(evidence, new Factors(priors));
      const listed = bruteForce(job);
      expect(exact.logEvidence).toBeCloseTo(listed.logEvidence, 9);
      for (const fact of ['lampDark', 'receiverFault', 'sound'] as const) {
        expect(Math.abs(exact.car(fact) - listed.chance(fact)), fact).toBeLessThan(1e-9);
      }
      expect(Math.abs(exact.moved(0) - listed.chance('moved'))).toBeLessThan(1e-9);
      for (const place of [0, 1]) {
        for (const code of wheelFindings) {
          expect(
            Math.abs(exact.wheel(code, place) - listed.wheel(code, place)),
            `${code} ${place}`,
          ).toBeLessThan(1e-9);
        }
      }
    });
  }

  it('of nothing seen is the prior: of each fault, and that somebody moved the wheels', () => {
    const evidence = evidenceOf(jobWith([]), ledgerOf(jobWith([])));
    const priors = priorsFor(evidence.context);
    const { wheel, car, moved, logEvidence } = posteriorOf(evidence, new Factors(priors));
    const { dead } = priors.battery(undefined);
    // Nobody tried a tool.
    const byOneCause = wheelSets
      .filter((set) => set !== 'own-unheard')
      .map((set): [number, Priors] => [
        set === 'own' ? 1 - wholeSetsOf(priors) : priors.wholeSet[set],
        priorsWith(priors, set),
      ]);
    const overAll = (chance: (of: Priors['of']) => number) =>
      byOneCause.reduce((sum, [share, { of }]) => sum + share * chance(of), 0);
    expect(logEvidence).toBeCloseTo(0, 9);
    expect(wheel('sensor-absent', 2)).toBeCloseTo(
      overAll((of) => of['sensor-absent']),
      9,
    );
    expect(wheel('sensor-wrong-type', 2)).toBeCloseTo(
      overAll((of) => Math.max(0, 1 - dead - of['sensor-absent']) * of['sensor-wrong-type']),
      9,
    );
    expect(wheel('tire-leaking', 0)).toBeCloseTo(priors.of['tire-leaking'], 9);
    expect(car('receiverFault')).toBeCloseTo(priors.of['receiver-fault'], 9);
    // Of the orders of moved wheels each wheel stays in place in some.
    expect(moved(0)).toBeLessThan(priors.of['positions-swapped']);
    expect(moved(0)).toBeGreaterThan(priors.of['positions-swapped'] / 2);
  });

  it('is a number between 0 and 1 for whatever assignments, however they contradict one another', () => {
    const assignment = fc.integer({ min: 0, max: 500 });
    fc.assert(
      fc.property(
        assignment,
        assignment,
        assignment,
        fc.constantFrom('off', 'steady', 'flash-then-steady', 'flash-while-driving'),
        (read, replied, shown, state) => {
          const job = jobWith([
            lamp(0, state),
            gauge(1, 'LF', read),
            heard(2, 'LF', { kPa: replied }),
            live(3, 'LF', shown, 80),
            { kind: 'display', at: minute(4), wheel: 'LF', kPa: shown },
          ]);
          const evidence = evidenceOf(job, ledgerOf(job));
          const priors = priorsFor(evidence.context);
          const { wheel, car } = posteriorOf(evidence, new Factors(priors));
          for (const chance of [
            ...wheelFindings.map((code) => wheel(code, 0)),
            car('sound'),
            car('lampDark'),
          ]) {
            expect(chance).toBeGreaterThanOrEqual(0);
            expect(chance).toBeLessThanOrEqual(1);
          }
        },
      ),
      { numRuns: 100 },
    );
  });
});
