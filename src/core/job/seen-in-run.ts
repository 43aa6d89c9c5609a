import type { Observation, Seen } from '.';
import { lampWords } from './words';
import type { Procedure } from '../relearn/procedure';
import type { Happening } from '../relearn/run/event';
import { hasEnded, isConfirmed, type Run } from '../relearn/run/state';

/**
 * What of a run is an observation of the job too: an ID that was heard, what the car holds, its lamp, its pressures. They
 * are the same facts, told by hand, and everything that judges the job goes by them.
 */
export function observedIn(happening: Happening, at: string): Observation | undefined {
  switch (happening.event) {
    case 'heard': {
      const { wheel, ids } = happening;
      return {
        kind: 'activation',
        at,
        wheel,
        trigger: 'pulsed',
        replies: ids.map((id) => ({ id })),
        source: 'hand',
      };
    }
    case 'registry':
      return { kind: 'registry', at, entries: happening.entries, source: 'hand' };
    case 'lamp': {
      const { state } = happening;
      return isLampState(state) ? { kind: 'lamp', at, state } : undefined;
    }
    case 'live':
      return { kind: 'live', at, wheel: happening.wheel, kPa: happening.kPa, source: 'hand' };
    default:
      return undefined;
  }
}

const isLampState = (state: string): state is Seen<'lamp'>['state'] => Object.hasOwn(lampWords, state);

/**
 * What an ended run says of the car; undefined while it goes on, and where it was stopped before the car was touched.
 * Given up before it was proved it is neither done nor failed: the car has yet to show it.
 */
export function relearnOf(procedure: Procedure, run: Run, at: string): Seen<'relearn'> | undefined {
  if (!hasEnded(run) || !isConfirmed(procedure, run)) return undefined;
  const { method } = procedure;
  if (run.state === 'done') return { kind: 'relearn', at, method, outcome: 'done' };
  if (run.state === 'unproved') return { kind: 'relearn', at, method, outcome: 'waiting-for-drive' };
  const failedAt = run.endedAt ?? run.differs[0];
  return { kind: 'relearn', at, method, outcome: 'failed', ...(failedAt && { failedAt }) };
}
