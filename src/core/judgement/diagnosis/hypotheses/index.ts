/** What a car may be like: the states of a wheel, the ways the car as a whole can be, which reply is whose, and where the wheels are. In goes what was seen; out come the alternatives, each with its prior. */
export {
  type Assignment,
  type HeldSeen,
  type ScanSeen,
  assignmentsOf,
  heardNothing,
  isDoubtful,
} from './assignment';
export { type Permutation, inPlace, isIdentity, permutationsOf } from './permutation';
export {
  type SetSeen,
  type System,
  type WheelSet,
  indirectCause,
  isDeaf,
  systemsOf,
  wheelSets,
} from './system';
export {
  Adder,
  type Cause,
  type Emit,
  type Sums,
  bit,
  causeCount,
  causeIndex,
  causes,
  emptySums,
  isSound,
  rows,
  sensorRows,
  soundRow,
  tireRows,
  zeros,
} from './wheel-state';
