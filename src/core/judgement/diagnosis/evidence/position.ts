import { isOfRegistration, lastOf, type Change } from '../../../job/history';
import { allOf, atWheel, type Job, type Seen } from '../../../job';
import type { Ledger } from '../../../job/ledger';
import { canonicalId } from '../../../names/sensor-id';
import { isAboveWakeSpeed } from '../../../car/wake-speed';
import type { Position } from '../../../names/wheel';
import type { Context, PositionEvidence } from '.';
import { isAboutWheel, weightOf } from './codes';
import { shownNow, type Told } from './pressure';

/** Of one position: what the car holds for it, hears from it and shows for it, since it was last changed. */
export function positionEvidence(
  context: Context,
  job: Job,
  ledger: Ledger,
  changes: readonly Change[],
  position: Position,
): PositionEvidence {
  const taughtMs = lastOf(changes.filter(isOfRegistration));
  const since = ({ seen }: { seen: { at: string } }) => Date.parse(seen.at) >= taughtMs;
  const lives = atWheel(job, 'live', position).filter(since);
  const driving = lives.filter(({ seen }) => isAboveWakeSpeed(job, seen.speedKmh)).at(-1);
  const parked = lives.filter(({ seen }) => !isAboveWakeSpeed(job, seen.speedKmh)).at(-1);
  const display = atWheel(job, 'display', position).filter(since).at(-1);
  const shown: PositionEvidence['shown'] = [];
  const empty: PositionEvidence['empty'] = [];
  const look = (seen: Seen<'live'> | Seen<'display'> | undefined, told: Told) => {
    if (!seen) return;
    const figure = shownNow(context, seen, told);
    if (figure) shown.push({ ...figure, ms: Date.parse(seen.at) });
    else empty.push(told === 'display' && isBlank(context, job) ? 'blank' : told);
  };
  look(driving?.seen, 'driving');
  look(parked?.seen, 'parked');
  look(display?.seen, 'display');
  const codes = ledger.codes.flatMap(({ seen }): PositionEvidence['codes'] =>
    seen.wheel === position && isAboutWheel(seen.about)
      ? [{ about: seen.about, weight: weightOf(seen.status) }]
      : [],
  );
  return {
    position,
    held: heldAt(ledger, position),
    shown: ofNow(shown),
    empty,
    battery: lives.findLast(({ seen }) => seen.battery !== undefined)?.seen.battery,
    heardDriving: atWheel(job, 'live', position).some(
      ({ seen }) => (seen.kPa ?? 0) > 0 && isAboveWakeSpeed(job, seen.speedKmh),
    ),
    codes,
    noCodes: codes.length === 0 && ledger.registry?.seen.codes?.length === 0,
  };
}

/** The whole display shows nothing, and nobody drove the car with its figures read: it may be blank until then. */
const isBlank = ({ monitored }: Context, job: Job): boolean =>
  monitored.length > 1 &&
  monitored.every((position) => {
    const last = atWheel(job, 'display', position).at(-1);
    return last !== undefined && !last.seen.kPa;
  }) &&
  !allOf(job, 'live').some(({ seen }) => isAboveWakeSpeed(job, seen.speedKmh));

/** Without those that a later one has left behind: the tire has changed in between. */
function ofNow(shown: PositionEvidence['shown']): PositionEvidence['shown'] {
  const [first, ...others] = [...shown].sort((a, b) => b.ms - a.ms);
  return first
    ? [
        ...others.filter(
          ({ kPa, sdKPa }) => Math.abs(kPa - first.kPa) <= leftBehind * Math.hypot(sdKPa, first.sdKPa),
        ),
        first,
      ]
    : [];
}

/** Further apart than so many standard deviations two figures of one sensor are of two pressures (judgement). */
const leftBehind = 3;

function heldAt({ registered }: Ledger, position: Position): string | null | undefined {
  const id = registered[position];
  return id == null ? id : canonicalId(id);
}
