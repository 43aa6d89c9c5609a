import {
  decimal,
  distance,
  height,
  parse,
  pressure,
  temperature,
  type Quantity,
  type Notation,
} from '../../core/measure/units';
import type { Place } from '../../core/measure/calendar';
import { Choice, Field } from '../kit/Field';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

const quantities = [
  { value: 'pressure', label: 'pressure' },
  { value: 'temperature', label: 'temperature' },
  { value: 'distance', label: 'distance' },
  { value: 'height', label: 'height' },
] as const;
type Of = (typeof quantities)[number]['value'];

const formulas: Record<Of, string> = {
  pressure: '1 psi = 6.894757 kPa, 1 bar = 100 kPa, 1 kgf/cm² = 98.0665 kPa',
  temperature: '°C = (°F − 32) / 1.8',
  distance: '1 mi = 1.609344 km',
  height: '1 ft = 0.3048 m',
};

/** A figure in every unit there is of it. */
export function UnitsTool({ search, units }: { search: string; units: Notation }) {
  const { values, set, link } = useBenchState('units', search, { of: 'pressure', x: '' });
  const of = quantities.find(({ value }) => value === values.of)?.value ?? 'pressure';
  const { sentence, error } = inAllUnits(of, values.x, units);
  return (
    <Tool
      title="Units"
      sentence={sentence}
      link={link}
      formula={formulas[of]}
      source="NIST Special Publication 811 (2008), appendix B.8"
    >
      <Choice label="Of" options={quantities} value={of} onValue={(v) => set('of', v)} />
      <Field
        label={`Figure, ${units[of]}`}
        hint="Another unit may stand behind it: 32psi, 2.3 bar, 4500 ft."
        value={values.x}
        error={error}
        onValue={(v) => set('x', v)}
      />
    </Tool>
  );
}

function inAllUnits(of: Of, typed: string, units: Notation): { sentence?: string; error?: string } {
  switch (of) {
    case 'pressure':
      return convert(pressure, typed, units);
    case 'temperature':
      return convert(temperature, typed, units);
    case 'distance':
      return convert(distance, typed, units);
    case 'height':
      return convert(height, typed, units);
  }
}

/** One decimal more than a reading has: here the figure itself is the matter. */
function convert<Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  typed: string,
  units: Record<Noun, Name> & Place,
): { sentence?: string; error?: string } {
  if (typed.trim() === '') return {};
  const entry = parse(quantity, typed, units[quantity.noun]);
  if (!entry.ok) return { error: entry.problem.message };
  const others = quantity.units
    .filter(({ name }) => name !== entry.value.unit)
    .map(
      ({ name, fromBase, decimals }) => `${decimal(fromBase(entry.value.base), decimals + 1, units)} ${name}`,
    );
  return { sentence: `${entry.value.typed} = ${others.join(' = ')}` };
}
