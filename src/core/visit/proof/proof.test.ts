import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  heard,
  ids,
  idsHeld,
  jobWith,
  lamp,
  live,
  lives,
  minute,
  registry,
  registryWrite,
  scans,
  silent,
} from '../../../../tests/support/car';
import { markedByFile } from '../../job/by-file';
import type { CarWrite, Job, Observation, Seen } from '../../job';
import { sheetOf } from '../sheet';
import { proofOf, type ProofItem } from '.';
import { standingOf } from './standing';
import { standingWords, visitWords } from './words';
import { unequalEntries, writeVerdict } from '../../job/car-write';

type More = Parameters<typeof jobWith>[1];
const clear = (more: Partial<Extract<CarWrite, { kind: 'clear-codes' }>> = {}): CarWrite => ({
  kind: 'clear-codes',
  key: '0190a000-0000-7000-8000-000000000002',
  askedAt: minute(10),
  before: [],
  ...more,
});

/** A car on which everything is shown, and what is different about it. */
const seen = [...gauges(1), ...scans(2), registry(3), ...lives(20, undefined, 62), lamp(25, 'off')];
const states = (job: Job) =>
  Object.fromEntries(proofOf(job).checks.map(({ name, state }) => [name, state])) as Partial<
    Record<ProofItem['name'], ProofItem['state']>
  >;
const state = (name: ProofItem['name'], observations: Observation[], more: More = {}) =>
  states(jobWith(observations, more))[name];
const text = (name: ProofItem['name'], observations: Observation[], more: More = {}) =>
  proofOf(jobWith(observations, more)).checks.find((check) => check.name === name)?.text;
const without = (...kinds: Observation['kind'][]) => seen.filter(({ kind }) => !kinds.includes(kind));

it('IDs that were typed say nothing of the codes until somebody says there are none', () => {
  const typed = { ...registry(5), source: 'hand' };
  const state = (seen: Observation) =>
    proofOf(jobWith([...scans(1), seen])).checks.find(({ name }) => name === 'codes')?.state;
  expect(state(typed)).toBe('open');
  expect(state({ ...typed, codes: [] } as Observation)).toBe('met');
  expect(state(registry(5))).toBe('met');
});

describe('a visit that was handed over', () => {
  const kept = {
    proved: false,
    checks: [{ name: 'lamp' as const, state: 'open' as const, text: 'Look at the lamp.' }],
  };
  const visit = { handedOverAt: minute(40), unproved: 'in a hurry', proof: kept };
  it('keeps what was proved then, whatever is worked out of it later', () => {
    const job = jobWith(seen, { visit });
    expect(proofOf(job)).toEqual(kept);
    expect(sheetOf(job).proof).toEqual(kept);
    expect(proofOf(jobWith(seen, { visit: { proof: kept } })).proved).toBe(true);
  });
  it('is another shop’s word where it came by a file, and proves nothing', () => {
    const told = markedByFile(jobWith(seen, { visit: { ...visit, proof: { proved: true, checks: [] } } }), {
      at: minute(50),
      by: 'Ines',
    });
    expect(proofOf(told).proved).toBe(false);
  });
});

