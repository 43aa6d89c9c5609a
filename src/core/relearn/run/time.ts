import { continued, ended, hasEnded, openStep, stepDone, type Run } from './state';
import type { Procedure, Step } from '../procedure';

/** What happens by itself once time has come to it. */
interface Due {
  at: number;
  /** Only when more than that has gone by: a limit that is just reached is kept. */
  after: boolean;
  happen: (run: Run) => Run;
}

/** Times are typed in tenths and kept in binary: so much is no difference, s. */
export const slackS = 1e-9;

/** Brings a run up to a time: whatever falls due on the way happens, the earliest first. */
export function timePasses(procedure: Procedure, run: Run, t: number): Run {
  let now = run;
  while (!hasEnded(now)) {
    const next = earliest(duesOf(procedure, now));
    if (!next || !(next.after ? t > next.at + slackS : t >= next.at - slackS)) break;
    now = next.happen({ ...now, clock: Math.max(now.clock, next.at) });
  }
  return { ...now, clock: Math.max(now.clock, t) };
}

/** What falls due by itself from here: the open step's end or its being missed, and each limit. */
export function duesOf(procedure: Procedure, run: Run): Due[] {
  const step = openStep(procedure, run);
  return [...(step ? stepDues(procedure, run, step) : []), ...limitDues(procedure, run)];
}

function stepDues(procedure: Procedure, run: Run, step: Step): Due[] {
  const done = (now: Run) => stepDone(procedure, now);
  const { open, kmh } = run;
  switch (step.do) {
    case 'wait':
      return [{ at: open.since + step.s, after: false, happen: done }];
    case 'drive': {
      if (open.droveS >= step.leastS) return [{ at: open.droveTo, after: false, happen: done }];
      return kmh >= step.leastKmh
        ? [{ at: open.droveTo + step.leastS - open.droveS, after: false, happen: done }]
        : [];
    }
    case 'cue':
      return step.withinS === undefined
        ? []
        : [
            {
              at: open.since + step.withinS,
              after: true,
              happen: (now) => ended(procedure, now, 'failed', 'no-cue'),
            },
          ];
    default:
      return [];
  }
}

function limitDues(procedure: Procedure, run: Run): Due[] {
  const { limits } = procedure;
  const { state, since } = run;
  const expires = (from: number, limitS: number | undefined): Due[] =>
    limitS === undefined
      ? []
      : [{ at: from + limitS, after: true, happen: (now) => ended(procedure, now, 'expired') }];
  switch (state) {
    case 'enter':
      return [...expires(since.enter, limits.enterS), ...expires(since.total, limits.totalS)];
    case 'each':
      return [...expires(since.wheel, limits.wheelS), ...expires(since.total, limits.totalS)];
    case 'finish':
      return expires(since.total, limits.totalS);
    default:
      return [];
  }
}

/** The earliest; of two at one time what is due then comes before what passes after it, then in the order given. */
const earliest = (dues: readonly Due[]): Due | undefined =>
  dues.reduce<Due | undefined>(
    (first, due) =>
      first === undefined || due.at < first.at || (due.at === first.at && first.after && !due.after)
        ? due
        : first,
    undefined,
  );

/** What a new speed makes of a drive: the old one held until now. */
export function driven(procedure: Procedure, run: Run, kmh: number): Run {
  const step = openStep(procedure, run);
  if (step?.do !== 'drive') return { ...run, kmh };
  const { droveS, droveTo } = run.open;
  const fast = run.kmh >= step.leastKmh;
  const drove = fast ? droveS + run.clock - droveTo : droveS;
  const keeps = !step.unbroken || kmh >= step.leastKmh;
  return { ...continued(run, { droveS: keeps ? drove : 0, droveTo: run.clock }), kmh };
}
