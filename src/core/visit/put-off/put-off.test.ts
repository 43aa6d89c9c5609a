import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gauges, heard, jobWith, lamp, lives, registry, scans, silent } from '../../../../tests/support/car';
import { assess } from '../../judgement/diagnosis';
import type { Job, Seen } from '../../job';
import { nextMove, type Move } from '..';
import { proofOf } from '../proof';
import { canBePutOff, isPutOff, needOfMove, scopeOf, type PutOff } from '.';
import { putOffWords } from './words';

const atNoon = '2026-03-02T12:00:00Z';
const reason = 'No activation tool here';
const move = (job: Job, hasLead = true, hasTool = true): Move =>
  nextMove(job, { assessment: assess(job), handedOver: false, hasLead, hasTool });
const without = (job: Job, ...scopes: Omit<PutOff, 'reason' | 'at'>[]): Job => ({
  ...job,
  putOff: scopes.map((scope) => ({ ...scope, reason, at: atNoon })),
});

const walked = jobWith([lamp(0, 'steady'), ...gauges(1)]);

describe('a move that is put off', () => {
  it('at one wheel leaves the others: the next wheel of the walk is offered', () => {
    expect(move(walked)).toMatchObject({ kind: 'wake', wheel: 'LF' });
    expect(move(without(walked, { move: 'wake', wheel: 'LF' }))).toMatchObject({ kind: 'wake', wheel: 'RF' });
  });

  it('for want of a tool takes every wheel with it', () => {
    expect(move(without(walked, { needs: 'tool' }))).toEqual({ kind: 'read-car' });
  });

  it('for want of what talks to the car takes reading, writing, clearing and the read drive with it', () => {
    const seen = jobWith([lamp(0, 'steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })]);
    expect(move(seen)).toEqual({ kind: 'write-ids' });
    const left = move(without(seen, { needs: 'lead' }));
    expect(needOfMove(left)).toBeUndefined();
    for (const kind of ['read-car', 'write-ids', 'read-back'] as const)
      expect(isPutOff(without(seen, { needs: 'lead' }), { kind })).toBe(true);
  });

  it('is taken back by leaving it out', () => {
    expect(move(without(walked))).toEqual(move(walked));
  });

  it('proves nothing: what it would have shown stays open', () => {
    const job = without(walked, { needs: 'tool' }, { needs: 'lead' }, { move: 'look-at-lamp' });
    expect(proofOf(job)).toEqual(proofOf(walked));
    expect(proofOf(job).proved).toBe(false);
  });

  it('one after the other leads to handing over, whatever was seen, and never round in a circle', () => {
    const seen = [
      lamp(0, 'flash-then-steady'),
      ...gauges(1, { RR: 120 }),
      ...scans(2, { RR: [silent(2, 'RR')] }),
    ];
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: seen.length }),
        fc.boolean(),
        fc.boolean(),
        (count, lead, tool) => {
          let job = jobWith(seen.slice(0, count), { putOff: [] });
          for (let put = 0; put < 40; put += 1) {
            const next = move(job, lead, tool);
            if (!canBePutOff(next)) return next.kind === 'hand-over';
            if (isPutOff(job, next)) return false;
            job = { ...job, putOff: [...(job.putOff ?? []), { ...scopeOf(next), reason, at: atNoon }] };
          }
          return false;
        },
      ),
      { numRuns: 12 },
    );
  });

  it('is named in words, with its wheel', () => {
    expect(putOffWords({ needs: 'tool' })).toContain('activation tool');
    expect(putOffWords({ move: 'wake', wheel: 'LF' })).toBe('Wake, LF');
    expect(putOffWords({ move: 'what no version knows' })).toBe('A move');
  });
});

describe('no move repeats without end', () => {
  const allHeard = [lamp(0, 'steady'), ...gauges(1), ...scans(2), registry(4)];
  const deaf = (at: number) => lives(at, null, 60);
  const kindAfter = (...more: Job['observations']) => {
    const job = jobWith([...allHeard, ...more]);
    // The engine may want other things first; this asks for the proof's own moves.
    const assessment = { ...assess(job), findings: [], nextTests: [], targets: [] };
    return nextMove(job, { assessment, handedOver: false, hasLead: true, hasTool: true });
  };

  it('a drive after which the car heard nothing is offered twice, and says that it is the second time', () => {
    const clear = { ...registry(5), codes: [] };
    expect(kindAfter(clear)).toEqual({ kind: 'drive', tries: 0 });
    expect(kindAfter(clear, ...deaf(20))).toEqual({ kind: 'drive', tries: 1 });
    expect(kindAfter(clear, ...deaf(20), ...deaf(40))).toEqual({ kind: 'look-at-lamp' });
  });

  it('a lamp that stays lit is looked at twice; then something else must change first', () => {
    const rest = [{ ...registry(5), codes: [] }, ...lives(20, undefined, 60)];
    expect(kindAfter(...rest, lamp(30, 'steady'))).toEqual({ kind: 'look-at-lamp' });
    expect(kindAfter(...rest, lamp(30, 'steady'), lamp(32, 'steady'))).toEqual({ kind: 'hand-over' });
    const again = heard(34, 'LF');
    expect(kindAfter(...rest, lamp(30, 'steady'), lamp(32, 'steady'), again)).toEqual({
      kind: 'look-at-lamp',
    });
  });

  it('IDs that were sent with another tool and did not take are sent twice, then the car is taught another way', () => {
    const seen = [lamp(0, 'flash-then-steady'), ...gauges(1), ...scans(2), registry(4, { RR: '90FFE0A1' })];
    const failed = (at: number): Seen<'relearn'> => ({
      kind: 'relearn',
      at: registry(at).at,
      method: 'write',
      outcome: 'failed',
      source: 'hand',
    });
    expect(move(jobWith([...seen, failed(5)]))).toEqual({ kind: 'write-ids' });
    expect(move(jobWith([...seen, failed(5), failed(7)]))).toEqual({ kind: 'relearn', failed: 2 });
  });
});
