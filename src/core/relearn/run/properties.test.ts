import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { walkingOrder } from '../../names/wheel';
import type { Procedure } from '../procedure';
import { procedureSchema } from '../procedure/schema';
import {
  advance,
  begin,
  hasEnded,
  openProof,
  replay,
  runNotes,
  runStates,
  timePasses,
  type Run,
  type RunEvent,
} from '.';
import { eventSchema } from './schema';

const whole = (least: number, most: number) => fc.integer({ min: least, max: most });
const what = fc.constantFrom('ignition', 'hazards', 'brake', 'button');
const to = fc.constantFrom('on', 'off');
const wheel = fc.constantFrom(...walkingOrder);
const id = fc.constantFrom('4B07C2D1', '4B07C2E9', '4b07 bb10', '4B07A07F', '90FFE0A1');
const cueName = fc.constantFrom('horn 1', 'horn 2', 'HORN 3', 'lamp off');
const means = fc.constantFrom('entered', 'accepted', 'refused', 'finished', 'failed', 'expired');
const optional = <Value>(arbitrary: fc.Arbitrary<Value>) => fc.option(arbitrary, { nil: undefined });

const step = fc.oneof(
  fc.record({ do: fc.constant('set'), what, to }),
  fc.record({ do: fc.constant('press'), what, times: whole(1, 3), withinS: optional(whole(0, 12)) }),
  fc.record({ do: fc.constant('hold'), what, leastS: whole(0, 6), mostS: optional(whole(6, 20)) }),
  fc.record({ do: fc.constant('menu'), path: fc.constant(['Tires', 'Learn']) }),
  fc.record({ do: fc.constant('wait'), s: whole(0, 20) }),
  fc.record({ do: fc.constant('cue'), means, withinS: optional(whole(0, 30)) }),
  fc.record({
    do: fc.constant('drive'),
    leastKmh: whole(0, 60),
    leastS: whole(0, 60),
    unbroken: fc.boolean(),
  }),
  fc.record({ do: fc.constant('write') }),
);
const atWheel = fc.record({ do: fc.constantFrom('wake', 'air', 'magnet') });
const limit = optional(whole(0, 120));

const procedure: fc.Arbitrary<Procedure> = fc
  .record({
    wheels: fc.uniqueArray(wheel, { maxLength: 5 }),
    before: fc.uniqueArray(fc.constantFrom('parking-brake', 'engine-off'), { maxLength: 2 }),
    enter: fc.array(step, { maxLength: 4 }),
    each: fc.array(fc.oneof(step, atWheel), { maxLength: 3 }),
    finish: fc.array(step, { maxLength: 3 }),
    proof: fc.uniqueArray(fc.constantFrom('registry', 'lamp', 'live'), { minLength: 1, maxLength: 3 }),
    limits: fc.record({ enterS: limit, wheelS: limit, totalS: limit }),
    cues: fc.array(
      fc.record({ cue: cueName, during: optional(fc.constantFrom('enter', 'each', 'finish')), means }),
      { maxLength: 6 },
    ),
  })
  .map((parts) =>
    procedureSchema.parse({
      format: 'hacienda.procedure/1',
      name: 'any',
      title: 'Any',
      method: 'tool',
      optional: parts.wheels.slice(0, 1),
      ...parts,
    }),
  );

const act = fc.oneof(
  fc.record({ event: fc.constant('expect'), ids: fc.dictionary(wheel, id) }),
  fc.record({
    event: fc.constant('confirm'),
    what: fc.constantFrom('parking-brake', 'engine-off', 'chocks'),
  }),
  fc.record({ event: fc.constant('set'), what, to }),
  fc.record({ event: fc.constantFrom('press', 'release'), what }),
  fc.record({ event: fc.constant('chosen'), path: fc.constantFrom(['Tires', 'Learn'], ['Tires'], []) }),
  fc.record({ event: fc.constant('cue'), cue: cueName }),
  fc.record({ event: fc.constant('heard'), wheel, ids: fc.array(id, { maxLength: 2 }) }),
  fc.record({ event: fc.constantFrom('taught', 'skip'), wheel }),
  fc.record({ event: fc.constant('speed'), kmh: whole(0, 120) }),
  fc.record({ event: fc.constant('answer'), answer: fc.constantFrom('yes', 'no', 'lost') }),
  fc.record({
    event: fc.constant('registry'),
    entries: fc.array(fc.record({ wheel, id: fc.option(id) }), { maxLength: 5 }),
  }),
  fc.record({ event: fc.constant('lamp'), state: fc.constantFrom('off', 'off', 'steady') }),
  fc.record({ event: fc.constant('live'), wheel, kPa: fc.option(whole(0, 400)) }),
  fc.record({ event: fc.constantFrom('tick', 'stop') }),
);
const said = fc.oneof(
  { weight: 9, arbitrary: act },
  { weight: 1, arbitrary: fc.record({ event: fc.constant('back'), instead: optional(act) }) },
);

