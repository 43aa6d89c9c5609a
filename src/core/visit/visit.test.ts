import { describe, expect, it } from 'vitest';
import {
  direct,
  gauge,
  gauges,
  heard,
  ids,
  idsHeld,
  jobWith,
  lamp,
  lives,
  minute,
  registry,
  registryWrite,
  scans,
  silent,
} from '../../../tests/support/car';
import type { Assessment, Finding, NextTest } from '../judgement/assessment';
import { assess } from '../judgement/diagnosis';
import type { FindingCode } from '../catalogue/finding';
import type { CarWrite, Job } from '../job';
import { proofOf } from './proof';
import { sheetOf } from './sheet';
import { metric } from '../measure/units';
import type { Position } from '../names/wheel';
import { moveWords } from './words';
import { idsToWrite, isPassed, nextMove, stationOf, stations, worthwhileCheck, type Move } from '.';
import { writeVerdict } from '../job/car-write';

const move = (job: Job, handedOver = false) =>
  nextMove(job, { assessment: assess(job), handedOver, hasLead: true, hasTool: true });

describe('the next move', () => {
  it('walks round in order: gauge, then wake, then read the car', () => {
    expect(move(jobWith([lamp(0, 'steady')]))).toEqual({ kind: 'gauge', wheel: 'LF', again: false });
    expect(move(jobWith([lamp(0, 'steady'), gauge(1, 'LF', 230)]))).toMatchObject({
      kind: 'gauge',
      wheel: 'RF',
    });
    expect(move(jobWith([lamp(0, 'steady'), ...gauges(1)]))).toEqual({ kind: 'wake', wheel: 'LF', tries: 0 });
    expect(move(jobWith([lamp(0, 'steady'), ...gauges(1), ...scans(2)]))).toEqual({ kind: 'read-car' });
  });

  it('asks for the placard first where it is not known', () => {
    expect(move(jobWith([], { placard: [] }))).toEqual({ kind: 'placard' });
  });

  it('wakes a silent sensor with other triggers, then takes it for silent', () => {
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2, { RR: [silent(2, 'RR')] })];
    expect(move(jobWith(seen))).toEqual({ kind: 'wake', wheel: 'RR', tries: 1 });
    const twice = [...seen, silent(3, 'RR', 'continuous'), registry(4)];
    expect(move(jobWith(twice))).toEqual({ kind: 'wake', wheel: 'RR', tries: 2 });
    const thrice = jobWith([...twice, silent(5, 'RR', 'magnet')]);
    expect(move(thrice)).toMatchObject({ kind: 'act', finding: { code: 'sensor-silent', wheels: ['RR'] } });
  });

  it('writes what was heard, and reads back what is unknown, before anything else', () => {
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    expect(move(jobWith(seen))).toEqual({ kind: 'write-ids' });
    expect(
      move(jobWith(seen, { carWrites: [registryWrite({ answer: 'lost', answeredAt: minute(11) })] })),
    ).toEqual({
      kind: 'read-back',
    });
  });

  it('does not write on a weak supply', () => {
    const seen = [...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    const weak = jobWith([...seen, { kind: 'voltage', at: minute(4), volts: 11.8, engine: 'off' }]);
    expect(move(weak)).toEqual({ kind: 'support-supply', how: 'connect a charger' });
  });

  it('holds up the supply of an electric car by keeping it switched on', () => {
    const seen = [...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    const weak = jobWith([...seen, { kind: 'voltage', at: minute(4), volts: 11.8, engine: 'off' }], {
      tpms: { ...direct, electric: true },
    });
    expect(moveWords(move(weak), metric).why).toMatch(/keep this electric car switched on/);
  });

  it('wakes the wheel at which a relearn failed', () => {
    const failed = {
      kind: 'relearn',
      at: minute(9),
      method: 'tool',
      outcome: 'failed',
      failedAt: 'RR',
    } as const;
    const seen = [...gauges(1), ...scans(2), registry(4), failed];
    expect(move(jobWith(seen))).toEqual({ kind: 'wake', wheel: 'RR', tries: 0 });
    expect(move(jobWith([...seen, heard(10, 'RR')]))).not.toMatchObject({ kind: 'wake' });
  });

  it('asks about figures in another unit first, and about what was seen before it hands over', () => {
    const inPsi = gauges(1, { LF: 33, RF: 33, RR: 32, LR: 32 });
    expect(move(jobWith([...inPsi, ...scans(2)]))).toEqual({
      kind: 'gauge',
      wheel: 'LF',
      again: true,
      asked: '33 kPa makes no sense here, 33 psi would: ask which it was, and type it again.',
    });
    const typedAgain = [
      ...inPsi,
      ...gauges(3),
      ...scans(4),
      registry(5),
      ...lives(6, undefined, 60),
      lamp(7, 'off'),
    ];
    expect(move(jobWith(typedAgain))).toEqual({ kind: 'hand-over' });
    expect(sheetOf(jobWith(typedAgain)).done).toEqual([]);
    const nail = { kind: 'visual', at: minute(0), wheel: 'RF', sign: 'object' } as const;
    const rest = [...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 60), lamp(5, 'off')];
    expect(move(jobWith([nail, ...rest]))).toEqual({ kind: 'explain', wheel: 'RF' });
    expect(move(jobWith(rest))).toEqual({ kind: 'hand-over' });
  });

  it('follows what was chosen to be replaced, before any other check', () => {
    const replacement = { at: minute(6), wheels: ['RR' as const], declined: [] };
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2, { RR: [silent(2, 'RR')] })];
    expect(move(jobWith(seen, { replacement }))).toEqual({ kind: 'program', wheel: 'RR' });
    const sensorServices = [{ key: 's', wheel: 'RR' as const, at: minute(9), done: [] }];
    expect(move(jobWith(seen, { replacement, sensorServices }))).toEqual({
      kind: 'wake',
      wheel: 'RR',
      tries: 0,
    });
  });

  it('teaches the car another way once writing failed twice, or where there is no lead', () => {
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    const failed = registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld('90FFE0A1') });
    expect(move(jobWith(seen, { carWrites: [failed] }))).toEqual({ kind: 'write-ids' });
    const twice = jobWith(seen, { carWrites: [failed, { ...failed, key: 'again' }] });
    expect(move(twice)).toEqual({ kind: 'relearn', failed: 2 });
    const byHand = jobWith(seen);
    expect(
      nextMove(byHand, { assessment: assess(byHand), handedOver: false, hasLead: false, hasTool: false }),
    ).toEqual({ kind: 'relearn', failed: 0 });
  });

  it('keeps what the car holds where no sensor was heard: skipped, not forgotten', () => {
    const job = jobWith([heard(1, 'LF'), registry(2)]);
    expect(idsToWrite(job)).toContainEqual({ wheel: 'RR', id: ids.RR, from: 'car' });
    expect(idsToWrite(job)).toContainEqual({ wheel: 'LF', id: ids.LF, from: 'scan' });
  });
});

