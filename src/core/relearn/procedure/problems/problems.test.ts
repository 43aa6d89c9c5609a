import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { problemsOf, readProcedure } from '.';
import { procedureSchema } from '../schema';

const now = new Date('2026-03-02T12:00:00Z');
const sound = {
  format: 'hacienda.procedure/1',
  name: 'made-up',
  title: 'Made up',
  method: 'tool',
  proof: ['lamp'],
  cues: [
    { cue: 'horn 1', during: 'each', means: 'accepted' },
    { cue: 'horn 2', during: 'each', means: 'failed' },
  ],
};
const wake = { do: 'wake' };
const taught = { wheels: ['LF', 'RF'], each: [wake] };
const problems = (more: object) => problemsOf(procedureSchema.parse({ ...sound, ...more }), now);
const paths = (more: object) => problems(more).map(({ path }) => path);

describe('a procedure that makes sense', () => {
  it('is taken as it is', () => {
    expect(paths({})).toEqual([]);
    expect(paths({ ...taught, optional: ['RF'], checkedAt: '2026-03-02' })).toEqual([]);
    // A day that has begun somewhere on earth lies ahead for nobody; times as long as their limits fit.
    expect(paths({ checkedAt: '2026-03-03' })).toEqual([]);
    expect(
      paths({ limits: { enterS: 60, totalS: 60 }, enter: [{ do: 'press', what: 'brake', withinS: 60 }] }),
    ).toEqual([]);
    expect(paths({ cues: [...sound.cues, { cue: 'horn 1', during: 'enter', means: 'entered' }] })).toEqual(
      [],
    );
  });

  it('is each one of the demo', () => {
    const library = JSON.parse(
      readFileSync(new URL('../../../../../demo/procedures.json', import.meta.url), 'utf8'),
    ) as unknown[];
    expect(library.length).toBeGreaterThan(5);
    for (const document of library) expect(readProcedure(document, new Date())).toMatchObject({ ok: true });
  });
});

