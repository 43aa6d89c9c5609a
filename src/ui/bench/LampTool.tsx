import { celsiusAtPressure, litAt, type WheelForecast } from '../../core/car/lamp';
import { atTemperature } from '../../core/measure/pressure';
import {
  format,
  formatDifference,
  height,
  pressure,
  temperature,
  type Notation,
} from '../../core/measure/units';
import { PressureChart } from '../parts/PressureChart';
import { Field } from '../kit/Field';
import { readField } from './read';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

/** When a lamp with these figures lights, for one tire, without a job. */
export function LampTool({ search, units }: { search: string; units: Notation }) {
  const { values, set, link } = useBenchState('lamp', search, {
    p: '',
    t: '',
    on: '',
    off: '',
    low: '',
    h: '',
  });
  const p = readField(pressure, values.p, units.pressure);
  const t = readField(temperature, values.t, units.temperature);
  const on = readField(pressure, values.on, units.pressure);
  const off = readField(pressure, values.off, units.pressure);
  const low = readField(temperature, values.low, units.temperature);
  const h = readField(height, values.h, units.height);
  const crossed = on.base !== undefined && off.base !== undefined && off.base < on.base;
  const offError =
    off.error ?? (crossed ? 'The lamp goes out at a higher pressure than it lights at.' : undefined);
  const ready =
    p.base !== undefined && t.base !== undefined && on.base !== undefined && !offError && !h.error;
  const air = { kPa: p.base ?? 0, celsius: t.base ?? 0, altitudeM: h.base ?? 0 };
  const figures = { lowOnKPa: on.base ?? 0, lowOffKPa: off.base };
  const lightsAtC = ready ? celsiusAtPressure(air, figures.lowOnKPa) : undefined;
  const degrees = (celsius: number) => format(temperature, celsius, units);
  const night = ready && low.base !== undefined ? atTemperature(air, low.base) : undefined;
  const sentence =
    lightsAtC === undefined
      ? undefined
      : `${format(pressure, air.kPa, units)} at ${degrees(air.celsius)} lights a lamp of ${format(pressure, figures.lowOnKPa, units)} at ${degrees(lightsAtC)}` +
        (night === undefined
          ? '.'
          : `; at ${degrees(low.base ?? 0)} it is ${format(pressure, night, units)}, ${formatDifference(pressure, night - figures.lowOnKPa, units)} to the lamp: ${litAt(false, night, figures) ? 'lit' : 'out'}.`);
  const wheel: WheelForecast = {
    wheel: 'LF',
    air,
    thresholds: { ...figures, highOnKPa: undefined, basis: undefined },
    lightsAtC: lightsAtC ?? 0,
    coldest: undefined,
  };
  return (
    <Tool
      title="When the lamp lights"
      sentence={sentence}
      link={link}
      more={
        ready && (
          <PressureChart wheels={[wheel]} name="this tire" placard={[]} coldestC={low.base} units={units} />
        )
      }
      formula="T = T₁ · (p_on + a) / (p₁ + a), in kelvin; lit at or below “on”, out at or above “off”, between them as it was"
      source="Gas law at constant volume; standard atmosphere, ISO 2533:1975"
    >
      <Field
        label={`Pressure, ${units.pressure}`}
        value={values.p}
        error={p.error}
        onValue={(v) => set('p', v)}
      />
      <Field
        label={`with the tire at, ${units.temperature}`}
        value={values.t}
        error={t.error}
        onValue={(v) => set('t', v)}
      />
      <Field
        label={`Lamp on at, ${units.pressure}`}
        value={values.on}
        error={on.error}
        onValue={(v) => set('on', v)}
      />
      <Field
        label={`off again at, ${units.pressure}`}
        hint="Empty where it is not known."
        value={values.off}
        error={offError}
        onValue={(v) => set('off', v)}
      />
      <Field
        label={`Overnight low, ${units.temperature}`}
        value={values.low}
        error={low.error}
        onValue={(v) => set('low', v)}
      />
      <Field
        label={`Height, ${units.height}`}
        hint="Empty is sea level."
        value={values.h}
        error={h.error}
        onValue={(v) => set('h', v)}
      />
    </Tool>
  );
}