describe('a write', () => {
  it('worked only if the read-back is what was asked, whatever the car answered', () => {
    expect(
      writeVerdict(registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld(ids.RR) })),
    ).toBe('worked');
    expect(
      writeVerdict(registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld('90FFE0A1') })),
    ).toBe('failed');
    expect(
      writeVerdict(registryWrite({ answer: 'lost', readBackAt: minute(12), readBack: idsHeld(ids.RR) })),
    ).toBe('worked');
    expect(writeVerdict(registryWrite({ answer: 'lost' }))).toBe('unknown');
    expect(writeVerdict(registryWrite({ answer: 'yes' }))).toBe('unknown');
    expect(writeVerdict(registryWrite())).toBe('unknown');
    expect(writeVerdict(registryWrite({ answer: 'no' }))).toBe('refused');
  });
});

describe('proof', () => {
  const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
  const done = registryWrite({
    answer: 'yes',
    answeredAt: minute(11),
    readBackAt: minute(12),
    readBack: idsHeld(ids.RR),
  });

  it('needs registered equal to scanned, every wheel on the road, no codes, and the lamp off after it', () => {
    const before = jobWith([...seen, registry(12), lamp(9, 'off')], { carWrites: [done] });
    expect(proofOf(before).proved).toBe(false);
    const after = jobWith([...before.observations, ...lives(20, undefined, 62), lamp(25, 'off')], {
      carWrites: [done],
    });
    expect(proofOf(after)).toMatchObject({ proved: true });
    expect(move(after)).toEqual({ kind: 'hand-over' });
  });

  it('is not given by what was seen before the last write', () => {
    const early = jobWith([...seen, ...lives(8, undefined, 62), lamp(9, 'off'), registry(12)], {
      carWrites: [done],
    });
    const states = Object.fromEntries(proofOf(early).checks.map(({ name, state }) => [name, state]));
    expect(states).toMatchObject({ registration: 'met', reports: 'open', lamp: 'open' });
  });

  it('is refused by a code that came back, and given once it is read away', () => {
    const code = { kind: 'dtc' as const, at: minute(21), code: 'C1B31', status: 'active' as const };
    const rest = [...seen, registry(12), ...lives(20, undefined, 62), lamp(25, 'off')];
    expect(proofOf(jobWith([...rest, code], { carWrites: [done] })).checks).toContainEqual(
      expect.objectContaining({ name: 'codes', state: 'unmet' }),
    );
    const clear: CarWrite = {
      kind: 'clear-codes',
      key: '0190a000-0000-7000-8000-000000000002',
      askedAt: minute(18),
      before: [],
      answer: 'yes',
      readBackAt: minute(22),
      readBack: [],
    };
    expect(proofOf(jobWith([...rest, code], { carWrites: [done, clear] })).proved).toBe(true);
  });
});