describe('a visit', () => {
  it('is proved once pressures, IDs, reports, codes and lamp are all shown', () => {
    expect(proofOf(jobWith(seen))).toMatchObject({ proved: true });
    expect(states(jobWith(seen))).toEqual({
      pressures: 'met',
      registration: 'met',
      reports: 'met',
      codes: 'met',
      lamp: 'met',
    });
    expect(proofOf(jobWith([])).proved).toBe(false);
  });

  it('of a car without sensors asks for neither IDs nor reports', () => {
    const job = jobWith([...gauges(1), lamp(2, 'off')], { tpms: { kind: 'indirect' } });
    expect(Object.keys(states(job))).toEqual(['pressures', 'lamp']);
    expect(proofOf(job).proved).toBe(true);
  });

  it('of a car without sensors wants the system reset after work on tires or air, and the lamp seen after that', () => {
    const car = { tpms: { kind: 'indirect' as const }, service: { kind: 'tires-fitted' as const } };
    const reset = (n: number): Seen<'relearn'> => ({
      kind: 'relearn',
      at: minute(n),
      method: 'reset',
      outcome: 'done',
      source: 'hand',
    });
    const looked = [...gauges(1), lamp(2, 'off')];
    expect(states(jobWith(looked, car))).toMatchObject({ reset: 'open', lamp: 'met' });
    expect(states(jobWith([...looked, reset(5)], car))).toMatchObject({ reset: 'met', lamp: 'open' });
    expect(proofOf(jobWith([...looked, reset(5), lamp(30, 'off')], car)).proved).toBe(true);
    // Filled after the reset, it compares with pressures that are no more.
    const filled = [...looked, reset(5), gauge(40, 'LF', 210), gauge(42, 'LF', 230), lamp(60, 'off')];
    expect(states(jobWith(filled, car))).toMatchObject({ reset: 'open' });
  });

  it('of a car without any monitoring is about its tires alone', () => {
    expect(states(jobWith(gauges(1), { tpms: { kind: 'none' } }))).toEqual({ pressures: 'met' });
  });

  it('stays proved when a tire is gauged again with the same figure, and is open again after a fill', () => {
    expect(proofOf(jobWith([...seen, gauge(40, 'LF', 230)])).proved).toBe(true);
    expect(proofOf(jobWith([...seen, gauge(40, 'LF', 233)])).proved).toBe(true);
    const before = [gauge(0, 'LF', 210), ...seen];
    expect(proofOf(jobWith(before)).proved).toBe(true);
    const filledAfter = [...without('gauge'), ...gauges(1, { LF: 210 }), gauge(40, 'LF', 230)];
    expect(states(jobWith(filledAfter))).toMatchObject({ pressures: 'met', reports: 'open', lamp: 'open' });
  });
});

describe('pressures', () => {
  it('are open until every wheel is gauged, and name those that are not', () => {
    const rest = seen.filter((one) => one.kind !== 'gauge' || one.wheel !== 'RR');
    expect(state('pressures', rest)).toBe('open');
    expect(text('pressures', rest)).toBe('Gauge RR.');
  });

  it('are met within a psi of the target, and no further off, above or below', () => {
    const at = (kPa: number) => state('pressures', [...without('gauge'), ...gauges(1, { LF: kPa })]);
    // Figures are compared as they are shown: 222.6 is shown as 223.
    expect([at(222.6), at(222.4), at(237.4), at(237.6)]).toEqual(['met', 'unmet', 'met', 'unmet']);
    expect(text('pressures', [...without('gauge'), ...gauges(1, { LF: 180 })])).toMatch(/^LF not at target/);
  });

  it('are not met by a warm tire of which nobody knows how warm', () => {
    expect(state('pressures', [...seen, gauge(90, 'LF', 230, { tire: 'warm' })])).toBe('unmet');
  });

  it('of a tire whose sensor says how warm it is are those it has once cold', () => {
    const warm = (kPa: number) => [
      ...seen,
      heard(29, 'LF', { kPa, tempC: 42 }),
      gauge(30, 'LF', kPa, { tire: 'warm' }),
    ];
    // By the gas law, from 12 °C to 42 °C: (230 + 101.325) · 315.15 / 285.15 − 101.325 = 264.9 kPa.
    expect(state('pressures', warm(265))).toBe('met');
    expect(state('pressures', warm(246))).toBe('unmet');
  });
});

describe('what was seen of a tire', () => {
  const nail = { kind: 'visual', at: minute(1), wheel: 'RF', sign: 'object' } as const;

  it('stands against the proof until it is repaired, or somebody says what it was', () => {
    const job = jobWith([...seen, nail]);
    const damage = (more: Partial<Job>) =>
      proofOf({ ...job, ...more }).checks.find(({ name }) => name === 'damage');
    expect(damage({})).toMatchObject({ state: 'unmet', text: 'Seen at RF, and not said what it was.' });
    expect(damage({ repairs: [{ wheel: 'LF', at: minute(5) }] })).toBeDefined();
    expect(damage({ repairs: [{ wheel: 'RF', at: minute(5) }] })).toBeUndefined();
    const inOrder = { part: 'tire' as const, wheel: 'RF' as const, was: 'in-order' as const };
    expect(
      damage({ confirmations: [{ key: 'k', at: minute(5), by: 'Ines', parts: [inOrder] }] }),
    ).toBeUndefined();
  });
});

