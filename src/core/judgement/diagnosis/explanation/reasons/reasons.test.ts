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
} from '../../../../../../tests/support/car';
import { findingsThatHold } from '../../../assessment';
import { findingCodes, findingKey, type FindingCode } from '../../../../catalogue/finding';
import type { Job, Observation } from '../../../../job';
import { chanceFrom, drawCar } from '../../../../../simulation';
import { doTest, lampOf } from '../../../../../simulation/look';
import { pushedOff, worlds } from '../../../../../simulation/world';
import { metric } from '../../../../measure/units';
import { roadWheels, walkingOrder, type Position } from '../../../../names/wheel';
import { assessBriefly } from '../..';
import { clausesFor, reasonsFor, type Clause } from '.';

/** What is said of a finding that holds; undefined where none of this code does. */
function said(job: Job, code: FindingCode): string | undefined {
  const assessment = assessBriefly(job);
  const finding = findingsThatHold(assessment).find((held) => held.code === code);
  return finding && reasonsFor(job, assessment, metric)[findingKey(finding)];
}
const road = roadWheels.map((wheel) => gauge(1, wheel, 238, { tire: 'warm', tireC: 38 }));

describe('figures in a reason', () => {
  it('are those judged by: warm as read, and at the outdoor temperature', () => {
    // By the gas law: (238 + 101.325) · 285.15 / 311.15 − 101.325 = 209.6 kPa at 12 °C.
    expect(said(jobWith(road), 'tire-underinflated')).toContain(
      'LF has 238 warm, 210 at the outdoor temperature where the placard asks for 230.',
    );
  });

  it('name the reading that counts, not an air line’s after it', () => {
    const seen = [...gauges(1, { RF: 168 }), gauge(5, 'RF', 231, { trusted: false }), lamp(6, 'steady')];
    expect(said(jobWith(seen), 'tire-low')).toBe('RF has 168 where the lamp lights at 175.');
  });

  it('do not have a spare nobody watches light the lamp', () => {
    const seen = [...gauges(1), gauge(2, 'SP', 120), lamp(3, 'off')];
    const line = { position: 'spare' as const, coldKPa: 420 };
    const job = jobWith(seen);
    const words = said({ ...job, placard: [...(job.placard ?? []), line] }, 'tire-low') ?? '';
    expect(words).not.toContain('lamp lights');
  });
});

describe('what nobody saw is not said', () => {
  it('of sensors that were not woken', () => {
    const job = jobWith([...gauges(1), registry(2), ...lives(8, null, 60), lamp(9, 'flash-then-steady')]);
    const words = clausesFor(job, { code: 'receiver-fault', wheels: [] }, undefined, metric).map(
      ({ words: one }) => one,
    );
    expect(words.join(' ')).not.toMatch(/answer|hold/);
    expect(words).toContain('It had nothing from LF, RF, RR and LR on the drive.');
  });

  it('of an ID the car holds at another wheel', () => {
    const job = jobWith([...scans(2), registry(3, { LF: '90FFE0A1', RR: ids.LF })]);
    const finding = { code: 'id-not-registered' as const, wheels: ['LF' as const] };
    const words = reasonsFor(job, { findings: [finding], positions: undefined }, metric)[findingKey(finding)];
    expect(words).toContain('and that ID at RR');
    expect(words).not.toContain('does not know');
  });

  it('of a reference that was stored', () => {
    const tpms = { kind: 'indirect' as const, positions: [] };
    const stored: Observation = { kind: 'relearn', at: minute(0), method: 'reset', outcome: 'done' };
    const job = jobWith([stored, ...gauges(1, { LF: 205 }), gauge(5, 'LF', 230), lamp(9, 'steady')], {
      tpms,
    });
    expect(said(job, 'baseline-not-set')).toMatch(/^The system was reset before the air was put right/);
    expect(said(job, 'baseline-not-set')).not.toContain('no storing');
  });
});

