import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import type { Procedure } from '../procedure';
import { procedureSchema } from '../procedure/schema';
import { advance, begin, replay, type RunEvent } from '.';
import { eventSchema } from './schema';

/** A procedure of three wheels with the tool, made up; `more` replaces parts of it. */
const procedureOf = (more: object = {}): Procedure =>
  procedureSchema.parse({
    format: 'hacienda.procedure/1',
    name: 'made-up',
    title: 'With the tool',
    method: 'tool',
    wheels: ['LF', 'RF', 'SP'],
    optional: ['SP'],
    before: ['parking-brake'],
    enter: [{ do: 'press', what: 'hazards', times: 3, withinS: 10 }],
    each: [{ do: 'wake' }, { do: 'cue', means: 'accepted', withinS: 20 }],
    finish: [{ do: 'set', what: 'ignition', to: 'off' }],
    proof: ['registry'],
    cues: [
      { cue: 'Horn 1', during: 'each', means: 'accepted' },
      { cue: 'horn 2', during: 'each', means: 'refused' },
      { cue: 'horn 2', during: 'enter', means: 'entered' },
      { cue: 'horn 4', during: 'each', means: 'finished' },
      { cue: 'hazards 5', means: 'expired' },
    ],
    ...more,
  });

const at = (t: number, event: string, more: object = {}): RunEvent =>
  eventSchema.parse({ t, event, ...more });
const press = (t: number, what = 'hazards') => at(t, 'press', { what });
const heard = (t: number, wheel: string, ...ids: string[]) => at(t, 'heard', { wheel, ids });
const cue = (t: number, said: string) => at(t, 'cue', { cue: said });
const brake = at(0, 'confirm', { what: 'parking-brake' });
const entering = [brake, press(1), press(2), press(3)];
const ids = { LF: '4B07C2D1', RF: '4B07C2E9', SP: '4B07A07F' };
const registry = (t: number, held: Record<string, string | null>) =>
  at(t, 'registry', { entries: Object.entries(held).map(([wheel, id]) => ({ wheel, id })) });
const taught = [
  ...entering,
  heard(5, 'LF', ids.LF),
  cue(6, 'horn 1'),
  heard(15, 'RF', ids.RF),
  cue(16, 'horn 1'),
  heard(25, 'SP', ids.SP),
  cue(26, 'horn 1'),
];

/** Where the run stands, and all that was noted on the way. */
function runOf(procedure: Procedure, events: readonly RunEvent[]) {
  let run = begin(procedure);
  const notes: string[] = [];
  for (const event of events) {
    run = advance(procedure, run, event);
    notes.push(...run.notes);
  }
  return { ...run, all: notes, wheel: procedure.wheels[run.turn] };
}

describe('worked examples', () => {
  const folder = new URL('../../../../tests/procedures/', import.meta.url);
  const example = z.object({
    procedure: procedureSchema,
    events: z.array(eventSchema),
    expect: z.object({
      end: z.string(),
      notes: z.array(z.string()).optional(),
      wheel: z.string().optional(),
      wheels: z.array(z.string()).optional(),
    }),
  });
  it.each(readdirSync(folder))('%s', (name) => {
    const {
      procedure,
      events,
      expect: wanted,
    } = example.parse(JSON.parse(readFileSync(new URL(name, folder), 'utf8')));
    const run = runOf(procedure, events);
    expect(run.state).toBe(wanted.end);
    if (wanted.notes) expect(run.all).toEqual(wanted.notes);
    if (wanted.wheel) expect(run.endedAt).toBe(wanted.wheel);
    if (wanted.wheels) expect(run.differs).toEqual(wanted.wheels);
  });
});

