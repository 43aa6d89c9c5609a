import type { Issue } from '../../../result';
import type { Phase, Procedure, Step } from '..';
import { legendOf } from '../legend';
import { switchesMonitoringOff } from './safety';
import { noTime } from './whole';

/** What makes no sense in a step, each with its place within the step. */
export function stepProblems(procedure: Procedure, phase: Phase, step: Step): Issue[] {
  return [
    ...ofItself(procedure, phase, step),
    ...spansOf(step).flatMap((span) => spanProblems(procedure, phase, span)),
    ...(switchesMonitoringOff(step)
      ? [{ path: '', message: 'this switches the monitoring off: no relearn needs that, and none may' }]
      : []),
  ];
}

function ofItself(procedure: Procedure, phase: Phase, step: Step): Issue[] {
  switch (step.do) {
    case 'hold':
      return step.mostS !== undefined && step.leastS > step.mostS
        ? [{ path: 'leastS', message: `the least, ${step.leastS} s, is above the most, ${step.mostS} s` }]
        : [];
    case 'cue': {
      if (step.means === 'failed' || step.means === 'expired')
        return [{ path: 'means', message: `${step.means} ends a run: nobody waits for it` }];
      return legendOf(procedure, phase).some(({ means }) => means === step.means)
        ? []
        : [{ path: 'means', message: `no cue in the legend means ${step.means} during ${phase}` }];
    }
    case 'wake':
      if (procedure.method === 'reset')
        return [{ path: 'do', message: 'a reset compares wheel speeds: there is no sensor to wake' }];
      return atWheel(phase, step);
    case 'air':
    case 'magnet':
      return atWheel(phase, step);
    default:
      return [];
  }
}

const atWheel = (phase: Phase, { do: kind }: Step): Issue[] =>
  phase === 'each' ? [] : [{ path: 'do', message: `${kind} is done at a wheel: it belongs into each` }];

/** A time in a step, s. */
interface Span {
  path: string;
  s: number;
  /** Something is to happen within it; else it is to pass. */
  isWindow: boolean;
}

/** Windows, waits, holds, drives. */
function spansOf(step: Step): Span[] {
  const window = (path: string, s: number | undefined): Span[] =>
    s === undefined ? [] : [{ path, s, isWindow: true }];
  const toPass = (path: string, s: number): Span => ({ path, s, isWindow: false });
  switch (step.do) {
    case 'press':
    case 'cue':
      return window('withinS', step.withinS);
    case 'hold':
      return [toPass('leastS', step.leastS), ...window('mostS', step.mostS)];
    case 'wait':
      return [toPass('s', step.s)];
    case 'drive':
      return [toPass('leastS', step.leastS)];
    default:
      return [];
  }
}

const limitsOver = {
  enter: ['enterS', 'totalS'],
  each: ['wheelS', 'totalS'],
  finish: ['totalS'],
} as const satisfies Record<Phase, readonly (keyof Procedure['limits'])[]>;

/** A time that is over before it can pass: a window of nothing, or a limit that is shorter. */
function spanProblems({ limits }: Procedure, phase: Phase, { path, s, isWindow }: Span): Issue[] {
  if (isWindow && s === 0) return [{ path, message: noTime }];
  const over = limitsOver[phase].find((limit) => s > (limits[limit] ?? Infinity));
  return over ? [{ path, message: `${s} s is longer than its limit, ${over} ${limits[over] ?? ''} s` }] : [];
}
