import { atmosphericKPa } from './atmosphere';

export { atmosphericKPa } from './atmosphere';

/** Celsius to kelvin. */
export const kelvin = (celsius: number): number => celsius + 273.15;

/** A gauge pressure at a temperature, at a height: all that is needed to take it elsewhere. */
export interface TirePressure {
  /** Gauge pressure in kPa. */
  kPa: number;
  /** Temperature of the air inside, °C. */
  celsius: number;
  /** Height of the place, m. */
  altitudeM: number;
}

/**
 * The gauge pressure in kPa the same air has at another temperature: at constant volume
 * absolute pressure goes with absolute temperature (ideal gas, Gay-Lussac).
 */
export function atTemperature(tire: TirePressure, celsius: number): number {
  const ambient = atmosphericKPa(tire.altitudeM);
  return (tire.kPa + ambient) * (kelvin(celsius) / kelvin(tire.celsius)) - ambient;
}

/**
 * The gauge pressure in kPa to set at the tire's present temperature so that it stands at
 * `coldKPa` once it has come to `policyC`.
 */
export function pressureToSet(coldKPa: number, policyC: number, tireC: number, altitudeM: number): number {
  return atTemperature({ kPa: coldKPa, celsius: policyC, altitudeM }, tireC);
}

/**
 * The gauge pressure in kPa the same air has at another temperature and another height: the air inside
 * does not feel the height, the gauge does.
 */
export function atPlace(tire: TirePressure, celsius: number, altitudeM: number): number {
  return atTemperature(tire, celsius) + atmosphericKPa(tire.altitudeM) - atmosphericKPa(altitudeM);
}