describe('before and entering', () => {
  it('begins when all that must hold was confirmed, and takes nothing before', () => {
    expect(runOf(procedureOf(), [press(0)])).toMatchObject({ state: 'before', all: ['unexpected'] });
    expect(runOf(procedureOf(), [brake])).toMatchObject({ state: 'enter', step: 0 });
    expect(runOf(procedureOf(), [brake, at(1, 'confirm', { what: 'chocks' })]).all).toEqual(['unexpected']);
  });

  it('takes three presses within ten seconds, not three too slow', () => {
    expect(runOf(procedureOf(), entering).state).toBe('each');
    const slow = [brake, press(1), press(2), press(12)];
    expect(runOf(procedureOf(), slow)).toMatchObject({ state: 'enter', all: ['too-slow'] });
    expect(runOf(procedureOf(), [...slow, press(12)]).state).toBe('each');
  });

  it('takes presses exactly as far apart as is allowed, though tenths are not exact in binary', () => {
    expect(runOf(procedureOf(), [brake, press(5.3), press(6), press(15.3)])).toMatchObject({
      state: 'each',
      all: [],
    });
  });

  it('lets a hold be neither too short nor too long, and starts it over', () => {
    const hold = procedureOf({ enter: [{ do: 'hold', what: 'button', leastS: 4, mostS: 8 }] });
    const holding = (from: number, s: number) => [
      press(from, 'button'),
      at(from + s, 'release', { what: 'button' }),
    ];
    expect(runOf(hold, [brake, ...holding(1, 3.9)]).all).toEqual(['too-short']);
    expect(runOf(hold, [brake, ...holding(1, 8.1)]).all).toEqual(['too-long']);
    for (const s of [4, 8]) expect(runOf(hold, [brake, ...holding(1, s)]).state).toBe('each');
    expect(runOf(hold, [brake, ...holding(1, 2), ...holding(5, 5)])).toMatchObject({
      state: 'each',
      all: ['too-short'],
    });
  });

  it('waits, and says so to hands that do not', () => {
    const waiting = procedureOf({
      enter: [
        { do: 'wait', s: 5 },
        { do: 'set', what: 'ignition', to: 'on' },
      ],
    });
    const on = (t: number) => at(t, 'set', { what: 'ignition', to: 'on' });
    expect(runOf(waiting, [brake, on(3)])).toMatchObject({ state: 'enter', step: 0, all: ['early'] });
    expect(runOf(waiting, [brake, on(3), on(5)])).toMatchObject({ state: 'each', all: ['early'] });
  });

  it('is over when the ignition goes off where no step asks for it', () => {
    const off = at(4, 'set', { what: 'ignition', to: 'off' });
    expect(runOf(procedureOf(), [...entering, off]).state).toBe('stopped');
    const asked = procedureOf({ enter: [{ do: 'set', what: 'ignition', to: 'off' }] });
    expect(runOf(asked, [brake, off]).state).toBe('each');
  });

  it('chooses a menu by its whole path', () => {
    const menu = procedureOf({ enter: [{ do: 'menu', path: ['Settings', 'Tires', 'Learn'] }] });
    const chosen = (...path: string[]) => at(1, 'chosen', { path });
    expect(runOf(menu, [brake, chosen('Settings', 'Tires')]).all).toEqual(['unexpected']);
    expect(runOf(menu, [brake, chosen('Settings', 'Tires', 'Learn')]).state).toBe('each');
  });
});

