import { describe, expect, it } from 'vitest';
import { gauge, heard, ids, jobWith, minute, registry, silent } from '../../../../tests/support/car';
import type { CarWrite, Job, Observation } from '..';
import { procedureSchema } from '../../relearn/procedure/schema';
import { changesOf, firstOf, handledKPa, isFill, isOfRegistration, lastOf, ofKind, softSince } from '.';

const kinds = (job: Job) => changesOf(job).map(({ kind }) => kind);
const write = (more: Partial<CarWrite> = {}): CarWrite =>
  ({
    kind: 'registry',
    key: '0190a000-0000-7000-8000-000000000001',
    askedAt: minute(10),
    asked: [],
    before: [],
    ...more,
  }) as CarWrite;

describe('air that was let out to teach a car', () => {
  const run = {
    key: 'r',
    startedAt: minute(10),
    procedure: procedureSchema.parse({
      format: 'hacienda.procedure/1',
      name: 'a',
      title: 'A',
      method: 'air',
      wheels: ['LF', 'RF'],
      each: [{ do: 'air' }],
      proof: ['registry'],
    }),
    events: [{ t: 60, event: 'taught' as const, wheel: 'LF' as const }],
  };

  it('is a change at its time, and leaves that tire unread until it is gauged again', () => {
    const job = (...readings: Observation[]) => jobWith(readings, { runs: [run] });
    expect(ofKind(changesOf(job()), 'let-out')).toEqual([
      { kind: 'let-out', wheel: 'LF', atMs: Date.parse(minute(11)) },
    ]);
    expect(softSince(job(gauge(1, 'LF', 230), gauge(1, 'RF', 230)))).toEqual(['LF']);
    expect(softSince(job(gauge(1, 'LF', 230), gauge(15, 'LF', 230)))).toEqual([]);
    expect(softSince(jobWith([gauge(1, 'LF', 230)]))).toEqual([]);
  });

  it('by a magnet none is', () => {
    const magnet = { ...run, procedure: { ...run.procedure, each: [{ do: 'magnet' as const }] } };
    expect(ofKind(changesOf(jobWith([], { runs: [magnet] })), 'let-out')).toEqual([]);
  });
});

describe('what was changed during a visit', () => {
  it('is nothing where every tire is gauged once, or again with about the same figure', () => {
    expect(kinds(jobWith([gauge(1, 'LF', 230), gauge(2, 'RF', 180)]))).toEqual([]);
    expect(kinds(jobWith([gauge(1, 'LF', 230), gauge(9, 'LF', 230)]))).toEqual([]);
    expect(kinds(jobWith([gauge(1, 'LF', 230), gauge(9, 'LF', 230 + handledKPa)]))).toEqual([]);
    expect(kinds(jobWith([gauge(1, 'LF', 230), gauge(9, 'LF', 230 - handledKPa)]))).toEqual([]);
  });

  it('is air where a tire stands higher or lower by more than two gauges may be off', () => {
    const filled = changesOf(jobWith([gauge(1, 'LF', 180), gauge(9, 'LF', 180 + handledKPa + 0.1)]));
    expect(filled).toMatchObject([{ kind: 'air', wheel: 'LF', fromKPa: 180, atMs: Date.parse(minute(9)) }]);
    expect(filled.every(isFill)).toBe(true);
    const letOut = changesOf(jobWith([gauge(1, 'LF', 260), gauge(9, 'LF', 230)]));
    expect(letOut).toMatchObject([{ kind: 'air', fromKPa: 260, toKPa: 230 }]);
    expect(letOut.some(isFill)).toBe(false);
  });

  it('goes by the clock, whatever order things were put down in, wheel by wheel', () => {
    const job = jobWith([gauge(9, 'LF', 230), gauge(1, 'LF', 180), gauge(5, 'RF', 180)]);
    expect(changesOf(job)).toMatchObject([{ wheel: 'LF', fromKPa: 180, toKPa: 230 }]);
  });

  it('leaves out what was gauged at a wheel this car does not have', () => {
    expect(kinds(jobWith([gauge(1, 'SP', 300), gauge(2, 'SP', 420)]))).toEqual([]);
  });

  it('is a write that was not refused, whether or not its answer came', () => {
    for (const answer of ['yes', 'lost', undefined] as const)
      expect(kinds(jobWith([], { carWrites: [write(answer && { answer })] }))).toEqual(['write']);
    expect(kinds(jobWith([], { carWrites: [write({ answer: 'no' })] }))).toEqual([]);
  });

  it('is a relearn that did not fail, and other IDs than were held before, in whatever order they are listed', () => {
    const relearn = (outcome: 'done' | 'failed' | 'waiting-for-drive') =>
      jobWith([{ kind: 'relearn', at: minute(3), method: 'tool', outcome }]);
    expect(kinds(relearn('done'))).toEqual(['relearn']);
    expect(kinds(relearn('waiting-for-drive'))).toEqual(['relearn']);
    expect(kinds(relearn('failed'))).toEqual([]);
    const again = registry(4);
    if (again.kind === 'registry') again.entries.reverse();
    expect(kinds(jobWith([registry(1), again]))).toEqual([]);
    expect(kinds(jobWith([registry(1), registry(4, { RR: null })]))).toEqual(['registry']);
    expect(kinds(jobWith([registry(1), registry(4, { RR: ids.RR.toLowerCase() })]))).toEqual([]);
  });

  it('is another sensor in a wheel, or one that answers at last', () => {
    expect(kinds(jobWith([heard(1, 'LF'), heard(5, 'LF')]))).toEqual([]);
    expect(kinds(jobWith([heard(1, 'LF'), silent(5, 'LF')]))).toEqual([]);
    expect(kinds(jobWith([heard(1, 'LF'), heard(5, 'LF', { id: '4B0FFFFF' })]))).toEqual(['sensor']);
    expect(kinds(jobWith([silent(1, 'LF'), heard(5, 'LF')]))).toEqual(['sensor']);
  });

  it('is a mended leak', () => {
    expect(changesOf(jobWith([], { repairs: [{ wheel: 'RR', at: minute(7) }] }))).toEqual([
      { kind: 'repair', wheel: 'RR', atMs: Date.parse(minute(7)) },
    ]);
  });

  it('tells the first and the last, of some kinds or of all', () => {
    const changes = changesOf(
      jobWith([gauge(1, 'LF', 180), gauge(20, 'LF', 230), registry(2), registry(30, { LF: null })], {
        carWrites: [write(), write({ kind: 'clear-codes', askedAt: minute(40) } as Partial<CarWrite>)],
      }),
    );
    expect(changes.map(({ kind }) => kind)).toEqual(['write', 'air', 'registry', 'write']);
    expect(lastOf(changes)).toBe(Date.parse(minute(40)));
    expect(firstOf(changes)).toBe(Date.parse(minute(10)));
    expect(lastOf(ofKind(changes, 'air'))).toBe(Date.parse(minute(20)));
    expect(lastOf(changes.filter(isOfRegistration))).toBe(Date.parse(minute(30)));
    expect(lastOf([])).toBe(Number.NEGATIVE_INFINITY);
    expect(firstOf([])).toBe(Number.POSITIVE_INFINITY);
  });
});
