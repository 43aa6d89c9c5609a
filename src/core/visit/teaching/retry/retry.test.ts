import { describe, expect, it } from 'vitest';
import { retryOf, whatItMustBe } from '.';
import type { Procedure } from '../../../relearn/procedure';
import { problemsOf } from '../../../relearn/procedure/problems';
import { procedureSchema } from '../../../relearn/procedure/schema';
import { replay, type RunEvent } from '../../../relearn/run';
import { eventSchema } from '../../../relearn/run/schema';

const procedure = procedureSchema.parse({
  format: 'hacienda.procedure/1',
  name: 'made-up',
  title: 'Made up',
  method: 'magnet',
  wheels: ['LF'],
  each: [{ do: 'magnet' }],
  proof: ['registry', 'lamp'],
});
const at = (t: number, event: string, more: object = {}): RunEvent =>
  eventSchema.parse({ t, event, ...more });
const taught = [at(0, 'expect', { ids: { LF: '4B07C2D1' } }), at(1, 'taught', { wheel: 'LF' })];
const holds = (t: number, id: string) => at(t, 'registry', { entries: [{ wheel: 'LF', id }] });
const endOf = (of: Procedure, ...events: RunEvent[]) => replay(of, events);

describe('still flagged', () => {
  const lit = endOf(procedure, ...taught, holds(2, '4B07C2D1'), at(3, 'lamp', { state: 'steady' }));

  it('first a minute and the ignition, then five minutes and a drive, by the same proof; then it is something else', () => {
    const first = retryOf(procedure, lit);
    expect(first).toMatchObject({ proof: ['registry', 'lamp'], method: 'magnet', wheels: ['LF'] });
    // Up to a minute; the ignition off long enough for the receiver to sleep (common practice).
    expect(first?.finish).toEqual([
      { do: 'wait', s: 60 },
      { do: 'set', what: 'ignition', to: 'off' },
      { do: 'wait', s: 20 },
      { do: 'set', what: 'ignition', to: 'on' },
    ]);
    const second = first && retryOf(first, lit);
    expect(second?.finish[0]).toEqual({ do: 'wait', s: 300 });
    expect(second?.finish.at(-1)).toMatchObject({ do: 'drive' });
    expect(second && retryOf(second, lit)).toBeUndefined();
    expect(whatItMustBe(lit).join(' ')).toMatch(/read the codes/i);
  });

  it('is a procedure that makes sense, and is run like any other', () => {
    const first = retryOf(procedure, lit);
    if (!first) throw new Error('there is a first retry');
    // It is the end of another, and no file: the wheels were taught before it, and it says how often it was tried.
    expect(problemsOf(procedureSchema.parse(first), new Date()).map(({ path }) => path)).toEqual([
      'retry',
      'wheels',
      'method',
    ]);
    const events = [
      at(0, 'expect', { ids: { LF: '4B07C2D1' } }),
      at(60, 'set', { what: 'ignition', to: 'off' }),
      at(80, 'set', { what: 'ignition', to: 'on' }),
      holds(90, '4B07C2D1'),
      at(95, 'lamp', { state: 'off' }),
    ];
    expect(replay(first, events).state).toBe('done');
  });

  it('is for a car that was taught to the end: not for one that gave up at a wheel, nor for one that was proved', () => {
    const stopped = endOf(procedure, at(1, 'stop'));
    const done = endOf(procedure, ...taught, holds(2, '4B07C2D1'), at(3, 'lamp', { state: 'off' }));
    const other = endOf(procedure, ...taught, holds(2, '4B07C2D7'));
    const putOff = endOf(procedure, ...taught, at(2, 'stop'));
    expect(retryOf(procedure, stopped)).toBeUndefined();
    expect(retryOf(procedure, done)).toBeUndefined();
    expect(retryOf(procedure, other)).toBeDefined();
    expect(retryOf(procedure, putOff)).toBeDefined();
    expect(whatItMustBe(other)[0]).toMatch(/LF/);
  });
});
