import { decimal, inUnit, pressure, temperature, unitNamed, type Notation } from '../../core/measure/units';
import type { Axis } from './Chart';

/** Axes in the units somebody reads in, and the way there from base units. */

export const shownPressure = (units: Notation) => (kPa: number) => inUnit(pressure, kPa, units.pressure);
export const shownTemperature = (units: Notation) => (celsius: number) =>
  inUnit(temperature, celsius, units.temperature);

export function pressureAxis(units: Notation, label = 'pressure'): Axis {
  const { decimals, name } = unitNamed(pressure, units.pressure);
  return axis(label, decimals, name, units);
}

export function temperatureAxis(units: Notation, label = 'tire temperature'): Axis {
  return axis(`${label}, ${units.temperature}`, 0, units.temperature, units);
}

function axis(label: string, decimals: number, unit: string, units: Notation): Axis {
  const text = (value: number) => decimal(value, decimals, units);
  return { label, format: (value) => `${text(value)} ${unit}`, tick: text };
}
