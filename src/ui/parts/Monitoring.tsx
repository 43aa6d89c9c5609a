import type { Tpms } from '../../core/job';
import { monitoringWords } from '../../core/job/words';
import { parse, pressure, figure, type Notation } from '../../core/measure/units';
import { roadWheels } from '../../core/names/wheel';
import { Choice, Field } from '../kit/Field';
import { optionsFrom } from '../kit/options';
import styles from '../kit/Forms.module.css';

/** The monitoring of a kind of vehicle that is not on file, as it is typed: what is empty is not known. */
export interface MonitoringEntry {
  kind: Tpms['kind'];
  spare: 'yes' | 'no';
  frequency: string;
  digits: string;
  locates: 'yes' | 'no' | 'not-known';
  lowOn: string;
  lowOff: string;
}

export const monitoringFrom = (tpms: Tpms | undefined, units: Notation): MonitoringEntry => ({
  kind: tpms?.kind ?? 'direct',
  spare: tpms?.positions?.includes('SP') ? 'yes' : 'no',
  frequency: tpms?.frequencyMHz === undefined ? '' : String(tpms.frequencyMHz),
  digits: tpms?.idDigits === undefined ? '' : String(tpms.idDigits),
  locates: tpms?.locates === undefined ? 'not-known' : tpms.locates ? 'yes' : 'no',
  lowOn: tpms?.lowOnKPa === undefined ? '' : figure(pressure, tpms.lowOnKPa, units),
  lowOff: tpms?.lowOffKPa === undefined ? '' : figure(pressure, tpms.lowOffKPa, units),
});

/** What is wrong with an entry, by its field. */
type MonitoringErrors = Partial<Record<keyof MonitoringEntry, string>>;

/** As it is stored, or what is wrong with it. */
export function tpmsOf(
  entry: MonitoringEntry,
  units: Notation,
): { tpms: Tpms; errors: undefined } | { tpms: undefined; errors: MonitoringErrors } {
  const { kind, spare, locates } = entry;
  const errors: MonitoringErrors = {};
  const number = (name: 'frequency' | 'digits', least: number, most: number, say: string) => {
    const text = entry[name].trim().replace(',', '.');
    if (text === '') return undefined;
    const value = Number(text);
    if (value >= least && value <= most && (name === 'frequency' || Number.isInteger(value))) return value;
    errors[name] = say;
    return undefined;
  };
  const kPa = (name: 'lowOn' | 'lowOff') => {
    if (entry[name].trim() === '') return undefined;
    const read = parse(pressure, entry[name], units.pressure);
    if (read.ok) return read.value.base;
    errors[name] = read.problem.message;
    return undefined;
  };
  const [lowOnKPa, lowOffKPa] = [kPa('lowOn'), kPa('lowOff')];
  if (lowOnKPa !== undefined && lowOffKPa !== undefined && lowOffKPa < lowOnKPa)
    errors.lowOff = 'It goes out at or above the figure at which it comes on.';
  const frequencyMHz = number('frequency', 100, 3000, 'In MHz: 315 or 433.92, say.');
  const idDigits = number('digits', 1, 16, 'How many hexadecimal digits an ID has: 8, say.');
  if (Object.keys(errors).length > 0) return { tpms: undefined, errors };
  const thresholds = {
    ...(lowOnKPa !== undefined && { lowOnKPa }),
    ...(lowOffKPa !== undefined && { lowOffKPa }),
  };
  if (kind !== 'direct') return { tpms: { kind, ...(kind === 'indirect' && thresholds) }, errors: undefined };
  return {
    tpms: {
      kind,
      positions: spare === 'yes' ? [...roadWheels, 'SP'] : [...roadWheels],
      ...(frequencyMHz !== undefined && { frequencyMHz }),
      ...(idDigits !== undefined && { idDigits }),
      ...(locates !== 'not-known' && { locates: locates === 'yes' }),
      ...thresholds,
    },
    errors: undefined,
  };
}

const kinds = [
  ...optionsFrom(monitoringWords),
  { value: 'none' as const, label: 'none: this car has no monitoring' },
];

/** What is known of a kind of vehicle that is not on file. */
export function Monitoring({
  value,
  onValue,
  errors = {},
  units,
}: {
  value: MonitoringEntry;
  onValue: (value: MonitoringEntry) => void;
  errors?: MonitoringErrors | undefined;
  units: Notation;
}) {
  const set = (part: Partial<MonitoringEntry>) => onValue({ ...value, ...part });
  return (
    <div className={styles.form}>
      <Choice
        label="Tire-pressure monitoring"
        options={kinds}
        value={value.kind}
        onValue={(kind) => set({ kind })}
      />
      {value.kind === 'direct' && (
        <>
          <Choice
            label="A sensor in the spare"
            options={[
              { value: 'no', label: 'no' },
              { value: 'yes', label: 'yes' },
            ]}
            value={value.spare}
            onValue={(spare) => set({ spare })}
          />
          <Choice
            label="Does the car tie each ID to a wheel position?"
            options={[
              { value: 'not-known', label: 'not known' },
              { value: 'yes', label: 'yes' },
              { value: 'no', label: 'no' },
            ]}
            value={value.locates}
            onValue={(locates) => set({ locates })}
          />
        </>
      )}
      {value.kind !== 'none' && (
        <div className={styles.row}>
          {value.kind === 'direct' && (
            <>
              <Field
                label="Frequency, MHz"
                inputMode="decimal"
                value={value.frequency}
                onValue={(frequency) => set({ frequency })}
                error={errors.frequency}
              />
              <Field
                label="Digits of an ID"
                inputMode="numeric"
                value={value.digits}
                onValue={(digits) => set({ digits })}
                error={errors.digits}
              />
            </>
          )}
          <Field
            label={`Lamp on at, ${units.pressure}`}
            inputMode="decimal"
            value={value.lowOn}
            onValue={(lowOn) => set({ lowOn })}
            error={errors.lowOn}
          />
          <Field
            label={`Lamp off at, ${units.pressure}`}
            inputMode="decimal"
            value={value.lowOff}
            onValue={(lowOff) => set({ lowOff })}
            error={errors.lowOff}
          />
        </div>
      )}
      <p className={styles.soft}>Leave empty what is not known: nothing is guessed for it.</p>
    </div>
  );
}
