import { useState } from 'react';
import type { Observation, Reply, Seen } from '../../../core/job';
import { parse, pressure, temperature, type Notation } from '../../../core/measure/units';
import type { Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Choice, Field } from '../../kit/Field';
import { IdField } from '../../parts/IdField';
import styles from '../../kit/Forms.module.css';

interface TypedScanProps {
  wheel: Position;
  trigger: Seen<'activation'>['trigger'];
  units: Notation;
  digits: number | undefined;
  /** What is on file or held for this wheel. */
  known: string | undefined;
  onRecord: (observation: Observation) => void;
}

/** What another tool shows at a wheel, typed: its ID and what else it says; or that nothing answered. */
export function TypedScan({ wheel, trigger, units, digits, known, onRecord }: TypedScanProps) {
  const [id, setId] = useState('');
  const [typedPressure, setPressure] = useState('');
  const [typedTemperature, setTemperature] = useState('');
  const [battery, setBattery] = useState<'ok' | 'low' | 'not-shown'>('not-shown');
  const kPa = typedPressure.trim() === '' ? undefined : parse(pressure, typedPressure, units.pressure);
  const tempC =
    typedTemperature.trim() === '' ? undefined : parse(temperature, typedTemperature, units.temperature);
  const keep = (replies: Reply[]) =>
    onRecord({ kind: 'activation', at: shopTime(), wheel, trigger, replies, source: 'hand' });
  const wrong = (kPa && !kPa.ok) || (tempC && !tempC.ok);
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        keep([
          {
            id: id.trim(),
            ...(kPa?.ok && { kPa: kPa.value.base }),
            ...(tempC?.ok && { tempC: tempC.value.base }),
            ...(battery !== 'not-shown' && { battery }),
          },
        ]);
      }}
    >
      <IdField label="ID the tool shows" value={id} onValue={setId} digits={digits} known={known} />
      <div className={styles.row}>
        <Field
          label={`Pressure, ${units.pressure} (may be empty)`}
          inputMode="decimal"
          value={typedPressure}
          error={kPa && !kPa.ok ? kPa.problem.message : undefined}
          onValue={setPressure}
        />
        <Field
          label={`Temperature, ${units.temperature} (may be empty)`}
          inputMode="decimal"
          value={typedTemperature}
          error={tempC && !tempC.ok ? tempC.problem.message : undefined}
          onValue={setTemperature}
        />
      </div>
      <Choice
        label="Battery"
        options={[
          { value: 'not-shown', label: 'not shown' },
          { value: 'ok', label: 'ok' },
          { value: 'low', label: 'low' },
        ]}
        value={battery}
        onValue={setBattery}
      />
      <div className={styles.actions}>
        <Button type="submit" disabled={id.trim() === '' || wrong === true}>
          Save what it shows
        </Button>
        <Button onClick={() => keep([])}>Nothing answered</Button>
      </div>
    </form>
  );
}
