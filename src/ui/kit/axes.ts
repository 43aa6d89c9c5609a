import { inUnit, pressure, temperature, unitNamed, type UnitChoice } from '../../core/measure/units';
import type { Axis } from './Chart';

/** Axes in the units somebody reads in, and the way there from base units. */

export const shownPressure = (units: UnitChoice) => (kPa: number) => inUnit(pressure, kPa, units.pressure);
export const shownTemperature = (units: UnitChoice) => (celsius: number) =>
  inUnit(temperature, celsius, units.temperature);

export function pressureAxis(units: UnitChoice, label = 'pressure'): Axis {
  const { decimals, name } = unitNamed(pressure, units.pressure);
  return axis(label, decimals, name);
}

export function temperatureAxis(units: UnitChoice, label = 'tire temperature'): Axis {
  return axis(`${label}, ${units.temperature}`, 0, units.temperature);
}

function axis(label: string, decimals: number, unit: string): Axis {
  const text = (value: number) => value.toFixed(decimals).replace('-', '−');
  return { label, format: (value) => `${text(value)} ${unit}`, tick: text };
}
