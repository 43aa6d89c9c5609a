import { sameId } from '../../names/sensor-id';
import { inWalkingOrder, type Position } from '../../names/wheel';
import { ended, noted, type Run } from './state';
import type { Procedure } from '../procedure';
import type { EventOf } from './event';

/** The wheels that the proof is about: those that were taught and not skipped, else those that are expected. */
export const provedWheels = ({ wheels }: Procedure, { skipped, expected }: Run): Position[] =>
  wheels.length > 0
    ? wheels.filter((wheel) => !skipped.includes(wheel))
    : inWalkingOrder(Object.keys(expected) as Position[]);

/** What the car should hold at a wheel: what was heard there in this run, or else what was expected. */
export const wantedId = ({ heard, expected }: Run, wheel: Position): string | undefined =>
  heard[wheel] ?? expected[wheel];

/**
 * The car was read: it must hold the right ID at every wheel. Where it holds none, that is wrong in any case; where nobody
 * knows which it should hold, nothing is proved and nothing has failed.
 */
export function registryRead(procedure: Procedure, run: Run, { entries }: EventOf<'registry'>): Run {
  if (!procedure.proof.includes('registry')) return noted(run, 'unexpected');
  const wheels = provedWheels(procedure, run);
  const held = (wheel: Position) => entries.find((entry) => entry.wheel === wheel)?.id ?? undefined;
  const differs = wheels.filter((wheel) => {
    const [id, wanted] = [held(wheel), wantedId(run, wheel)];
    return id === undefined || (wanted !== undefined && !sameId(id, wanted));
  });
  if (differs.length > 0) return { ...ended(procedure, run, 'failed', 'differs'), differs, notKnown: [] };
  // Where it was said neither by the procedure nor by anybody which wheels these are, it is all that the car holds.
  const asked = wheels.length > 0 ? wheels : entries.map(({ wheel }) => wheel);
  const notKnown = asked.filter((wheel) => held(wheel) !== undefined && wantedId(run, wheel) === undefined);
  if (wheels.length === 0 || notKnown.length > 0) return { ...noted(run, 'not-known'), notKnown };
  return settled(procedure, { ...run, notKnown: [], proved: { ...run.proved, registry: true } });
}

export function lampSeen(procedure: Procedure, run: Run, { state }: EventOf<'lamp'>): Run {
  if (!procedure.proof.includes('lamp')) return noted(run, 'unexpected');
  return state === 'off'
    ? settled(procedure, { ...run, proved: { ...run.proved, lamp: true } })
    : ended(procedure, run, 'failed', 'lamp-on');
}

/** A pressure at a wheel; an empty figure changes nothing, for a sensor may sleep. */
export function liveRead(procedure: Procedure, run: Run, { wheel, kPa }: EventOf<'live'>): Run {
  if (!procedure.proof.includes('live')) return noted(run, 'unexpected');
  if (kPa === null || run.proved.live.includes(wheel)) return run;
  return settled(procedure, { ...run, proved: { ...run.proved, live: [...run.proved.live, wheel] } });
}

/** What of the proof is still open. */
export function openProof(procedure: Procedure, run: Run): Procedure['proof'] {
  const wheels = provedWheels(procedure, run);
  const met = {
    registry: run.proved.registry,
    lamp: run.proved.lamp,
    live: wheels.length > 0 && wheels.every((wheel) => run.proved.live.includes(wheel)),
  };
  return procedure.proof.filter((kind) => !met[kind]);
}

/** The only way to `done`. */
const settled = (procedure: Procedure, run: Run): Run =>
  openProof(procedure, run).length === 0 ? { ...ended(procedure, run, 'done') } : run;
