import type { Place } from '../calendar';
import type { Quantity, Unit } from './quantity';

export {
  decimal,
  figure,
  figureAsTyped,
  format,
  formatDifference,
  inUnit,
  parse,
  unitNamed,
} from './quantity';
export type { Entry, Quantity, Unit } from './quantity';

const scaled = <Name extends string>(
  name: Name,
  factor: number,
  decimals: number,
  ...spellings: string[]
): Unit<Name> => ({
  name,
  spellings: [name.toLowerCase(), ...spellings],
  toBase: (value) => value * factor,
  fromBase: (base) => base / factor,
  decimals,
});

export type PressureUnit = 'kPa' | 'psi' | 'bar' | 'kgf/cm2';

/**
 * Gauge pressure, base unit kPa. Factors: NIST SP 811 (2008) appendix B.8, from memory.
 * Up to 1000 kPa covers light trucks and temporary spares (common practice).
 */
export const pressure: Quantity<PressureUnit, 'pressure'> = {
  noun: 'pressure',
  units: [
    scaled('kPa', 1, 0),
    scaled('psi', 6.894757, 1, 'lb', 'lbs', 'lbf/in2'),
    scaled('bar', 100, 2),
    scaled('kgf/cm2', 98.0665, 2, 'kgf/cm²', 'kg/cm2', 'kg/cm²', 'at'),
  ],
  possible: { least: 0, most: 1000 },
};

type TemperatureUnit = '°C' | '°F';

/** Temperature, base unit °C; possible outdoors or in a tire: −60 to 130 °C (common practice). */
export const temperature: Quantity<TemperatureUnit, 'temperature'> = {
  noun: 'temperature',
  units: [
    scaled('°C', 1, 0, 'c', 'degc'),
    {
      name: '°F',
      spellings: ['°f', 'f', 'degf'],
      toBase: (fahrenheit) => (fahrenheit - 32) / 1.8,
      fromBase: (celsius) => celsius * 1.8 + 32,
      decimals: 0,
    },
  ],
  possible: { least: -60, most: 130 },
};

type DistanceUnit = 'km' | 'mi';

/** Odometer distance, base unit km. The international mile is 1.609344 km (NIST SP 811). */
export const distance: Quantity<DistanceUnit, 'distance'> = {
  noun: 'distance',
  units: [scaled('km', 1, 0), scaled('mi', 1.609344, 0, 'mile', 'miles')],
  possible: { least: 0, most: 3_000_000 },
  grouped: true,
};

type HeightUnit = 'm' | 'ft';

/** Height above the sea, base unit m; roads lie between the Dead Sea shore and about 6000 m. The foot is 0.3048 m (NIST SP 811). */
export const height: Quantity<HeightUnit, 'height'> = {
  noun: 'height',
  units: [scaled('m', 1, 0, 'metre', 'metres'), scaled('ft', 0.3048, 0, 'foot', 'feet')],
  possible: { least: -500, most: 6000 },
  grouped: true,
};

/** The units somebody chose to read in. */
export interface UnitChoice {
  pressure: PressureUnit;
  temperature: TemperatureUnit;
  distance: DistanceUnit;
  height: HeightUnit;
}

/** How somebody reads: in units of their own or the shop's, figures and days as they are written where the shop is. */
export interface Notation extends UnitChoice, Place {}

export const metricUnits: UnitChoice = { pressure: 'kPa', temperature: '°C', distance: 'km', height: 'm' };
export const metric: Notation = { ...metricUnits, region: 'GB', timeZone: 'UTC' };

export const pressureUnits = pressure.units.map((unit) => unit.name);
export const temperatureUnits = temperature.units.map((unit) => unit.name);
export const distanceUnits = distance.units.map((unit) => unit.name);
export const heightUnits = height.units.map((unit) => unit.name);