describe('the sheet', () => {
  it('shows before and after, what was found before anything changed, and what was done', () => {
    const job = jobWith([
      lamp(0, 'steady'),
      ...gauges(1, { RF: 166 }),
      ...scans(2),
      registry(3),
      gauge(30, 'RF', 230),
      ...lives(40, undefined, 62),
      lamp(45, 'off'),
    ]);
    const sheet = sheetOf(job);
    expect(sheet.wheels.find(({ wheel }) => wheel === 'RF')).toMatchObject({
      before: { kPa: 166 },
      after: { kPa: 230 },
    });
    expect(sheet.found.map(({ code }) => code)).toContain('tire-low');
    // Filled is not looked into.
    expect(sheet.now).toEqual([]);
    expect(sheet.done).toEqual([{ kind: 'filled', wheel: 'RF', fromKPa: 166, toKPa: 230 }]);
    expect(sheet.proof.checks).toContainEqual({
      name: 'damage',
      state: 'open',
      text: 'RF was found low and filled: nobody looked for a leak.',
    });
    expect(sheet.cautions.join()).toMatch(/once a month/);
    const looked = sheetOf({
      ...job,
      confirmations: [
        { key: 'said', at: minute(31), by: 'Mara', parts: [{ part: 'tire', wheel: 'RF', was: 'in-order' }] },
      ],
    });
    expect(looked.now.map(({ code }) => code)).toEqual(['no-fault']);
    expect(looked.proof.proved).toBe(true);
  });
});

describe('a car without sensors', () => {
  it('is reset after air was let in, before anybody looks at its lamp', () => {
    const car = { tpms: { kind: 'indirect' as const } };
    const filled = jobWith([lamp(0, 'steady'), ...gauges(1, { RF: 215 }), gauge(9, 'RF', 230)], car);
    const assessment = { ...assess(filled), findings: [], nextTests: [], targets: [] };
    expect(nextMove(filled, { assessment, handedOver: false, hasLead: false, hasTool: false })).toEqual({
      kind: 'check',
      test: 'baseline',
    });
  });
});