describe('a procedure that makes no sense', () => {
  const press = { do: 'press', what: 'brake', withinS: 90 };
  const hold = { do: 'hold', what: 'button', leastS: 90 };
  it.each<[string, object, string[]]>([
    ['a wheel twice', { ...taught, wheels: ['LF', 'LF'] }, ['wheels.1']],
    ['an optional wheel that is not taught', { ...taught, optional: ['SP'] }, ['optional.0']],
    ['all wheels optional', { ...taught, optional: ['LF', 'RF'] }, ['optional']],
    ['steps at no wheel', { each: [wake] }, ['each']],
    ['wheels without a step', { wheels: ['LF'] }, ['wheels']],
    ['a sensor woken at no wheel', { enter: [wake] }, ['enter.0.do']],
    ['nothing that proves it', { proof: [] }, ['proof']],
    [
      'its last year before its first',
      { for: { profiles: ['a'], fromYear: 2020, toYear: 2019 } },
      ['for.fromYear'],
    ],
    [
      'a least above the most',
      { enter: [{ do: 'hold', what: 'b', leastS: 5, mostS: 4 }] },
      ['enter.0.leastS'],
    ],
    [
      'a cue that is waited for and never comes',
      { finish: [{ do: 'cue', means: 'finished' }] },
      ['finish.0.means'],
    ],
    ['a cue of another phase', { ...taught, enter: [{ do: 'cue', means: 'accepted' }] }, ['enter.0.means']],
    ['waiting for a failure', { ...taught, each: [{ do: 'cue', means: 'failed' }] }, ['each.0.means']],
    ['a cue with two meanings', { cues: [...sound.cues, { cue: 'Horn  1', means: 'finished' }] }, ['cues.2']],
    [
      'a cue twice with one',
      { cues: [...sound.cues, { cue: 'HORN 2', during: 'each', means: 'failed' }] },
      ['cues.2'],
    ],
    ['a window longer than its limit', { limits: { enterS: 60 }, enter: [press] }, ['enter.0.withinS']],
    [
      'a window at a wheel longer than its limit',
      { ...taught, limits: { wheelS: 60 }, each: [{ do: 'cue', means: 'accepted', withinS: 61 }] },
      ['each.0.withinS'],
    ],
    [
      'a wait longer than its limit',
      { limits: { totalS: 60 }, finish: [{ do: 'wait', s: 61 }] },
      ['finish.0.s'],
    ],
    ['a hold longer than its limit', { limits: { enterS: 60 }, enter: [hold] }, ['enter.0.leastS']],
    [
      'a drive longer than its limit',
      { limits: { totalS: 300 }, finish: [{ do: 'drive', leastKmh: 40, leastS: 600 }] },
      ['finish.0.leastS'],
    ],
    ['a limit of nothing', { limits: { wheelS: 0 } }, ['limits.wheelS']],
    ['a window of nothing', { enter: [{ ...press, withinS: 0 }] }, ['enter.0.withinS']],
    ['air without air', { ...taught, method: 'air' }, ['method']],
    ['a magnet without one', { ...taught, method: 'magnet' }, ['method']],
    ['a write that writes nothing', { method: 'write' }, ['method']],
    ['a drive that stands', { method: 'drive' }, ['method']],
    ['a reset that wakes sensors', { ...taught, method: 'reset' }, ['each.0.do']],
    ['a day that is none', { checkedAt: '2026-02-30' }, ['checkedAt']],
    ['a word for a day', { checkedAt: 'last spring' }, ['checkedAt']],
    ['a day that lies ahead', { checkedAt: '2026-03-04' }, ['checkedAt']],
  ])('%s', (_, more, wanted) => {
    expect(paths(more)).toEqual(wanted);
  });

  it.each([
    { do: 'set', what: 'tire-pressure-monitoring', to: 'off' },
    { do: 'set', what: 'monitoring', to: 'disabled' },
    { do: 'set', what: 'TPMS', to: 'No' },
    { do: 'press', what: 'monitoring-off' },
    { do: 'menu', path: ['Vehicle', 'Tire pressure', 'Off'] },
    { do: 'menu', path: ['Tires', 'Warnings', 'Deactivate'] },
  ])('$what$path: it switches the monitoring off', (step) => {
    expect(paths({ enter: [step] })).toEqual(['enter.0']);
    expect(readProcedure({ ...sound, enter: [step] }, now).ok).toBe(false);
  });

  it.each([
    { do: 'set', what: 'ignition', to: 'off' },
    { do: 'set', what: 'hazard-warning', to: 'off' },
    { do: 'set', what: 'headlamps', to: 'off' },
    { do: 'menu', path: ['Tires', 'Store pressures'] },
    { do: 'hold', what: 'pressure-set-button' },
  ])('$what$path switches off nothing that watches over the tires', (step) => {
    expect(paths({ enter: [step] })).toEqual([]);
  });

  it('says of a key it does not have which one is nearest, at every level', () => {
    const slips = {
      ...taught,
      wheel: ['LF'],
      for: { profiles: ['a'], formYear: 2016 },
      limits: { wheels: 60 },
      each: [{ do: 'press', what: 'brake', withins: 5 }],
      cues: [{ cue: 'horn 1', meaning: 'accepted', means: 'accepted' }],
    };
    expect(problems(slips)).toEqual([
      { path: 'wheel', message: 'there is no such key here: did you mean wheels?' },
      { path: 'for.formYear', message: 'there is no such key here: did you mean fromYear?' },
      { path: 'limits.wheels', message: 'there is no such key here: did you mean wheelS?' },
      { path: 'each.0.withins', message: 'there is no such key here: did you mean withinS?' },
      { path: 'cues.0.meaning', message: 'there is no such key here: did you mean means?' },
    ]);
  });

  it('is told in our own words alone, and never throws', () => {
    const ours = (document: unknown) => {
      const read = readProcedure(document, now);
      if (read.ok) return;
      expect(read.issues.length).toBeGreaterThan(0);
      for (const { message } of read.issues) expect(message).not.toMatch(/^(Invalid|Too|Unrecognized)/);
    };
    fc.assert(fc.property(fc.anything(), ours));
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(procedureSchema.shape)), fc.anything(), (key, value) =>
        ours({ ...sound, [key]: value }),
      ),
      { numRuns: 2000 },
    );
  });
});