describe('at the wheels', () => {
  it('one sensor, at its own wheel, heard nowhere else: anything else leaves the wheel open', () => {
    const run = (event: RunEvent) => runOf(procedureOf(), [...entering, event]);
    expect(run(heard(5, 'RF', ids.RF))).toMatchObject({ wheel: 'LF', step: 0, all: ['wrong-wheel'] });
    expect(run(heard(5, 'LF'))).toMatchObject({ wheel: 'LF', step: 0, all: ['silent'] });
    expect(run(heard(5, 'LF', ids.LF, ids.RF))).toMatchObject({ step: 0, all: ['cross-read'] });
    const again = runOf(procedureOf(), [
      ...entering,
      heard(5, 'LF', ids.LF),
      cue(6, 'horn 1'),
      heard(9, 'RF', '4b07 c2d1'),
    ]);
    expect(again).toMatchObject({ wheel: 'RF', step: 0, all: ['heard-before'] });
  });

  it('the same cue means by phase what the legend of the phase says, in any case of letters', () => {
    expect(runOf(procedureOf(), [brake, cue(1, 'HORN 2')])).toMatchObject({ state: 'each', all: [] });
    expect(runOf(procedureOf(), [...entering, cue(4, 'horn 2')])).toMatchObject({
      wheel: 'LF',
      all: ['refused'],
    });
    expect(runOf(procedureOf(), [...entering, cue(4, 'horn 9')]).all).toEqual(['unknown-cue']);
    expect(runOf(procedureOf(), [...entering, cue(4, 'hazards 5')])).toMatchObject({
      state: 'expired',
      endedAt: 'LF',
    });
  });

  it('accepted without having been heard is noted, and the wheel is done', () => {
    expect(runOf(procedureOf(), [...entering, cue(4, 'horn 1')])).toMatchObject({
      wheel: 'RF',
      all: ['not-heard'],
    });
  });

  it('refused starts the wheel over while its clock goes on', () => {
    const limited = procedureOf({ limits: { wheelS: 30 } });
    const refused = [...entering, heard(5, 'LF', ids.LF), cue(8, 'horn 2')];
    expect(runOf(limited, refused)).toMatchObject({ wheel: 'LF', step: 0, all: ['refused'] });
    expect(runOf(limited, [...refused, at(33, 'tick')]).state).toBe('each');
    expect(runOf(limited, [...refused, at(33.1, 'tick')])).toMatchObject({ state: 'expired', endedAt: 'LF' });
  });

  it('finished before the last wheel is noted; the proof decides', () => {
    const run = runOf(procedureOf(), [...entering, heard(5, 'LF', ids.LF), cue(6, 'horn 4')]);
    expect(run).toMatchObject({ state: 'finish', all: ['wheels-open'] });
  });

  it('only an optional wheel is skipped, and only in its turn', () => {
    const skip = (t: number, wheel: string) => at(t, 'skip', { wheel });
    expect(runOf(procedureOf(), [...entering, skip(4, 'SP')]).all).toEqual(['wrong-wheel']);
    expect(runOf(procedureOf(), [...entering, skip(4, 'LF')])).toMatchObject({
      wheel: 'LF',
      all: ['not-optional'],
    });
    expect(runOf(procedureOf(), [...taught.slice(0, -2), skip(20, 'SP')]).state).toBe('finish');
    expect(runOf(procedureOf(), [skip(0, 'LF')]).all).toEqual(['unexpected']);
  });

  it('air and magnet are told by hand', () => {
    const byAir = procedureOf({ each: [{ do: 'air' }], wheels: ['LF', 'RF'], optional: [] });
    const told = (t: number, wheel: string) => at(t, 'taught', { wheel });
    expect(runOf(byAir, [...entering, told(4, 'RF')])).toMatchObject({ wheel: 'LF', all: ['unexpected'] });
    expect(runOf(byAir, [...entering, told(4, 'LF'), told(9, 'RF')]).state).toBe('finish');
  });

  it('a cue that does not come in its time ends the run at that wheel', () => {
    const waiting = [...entering, heard(5, 'LF', ids.LF)];
    expect(runOf(procedureOf(), [...waiting, cue(25, 'horn 1')])).toMatchObject({ wheel: 'RF', all: [] });
    const late = runOf(procedureOf(), [...waiting, cue(25.1, 'horn 1')]);
    expect(late).toMatchObject({ state: 'failed', endedAt: 'LF', all: ['no-cue', 'ended'] });
  });

  it('limits pass when more than them has gone by, whichever comes first', () => {
    const limited = procedureOf({ limits: { enterS: 20, totalS: 40 } });
    expect(runOf(limited, [brake, at(20, 'tick')]).state).toBe('enter');
    expect(runOf(limited, [brake, at(21, 'tick')]).state).toBe('expired');
    expect(runOf(limited, [...entering, at(40, 'tick')]).state).toBe('each');
    expect(runOf(limited, [...entering, at(41, 'tick')]).state).toBe('expired');
    expect(runOf(limited, [at(500, 'tick'), { ...brake, t: 501 }]).state).toBe('enter');
  });

  it('the limit of the whole holds until the proof, in finish too', () => {
    const open = procedureOf({
      wheels: [],
      each: [],
      finish: [{ do: 'set', what: 'ignition', to: 'on' }],
      limits: { totalS: 40 },
    });
    const begun = runOf(open, [...entering, at(40, 'tick')]);
    expect(begun.state).toBe('finish');
    expect(runOf(open, [...entering, at(41, 'tick')]).state).toBe('expired');
    const proving = [...entering, at(39, 'set', { what: 'ignition', to: 'on' }), at(90, 'tick')];
    expect(runOf(open, proving).state).toBe('prove');
  });
});

describe('on the road', () => {
  const driving = (unbroken: boolean) =>
    procedureOf({
      method: 'drive',
      wheels: [],
      optional: [],
      enter: [],
      each: [],
      finish: [{ do: 'drive', leastKmh: 40, leastS: 60, unbroken }],
      proof: ['lamp'],
    });
  const speed = (t: number, kmh: number) => at(t, 'speed', { kmh });

  it('each sample holds until the next, and only what is fast enough counts', () => {
    const run = (...events: RunEvent[]) => runOf(driving(false), [brake, ...events]).state;
    expect(run(speed(10, 50), at(69, 'tick'))).toBe('finish');
    expect(run(speed(10, 50), at(70, 'tick'))).toBe('prove');
    expect(run(speed(10, 50), speed(40, 20), speed(100, 40), at(129, 'tick'))).toBe('finish');
    expect(run(speed(10, 50), speed(40, 20), speed(100, 40), at(130, 'tick'))).toBe('prove');
  });

  it('in one piece where that is asked', () => {
    const run = (...events: RunEvent[]) => runOf(driving(true), [brake, ...events]).state;
    expect(run(speed(10, 50), speed(40, 20), speed(100, 40), at(130, 'tick'))).toBe('finish');
    expect(run(speed(10, 50), speed(40, 60), at(70, 'tick'))).toBe('prove');
  });
});