/** Events in the order of their times, in tenths of a second. */
const events: fc.Arbitrary<RunEvent[]> = fc
  .array(fc.tuple(whole(0, 150), said), { maxLength: 40 })
  .map((list) => {
    let t = 0;
    return list.map(([tenths, event]) => eventSchema.parse({ ...event, t: (t += tenths) / 10 }));
  });

/** Events that lead somewhere: what the open step asks for, mostly, and now and then anything. */
function guided(any: Procedure, wild: readonly RunEvent[], choices: readonly number[]): RunEvent[] {
  const list: RunEvent[] = [];
  let run = begin(any);
  let t = 0;
  const add = (event: object) => {
    const next = eventSchema.parse({ t: (t += 1), ...event });
    list.push(next);
    run = advance(any, run, next);
  };
  choices.forEach((choice, n) => {
    const some = wild[n];
    if (choice === 0 && some) return add({ ...some, t: t + 1 });
    const open =
      run.state === 'enter' || run.state === 'each' || run.state === 'finish'
        ? any[run.state][run.step]
        : undefined;
    const here = any.wheels[run.turn];
    if (run.state === 'before')
      for (const condition of any.before) add({ event: 'confirm', what: condition });
    else if (run.state === 'prove') {
      add({ event: 'registry', entries: any.wheels.map((w) => ({ wheel: w, id: run.heard[w] ?? null })) });
      add({ event: 'lamp', state: 'off' });
      for (const w of any.wheels) add({ event: 'live', wheel: w, kPa: 230 });
    } else if (open?.do === 'wake') add({ event: 'heard', wheel: here, ids: [`4B07C2D${run.turn}`] });
    else if (open?.do === 'air' || open?.do === 'magnet') add({ event: 'taught', wheel: here });
    else if (open?.do === 'set') add({ event: 'set', what: open.what, to: open.to });
    else if (open?.do === 'press' || open?.do === 'hold')
      add({ event: choice % 2 ? 'press' : 'release', what: open.what });
    else if (open?.do === 'menu') add({ event: 'chosen', path: open.path });
    else if (open?.do === 'write') add({ event: 'answer', answer: 'yes' });
    else if (open?.do === 'drive') add({ event: 'speed', kmh: 90 });
    else add({ event: 'tick', t: (t += 10) });
  });
  return list;
}

const walked = fc
  .tuple(procedure, events, fc.array(whole(0, 9), { minLength: 10, maxLength: 60 }))
  .map(([any, wild, choices]) => [any, guided(any, wild, choices)] as const);
const anyRun = fc.oneof(fc.tuple(procedure, events), walked);
const runs = { numRuns: 500 };

/** What counts of what was told, the last first. */
const counted = ({ last }: Run): RunEvent[] => (last ? [last.event, ...counted(last.before)] : []);
/** Where a run stands, whatever it noted last and by which steps time went. */
const standing = (run: Run) => ({ ...run, notes: [], last: counted(run) });