describe('every finding has a reason', () => {
  const flash = lamp(9, 'flash-then-steady');
  const indirect = { tpms: { kind: 'indirect' as const, positions: [] } };
  const code = (about: 'low-battery' | 'receiver' | 'wheel-speed' | 'baseline', wheel?: Position) =>
    ({
      kind: 'dtc',
      at: minute(2),
      code: 'C1B31',
      status: 'active',
      about,
      ...(wheel && { wheel }),
    }) as Observation;
  const examples: Partial<Record<FindingCode, Job>> = {
    'tire-low': jobWith(gauges(1, { RF: 150 })),
    'tire-underinflated': jobWith(gauges(1, { RF: 205 })),
    'tire-overinflated': jobWith(gauges(1, { RF: 380 })),
    'spare-in-use': jobWith([
      { kind: 'visual', at: minute(0), wheel: 'RR', sign: 'odd-size' },
      ...gauges(1, { RR: 415 }),
    ]),
    'gauge-off': jobWith([...gauges(1, { LF: 254, RF: 254, RR: 244, LR: 244 }), ...scans(4)]),
    'tire-hot': jobWith([heard(1, 'RF', { tempC: 112 })]),
    'tire-leaking': jobWith([...gauges(1), gauge(10, 'RF', 205)]),
    'temperature-drop': jobWith(
      roadWheels.map((wheel) => gauge(1, wheel, 204)),
      { climate: { nowC: -6, lastFillC: 16, altitudeM: 0 } },
    ),
    'lamp-latched': jobWith([...gauges(1, { RF: 188 }), lamp(2, 'steady')]),
    'rolling-radius-off': jobWith(
      [
        ...gauges(1),
        ...roadWheels.map((wheel): Observation => ({
          kind: 'wheelspeed',
          at: minute(3),
          wheel,
          ratio: wheel === 'RF' ? 1.012 : 0.996,
        })),
      ],
      indirect,
    ),
    'sensor-silent': jobWith([
      ...gauges(1),
      ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'magnet')] }),
      flash,
    ]),
    'sensor-absent': jobWith([
      { kind: 'visual', at: minute(0), wheel: 'RR', sign: 'stem-rubber' },
      ...scans(2, { RR: [silent(2, 'RR'), silent(3, 'RR', 'magnet')] }),
      registry(5, { RR: null }),
    ]),
    'sensor-battery-low': jobWith([heard(1, 'RR', { battery: 'low' })]),
    'sensor-inaccurate': jobWith([gauge(1, 'RR', 220), heard(2, 'RR', { kPa: 260 })]),
    'sensor-wrong-type': jobWith([heard(1, 'RR', { family: 'plover', frequencyMHz: 315 })]),
    'sensor-intermittent': jobWith([
      ...scans(1),
      registry(2),
      ...roadWheels.map((wheel): Observation => ({
        kind: 'reception',
        at: minute(5),
        id: ids[wheel],
        expected: 60,
        received: wheel === 'RR' ? 28 : 59,
      })),
    ]),
    'cross-read': jobWith([...scans(1, { RR: [heard(1, 'RR', { id: ids.LR, rssiDbm: -70 })] })]),
    'sensors-asleep': jobWith([live(1, 'RR', null, 0)]),
    'id-not-registered': jobWith([...scans(1), registry(2, { RR: '90FFE0A1' })]),
    'id-mistyped': jobWith([...scans(1), registry(2, { RR: '4B11E0E6' })]),
    'id-duplicate': jobWith([...scans(1), registry(2, { RR: ids.LF })]),
    'positions-swapped': jobWith([...scans(1), registry(2, { LF: ids.LR, LR: ids.LF })]),
    'other-set-registered': jobWith(
      [
        ...scans(1),
        {
          kind: 'registry',
          at: minute(2),
          entries: roadWheels.map((wheel, at) => ({ wheel, id: `5C00000${at}` })),
        },
      ],
      { otherSets: [{ label: 'winter', ids: ['5C000000', '5C000001', '5C000002', '5C000003'] }] },
    ),
    'receiver-fault': jobWith([...gauges(1), ...scans(2), registry(3), ...lives(5, null, 60), flash]),
    'system-disabled': jobWith([lamp(1, 'off', false)]),
    'waiting-for-drive': jobWith([
      { kind: 'relearn', at: minute(1), method: 'write', outcome: 'waiting-for-drive' },
      ...scans(2),
      registry(3),
    ]),
    'supply-voltage-low': jobWith([{ kind: 'voltage', at: minute(1), volts: 11.6, engine: 'off' }]),
    'baseline-not-set': jobWith([code('baseline'), ...gauges(1), lamp(3, 'steady')], indirect),
    'wheel-speed-sensor-fault': jobWith([code('wheel-speed', 'LF'), lamp(3, 'steady')], indirect),
    'no-fault': jobWith([...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 60), lamp(5, 'off')]),
  };

  it.each(findingCodes)('%s', (of) => {
    const job = examples[of];
    expect(job, 'an example').toBeDefined();
    if (job) expect(said(job, of)).toMatch(/\w/);
  });

  it('and says what was seen: a battery, a crowd, a twin, missed check-ins, a loss', () => {
    const words = (of: FindingCode) => said(examples[of] ?? jobWith([]), of);
    expect(words('sensor-battery-low')).toBe('The sensor at RR says that its battery is low.');
    expect(words('cross-read')).toBe('4B2A 7C08 answered at RR and LR.');
    expect(words('id-duplicate')).toContain('The car holds 4B07 C2D1 at LF and RR.');
    expect(words('sensor-intermittent')).toBe('RR got through 28 of 60 times.');
    expect(words('tire-leaking')).toContain('RF went from 230 to 205 in 9 minutes, at one temperature.');
    expect(words('wheel-speed-sensor-fault')).toContain('code C1B31, active, for LF');
  });

  it('shows a display, too', () => {
    const seen = [
      ...gauges(1, { LR: 170 }),
      ...roadWheels.map((wheel) => display(6, wheel, wheel === 'LF' ? 171 : 230)),
    ];
    expect(said(jobWith(seen, { service: { kind: 'rotation', hoursAgo: 5 } }), 'positions-swapped')).toMatch(
      /LR really has 170/,
    );
  });
});

