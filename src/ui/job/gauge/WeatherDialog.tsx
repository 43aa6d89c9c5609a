import { useState } from 'react';
import { fillPolicyQuestion, fillPolicyWords } from '../../../core/tire/filling';
import type { Climate } from '../../../core/job';
import { figure, format, height, parse, temperature, type Notation } from '../../../core/measure/units';
import { celsiusAt, hoursFrom, nightsOf } from '../../../core/measure/weather';
import { shopNow } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field } from '../../kit/Field';
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

/** Outdoor temperatures, height, and which of them a tire shall stand at placard at. */
export function WeatherDialog({ climate, units, busy, problem, onSave, onClose }: WeatherDialogProps) {
  const show = (celsius: number) => figure(temperature, celsius, units);
  const [typed, setTyped] = useState(() =>
    Object.fromEntries(
      fields.map(({ name }) => {
        const celsius = climate[name];
        return [name, celsius === undefined ? '' : show(celsius)];
      }),
    ),
  );
  const [up, setUp] = useState(
    climate.altitudeM === undefined ? '' : figure(height, climate.altitudeM, units),
  );
  const [policy, setPolicy] = useState<'ambient' | 'morning'>(climate.fillPolicy ?? 'ambient');
  const [errors, setErrors] = useState<Record<string, string>>({});
  const weather = useWeather();
  const [now] = useState(shopNow);

  const take = (part: Partial<Record<Name, number>>) =>
    setTyped((before) => ({
      ...before,
      ...Object.fromEntries(Object.entries(part).map(([name, celsius]) => [name, show(celsius)])),
    }));

  const save = () => {
    const wrong: Record<string, string> = {};
    const next: Climate = { ...climate, fillPolicy: policy };
    for (const { name } of fields) {
      const text = typed[name]?.trim() ?? '';
      const read = text === '' ? undefined : parse(temperature, text, units.temperature);
      if (read && !read.ok) wrong[name] = read.problem.message;
      else if (!read) delete next[name];
      // A figure nobody touched stays what it was, whatever it rounds to on the screen.
      else if (climate[name] === undefined || text !== show(climate[name])) next[name] = read.value.base;
    }
    const metres = up.trim() === '' ? undefined : parse(height, up, units.height);
    if (!metres) delete next.altitudeM;
    else if (!metres.ok) wrong.height = metres.problem.message;
    else if (climate.altitudeM === undefined || up !== figure(height, climate.altitudeM, units))
      next.altitudeM = metres.value.base;
    if (policy === 'morning' && next.overnightLowC === undefined && !wrong.overnightLowC) {
      wrong.overnightLowC = 'Needed to set tires for the morning.';
    }
    setErrors(wrong);
    if (Object.keys(wrong).length === 0) onSave(next);
  };

  const hours = weather?.ok ? hoursFrom(weather.value.hours, now) : [];
  const nights = nightsOf(hours);
  const [tonight] = nights;
  const nowC = celsiusAt(hours, now);
  const coldest = nights.length > 0 ? Math.min(...nights.map((night) => night.coldest.celsius)) : undefined;
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
              onValue={(value) => setTyped((before) => ({ ...before, [name]: value }))}
              error={errors[name]}
            />
          ))}
          <Field label={`Height, ${units.height}`} value={up} onValue={setUp} error={errors.height} />
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
        <Choice
          label={fillPolicyQuestion}
          options={optionsFrom(fillPolicyWords)}
          value={policy}
          onValue={setPolicy}
        />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <Button weight="main" type="submit" busy={busy}>
          Save the weather
        </Button>
      </form>
    </Dialog>
  );
}
