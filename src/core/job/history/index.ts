import { allOf, atWheel, type CarWrite, type Job, type Seen } from '..';
import { wheelsOf } from '../placard';
import { once } from '../once';
import { isLetOut, letOutIn } from './let-out';
import { programmingVerdict, sensorWrites } from '../car-write';
import { canonicalId, sameId } from '../../names/sensor-id';
import type { Position } from '../../names/wheel';

/** What was changed on the car during the visit, when, and how: the one answer to "has it been touched since?". */
export type Change = { atMs: number } & (
  | { kind: 'air'; wheel: Position; fromKPa: number; toKPa: number; seen: Seen<'gauge'> }
  /** Air was let out to teach the car, so much as it took. */
  | { kind: 'let-out'; wheel: Position }
  | { kind: 'repair'; wheel: Position }
  /** Another sensor answers than did before, or one answers where none did. */
  | { kind: 'sensor'; wheel: Position }
  | { kind: 'write'; write: CarWrite }
  | { kind: 'relearn'; seen: Seen<'relearn'> }
  /** The car holds other IDs than when it was read before. */
  | { kind: 'registry' }
);
export { failedInRelearn, isAsTaught, taughtMs } from './teaching';
type ChangeKind = Change['kind'];

/** Between two readings of one tire a difference above this, kPa, is air put in or let out: more than two gauges may be off (practice). */
export const handledKPa = 6;

/** All changes of the visit, the first one first. A write that the car refused, and a relearn that failed, changed nothing. */
export const changesOf = once((job: Job): readonly Change[] => {
  return [
    ...airChanges(job),
    ...letOutIn(job).map((out): Change => ({ kind: 'let-out', ...out })),
    ...repairs(job),
    ...sensorChanges(job),
    ...programmed(job),
    ...writes(job),
    ...relearns(job),
    ...rewritten(job),
  ].sort((a, b) => a.atMs - b.atMs);
});

/** Only the changes of some kinds. */
export const ofKind = <Kind extends ChangeKind>(changes: readonly Change[], ...kinds: readonly Kind[]) =>
  changes.filter((change): change is Extract<Change, { kind: Kind }> =>
    (kinds as readonly ChangeKind[]).includes(change.kind),
  );

/** When the last of these changes was, ms; minus infinity where there was none. */
export const lastOf = (changes: readonly Change[]): number =>
  changes.reduce((last, { atMs }) => Math.max(last, atMs), Number.NEGATIVE_INFINITY);

/** When the first of these changes was, ms; infinity where there was none. */
export const firstOf = (changes: readonly Change[]): number =>
  changes.reduce((first, { atMs }) => Math.min(first, atMs), Number.POSITIVE_INFINITY);

/**
 * When the car was last changed so that an earlier look at lamp, road or display says nothing of now, ms: air, IDs, or
 * a relearn that was done by hand. One that was led through has its proof among its own steps.
 */
export const lastTouchedMs = (job: Job): number =>
  lastOf(
    changesOf(job).filter(
      (change) =>
        change.kind === 'air' ||
        change.kind === 'let-out' ||
        change.kind === 'write' ||
        (change.kind === 'relearn' && change.seen.source === 'hand'),
    ),
  );

/** Air was put in, not let out. */
export const isFill = (change: Change): change is Extract<Change, { kind: 'air' }> =>
  change.kind === 'air' && change.toKPa > change.fromKPa;

/** What the car is taught by: a change of its registered IDs, or of how it was made to learn them. */
export const isOfRegistration = (change: Change): boolean =>
  change.kind === 'relearn' ||
  change.kind === 'registry' ||
  (change.kind === 'write' && change.write.kind === 'registry');

const ms = (at: string): number => Date.parse(at);

function airChanges(job: Job): Change[] {
  return wheelsOf(job).flatMap((wheel) => {
    const readings = atWheel(job, 'gauge', wheel);
    return readings.slice(1).flatMap(({ seen }, place): Change[] => {
      const fromKPa = readings[place]?.seen.kPa ?? seen.kPa;
      const toKPa = seen.kPa;
      return Math.abs(toKPa - fromKPa) > handledKPa
        ? [{ kind: 'air', atMs: ms(seen.at), wheel, fromKPa, toKPa, seen }]
        : [];
    });
  });
}

/** Wheels whose air was let out and that nobody gauged since: what was read before says nothing of them now. */
export const softSince = (job: Job): Position[] =>
  wheelsOf(job).filter((wheel) => {
    const readings = atWheel(job, 'gauge', wheel).map(({ seen }) => ms(seen.at));
    return isLetOut(job, wheel, Math.max(Number.NEGATIVE_INFINITY, ...readings), Number.POSITIVE_INFINITY);
  });

const repairs = ({ repairs: done = [] }: Job): Change[] =>
  done.map(({ wheel, at }) => ({ kind: 'repair', atMs: ms(at), wheel }));

function sensorChanges(job: Job): Change[] {
  return wheelsOf(job).flatMap((wheel) => {
    const tries = atWheel(job, 'activation', wheel);
    return tries
      .slice(1)
      .flatMap(({ seen }, place): Change[] =>
        isAnother(tries[place]?.seen, seen) ? [{ kind: 'sensor', atMs: ms(seen.at), wheel }] : [],
      );
  });
}

function isAnother(before: Seen<'activation'> | undefined, now: Seen<'activation'>): boolean {
  const [then] = before?.replies ?? [];
  const [reply] = now.replies;
  return reply !== undefined && (then === undefined || !sameId(reply.id, then.id));
}

/** A sensor that was programmed for a wheel is another one, also where it has the old one's ID. */
const programmed = (job: Job): Change[] =>
  sensorWrites(job).flatMap((write): Change[] =>
    write.wheel !== undefined && programmingVerdict(write) === 'worked'
      ? [{ kind: 'sensor', atMs: ms(write.readBackAt ?? write.askedAt), wheel: write.wheel }]
      : [],
  );

const writes = ({ carWrites = [] }: Job): Change[] =>
  carWrites
    .filter(({ kind, answer }) => kind !== 'sensor' && answer !== 'no')
    .map((write) => ({ kind: 'write', atMs: ms(write.askedAt), write }));

const relearns = (job: Job): Change[] =>
  allOf(job, 'relearn').flatMap(({ seen }): Change[] =>
    seen.outcome === 'failed' ? [] : [{ kind: 'relearn', atMs: ms(seen.at), seen }],
  );

function rewritten(job: Job): Change[] {
  const read = allOf(job, 'registry')
    .map(({ seen }) => ({ atMs: ms(seen.at), held: asText(seen.entries) }))
    .sort((a, b) => a.atMs - b.atMs);
  return read
    .slice(1)
    .flatMap(({ atMs, held }, place): Change[] =>
      held === read[place]?.held ? [] : [{ kind: 'registry', atMs }],
    );
}

const asText = (entries: readonly { wheel: string; id: string | null }[]): string =>
  entries
    .map(({ wheel, id }) => `${wheel} ${id === null ? '' : canonicalId(id)}`)
    .sort()
    .join();
