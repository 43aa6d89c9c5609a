import { readTroubleCode, type TroubleCode } from '../../core/car/trouble-code';
import { Field } from '../kit/Field';
import { Tool } from './Tool';
import { useBenchState } from './use-bench-state';

const owners: Record<TroubleCode['owner'], string> = {
  standard: 'its meaning is in the standard',
  maker: 'its meaning belongs to the vehicle’s maker: see the vehicle’s profile',
  reserved: 'its group is reserved: read it again',
};

/** What the form of a trouble code tells; what it means the profile of the vehicle says. */
export function CodesTool({ search }: { search: string }) {
  const { values, set, link } = useBenchState('codes', search, { code: '' });
  const read = values.code.trim() === '' ? undefined : readTroubleCode(values.code);
  const hex = (byte: number) => byte.toString(16).toUpperCase().padStart(2, '0');
  const sentence =
    read?.ok === true
      ? `${read.value.text} is a ${read.value.system} code, bytes ${read.value.bytes.map(hex).join(' ')}${read.value.failureType === undefined ? '' : `, failure type ${hex(read.value.failureType)}`}; ${owners[read.value.owner]}.`
      : undefined;
  return (
    <Tool
      title="Trouble codes"
      sentence={sentence}
      link={link}
      formula="Two bits name the system (P, C, B, U), two the group, then three hexadecimal digits; a third byte says how the part failed"
      source="ISO 15031-6 / SAE J2012; failure types ISO 14229-1 annex D"
    >
      <Field
        label="Code, or its bytes"
        placeholder="C1B31 or 5B 31"
        value={values.code}
        error={read?.ok === false ? read.problem.message : undefined}
        onValue={(v) => set('code', v)}
      />
    </Tool>
  );
}