/** The wheels a sentence names. */
const wheelsIn = (words: string): Position[] =>
  walkingOrder.filter((wheel) => new RegExp(`\\b${wheel}\\b`).test(words));

/** The wheels an observation speaks of; of a scan also those whose ID it heard. */
function wheelsOf(seen: Observation | undefined): Position[] {
  if (!seen) return [];
  if (seen.kind === 'registry') return seen.entries.map(({ wheel }) => wheel);
  return 'wheel' in seen && seen.wheel ? [seen.wheel as Position] : [];
}

describe('of a thousand simulated jobs', () => {
  const chance = chanceFrom(20_261_126);
  const off = pushedOff(chance);
  const jobs = Array.from({ length: 1000 }, (): Job => {
    const car = drawCar(chance, off, worlds.fitting);
    let job: Job = { ...car.job, observations: [lampOf(car, chance)] };
    // Anything may have been looked at, in any order: what a shop did before somebody asks why.
    const steps = ['gauge', 'activation', 'visual'] as const;
    for (let n = 1; n <= 12; n += 1) {
      car.job = job;
      const at = chance.oneOf(roadWheels);
      const test =
        n % 5 === 0
          ? chance.oneOf(['registry', 'drive', 'display', 'reception', 'wheelspeed'] as const)
          : chance.oneOf(steps);
      if (car.kind === 'indirect' && !['gauge', 'visual', 'wheelspeed'].includes(test)) continue;
      job = { ...job, observations: [...job.observations, ...doTest(car, test, at, n, chance)] };
    }
    return job;
  });
  const sentences = jobs.flatMap((job) => {
    const assessment = assessBriefly(job);
    return findingsThatHold(assessment).map((finding) => ({
      job,
      finding,
      clauses: clausesFor(job, finding, assessment.positions, metric),
    }));
  });
  const stands = ({ on, told }: Clause) => on.length > 0 || told !== undefined;

  it('no finding is without a reason, and every sentence names what it stands on', () => {
    expect(sentences.length).toBeGreaterThan(1000);
    for (const { job, finding, clauses } of sentences) {
      expect(
        clauses.length,
        `${finding.code} ${finding.wheels.join()} ${JSON.stringify(job)}`,
      ).toBeGreaterThan(0);
      for (const one of clauses) expect(stands(one), `${finding.code}: ${one.words}`).toBe(true);
    }
  });

  it('no sentence names a wheel that nothing it stands on speaks of', () => {
    for (const { job, finding, clauses } of sentences) {
      for (const { words, on, told } of clauses) {
        if (told || words.includes('is not gauged yet')) continue;
        const seen = on.flatMap((place) => wheelsOf(job.observations[place]));
        const named = wheelsIn(words).filter((wheel) => !seen.includes(wheel));
        expect(named, `${finding.code}: ${words}`).toEqual([]);
      }
    }
  });

  it('no sentence stands on an observation that is not in the job', () => {
    for (const { job, clauses } of sentences)
      for (const { on } of clauses) for (const place of on) expect(job.observations[place]).toBeDefined();
  });
});