describe('registration', () => {
  it('is open until every sensor is heard and the car is read', () => {
    expect(state('registration', without('registry'))).toBe('open');
    expect(text('registration', without('registry'))).toBe('Read what the car holds.');
    const deaf = [...without('activation'), ...scans(2, { LR: [silent(2, 'LR')] })];
    expect(state('registration', deaf)).toBe('open');
    expect(text('registration', deaf)).toBe('No clear answer from LR.');
  });

  it('is not met where the car holds another ID, or holds it elsewhere', () => {
    expect(state('registration', [...seen, registry(4, { RR: '90FFE0A1' })])).toBe('unmet');
    expect(text('registration', [...seen, registry(4, { RR: '90FFE0A1' })])).toMatch(/heard at RR\.$/);
    expect(state('registration', [...seen, registry(4, { LF: ids.RF, RF: ids.LF })])).toBe('unmet');
  });

  it('of a car that ties no ID to a position is met by the set', () => {
    const swapped = [...seen, registry(4, { LF: ids.RF, RF: ids.LF })];
    expect(state('registration', swapped, { tpms: { locates: false } })).toBe('met');
    const gone = [...seen, registry(4, { RR: '90FFE0A1' })];
    expect(state('registration', gone, { tpms: { locates: false } })).toBe('unmet');
  });

  it('is open again while IDs were sent and not read back', () => {
    const sent = { carWrites: [registryWrite({ answer: 'yes' })] };
    expect(state('registration', seen, sent)).toBe('open');
    expect(text('registration', seen, sent)).toMatch(/not read back/);
    expect(state('registration', [...seen, registry(11)], sent)).toBe('met');
    const readBack = {
      carWrites: [registryWrite({ answer: 'yes', readBackAt: minute(11), readBack: idsHeld() })],
    };
    expect(state('registration', seen, readBack)).toBe('met');
    // Only the last write of IDs counts; one of codes does not.
    const codesSent = { carWrites: [clear({ askedAt: minute(50) })] };
    expect(state('registration', seen, codesSent)).toBe('met');
  });
});

describe('reports', () => {
  it('want every wheel heard above wake speed since the last change', () => {
    const parked = [...without('live'), ...lives(20, undefined, 30)];
    expect(state('reports', parked)).toBe('open');
    expect(text('reports', parked)).toMatch(/LF, RF, RR and LR\.$/);
    const three = [...without('live'), ...lives(20, undefined, 62).filter((_, at) => at !== 2)];
    expect(text('reports', three)).toMatch(/: RR\.$/);
    expect(state('reports', [...three, live(21, 'RR', 0, 62)])).toBe('open');
    expect(state('reports', [...three, live(21, 'RR', null, 62)])).toBe('open');
    expect(state('reports', [...three, live(21, 'RR', 220, 62)])).toBe('met');
  });

  it('of before a write prove nothing; a refused write changes nothing', () => {
    const sent = (at: number, answer: 'yes' | 'no') => ({
      carWrites: [
        registryWrite({ askedAt: minute(at), answer, readBackAt: minute(at), readBack: idsHeld() }),
      ],
    });
    expect(state('reports', seen, sent(19, 'yes'))).toBe('met');
    expect(state('reports', seen, sent(20, 'yes'))).toBe('met');
    expect(state('reports', seen, sent(21, 'yes'))).toBe('open');
    expect(state('reports', seen, sent(21, 'no'))).toBe('met');
    expect(state('lamp', seen, sent(26, 'yes'))).toBe('open');
    expect(state('lamp', seen, sent(25, 'yes'))).toBe('met');
  });
});

describe('codes', () => {
  const code: Observation = { kind: 'dtc', at: minute(15), code: 'C1B31', status: 'stored' };
  it('that stand are not met, and named', () => {
    expect(state('codes', [...seen, code])).toBe('unmet');
    expect(text('codes', [...seen, code])).toBe('Codes stand: C1B31. Clear and read again.');
  });

  it('are open until the car was read, but for a car without sensors', () => {
    expect(state('codes', without('registry'))).toBe('open');
    expect(
      state('codes', [...seen, code], { carWrites: [clear({ readBackAt: minute(16), readBack: [] })] }),
    ).toBe('met');
    expect(text('codes', seen, { carWrites: [clear({ readBackAt: minute(16), readBack: [] })] })).toMatch(
      /^Codes cleared/,
    );
    expect(text('codes', seen)).toBe('No codes stored.');
    expect(state('codes', without('registry'), { carWrites: [clear()] })).toBe('open');
    // Of a car without sensors they are not asked for; what somebody read of them counts.
    const indirect = { tpms: { kind: 'indirect' as const } };
    expect(state('codes', without('registry'), indirect)).toBeUndefined();
    expect(state('codes', [...without('registry'), code], indirect)).toBe('unmet');
  });
});

