import { canonicalVin, vinAdvice } from '../../core/names/vin';
import { decodeVin } from '../../core/names/vin/decode';
import { Field } from '../kit/Field';
import styles from './Bench.module.css';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

/** What the places of a VIN say, and whether it was copied right. */
export function VinTool({ search }: { search: string }) {
  const { values, set, link } = useBenchState('vin', search, { vin: '' });
  const typed = canonicalVin(values.vin);
  const advice = typed === '' ? undefined : vinAdvice(typed);
  const decoded = decodeVin(typed);
  const complete = typed.length === 17 && decoded.verdict.kind !== 'wrong-character';
  const years = decoded.modelYears.join(' or ');
  const rows = [
    ['Region', decoded.region ?? 'not assigned'],
    ['Maker', `${decoded.maker}${decoded.fewVehicles ? ', a maker of few vehicles' : ''}`],
    ['Described by the maker', decoded.descriptor],
    ['Model year', years || 'not said'],
    ['Plant', decoded.plant],
    ['Serial number', decoded.serial],
  ];
  return (
    <Tool
      title="VIN"
      sentence={
        complete
          ? `${typed}: ${decoded.verdict.kind === 'valid' ? 'its check digit is right' : 'its check digit differs'}, ${decoded.region ?? 'no region'}, model year ${years || 'not said'}, serial ${decoded.serial}.`
          : undefined
      }
      link={link}
      more={
        complete && (
          <table className={styles.table}>
            <tbody>
              {rows.map(([label, value]) => (
                <tr key={label}>
                  <th scope="row">{label}</th>
                  <td className="figures">{value}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )
      }
      formula="Each character has a value and each place a weight; their sum modulo 11 is the ninth character, X for ten. The tenth is the model year, of which the seventh tells the round of thirty years"
      source="ISO 3779:2009, ISO 3780; check digit and years 49 CFR 565.15, where it applies"
    >
      <Field label="VIN" value={values.vin} error={advice} onValue={(v) => set('vin', v)} />
    </Tool>
  );
}
