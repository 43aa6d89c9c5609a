import { canonicalId, describeSlip, groupedId, slipBetween, spellAloud } from '../../core/names/sensor-id';
import { Field } from '../kit/Field';

interface IdFieldProps {
  label: string;
  value: string;
  onValue: (value: string) => void;
  /** How many hexadecimal digits an ID of this car has, where that is known. */
  digits?: number | undefined;
  /** What it is expected to be: a slip away from it is said at once. */
  known?: string | undefined;
}

/** A sensor ID, typed: grouped, counted, held against what is known, and spelled for reading back. Nothing is refused. */
export function IdField({ label, value, onValue, digits, known }: IdFieldProps) {
  const id = canonicalId(value);
  return (
    <Field
      label={label}
      figures
      autoCapitalize="characters"
      spellCheck={false}
      maxLength={40}
      value={value}
      onValue={onValue}
      hint={id === '' ? undefined : `${groupedId(id)}: ${spellAloud(id)}`}
      error={id === '' ? undefined : doubtOf(id, digits, known)}
    />
  );
}

/** What speaks against an ID as it is typed; digits still to come are no fault. */
function doubtOf(id: string, digits: number | undefined, known: string | undefined): string | undefined {
  const odd = /[^0-9A-F]/.exec(id)?.[0];
  if (odd) return `${odd} is no hexadecimal digit: 0 to 9 and A to F are.`;
  const complete = digits === undefined || id.length >= digits;
  const slip = known !== undefined && complete ? slipBetween(known, id) : undefined;
  if (slip && known !== undefined) return `Nearly ${groupedId(known)}: ${describeSlip(slip, known, id)}.`;
  if (digits !== undefined && id.length > digits)
    return `${id.length} digits; this car’s IDs have ${digits}.`;
  return undefined;
}