describe('the move after the checks', () => {
  const seen = [lamp(0, 'off'), ...gauges(1), ...scans(2), registry(3), ...lives(4, undefined, 62)];
  const at = (assessment: Partial<Assessment>, job: Job = jobWith(seen), more: object = {}) =>
    nextMove(job, {
      assessment: { ...assess(job), findings: [], nextTests: [], targets: [], ...assessment },
      handedOver: false,
      hasLead: true,
      hasTool: true,
      ...more,
    });
  const found = (code: FindingCode): Finding => ({
    code,
    wheels: ['LF'],
    probability: 0.9,
    evidence: [],
    action: '',
  });
  const test = (more: Partial<NextTest>): NextTest => ({
    test: 'gauge',
    minutes: 1,
    bits: 1,
    savesMinutes: 1,
    ...more,
  });

  it('is none once the car is handed over', () => {
    expect(at({}, jobWith([]), { handedOver: true })).toEqual({ kind: 'done' });
  });

  it('asks for the placard as long as one road wheel lacks it', () => {
    const half = jobWith(seen, { placard: [{ position: 'front', coldKPa: 230 }] });
    expect(at({}, half)).toEqual({ kind: 'placard' });
  });

  it('is a part before a fill, a fill before other work, and work before the proof', () => {
    const fill = { wheel: 'RF' as const, coldKPa: 230, addKPa: 20, advice: 'add' as const };
    expect(
      at({ findings: [found('sensor-inaccurate'), found('sensor-silent')], targets: [fill] }),
    ).toMatchObject({ kind: 'act', finding: { code: 'sensor-silent' } });
    expect(at({ findings: [found('sensor-inaccurate')], targets: [fill] })).toEqual({
      kind: 'fill',
      wheel: 'RF',
      addKPa: 20,
    });
    expect(at({ findings: [found('sensor-inaccurate')] })).toMatchObject({
      kind: 'act',
      finding: { code: 'sensor-inaccurate' },
    });
    expect(at({ findings: [{ ...found('sensor-inaccurate'), probability: 0.4 }] })).toEqual({
      kind: 'hand-over',
    });
    expect(at({ targets: [{ ...fill, advice: 'leave' as const }] })).toEqual({ kind: 'hand-over' });
    expect(at({ targets: [{ wheel: 'RF', coldKPa: 230 }] })).toEqual({ kind: 'hand-over' });
  });

  it('of tests worth as much is the next on the walk, and only one that is worth its minutes', () => {
    const gaugeAt = (wheel: Position, bits: number, savesMinutes = 1) => test({ wheel, bits, savesMinutes });
    expect(at({ nextTests: [gaugeAt('RR', 1), gaugeAt('LF', 0.5)] })).toMatchObject({ wheel: 'LF' });
    expect(at({ nextTests: [gaugeAt('RR', 1), gaugeAt('LF', 0.49)] })).toMatchObject({ wheel: 'RR' });
    expect(at({ nextTests: [gaugeAt('RR', 1), test({ test: 'visual', wheel: 'LF' })] })).toMatchObject({
      kind: 'gauge',
      wheel: 'RR',
      again: true,
    });
    expect(at({ nextTests: [gaugeAt('RR', 1, 0)] })).toEqual({ kind: 'hand-over' });
  });

  it('asks only for tests that can be done here', () => {
    const only = (one: NextTest['test'], more: object, kind: 'direct' | 'indirect' = 'direct') =>
      worthwhileCheck(jobWith(seen, { tpms: { kind } }), {
        assessment: { ...assess(jobWith([])), nextTests: [test({ test: one })] },
        hasLead: true,
        hasTool: true,
        ...more,
      })?.test;
    expect(only('activation', {})).toBe('activation');
    expect(only('activation', { hasTool: false })).toBeUndefined();
    for (const one of ['registry', 'drive'] as const) {
      expect(only(one, {})).toBe(one);
      expect(only(one, { hasLead: false })).toBeUndefined();
      expect(only(one, {}, 'indirect')).toBeUndefined();
    }
    expect(only('display', { hasLead: false, hasTool: false })).toBe('display');
  });

  it('names each test as something to do', () => {
    const as = (one: NextTest['test'], wheel?: Position, job?: Job) =>
      at({ nextTests: [test({ test: one, ...(wheel && { wheel }) })] }, job);
    expect(as('gauge', 'LF', jobWith([]))).toEqual({ kind: 'gauge', wheel: 'LF', again: false });
    expect(as('activation', 'LR', jobWith([silent(1, 'LR')]))).toEqual({
      kind: 'wake',
      wheel: 'LR',
      tries: 1,
    });
    expect(as('activation', 'LR')).toEqual({ kind: 'wake', wheel: 'LR', tries: 0 });
    expect(as('visual', 'RF')).toEqual({ kind: 'look', wheel: 'RF' });
    expect(as('lamp')).toEqual({ kind: 'look-at-lamp' });
    expect(as('registry')).toEqual({ kind: 'read-car' });
    expect(as('drive')).toEqual({ kind: 'drive', tries: 0 });
    for (const one of ['display', 'shift', 'reception', 'wheelspeed', 'baseline'] as const)
      expect(as(one)).toMatchObject({ kind: 'check', test: one });
  });

  it('measures what the proof lacks, in the order of the walk, with what is here', () => {
    const without = (...kinds: string[]) => jobWith(seen.filter(({ kind }) => !kinds.includes(kind)));
    expect(at({}, without('gauge', 'activation', 'registry'))).toEqual({
      kind: 'gauge',
      wheel: 'LF',
      again: false,
    });
    expect(at({}, without('activation', 'registry'))).toEqual({ kind: 'wake', wheel: 'LF', tries: 0 });
    expect(at({}, without('activation', 'registry'), { hasTool: false })).toEqual({ kind: 'read-car' });
    expect(at({}, without('registry'))).toEqual({ kind: 'read-car' });
    expect(at({}, without('live'))).toEqual({ kind: 'drive', tries: 0 });
    expect(at({}, without('lamp'))).toEqual({ kind: 'look-at-lamp' });
    expect(at({}, without('lamp', 'live'), { hasLead: false })).toEqual({ kind: 'look-at-lamp' });
    const code = { kind: 'dtc' as const, at: minute(5), code: 'C1B31', status: 'active' as const };
    expect(at({}, jobWith([...seen, code]))).toEqual({ kind: 'clear-codes', tries: 0 });
    expect(at({}, jobWith([...seen, code]), { hasLead: false })).toEqual({ kind: 'hand-over' });
    const indirect = jobWith([lamp(0, 'off'), ...gauges(1)], { tpms: { kind: 'indirect' } });
    expect(at({}, indirect)).toEqual({ kind: 'hand-over' });
  });

  it('reads back only the last write of each kind, and only with a lead', () => {
    const lost = registryWrite({ answer: 'lost' });
    const later = {
      ...registryWrite({ readBackAt: minute(12), readBack: idsHeld(ids.RR) }),
      key: '0190a000-0000-7000-8000-000000000009',
    };
    expect(at({}, jobWith(seen, { carWrites: [lost] }))).toEqual({ kind: 'read-back' });
    expect(at({}, jobWith(seen, { carWrites: [lost, later] }))).not.toEqual({ kind: 'read-back' });
    expect(at({}, jobWith(seen, { carWrites: [lost] }), { hasLead: false })).not.toEqual({
      kind: 'read-back',
    });
  });
});