describe('the proof', () => {
  const off = at(30, 'set', { what: 'ignition', to: 'off' });

  it('is what the car holds, wheel by wheel, after the last step', () => {
    expect(runOf(procedureOf(), [...taught, registry(28, ids)]).all).toEqual(['unexpected']);
    expect(runOf(procedureOf(), [...taught, off, registry(40, { ...ids, LF: '4b 07-c2d1' })]).state).toBe(
      'done',
    );
    const wrong = runOf(procedureOf(), [...taught, off, registry(40, { ...ids, RF: ids.LF, SP: null })]);
    expect(wrong).toMatchObject({ state: 'failed', all: ['differs'], differs: ['RF', 'SP'] });
  });

  it('leaves out what was skipped on purpose', () => {
    const skipped = [...taught.slice(0, -2), at(20, 'skip', { wheel: 'SP' }), off];
    expect(runOf(procedureOf(), [...skipped, registry(40, { LF: ids.LF, RF: ids.RF })]).state).toBe('done');
  });

  it('is nothing where nothing was heard and nothing was expected', () => {
    const blind = procedureOf({ wheels: [], optional: [], each: [] });
    expect(runOf(blind, [...entering, off, registry(40, ids)])).toMatchObject({
      state: 'prove',
      all: ['not-known'],
    });
    const expected = [at(0, 'expect', { ids: { LF: ids.LF } }), ...entering, off];
    expect(runOf(blind, [...expected, registry(40, { LF: ids.LF })]).state).toBe('done');
    expect(runOf(blind, [...expected, registry(40, { LF: ids.RF })]).differs).toEqual(['LF']);
  });

  it('neither proves nor fails where the car holds an ID and nobody knows which it should be', () => {
    const accepted = procedureOf({ each: [{ do: 'cue', means: 'accepted' }], optional: [] });
    const chirps = [5, 15, 25].map((t) => cue(t, 'horn 1'));
    const begun = [...entering, ...chirps, off, at(35, 'expect', { ids: { LF: ids.LF } })];
    const read = [...begun, registry(40, ids)];
    expect(runOf(accepted, read)).toMatchObject({
      state: 'prove',
      notKnown: ['RF', 'SP'],
      all: ['not-known'],
    });
    // Said meanwhile, and read again.
    const told = [...read, at(45, 'expect', { ids: { RF: ids.RF, SP: ids.SP } })];
    expect(runOf(accepted, told)).toMatchObject({ state: 'prove', notKnown: [] });
    expect(runOf(accepted, [...told, registry(50, ids)])).toMatchObject({ state: 'done', notKnown: [] });
    // What is known and differs fails all the same, and so does a wheel at which the car holds none.
    expect(runOf(accepted, [...begun, registry(40, { ...ids, LF: ids.RF })])).toMatchObject({
      state: 'failed',
      differs: ['LF'],
      all: ['differs'],
    });
    expect(runOf(accepted, [...begun, registry(40, { ...ids, SP: null })]).differs).toEqual(['SP']);
  });

  it('takes all that is asked for: a lamp that is off, and figures of every wheel', () => {
    const all = procedureOf({ proof: ['registry', 'lamp', 'live'], wheels: ['LF', 'RF'], optional: [] });
    const begun = [...taught.slice(0, 8), off, registry(40, ids), at(41, 'lamp', { state: 'off' })];
    const live = (t: number, wheel: string, kPa: number | null) => at(t, 'live', { wheel, kPa });
    expect(runOf(all, begun).state).toBe('prove');
    expect(runOf(all, [...begun, live(50, 'LF', 230), live(51, 'RF', null)]).state).toBe('prove');
    expect(runOf(all, [...begun, live(50, 'LF', 230), live(52, 'RF', 228)]).state).toBe('done');
    const lit = [...begun.slice(0, -1), at(41, 'lamp', { state: 'steady' })];
    expect(runOf(all, lit)).toMatchObject({ state: 'failed', all: ['lamp-on'] });
  });

  it('given up is unproved, and after the end nothing counts', () => {
    const stopped = runOf(procedureOf(), [...taught, off, at(40, 'stop'), registry(41, ids)]);
    expect(stopped).toMatchObject({ state: 'unproved', all: ['ended'] });
    expect(runOf(procedureOf(), [...entering, at(9, 'stop')]).state).toBe('stopped');
  });

  it('is all that a write whose answer was lost has', () => {
    const write = procedureOf({
      method: 'write',
      each: [{ do: 'wake' }],
      enter: [],
      finish: [{ do: 'write' }],
      wheels: ['LF'],
      optional: [],
    });
    const asked = [brake, heard(5, 'LF', ids.LF)];
    const answer = (said: string) => at(9, 'answer', { answer: said });
    expect(runOf(write, [...asked, answer('no')])).toMatchObject({
      state: 'failed',
      all: ['refused-by-car'],
    });
    expect(runOf(write, [...asked, answer('lost')])).toMatchObject({ state: 'prove', all: ['answer-lost'] });
    expect(replay(write, [...asked, answer('lost'), registry(12, ids)]).state).toBe('done');
  });
});

