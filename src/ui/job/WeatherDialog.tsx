import { useState } from 'react';
import type { Climate } from '../../core/job';
import { figure, parse, temperature, type UnitChoice } from '../../core/units';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Choice, Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './SheetForms.module.css';

interface WeatherDialogProps {
  climate: Climate;
  units: UnitChoice;
  busy: string | undefined;
  problem: string | undefined;
  onSave: (climate: Climate) => void;
  onClose: () => void;
}

const fields = [
  { name: 'nowC', label: 'Outdoors now' },
  { name: 'overnightLowC', label: 'Coldest hour to come' },
  { name: 'lastFillC', label: 'When last filled' },
] as const;

/** Outdoor temperatures, height, and which of them a tire shall stand at placard at. */
export function WeatherDialog({ climate, units, busy, problem, onSave, onClose }: WeatherDialogProps) {
  const [typed, setTyped] = useState(() =>
    Object.fromEntries(
      fields.map(({ name }) => {
        const celsius = climate[name];
        return [name, celsius === undefined ? '' : figure(temperature, celsius, units.temperature)];
      }),
    ),
  );
  const [height, setHeight] = useState(climate.altitudeM === undefined ? '' : String(climate.altitudeM));
  const [policy, setPolicy] = useState<'ambient' | 'morning'>(climate.fillPolicy ?? 'ambient');
  const [errors, setErrors] = useState<Record<string, string>>({});

  const save = () => {
    const wrong: Record<string, string> = {};
    const next: Climate = { ...climate, fillPolicy: policy };
    for (const { name } of fields) {
      const text = typed[name]?.trim() ?? '';
      const read = text === '' ? undefined : parse(temperature, text, units.temperature);
      if (read && !read.ok) wrong[name] = read.problem.message;
      else if (read) next[name] = read.value.base;
      else delete next[name];
    }
    const metres = Number(height.replace(',', '.'));
    if (height.trim() === '') delete next.altitudeM;
    else if (!Number.isFinite(metres) || metres < -500 || metres > 6000)
      wrong.height = 'A height in metres, from −500 to 6000.';
    else next.altitudeM = metres;
    if (policy === 'morning' && next.overnightLowC === undefined && !wrong.overnightLowC) {
      wrong.overnightLowC = 'Needed to set tires for the morning.';
    }
    setErrors(wrong);
    if (Object.keys(wrong).length === 0) onSave(next);
  };

  return (
    <Dialog title="Weather and height" onClose={onClose}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <div className={styles.row}>
          {fields.map(({ name, label }) => (
            <Field
              key={name}
              label={`${label}, ${units.temperature}`}
              value={typed[name] ?? ''}
              onValue={(value) => setTyped((now) => ({ ...now, [name]: value }))}
              error={errors[name]}
            />
          ))}
          <Field
            label="Height, m"
            inputMode="decimal"
            value={height}
            onValue={setHeight}
            error={errors.height}
          />
        </div>
        <Choice
          label="Tires shall stand at placard"
          options={[
            { value: 'ambient', label: 'at the temperature of now' },
            { value: 'morning', label: 'at the coldest hour to come' },
          ]}
          value={policy}
          onValue={setPolicy}
        />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <Button weight="main" type="submit" busy={busy}>
          Keep the weather
        </Button>
      </form>
    </Dialog>
  );
}
