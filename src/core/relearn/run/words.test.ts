import { describe, expect, it } from 'vitest';
import { procedureSchema } from '../procedure/schema';
import { lastAct, replay } from '.';
import { eventSchema, seenOrDoneSchema } from './schema';
import { endedWords, eventWords } from './words';

const procedure = procedureSchema.parse({
  format: 'hacienda.procedure/1',
  name: 'made-up',
  title: 'Made up',
  method: 'tool',
  wheels: ['LF', 'RF'],
  each: [{ do: 'wake' }, { do: 'cue', means: 'accepted' }],
  proof: ['registry'],
  cues: [
    { cue: 'horn 1', during: 'each', means: 'accepted' },
    { cue: 'horn 2', means: 'failed' },
  ],
});
const runOf = (...events: object[]) =>
  replay(
    procedure,
    events.map((event, n) => eventSchema.parse({ t: n * 5, ...event })),
  );
const cue = (said: string, more: object = {}) => ({ event: 'cue', cue: said, ...more });
const heard = { event: 'heard', wheel: 'LF', ids: ['4B07C2D1'] };

describe('what was told, in words', () => {
  it('stands beside the way to take it back', () => {
    const words = (event: object) => eventWords(seenOrDoneSchema.parse(event));
    expect(words(cue('horn 2'))).toBe('horn twice');
    expect(words(heard)).toBe('4B07 C2D1 heard at LF');
    expect(words({ ...heard, ids: [] })).toBe('nothing answered at LF');
    expect(words({ event: 'set', what: 'ignition', to: 'on' })).toBe('Ignition on');
    expect(words({ event: 'release', what: 'mirror-switch' })).toBe('Mirror switch let go');
    expect(words({ event: 'answer', answer: 'lost' })).toBe('no answer came');
    expect(words({ event: 'skip', wheel: 'RF' })).toBe('RF left out');
  });

  it('names the cue that ended a run, when, and at which wheel; time that ran out told nobody', () => {
    expect(endedWords(runOf(heard, cue('horn 1'), cue('Horn 2')))).toBe(
      'Told after 10 s at RF: Horn twice: the car gave up.',
    );
    expect(endedWords(runOf(heard))).toBeUndefined();
    expect(endedWords(runOf(heard, { event: 'stop' }))).toBeUndefined();
  });
});

describe('the last act', () => {
  it('is what can be taken back now, with the run as it stood before: not a speed, not what is expected', () => {
    const run = runOf(heard, cue('horn 1'), { event: 'speed', kmh: 3 }, { event: 'expect', ids: {} });
    expect(lastAct(run)).toMatchObject({
      event: { event: 'cue', t: 5 },
      before: { turn: 0, step: 1 },
    });
    const later = runOf(heard, { event: 'tick', t: 31 });
    expect(lastAct(later)).toBeUndefined();
  });
});
