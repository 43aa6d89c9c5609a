/** How well each hypothesis explains what was seen: of a sensor, of a tire, of a wheel that turns, of the lamp. In go a hypothesis and the evidence of one wheel or position; out come the states with their weights. */
export { type LampLikelihood, lampLikelihood } from './lamp';
export {
  type Answers,
  type Figures,
  type HearingAtMost,
  type HearingSeen,
  type SensorAssumptions,
  type SensorSeen,
  type SensorSink,
  answersOf,
  codeFactor,
  figureKinds,
  hearingAtMost,
  sensorAtMost,
  sensorStates,
} from './sensor';
export { type Held, heldFactors, mountedFactor } from './held';
export { type Places, type ShownSeen, type TireAssumptions, placesOf, tireStates, tireWeight } from './tire';
export { type TireSeen, keptFactor } from './readings';
export { turningStates } from './turning';
