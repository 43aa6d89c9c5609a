import { useState } from 'react';
import { z } from 'zod';
import { fillPolicyQuestion, fillPolicyWords } from '../../../core/tire/filling';
import type { Climate } from '../../../core/job';
import { figure, format, height, temperature, type Notation } from '../../../core/measure/units';
import { typedAsOrEmpty } from '../../../core/measure/units/schema';
import { fillPolicies } from '../../../core/names/kinds';
import { celsiusAt, hoursFrom, nightsOf } from '../../../core/measure/weather';
import { shopNow } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { ChoiceIn, Form, TextIn, useFilled } from '../../kit/Form';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import { optionsFrom } from '../../kit/options';
import { useWeather } from '../../parts/use-weather';

interface WeatherDialogProps {
  climate: Climate;
  units: Notation;
  busy: string | undefined;
  problem: string | undefined;
  onSave: (climate: Climate) => void;
  onClose: () => void;
}

const fields = [
  { name: 'nowC', label: 'Outdoors now' },
  { name: 'overnightLowC', label: 'Coldest hour' },
  { name: 'lastFillC', label: 'When last filled' },
] as const;
type Name = (typeof fields)[number]['name'];
const figures = ['nowC', 'overnightLowC', 'lastFillC', 'altitudeM'] as const;

const weatherIn = (units: Notation) => {
  const celsius = typedAsOrEmpty(temperature, units);
  return z
    .object({
      nowC: celsius,
      overnightLowC: celsius,
      lastFillC: celsius,
      altitudeM: typedAsOrEmpty(height, units),
      fillPolicy: z.enum(fillPolicies),
    })
    .refine(({ fillPolicy, overnightLowC }) => fillPolicy !== 'morning' || overnightLowC, {
      path: ['overnightLowC'],
      message: 'Needed to set tires for the morning.',
    });
};

/** Outdoor temperatures, height, and which of them a tire shall stand at placard at. */
export function WeatherDialog({ climate, units, busy, problem, onSave, onClose }: WeatherDialogProps) {
  const show = (celsius: number | undefined) =>
    celsius === undefined ? '' : figure(temperature, celsius, units);
  const form = useFilled(weatherIn(units), {
    nowC: show(climate.nowC),
    overnightLowC: show(climate.overnightLowC),
    lastFillC: show(climate.lastFillC),
    altitudeM: climate.altitudeM === undefined ? '' : figure(height, climate.altitudeM, units),
    fillPolicy: climate.fillPolicy ?? 'ambient',
  });
  const {
    control: of,
    formState: { dirtyFields },
  } = form;
  const weather = useWeather();
  const [now] = useState(shopNow);
  const take = (part: Partial<Record<Name, number>>) => {
    for (const { name } of fields) {
      if (part[name] !== undefined) form.setValue(name, show(part[name]), { shouldDirty: true });
    }
  };
  const hours = weather?.ok ? hoursFrom(weather.value.hours, now) : [];
  const nights = nightsOf(hours);
  const [tonight] = nights;
  const nowC = celsiusAt(hours, now);
  const coldest = nights.length > 0 ? Math.min(...nights.map((night) => night.coldest.celsius)) : undefined;
  return (
    <Dialog title="Weather and height" onClose={onClose}>
      <Form
        form={form}
        className={styles.form}
        onRead={({ fillPolicy, ...read }) => {
          const next: Climate = { ...climate, fillPolicy };
          for (const name of figures) {
            // A figure nobody touched stays what it was, whatever it rounds to on the screen.
            if (!dirtyFields[name]) continue;
            const entry = read[name];
            if (entry) next[name] = entry.base;
            else delete next[name];
          }
          onSave(next);
        }}
      >
        <div className={styles.row}>
          {fields.map(({ name, label }) => (
            <TextIn key={name} of={of} name={name} label={`${label}, ${units.temperature}`} />
          ))}
          <TextIn of={of} name="altitudeM" label={`Height, ${units.height}`} />
        </div>
        {weather?.ok && tonight && nowC !== undefined && (
          <div className={styles.actions}>
            <Button onClick={() => take({ nowC, overnightLowC: tonight.coldest.celsius })}>
              {weather.value.place}: {format(temperature, nowC, units)} now,{' '}
              {format(temperature, tonight.coldest.celsius, units)} tonight
            </Button>
            {coldest !== undefined && coldest < tonight.coldest.celsius && (
              <Button onClick={() => take({ nowC, overnightLowC: coldest })}>
                coldest of the week: {format(temperature, coldest, units)}
              </Button>
            )}
          </div>
        )}
        {weather && !weather.ok && <p className={styles.soft}>{weather.problem.message}</p>}
        <ChoiceIn
          of={of}
          name="fillPolicy"
          label={fillPolicyQuestion}
          options={optionsFrom(fillPolicyWords)}
        />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <Button weight="main" type="submit" busy={busy}>
          Save the weather
        </Button>
      </Form>
    </Dialog>
  );
}
