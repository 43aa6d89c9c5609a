/**
 * How a car is taught its sensors. In go a procedure (data) and the events of a run, in the order of their times; out
 * comes where the run stands. No clock but the events' own, and no way to `done` but the proof.
 */
export { advance, replay } from './advance';
export { canonicalCue, legendOf, meaningOf } from './legend';
export { openProof, provedWheels, wantedId } from './proof';
export { problemsOf, readProcedure, sensibleProcedureSchema } from './problems';
export {
  begin,
  hasEnded,
  openStep,
  phaseOf,
  presentWheel,
  runNotes,
  runStates,
  type Run,
  type RunEnd,
  type RunNote,
  type RunState,
} from './run';
export {
  phases,
  relearnMethods,
  type CueMeaning,
  type Phase,
  type Procedure,
  type RelearnMethod,
  type RunEvent,
  type Step,
} from './procedure';
export { eventSchema, procedureSchema } from './schema';
export { duesOf, timePasses } from './time';
