import { atmosphericKPa, atPlace } from '../../core/measure/pressure';
import { format, height, pressure, temperature, type Notation } from '../../core/measure/units';
import { Field } from '../kit/Field';
import { readField } from './read';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

/** One tire's air at another temperature and another height. */
export function PressureTool({ search, units }: { search: string; units: Notation }) {
  const { values, set, link } = useBenchState('pressure', search, { p: '', t: '', h: '', t2: '', h2: '' });
  const p = readField(pressure, values.p, units.pressure);
  const t = readField(temperature, values.t, units.temperature);
  const h = readField(height, values.h, units.height);
  const t2 = readField(temperature, values.t2, units.temperature);
  const h2 = readField(height, values.h2, units.height);
  const from = h.base ?? 0;
  const to = h2.base ?? from;
  const known =
    p.base !== undefined && t.base !== undefined && t2.base !== undefined && !h.error && !h2.error;
  const then = known
    ? atPlace({ kPa: p.base ?? 0, celsius: t.base ?? 0, altitudeM: from }, t2.base ?? 0, to)
    : undefined;
  const place = (metres: number) =>
    h.base === undefined && h2.base === undefined ? '' : ` at ${format(height, metres, units)}`;
  const sentence =
    then === undefined
      ? undefined
      : `${format(pressure, p.base ?? 0, units)} with the tire at ${format(temperature, t.base ?? 0, units)}${place(from)} ` +
        `${then < 0 ? 'would be no gauge pressure at all' : `is ${format(pressure, then, units)}`} at ${format(temperature, t2.base ?? 0, units)}${place(to)}.`;
  return (
    <Tool
      title="Pressure, temperature, height"
      sentence={sentence}
      link={link}
      formula={
        <>
          p₂ = (p₁ + a₁) · T₂ / T₁ − a₂, temperatures in kelvin; air around the tire here a₁ ={' '}
          {format(pressure, atmosphericKPa(from), units)}, there a₂ ={' '}
          {format(pressure, atmosphericKPa(to), units)}
        </>
      }
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
        label={`at height, ${units.height}`}
        hint="Empty is sea level."
        value={values.h}
        error={h.error}
        onValue={(v) => set('h', v)}
      />
      <Field
        label={`then at, ${units.temperature}`}
        value={values.t2}
        error={t2.error}
        onValue={(v) => set('t2', v)}
      />
      <Field
        label={`at height, ${units.height}, then`}
        hint="Empty is the same height."
        value={values.h2}
        error={h2.error}
        onValue={(v) => set('h2', v)}
      />
    </Tool>
  );
}
