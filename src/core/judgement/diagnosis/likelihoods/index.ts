/** How well each hypothesis explains what was seen: of a sensor, of a tire, of a wheel that turns, of the lamp. In go a hypothesis and the evidence of one wheel or position; out come the states with their weights. */
export { type LampLikelihood, lampLikelihood } from './lamp';
export {
  type Answers,
  type Figures,
  type SensorAssumptions,
  type SensorSink,
  answersOf,
  codeFactor,
  figureKinds,
  hearingParts,
  sensorParts,
  sensorStates,
} from './sensor';
export { mountedFactor } from './held';
export { type TireAssumptions, shownParts, tireStates } from './tire';
export { tireParts } from './readings';
export { turningStates } from './turning';
