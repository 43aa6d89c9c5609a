import { isOfRegistration, lastOf, type Change } from '../../history';
import { atWheel, type Job } from '../../job';
import type { Ledger } from '../../ledger';
import { canonicalId } from '../../sensor-id';
import { isAboveWakeSpeed } from '../../wake-speed';
import type { Position } from '../../wheel';
import { model } from '../model';
import type { Context, Measured, PositionEvidence } from '.';
import { isAboutWheel, weightOf } from './codes';
import { liveNow } from './pressure';

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
  const { noise } = model;
  const timed = (figure: Measured, { seen }: { seen: { at: string } }) => ({
    ...figure,
    ms: Date.parse(seen.at),
  });
  if (driving && !driving.seen.kPa) empty.push('driving');
  else if (driving?.seen.kPa) shown.push(timed(liveNow(context, driving, true), driving));
  if (parked && !parked.seen.kPa) empty.push('parked');
  else if (parked?.seen.kPa) shown.push(timed(liveNow(context, parked, false), parked));
  if (display && !display.seen.kPa) empty.push('display');
  else if (display?.seen.kPa) shown.push(timed({ kPa: display.seen.kPa, sdKPa: noise.displayKPa }, display));
  const codes = ledger.codes.flatMap(({ seen }): PositionEvidence['codes'] =>
    seen.wheel === position && isAboutWheel(seen.about)
      ? [{ about: seen.about, weight: weightOf(seen.status) }]
      : [],
  );
  return {
    position,
    held: heldAt(ledger, position),
    shown,
    empty,
    heardDriving: atWheel(job, 'live', position).some(
      ({ seen }) => (seen.kPa ?? 0) > 0 && isAboveWakeSpeed(job, seen.speedKmh),
    ),
    codes,
    noCodes: codes.length === 0 && ledger.registry?.seen.codes?.length === 0,
  };
}

function heldAt({ registry }: Ledger, position: Position): string | null | undefined {
  const id = registry?.seen.entries.find(({ wheel }) => wheel === position)?.id;
  return id == null ? id : canonicalId(id);
}