describe('the stations', () => {
  const proof = { proved: false, checks: [] };
  const passed = (job: Job, proved = false) =>
    stations.filter((station) => isPassed(station, job, { ...proof, proved }));

  it('are passed by what was done, in whatever order', () => {
    expect(passed(jobWith([], { placard: [] }))).toEqual([]);
    expect(passed(jobWith([]))).toEqual(['placard']);
    expect(passed(jobWith([...gauges(1).slice(1)]))).toEqual(['placard']);
    expect(passed(jobWith([...gauges(1), ...scans(2), registry(3)]), true)).toEqual([
      'placard',
      'gauge',
      'scan',
      'car',
      'prove',
    ]);
    const twice = (n: number) => [silent(1, 'LR'), silent(2, 'LR', 'magnet')].slice(0, n);
    expect(passed(jobWith(scans(2, { LR: twice(2) })))).toContain('scan');
    expect(passed(jobWith(scans(2, { LR: twice(1) })))).not.toContain('scan');
    const worked = registryWrite({ answer: 'yes', readBackAt: minute(12), readBack: idsHeld(ids.RR) });
    expect(passed(jobWith([], { carWrites: [worked] }))).toContain('write');
    expect(passed(jobWith([], { carWrites: [registryWrite({ answer: 'yes' })] }))).not.toContain('write');
  });

  it('each have their moves', () => {
    const finding: Finding = { code: 'tire-low', wheels: [], probability: 1, evidence: [], action: '' };
    const moves: Record<string, Move[]> = {
      placard: [{ kind: 'placard' }],
      gauge: [
        { kind: 'gauge', wheel: 'LF', again: false },
        { kind: 'fill', wheel: 'LF', addKPa: 9 },
      ],
      scan: [{ kind: 'wake', wheel: 'LF', tries: 0 }],
      car: [{ kind: 'read-car' }],
      follows: [
        { kind: 'act', finding },
        { kind: 'look', wheel: 'LF' },
        { kind: 'check', test: 'shift' },
      ],
      write: [
        { kind: 'write-ids' },
        { kind: 'read-back' },
        { kind: 'support-supply', how: 'connect a charger' },
      ],
      prove: [{ kind: 'clear-codes', tries: 0 }, { kind: 'drive', tries: 0 }, { kind: 'look-at-lamp' }],
      'hand-over': [{ kind: 'hand-over' }, { kind: 'done' }],
    };
    for (const [station, of] of Object.entries(moves))
      for (const one of of) expect(stationOf(one), one.kind).toBe(station);
  });

  it('send what was heard at a wheel, else what the car holds for it, else nothing', () => {
    expect(idsToWrite(jobWith([heard(1, 'LF'), registry(2, { RF: null })]))).toEqual([
      { wheel: 'LF', id: ids.LF, from: 'scan' },
      { wheel: 'RF', id: null, from: 'car' },
      { wheel: 'RR', id: ids.RR, from: 'car' },
      { wheel: 'LR', id: ids.LR, from: 'car' },
    ]);
  });
});