describe('whatever happens at the car', () => {
  it('a run has a state, and nothing throws', () => {
    fc.assert(
      fc.property(anyRun, ([any, list]) => {
        let run = begin(any);
        for (const event of list) {
          run = advance(any, run, event);
          expect(runStates).toContain(run.state);
          for (const note of run.notes) expect(runNotes).toContain(note);
        }
      }),
      runs,
    );
  });

  it('no way leads to done but the whole proof, read after the last step', () => {
    let done = 0;
    fc.assert(
      fc.property(anyRun, ([any, list]) => {
        let run = begin(any);
        for (const event of list) {
          const before = run;
          run = advance(any, run, event);
          if (run.state !== 'done' || before.state === 'done') continue;
          done += 1;
          // Time alone, hands and cues never end it well: what was read does, be it read again.
          expect(['registry', 'lamp', 'live', 'back']).toContain(event.event);
          expect(openProof(any, run)).toEqual([]);
          if (!any.proof.includes('registry')) continue;
          const read = counted(run).find((other) => other.event === 'registry');
          const held = read?.event === 'registry' ? read.entries : [];
          for (const wanted of any.wheels.filter((other) => !run.skipped.includes(other)))
            expect(held.find((entry) => entry.wheel === wanted)?.id).toBeTruthy();
        }
      }),
      { numRuns: 1500 },
    );
    // The check is about something: such runs were among them.
    expect(done).toBeGreaterThan(20);
  });

  it('time that goes by in many steps is the same as in one', () => {
    fc.assert(
      fc.property(anyRun, fc.array(whole(1, 99), { maxLength: 3 }), ([any, list], parts) => {
        let once = begin(any);
        let often = begin(any);
        let last = 0;
        for (const event of list) {
          for (const part of [...parts].sort((a, b) => a - b)) {
            const t = last + ((event.t - last) * part) / 100;
            if (!hasEnded(often)) often = advance(any, often, { t, event: 'tick' });
          }
          once = advance(any, once, event);
          often = advance(any, often, event);
          last = event.t;
          expect(standing(often)).toEqual(standing(once));
        }
      }),
      runs,
    );
  });

  it('the events alone give the state: replayed, or folded one by one, or told twice by the store', () => {
    fc.assert(
      fc.property(anyRun, ([any, list]) => {
        const stored = JSON.parse(JSON.stringify(list)) as unknown[];
        const folded = list.reduce((run, event) => advance(any, run, event), begin(any));
        expect(
          replay(
            any,
            stored.map((event) => eventSchema.parse(event)),
          ),
        ).toEqual(folded);
      }),
      runs,
    );
  });

  it('what is taken back was never so: the run is that of the events as they were put right', () => {
    let backs = 0;
    fc.assert(
      fc.property(anyRun, ([any, list]) => {
        let run = begin(any);
        // The same kept by hand: what counts, each with its time.
        let counts: RunEvent[] = [];
        for (const event of list) {
          run = advance(any, run, event);
          if (event.event !== 'back') {
            counts.push(event);
            continue;
          }
          const at = counts.findLastIndex((other) => !['tick', 'speed', 'expect'].includes(other.event));
          const slip = counts[at];
          if (!slip || event.t - slip.t > 30) {
            expect(run.notes).toContain('too-late');
            continue;
          }
          backs += 1;
          expect(run.notes[0]).toBe('back');
          const right = event.instead ? [eventSchema.parse({ ...event.instead, t: slip.t })] : [];
          counts = [...counts.slice(0, at), ...right, ...counts.slice(at + 1)];
          const wanted = timePasses(any, { ...replay(any, counts), notes: [] }, event.t);
          expect(standing(run)).toEqual(standing(wanted));
        }
      }),
      { numRuns: 1000 },
    );
    expect(backs).toBeGreaterThan(50);
  });

  it('an end is an end', () => {
    fc.assert(
      fc.property(anyRun, ([any, list]) => {
        let run = begin(any);
        for (const event of list) {
          const before = run;
          run = advance(any, run, event);
          if (!hasEnded(before) || event.event === 'back') continue;
          expect(run).toEqual({ ...before, clock: run.clock, last: run.last, notes: ['ended'] });
        }
      }),
      runs,
    );
  });
});

describe('a procedure', () => {
  it('comes through its file as it is', () => {
    fc.assert(
      fc.property(procedure, (any) => {
        const again = procedureSchema.parse(JSON.parse(JSON.stringify(any)));
        expect(again).toEqual(JSON.parse(JSON.stringify(any)));
      }),
    );
  });
});