describe('the lamp', () => {
  it('must be off and light for its check', () => {
    expect(state('lamp', without('lamp'))).toBe('open');
    expect(state('lamp', [...seen, lamp(30, 'steady')])).toBe('unmet');
    expect(state('lamp', [...seen, lamp(30, 'off', false)])).toBe('unmet');
  });
});

describe('what became of a write', () => {
  it('is what was read back, whatever was answered', () => {
    const readBackAt = minute(12);
    expect(writeVerdict(registryWrite({ answer: 'yes', readBackAt, readBack: idsHeld() }))).toBe('worked');
    expect(writeVerdict(registryWrite({ answer: 'no', readBackAt, readBack: idsHeld() }))).toBe('worked');
    expect(writeVerdict(registryWrite({ answer: 'yes', readBackAt, readBack: idsHeld('90FFE0A1') }))).toBe(
      'failed',
    );
    expect(writeVerdict(registryWrite({ answer: 'no' }))).toBe('refused');
    expect(writeVerdict(registryWrite({ answer: 'lost' }))).toBe('unknown');
    expect(writeVerdict(clear({ readBackAt, readBack: [] }))).toBe('worked');
    expect(writeVerdict(clear({ readBackAt, readBack: [{ code: 'C1B31', status: 'active' }] }))).toBe(
      'failed',
    );
    expect(writeVerdict(clear({ readBackAt }))).toBe('failed');
  });

  it('is compared wheel by wheel, empty places too, without regard to how an ID is spelled', () => {
    const readBack = idsHeld().map(({ wheel, id }) => ({ wheel, id: id?.toLowerCase() ?? null }));
    expect(unequalEntries(registryWrite({ readBack }))).toEqual([]);
    expect(unequalEntries(registryWrite({ asked: idsHeld(null), readBack: idsHeld(null) }))).toEqual([]);
    expect(unequalEntries(registryWrite({ asked: idsHeld(null), readBack: idsHeld() }))).toEqual(['RR']);
    expect(unequalEntries(registryWrite({ readBack: idsHeld(null) }))).toEqual(['RR']);
    expect(
      unequalEntries(registryWrite({ readBack: idsHeld().filter(({ wheel }) => wheel !== 'LF') })),
    ).toEqual(['LF']);
    expect(unequalEntries(registryWrite({}))).toHaveLength(4);
  });
});

it('a car is heard only where it is the sensor of its own wheel', () => {
  const neighbour = [...without('activation'), ...scans(2, { LF: [heard(2, 'LF', { id: ids.RF })] })];
  expect(state('registration', neighbour)).toBe('unmet');
});

describe('how a visit stands', () => {
  const found = (code: 'sensor-silent' | 'waiting-for-drive' | 'no-fault', probability = 0.9) => [
    { code, probability },
  ];
  const told = (observations: Observation[], findings: Parameters<typeof standingOf>[1] = []) => {
    const proof = proofOf(jobWith(observations));
    return standingWords(standingOf(proof, findings), proof);
  };

  it('is proved once all was shown', () => {
    expect(told(seen, found('no-fault'))).toBe('Proved');
  });

  it('is done where nothing is wrong that anybody knows of, and names what was not checked', () => {
    expect(told([...gauges(1), lamp(25, 'off')])).toBe(
      'Done; not checked: IDs, reception on the road, codes',
    );
    expect(told([])).toBe('Not checked: pressures, IDs, reception on the road, codes, the lamp');
    expect(told(gauges(1), found('waiting-for-drive'))).toMatch(/^Done; not checked/);
  });

  it('is not right where something was seen that is not, or a fault still stands', () => {
    expect(told([...gauges(1, { RF: 190 }), lamp(25, 'off')])).toBe('Not right');
    expect(told([...gauges(1), lamp(25, 'steady')])).toBe('Not right');
    expect(told(gauges(1), found('sensor-silent'))).toBe('Not right');
    expect(told(gauges(1), found('sensor-silent', 0.4))).toMatch(/^Done/);
  });

  it('is not told of a visit that is under way or was cancelled', () => {
    const proof = proofOf(jobWith([...gauges(1), lamp(25, 'off')]));
    expect(visitWords('open', { standing: 'done', proof })).toBe('Not finished');
    expect(visitWords('open', { standing: 'proved', proof })).toBe('Proved');
    expect(visitWords('cancelled', { standing: 'not-right', proof })).toBe('Cancelled');
    expect(visitWords('handed-over', { standing: 'not-right', proof })).toBe('Not right');
  });
});
