import { useState } from 'react';
import type { FillPolicy } from '../../../core/names/kinds';
import { policyCelsius, targetsFor } from '../../../core/tire/filling';
import type { Job } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { forecastOf, latchesOf } from '../../../core/car/lamp';
import { isTemporarySpare, placardKPa } from '../../../core/job/placard';
import {
  figure,
  format,
  formatDifference,
  pressure,
  temperature,
  type Notation,
} from '../../../core/measure/units';
import { hoursFrom, nightsOf, type Hour } from '../../../core/measure/weather';
import { ask } from '../../api';
import { shopNow } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import type { PracticeCar } from '../../../contract/views';
import { lampFigures } from './lamp-figures';
import { PressureChart } from '../../parts/PressureChart';
import styles from '../../kit/Forms.module.css';
import { weekday } from '../../../core/measure/calendar';
import { forecastWords } from './words';
import { useWeather } from '../../parts/use-weather';

type Forecast = ReturnType<typeof forecastOf>;

interface TonightDialogProps {
  jobId: string;
  job: Job;
  units: Notation;
  practice: boolean;
  /** Missing on a closed job. */
  onFillPolicy: ((school: FillPolicy) => void) | undefined;
  onWeather: (() => void) | undefined;
  onClose: () => void;
}

/** What the lamp does tonight and the nights after, as the tires stand and once they are filled. */
export function TonightDialog({
  jobId,
  job,
  units,
  practice,
  onFillPolicy,
  onWeather,
  onClose,
}: TonightDialogProps) {
  const [air, setAir] = useState<'stands' | 'filled'>('stands');
  const weather = useWeather();
  const [now] = useState(shopNow);
  const ledger = ledgerOf(job);
  const targets = targetsFor(job, ledger);
  const hours = hoursFor(job, weather?.ok ? hoursFrom(weather.value.hours, now) : [], now);
  const forecast = forecastOf(job, ledger, hours, air === 'filled' ? targets : undefined);
  const fillPolicy: FillPolicy = job.climate?.fillPolicy ?? 'ambient';
  const policyC = policyCelsius(job);
  const road = forecast.wheels.filter(({ wheel }) => !isTemporarySpare(job, wheel));
  const lows = forecast.nights.map(({ coldestC }) => coldestC);
  const coldest = lows.length > 0 ? Math.min(...lows) : undefined;
  const figures = lampFigures(job, units);
  const latches = latchesOf(job, ledger, targets);
  const kPa = (value: number) => format(pressure, value, units);
  return (
    <Dialog title="The lamp, tonight and after" onClose={onClose} wide>
      <div className={styles.form}>
        <div className={styles.row}>
          <Choice
            label="The air in the tires"
            options={[
              { value: 'stands', label: 'as it stands' },
              { value: 'filled', label: 'after this fill' },
            ]}
            value={air}
            onValue={setAir}
          />
          {onFillPolicy && (
            <Choice
              label="Placard is meant for"
              options={[
                { value: 'ambient', label: 'the air of now' },
                { value: 'morning', label: 'the coldest hour' },
              ]}
              value={fillPolicy}
              onValue={onFillPolicy}
            />
          )}
        </div>
        {forecast.wheels.length === 0 ? (
          <Notice tone="note">
            Nothing can be forecast yet: gauge the wheels, each cold or with its temperature, and enter the
            placard.
          </Notice>
        ) : (
          <>
            <p className={styles.lead}>{forecastWords(forecast, units)}</p>
            {figures && <p>The lamp lights at {figures}.</p>}
            {air === 'stands' &&
              latches.map((latch) => (
                <Notice key={latch.wheel} tone="note">
                  {latch.wheel} holds the lamp on: {kPa(latch.kPa)} is above the {kPa(latch.lowOnKPa)} that
                  light it and short of the {kPa(latch.lowOffKPa)} that put it out.{' '}
                  {formatDifference(pressure, latch.outWithKPa, units)} puts it out; fill by{' '}
                  {formatDifference(pressure, latch.fillWithKPa, units)}, to the target, or it comes back.
                </Notice>
              ))}
            <PressureChart
              wheels={road}
              placard={road.flatMap(({ wheel }) => {
                const cold = placardKPa(job, wheel);
                return cold === undefined || policyC === undefined
                  ? []
                  : [{ wheel, kPa: cold, celsius: policyC }];
              })}
              coldestC={coldest}
              units={units}
            />
            <div className={styles.tables}>
              <WheelTable forecast={forecast} coldestC={coldest} units={units} />
              {forecast.nights.length > 0 && (
                <NightTable
                  forecast={forecast}
                  place={weather?.ok ? weather.value.place : undefined}
                  units={units}
                />
              )}
            </div>
          </>
        )}
        {weather && !weather.ok && <p>{weather.problem.message}</p>}
        <div className={styles.actions}>
          {onWeather && <Button onClick={onWeather}>Weather and height</Button>}
          {practice && <PracticeNight jobId={jobId} hours={hours} units={units} />}
        </div>
      </div>
    </Dialog>
  );
}

