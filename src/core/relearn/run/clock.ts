import type { Procedure } from '../procedure';
import { hasEnded, openStep, type Run } from './state';

/** A running clock, s: how long something goes on already, and its window. */
export interface RunClock {
  elapsedS: number;
  /** So long at least. */
  leastS?: number;
  /** So long at most. */
  mostS?: number;
}

/** The clock of the open step; undefined where it has no window, and while nobody began what is timed. */
export function stepClock(procedure: Procedure, run: Run): RunClock | undefined {
  const step = openStep(procedure, run);
  const { clock, open, kmh } = run;
  switch (step?.do) {
    case 'press': {
      const [first] = open.presses;
      return first === undefined || step.withinS === undefined
        ? undefined
        : { elapsedS: clock - first, mostS: step.withinS };
    }
    case 'hold':
      return open.heldSince === undefined
        ? undefined
        : { elapsedS: clock - open.heldSince, leastS: step.leastS, ...most(step.mostS) };
    case 'wait':
      return { elapsedS: clock - open.since, leastS: step.s };
    case 'cue':
      return step.withinS === undefined ? undefined : { elapsedS: clock - open.since, mostS: step.withinS };
    case 'drive': {
      const fast = kmh >= step.leastKmh ? clock - open.droveTo : 0;
      return { elapsedS: open.droveS + fast, leastS: step.leastS };
    }
    default:
      return undefined;
  }
}

const most = (mostS: number | undefined) => (mostS === undefined ? {} : { mostS });

/** What the car allows: for bringing it to learn, for the present wheel, for all of it. */
export const limitNames = ['enter', 'wheel', 'total'] as const;

/** The limits that run now. */
export function limitClocks(
  { limits }: Procedure,
  run: Run,
): { limit: (typeof limitNames)[number]; clock: Required<Pick<RunClock, 'elapsedS' | 'mostS'>> }[] {
  const { state, since, clock } = run;
  const running = {
    enter: state === 'enter' ? limits.enterS : undefined,
    wheel: state === 'each' ? limits.wheelS : undefined,
    total: state === 'before' || state === 'prove' || hasEnded(run) ? undefined : limits.totalS,
  };
  return limitNames.flatMap((limit) => {
    const mostS = running[limit];
    return mostS === undefined ? [] : [{ limit, clock: { elapsedS: clock - since[limit], mostS } }];
  });
}
