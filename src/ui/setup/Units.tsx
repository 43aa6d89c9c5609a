import {
  distanceUnits,
  heightUnits,
  pressureUnits,
  temperatureUnits,
  type UnitChoice,
} from '../../core/measure/units';
import { Choice } from '../kit/Field';

export const options = <Value extends string>(values: readonly Value[]) =>
  values.map((value) => ({ value, label: value }));

/** Pressure, temperature, distance and height, each in the unit one likes. */
export function Units({ units, onUnits }: { units: UnitChoice; onUnits: (units: UnitChoice) => void }) {
  return (
    <>
      <Choice
        label="Pressure"
        options={options(pressureUnits)}
        value={units.pressure}
        onValue={(pressure) => onUnits({ ...units, pressure })}
      />
      <Choice
        label="Temperature"
        options={options(temperatureUnits)}
        value={units.temperature}
        onValue={(temperature) => onUnits({ ...units, temperature })}
      />
      <Choice
        label="Distance"
        options={options(distanceUnits)}
        value={units.distance}
        onValue={(distance) => onUnits({ ...units, distance })}
      />
      <Choice
        label="Height"
        options={options(heightUnits)}
        value={units.height}
        onValue={(up) => onUnits({ ...units, height: up })}
      />
    </>
  );
}