const degreesIn = (units: Notation) => (value: number) => format(temperature, value, units);

function WheelTable({
  forecast,
  coldestC: coldest,
  units,
}: {
  forecast: Forecast;
  coldestC: number | undefined;
  units: Notation;
}) {
  const degrees = degreesIn(units);
  return (
    <table className={styles.table}>
      <caption>Wheel by wheel</caption>
      <thead>
        <tr>
          <th scope="col">Wheel</th>
          <th scope="col">lights at</th>
          <th scope="col">at {coldest === undefined ? 'the coldest' : degrees(coldest)}</th>
          <th scope="col">margin</th>
        </tr>
      </thead>
      <tbody>
        {forecast.wheels.map(({ wheel, lightsAtC, coldest: then }) => (
          <tr key={wheel}>
            <th scope="row">{wheel}</th>
            <td className="figures">{degrees(lightsAtC)}</td>
            <td className="figures">{then ? figure(pressure, then.kPa, units) : '–'}</td>
            <td className={`figures ${then && then.marginKPa <= 0 ? styles.bad : ''}`}>
              {then ? formatDifference(pressure, then.marginKPa, units) : '–'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function NightTable({
  forecast,
  place,
  units,
}: {
  forecast: Forecast;
  place: string | undefined;
  units: Notation;
}) {
  const degrees = degreesIn(units);
  return (
    <table className={styles.table}>
      <caption>Night by night{place === undefined ? '' : `, ${place}`}</caption>
      <thead>
        <tr>
          <th scope="col">Night of</th>
          <th scope="col">coldest</th>
          <th scope="col">nearest</th>
          <th scope="col">lamp</th>
        </tr>
      </thead>
      <tbody>
        {forecast.nights.map(({ evening, coldestC, lit, nearest }) => (
          <tr key={evening}>
            <th scope="row">{weekday(evening, units)}</th>
            <td className="figures">{degrees(coldestC)}</td>
            <td className="figures">
              {nearest ? `${nearest.wheel} ${formatDifference(pressure, nearest.marginKPa, units)}` : '–'}
            </td>
            <td className={lit ? styles.bad : undefined}>{lit ? 'lit' : 'out'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/**
 * The service's hours. The low that was typed counts where it is colder than any of them, or where there
 * are none: then as the coming night.
 */
function hoursFor(job: Job, known: Hour[], now: number): Hour[] {
  const low = job.climate?.overnightLowC;
  if (low === undefined) return known;
  const [tonight] = nightsOf(known);
  if (!tonight) {
    const at = new Date(now + 12 * 3_600_000).toISOString();
    return [{ at: `${at.slice(0, 10)}T06:00:00+00:00`, celsius: low }];
  }
  if (known.some(({ celsius }) => celsius <= low)) return known;
  return known.map((hour) => (hour.at === tonight.coldest.at ? { ...hour, celsius: low } : hour));
}

/** Practice only: a night passes over the simulated car, and it is driven off in the morning. */
function PracticeNight({ jobId, hours, units }: { jobId: string; hours: readonly Hour[]; units: Notation }) {
  const [car, setCar] = useState<PracticeCar>();
  const [busy, setBusy] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const nights = nightsOf(hours);
  const pass = async (celsius: number) => {
    setBusy('The night passes…');
    const morning = await ask('practise', { id: jobId, body: { do: 'night', celsius } });
    setBusy(undefined);
    if (!morning.ok) setProblem(morning.problem.message);
    else if ('lamp' in morning.value) setCar(morning.value);
  };
  const lows = nights.map(({ coldest }) => coldest.celsius);
  const [tonight] = lows;
  const coldest = Math.min(...lows);
  return (
    <>
      {tonight !== undefined && (
        <Button busy={busy} onClick={() => void pass(tonight)}>
          Practice: let tonight pass ({format(temperature, tonight, units)})
        </Button>
      )}
      {tonight !== undefined && coldest < tonight && (
        <Button busy={busy} onClick={() => void pass(coldest)}>
          Practice: the coldest night ({format(temperature, coldest, units)})
        </Button>
      )}
      <p role="status">
        {car &&
          `Morning at ${format(temperature, car.outdoorC, units)}: the lamp is ${car.lamp === 'off' ? 'out' : 'lit'}.`}
        {problem}
      </p>
    </>
  );
}