describe('a slip', () => {
  const back = (t: number, instead?: object) => at(t, 'back', { ...(instead && { instead }) });
  const misheard = [...taught.slice(0, 7), cue(16, 'hazards 5')];

  it('is taken back, after an end too, and the run goes on as if it had not been', () => {
    expect(runOf(procedureOf(), misheard).state).toBe('expired');
    expect(runOf(procedureOf(), [...misheard, back(20)])).toMatchObject({
      state: 'each',
      wheel: 'RF',
      step: 1,
      endedAt: undefined,
      all: ['back'],
    });
  });

  it('is put right at its own time, with what that notes', () => {
    const right = [...misheard, back(20, { event: 'cue', cue: 'horn 1' })];
    expect(runOf(procedureOf(), right)).toMatchObject({ state: 'each', wheel: 'SP', all: ['back'] });
    expect(runOf(procedureOf(), right).since.wheel).toBe(16);
    const refused = [...misheard, back(20, { event: 'cue', cue: 'horn 2' })];
    expect(runOf(procedureOf(), refused)).toMatchObject({ wheel: 'RF', step: 0, all: ['back', 'refused'] });
  });

  it('leaves what falls due meanwhile due: the cue that was missed is missed', () => {
    const missed = [...taught.slice(0, 7), at(17, 'press', { what: 'brake' }), back(44)];
    expect(runOf(procedureOf(), missed)).toMatchObject({
      state: 'failed',
      endedAt: 'RF',
      all: ['unexpected', 'back', 'no-cue'],
    });
  });

  it('can be taken back for half a minute, one act after another, and no more once nothing is left', () => {
    expect(runOf(procedureOf(), [...misheard, back(46)]).state).toBe('failed');
    expect(runOf(procedureOf(), [...misheard, back(46.1)])).toMatchObject({
      state: 'expired',
      all: ['too-late'],
    });
    expect(runOf(procedureOf(), [brake, back(1), back(2)])).toMatchObject({
      state: 'before',
      confirmed: [],
      all: ['back', 'too-late'],
    });
  });

  it('of a drive keeps the speeds that were read since', () => {
    const drive = procedureOf({ wheels: [], each: [], finish: [{ do: 'drive', leastKmh: 40, leastS: 60 }] });
    const driven = [
      ...entering,
      at(10, 'speed', { kmh: 60 }),
      cue(20, 'hazards 5'),
      at(25, 'speed', { kmh: 0 }),
    ];
    expect(runOf(drive, driven).state).toBe('expired');
    expect(runOf(drive, [...driven, back(30)])).toMatchObject({ state: 'finish', open: { droveS: 15 } });
  });
});

describe('a cue told twice within two seconds', () => {
  it('counts once, whatever phase the first led to, and not a moment longer', () => {
    const first = taught.slice(0, 6);
    expect(runOf(procedureOf(), [...first, cue(8, 'HORN  1')])).toMatchObject({
      wheel: 'RF',
      all: ['twice'],
    });
    expect(runOf(procedureOf(), [...first, cue(8.1, 'horn 1')])).toMatchObject({
      wheel: 'SP',
      all: ['not-heard'],
    });
    expect(runOf(procedureOf(), [...taught, cue(27, 'horn 1')]).all).toEqual(['twice']);
    // What meant nothing did not count, so it is no first.
    expect(runOf(procedureOf(), [...taught, cue(27, 'horn 9'), cue(28, 'horn 9')]).all).toEqual([
      'unknown-cue',
      'unknown-cue',
    ]);
  });

  it('that refuses a wheel forgets what was heard there', () => {
    const again = [...taught.slice(0, 5), cue(6, 'horn 2')];
    expect(runOf(procedureOf(), again)).toMatchObject({ heard: {}, step: 0, all: ['refused'] });
  });
});
