import { describe, expect, it } from 'vitest';
import { limitClocks, replay, stepClock, timePasses, type RunEvent } from '.';
import type { Procedure } from '../procedure';
import { procedureSchema } from '../procedure/schema';
import { eventSchema } from './schema';
import { observedIn, relearnOf } from '../../job/seen-in-run';

const procedureOf = (more: object): Procedure =>
  procedureSchema.parse({
    format: 'hacienda.procedure/1',
    name: 'made-up',
    title: 'Made up',
    method: 'tool',
    proof: ['lamp'],
    ...more,
  });
const at = (t: number, event: string, more: object = {}): RunEvent =>
  eventSchema.parse({ t, event, ...more });
const runAt = (procedure: Procedure, events: RunEvent[], t: number) =>
  timePasses(procedure, replay(procedure, events), t);

describe('the clock of the open step', () => {
  const clockOf = (step: object, events: RunEvent[], t: number) => {
    const procedure = procedureOf({ finish: [step] });
    return stepClock(procedure, runAt(procedure, events, t));
  };

  it('runs for presses from the first of them, and for a hold from when it is held', () => {
    const press = { do: 'press', what: 'brake', times: 3, withinS: 10 };
    expect(clockOf(press, [], 4)).toBeUndefined();
    expect(clockOf(press, [at(2, 'press', { what: 'brake' })], 5)).toEqual({ elapsedS: 3, mostS: 10 });
    const hold = { do: 'hold', what: 'button', leastS: 4, mostS: 12 };
    expect(clockOf(hold, [], 4)).toBeUndefined();
    expect(clockOf(hold, [at(1, 'press', { what: 'button' })], 7)).toEqual({
      elapsedS: 6,
      leastS: 4,
      mostS: 12,
    });
  });

  it('runs for a wait and for a cue from when they opened, and for nothing that has no window', () => {
    expect(clockOf({ do: 'wait', s: 20 }, [], 5)).toEqual({ elapsedS: 5, leastS: 20 });
    expect(clockOf({ do: 'cue', means: 'finished', withinS: 9 }, [], 5)).toEqual({ elapsedS: 5, mostS: 9 });
    expect(clockOf({ do: 'cue', means: 'finished' }, [], 5)).toBeUndefined();
    expect(clockOf({ do: 'set', what: 'ignition', to: 'on' }, [], 5)).toBeUndefined();
  });

  it('counts of a drive only what was fast enough', () => {
    const drive = { do: 'drive', leastKmh: 40, leastS: 60 };
    const speeds = [at(10, 'speed', { kmh: 50 }), at(30, 'speed', { kmh: 20 })];
    expect(clockOf(drive, speeds, 90)).toEqual({ elapsedS: 20, leastS: 60 });
    expect(clockOf(drive, [...speeds, at(90, 'speed', { kmh: 40 })], 100)).toEqual({
      elapsedS: 30,
      leastS: 60,
    });
  });
});

it('what the car allows runs in its phase: to begin, for a wheel, in all', () => {
  const procedure = procedureOf({
    wheels: ['LF', 'RF'],
    before: ['engine-off'],
    enter: [{ do: 'press', what: 'brake' }],
    each: [{ do: 'magnet' }],
    limits: { enterS: 30, wheelS: 60, totalS: 300 },
  });
  const limits = (events: RunEvent[], t: number) =>
    Object.fromEntries(
      limitClocks(procedure, runAt(procedure, events, t)).map(({ limit, clock }) => [limit, clock.elapsedS]),
    );
  const ready = at(5, 'confirm', { what: 'engine-off' });
  const learning = [ready, at(10, 'press', { what: 'brake' })];
  expect(limits([], 4)).toEqual({});
  expect(limits([ready], 8)).toEqual({ enter: 3, total: 3 });
  expect(limits([...learning, at(20, 'taught', { wheel: 'LF' })], 32)).toEqual({ wheel: 12, total: 27 });
  expect(limits([...learning, at(20, 'stop')], 32)).toEqual({});
});

describe('what a run says of the car', () => {
  const at9 = '2026-03-02T09:00:00Z';

  it('is an observation of the job where a reading is one', () => {
    expect(observedIn({ event: 'heard', wheel: 'LF', ids: ['4B07C2D1'] }, at9)).toMatchObject({
      kind: 'activation',
      wheel: 'LF',
      replies: [{ id: '4B07C2D1' }],
    });
    expect(observedIn({ event: 'registry', entries: [{ wheel: 'LF', id: null }] }, at9)).toMatchObject({
      kind: 'registry',
      entries: [{ wheel: 'LF', id: null }],
    });
    expect(observedIn({ event: 'live', wheel: 'RR', kPa: 231 }, at9)).toMatchObject({
      kind: 'live',
      kPa: 231,
    });
    expect(observedIn({ event: 'lamp', state: 'steady' }, at9)).toMatchObject({ kind: 'lamp' });
    expect(observedIn({ event: 'lamp', state: 'purple' }, at9)).toBeUndefined();
    expect(observedIn({ event: 'press', what: 'brake' }, at9)).toBeUndefined();
  });

  it('is what it ended with: proved, failed and where, or not shown yet', () => {
    const procedure = procedureOf({ wheels: ['LF', 'RF'], each: [{ do: 'magnet' }], before: ['engine-off'] });
    const said = (...events: RunEvent[]) => relearnOf(procedure, replay(procedure, events), at9);
    const ready = at(1, 'confirm', { what: 'engine-off' });
    const taught = [ready, at(2, 'taught', { wheel: 'LF' }), at(3, 'taught', { wheel: 'RF' })];
    expect(said(ready)).toBeUndefined();
    expect(said(at(1, 'stop'))).toBeUndefined();
    expect(said(...taught, at(4, 'lamp', { state: 'off' }))).toMatchObject({
      method: 'tool',
      outcome: 'done',
    });
    expect(said(...taught, at(4, 'lamp', { state: 'steady' }))).toMatchObject({ outcome: 'failed' });
    expect(said(...taught, at(4, 'stop'))).toMatchObject({ outcome: 'waiting-for-drive' });
    expect(said(...taught.slice(0, 2), at(4, 'stop'))).toMatchObject({ outcome: 'failed', failedAt: 'RF' });
  });

  it('keeps why it ended, whatever is told afterwards', () => {
    const procedure = procedureOf({ finish: [{ do: 'cue', means: 'finished', withinS: 5 }] });
    const run = replay(procedure, [at(9, 'tick'), at(10, 'cue', { cue: 'horn 1' })]);
    expect(run).toMatchObject({ state: 'failed', because: ['no-cue'], notes: ['ended'] });
  });
});
