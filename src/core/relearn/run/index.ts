/**
 * One execution of a procedure at one car. In go the procedure and the events, in the order of their times; out comes
 * where the run stands. No clock but the events' own, and no way to `done` but the proof.
 */
export { advance, lastAct, replay } from './advance';
export { limitClocks, limitNames, stepClock, type RunClock } from './clock';
export { isSecondTap } from './happens';
export type { EventOf, Happening, RunEvent, RunRecord } from './event';
export { openProof, provedWheels, wantedId } from './proof';
export {
  begin,
  hasEnded,
  isConfirmed,
  openStep,
  phaseOf,
  presentWheel,
  runNotes,
  runStates,
  wheelsTaught,
  type Run,
  type RunEnd,
  type RunNote,
  type RunState,
} from './state';
export { duesOf, timePasses } from './time';
