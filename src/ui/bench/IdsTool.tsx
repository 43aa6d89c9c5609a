import {
  canonicalId,
  decimalOf,
  describeSlip,
  groupedId,
  idFromDecimal,
  sameId,
  slipBetween,
  spellAloud,
} from '../../core/names/sensor-id';
import { Choice, Field } from '../kit/Field';
import styles from './Bench.module.css';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

/** An ID in every way it is written and read aloud, and what slipped between two. */
export function IdsTool({ search }: { search: string }) {
  const { values, set, link } = useBenchState('ids', search, { id: '', as: 'hex', digits: '8', other: '' });
  const decimal = values.as === 'decimal';
  const digits = values.digits === '7' ? 7 : 8;
  const id = decimal ? idFromDecimal(values.id, digits) : canonicalId(values.id);
  const typed = values.id.trim() !== '';
  const wrong = typed && (id === undefined || decimalOf(id) === undefined);
  const error = !wrong
    ? undefined
    : decimal
      ? `That is no decimal of ${digits} hexadecimal digits. Read it again, or say that it is hexadecimal.`
      : 'An ID is made of 0 to 9 and A to F. Letters that look alike: O is 0, I is 1, S is 5, Z is 2.';
  const shown = typed && id && !wrong ? id : undefined;
  const other = canonicalId(values.other);
  const sentence = shown && idSentence(shown, other);
  return (
    <Tool
      title="Sensor IDs"
      sentence={sentence}
      link={link}
      more={
        shown && (
          <table className={styles.table}>
            <tbody>
              <tr>
                <th scope="row">Hexadecimal</th>
                <td className="figures">{groupedId(shown)}</td>
              </tr>
              <tr>
                <th scope="row">Decimal</th>
                <td className="figures">{decimalOf(shown)}</td>
              </tr>
              <tr>
                <th scope="row">Read aloud</th>
                <td>{spellAloud(shown)}</td>
              </tr>
            </tbody>
          </table>
        )
      }
      formula="The same number in base 16 and base 10. Compared without case, blanks and hyphens; one slip is a digit wrong, lost or doubled, or two neighbours exchanged"
      source="Radiotelephony spelling: ICAO Annex 10 volume II. Slips: common practice"
    >
      <Field label="ID" value={values.id} error={error} onValue={(v) => set('id', v)} />
      <Choice
        label="It is printed in"
        options={[
          { value: 'hex', label: 'hexadecimal' },
          { value: 'decimal', label: 'decimal' },
        ]}
        value={decimal ? 'decimal' : 'hex'}
        onValue={(v) => set('as', v)}
      />
      {decimal && (
        <Choice
          label="Its family has"
          options={[
            { value: '7', label: '7 digits' },
            { value: '8', label: '8 digits' },
          ]}
          value={digits === 7 ? '7' : '8'}
          onValue={(v) => set('digits', v)}
        />
      )}
      <Field label="Another ID, to compare" value={values.other} onValue={(v) => set('other', v)} />
    </Tool>
  );
}

function idSentence(id: string, other: string): string {
  if (other === '') return `${groupedId(id)}, in decimal ${decimalOf(id)}, read aloud: ${spellAloud(id)}.`;
  const both = `${groupedId(id)} and ${groupedId(other)}`;
  if (sameId(id, other)) return `${both} are the same ID.`;
  const slip = slipBetween(id, other);
  return slip
    ? `${both} are one slip apart: ${describeSlip(slip, id, other)}.`
    : `${both} are more than one slip apart: two different sensors.`;
}
