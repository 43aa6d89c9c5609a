import { programmedFor } from '../../../job/car-write';
import { changesOf, lastOf, ofKind } from '../../../job/history';
import { allOf, doneLately, wasDone, type Job, type Service } from '../../../job';
import { ledgerOf, type Ledger } from '../../../job/ledger';
import { monitoredWheels } from '../../../job/placard';
import { compareRegistration } from '../../../car/registration';
import { sameId } from '../../../names/sensor-id';
import { inWalkingOrder, type Position } from '../../../names/wheel';

/**
 * Whether a car must be taught after what was done to it. What the car was read to hold settles it; what was merely
 * done says it as long as nobody has read the car.
 */
export interface Need {
  action: NeedAction;
  reason: NeedReason;
  /** The wheels it is about; empty where it is about all. */
  wheels: readonly Position[];
  /** It rests on what the car was read to hold, not on what was done. */
  measured: boolean;
}

/**
 * `acknowledge`: the car sees by itself that a wheel changed with the spare, and wants that confirmed by a held button.
 * `depends`: on something nobody has said or read yet, which the reason names.
 */
export type NeedAction = 'none' | 'relearn' | 'acknowledge' | 'store-reference' | 'depends';

export type NeedReason =
  | 'no-monitoring'
  | 'reference-holds'
  | 'reference-stale'
  | 'holds-what-was-heard'
  | 'holds-other-ids'
  | 'holds-a-slip'
  | 'wheels-moved'
  | 'spare-swapped'
  | 'rotated'
  | 'rotated-not-tied'
  | 'rotated-not-known'
  | 'other-set'
  | 'other-set-held'
  | 'other-set-not-known'
  | 'new-sensor'
  | 'cloned'
  | 'taught'
  | 'same-sensors'
  | 'nothing-done';

export function needOf(job: Job, ledger: Ledger = ledgerOf(job)): Need {
  switch (job.vehicle.tpms.kind) {
    case 'none':
      return { action: 'none', reason: 'no-monitoring', wheels: [], measured: false };
    case 'indirect':
      return referenceNeed(job);
    case 'direct':
      return readNeed(job, ledger) ?? workNeed(job);
  }
}

/** An indirect system compares with what it stored: any work on tires or air since makes that stale. */
function referenceNeed(job: Job): Need {
  const stored = Math.max(
    Number.NEGATIVE_INFINITY,
    ...allOf(job, 'relearn')
      .filter(({ seen }) => seen.method === 'reset' && seen.outcome === 'done')
      .map(({ seen }) => Date.parse(seen.at)),
  );
  const touched = lastOf(ofKind(changesOf(job), 'air', 'repair'));
  const worked = doneLately(job).length > 0;
  const stale = touched > stored || (worked && stored === Number.NEGATIVE_INFINITY);
  return stale
    ? { action: 'store-reference', reason: 'reference-stale', wheels: [], measured: false }
    : { action: 'none', reason: 'reference-holds', wheels: [], measured: false };
}

/** By what the car holds against what was heard at its wheels; undefined while that is not known. */
function readNeed(job: Job, ledger: Ledger): Need | undefined {
  const compared = compareRegistration(job, ledger);
  if (!compared) return undefined;
  const { mismatches } = compared;
  const at = (kind: 'mistyped' | 'elsewhere' | 'absent') =>
    mismatches.filter((found) => found.kind === kind).map(({ wheel }) => wheel);
  const [absent, mistyped, elsewhere] = [at('absent'), at('mistyped'), at('elsewhere')];
  if (absent.length > 0) return relearn('holds-other-ids', absent);
  if (mistyped.length > 0) return relearn('holds-a-slip', mistyped);
  if (elsewhere.length > 0) return spareNeed(job, ledger) ?? relearn('wheels-moved', elsewhere);
  const heard = monitoredWheels(job).every((wheel) => ledger.sensor[wheel]?.kind === 'heard');
  return heard ? { action: 'none', reason: 'holds-what-was-heard', wheels: [], measured: true } : undefined;
}

const relearn = (reason: NeedReason, wheels: readonly Position[]): Need => ({
  action: 'relearn',
  reason,
  wheels,
  measured: true,
});

/** One wheel and the spare changed places, on a car that sees that by itself. */
function spareNeed(job: Job, { registered, sensor }: Ledger): Need | undefined {
  if (job.vehicle.tpms.swapWithSpare !== 'acknowledged') return undefined;
  const heardAt = (wheel: Position) => {
    const scan = sensor[wheel];
    return scan?.kind === 'heard' ? scan.reply.id : undefined;
  };
  const holds = (wheel: Position, id: string | undefined) =>
    id !== undefined && registered[wheel] != null && sameId(registered[wheel], id);
  const moved = monitoredWheels(job).filter((wheel) => !holds(wheel, heardAt(wheel)));
  // In walking order the spare comes last: second means that only two differ.
  const [one, spare] = inWalkingOrder(moved);
  if (one === undefined || spare !== 'SP') return undefined;
  return holds('SP', heardAt(one)) && holds(one, heardAt('SP'))
    ? { action: 'acknowledge', reason: 'spare-swapped', wheels: [one, 'SP'], measured: true }
    : undefined;
}

/** By what was done, as long as the car was not read. */
function workNeed(job: Job): Need {
  const { locates, holdsSets } = job.vehicle.tpms;
  const changes = changesOf(job);
  const replaced = inWalkingOrder(ofKind(changes, 'sensor').map(({ wheel }) => wheel));
  const another = replaced.filter((wheel) => !isClone(job, wheel));
  const need = (action: NeedAction, reason: NeedReason, wheels: readonly Position[] = []): Need => ({
    action,
    reason,
    wheels,
    measured: false,
  });
  if (lastOf(ofKind(changes, 'relearn')) > lastOf(ofKind(changes, 'sensor'))) return need('none', 'taught');
  if (another.length > 0 && !wasDone(job, 'wheels-swapped')) return need('relearn', 'new-sensor', another);
  if (replaced.length > 0 && another.length === 0) return need('none', 'cloned', replaced);
  const ofWork = (kind: Service['kind']): Need => {
    switch (kind) {
      case 'rotation':
        if (locates === undefined) return need('depends', 'rotated-not-known');
        return locates ? need('relearn', 'rotated') : need('none', 'rotated-not-tied');
      case 'wheels-swapped':
        if (holdsSets === undefined) return need('depends', 'other-set-not-known');
        return holdsSets > 1 ? need('none', 'other-set-held') : need('relearn', 'other-set');
      case 'sensor-replaced':
        return need('depends', 'new-sensor');
      case 'tires-fitted':
      case 'repair':
        return need('none', 'same-sensors');
      case 'none':
        return need('none', 'nothing-done');
    }
  };
  const needs = doneLately(job).map(({ kind }) => ofWork(kind));
  const first = (action: NeedAction) => needs.find((one) => one.action === action);
  return first('relearn') ?? first('depends') ?? first('none') ?? ofWork('none');
}

/** The sensor of a wheel has its old one's ID, as far as anybody heard it since. */
function isClone(job: Job, wheel: Position): boolean {
  const write = programmedFor(job, wheel);
  if (write?.mode !== 'clone') return false;
  const scan = ledgerOf(job).sensor[wheel];
  return scan?.kind !== 'heard' || sameId(scan.reply.id, write.asked.id);
}
