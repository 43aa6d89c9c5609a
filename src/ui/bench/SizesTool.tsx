import {
  compareSizes,
  kmhOf,
  loadCapacityKg,
  parseTireSize,
  rollingMm,
  type TireSize,
} from '../../core/names/tire-size';
import { format, pressure, type Notation } from '../../core/measure/units';
import { fitWords } from '../../core/names/tire-size/words';
import { Field } from '../kit/Field';
import styles from './Bench.module.css';
import { readField } from './read';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

/** What a size means, and how another does in its place. */
export function SizesTool({ search, units }: { search: string; units: Notation }) {
  const { values, set, link } = useBenchState('sizes', search, { placard: '', fitted: '', p: '' });
  const placard = values.placard.trim() === '' ? undefined : parseTireSize(values.placard);
  const fitted = values.fitted.trim() === '' ? undefined : parseTireSize(values.fitted);
  const p = readField(pressure, values.p, units.pressure);
  const at = p.base === undefined ? undefined : format(pressure, p.base, units);
  const sizes = [placard, fitted].flatMap((parsed) => (parsed?.ok ? [parsed.value] : []));
  const fit =
    placard?.ok && fitted?.ok ? fitWords(compareSizes(placard.value, fitted.value, p.base), at) : undefined;
  const [first] = sizes;
  const sentence = fit
    ? `${values.fitted} in place of ${values.placard}: ${fit.verdict} ${fit.details.join(', ')}.`
    : first &&
      `${first.text} is ${first.diameterMm.toFixed(0)} mm across and rolls ${rollingMm(first).toFixed(0)} mm a turn.`;
  const row = (label: string, cell: (size: TireSize) => string) => (
    <tr>
      <th scope="row">{label}</th>
      {sizes.map((size, place) => (
        <td key={place} className="figures">
          {cell(size)}
        </td>
      ))}
    </tr>
  );
  return (
    <Tool
      title="Tire sizes"
      sentence={sentence}
      link={link}
      more={
        sizes.length > 0 && (
          <table className={styles.table}>
            <thead>
              <tr>
                <td />
                {sizes.map(({ text }, place) => (
                  <th key={place} scope="col">
                    {text}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {row('Diameter', ({ diameterMm }) => `${diameterMm.toFixed(1)} mm`)}
              {row('Rolls per turn', (size) => `${rollingMm(size).toFixed(0)} mm`)}
              {row(
                'Built as',
                (size) => `${size.kind.replace('-', ' ')}, ${size.class.replaceAll('-', ' ')}`,
              )}
              {row('Carries at most', (size) => kg(loadCapacityKg(size, Number.POSITIVE_INFINITY)))}
              {p.base !== undefined &&
                row(`Carries at ${at}`, (size) => kg(loadCapacityKg(size, p.base ?? 0)))}
              {row('Speed', ({ speedSymbol }) => (speedSymbol ? `${kmhOf(speedSymbol) ?? '–'} km/h` : '–'))}
            </tbody>
          </table>
        )
      }
      formula="diameter = 2 · width · aspect + rim · 25.4; turn = 3.05 · diameter (radial); load = index · (p / reference)^0.8, LT and load ranges ^0.7"
      source="ETRTO Standards Manual and ISO 4000-1; what rolls alike within 2.5 % is common practice"
    >
      <Field
        label="Size on the placard"
        placeholder="215/55R17 94V"
        value={values.placard}
        error={placard?.ok === false ? placard.problem.message : undefined}
        onValue={(v) => set('placard', v)}
      />
      <Field
        label="Size on the car"
        placeholder="225/50R17 98V XL"
        value={values.fitted}
        error={fitted?.ok === false ? fitted.problem.message : undefined}
        onValue={(v) => set('fitted', v)}
      />
      <Field
        label={`Placard pressure, ${units.pressure}`}
        value={values.p}
        error={p.error}
        onValue={(v) => set('p', v)}
      />
    </Tool>
  );
}

const kg = (load: number | undefined) => (load === undefined ? 'no load index' : `${load.toFixed(0)} kg`);
