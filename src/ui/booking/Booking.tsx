import { useEffect, useId, useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import type { Service } from '../../core/job';
import { lampWords, monitoringWords, serviceWords } from '../../core/job/words';
import { distance, format, parse, temperature, type UnitChoice } from '../../core/units';
import { vinAdvice } from '../../core/vin';
import { celsiusAt, hoursFrom, nightsOf, type Hour } from '../../core/weather';
import type { KnownVehicle, ProfileSummary } from '../../core/visit/view';
import { ask } from '../api';
import { BulbCheck, type BulbCheckAnswer } from '../parts/BulbCheck';
import { useWeather } from '../parts/use-weather';
import { Button } from '../kit/Button';
import { Choice, Field, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { optionsFrom } from '../kit/options';
import styles from './Booking.module.css';

const services = optionsFrom(serviceWords);
const lampOptions = optionsFrom(lampWords);
const lookUpMs = 300;
const blank = {
  plate: '',
  vin: '',
  label: '',
  modelYear: '',
  odometer: '',
  profile: '',
  complaint: '',
  hoursAgo: '',
  nowC: '',
};
type Entries = typeof blank;

/** Booking in: which vehicle, what the customer says, what was done lately, how cold it is. */
export function Booking({ profiles, units }: { profiles: ProfileSummary[]; units: UnitChoice }) {
  const [entries, setEntries] = useState(blank);
  const [lamp, setLamp] = useState<(typeof lampOptions)[number]['value']>();
  const [check, setCheck] = useState<BulbCheckAnswer>('yes');
  const [service, setService] = useState<Service['kind']>('none');
  const [known, setKnown] = useState<KnownVehicle>();
  const [kind, setKind] = useState<'direct' | 'indirect'>('direct');
  const [errors, setErrors] = useState<Partial<Record<keyof Entries, string>>>({});
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const complaintId = useId();
  /** One booking has one key, however often the button is pressed. */
  const keys = useRef({ job: '', lamp: '' });
  const set = (name: keyof Entries) => (value: string) => {
    setEntries((now) => ({ ...now, [name]: value }));
    setErrors((now) => ({ ...now, [name]: undefined }));
  };

  const weather = useWeather();
  const [opened] = useState(() => Date.now());
  const outdoors = weather?.ok ? outdoorsFrom(weather.value.hours, opened) : undefined;

  const { plate, vin } = entries;
  useEffect(() => {
    if (plate.trim().length < 3 && vin.trim().length < 11) return undefined;
    const timer = setTimeout(() => {
      const query: Record<string, string> = vin.trim().length >= 11 ? { vin } : { plate };
      void ask('vehicle', { query }).then((found) => {
        if (!found.ok || !found.value.vehicle) return;
        const vehicle = found.value.vehicle;
        setKnown(vehicle);
        setEntries((now) => ({
          ...now,
          plate: now.plate || (vehicle.plate ?? ''),
          vin: now.vin || (vehicle.vin ?? ''),
          label: now.label || vehicle.label,
          modelYear: now.modelYear || String(vehicle.modelYear ?? ''),
          profile: now.profile || (vehicle.profile ?? ''),
        }));
      });
    }, lookUpMs);
    return () => clearTimeout(timer);
  }, [plate, vin]);

  const bookIn = async () => {
    const wrong: typeof errors = {};
    if (entries.label.trim() === '') wrong.label = 'Say which vehicle it is.';
    const year = entries.modelYear === '' ? undefined : Number(entries.modelYear);
    if (year !== undefined && !(Number.isInteger(year) && year >= 1950 && year <= 2100))
      wrong.modelYear = 'A year, as 2019.';
    const odometer = entries.odometer === '' ? undefined : parse(distance, entries.odometer, units.distance);
    if (odometer && !odometer.ok) wrong.odometer = odometer.problem.message;
    const nowC = entries.nowC === '' ? undefined : parse(temperature, entries.nowC, units.temperature);
    if (nowC && !nowC.ok) wrong.nowC = nowC.problem.message;
    const hours = entries.hoursAgo === '' ? undefined : Number(entries.hoursAgo.replace(',', '.'));
    if (hours !== undefined && !(hours >= 0)) wrong.hoursAgo = 'Hours, as a figure.';
    setErrors(wrong);
    if (Object.keys(wrong).length > 0) return;

    keys.current.job ||= newKey();
    keys.current.lamp ||= newKey();
    setBusy(true);
    const booked = await ask('bookIn', {
      body: {
        key: keys.current.job,
        vehicle: {
          label: entries.label.trim(),
          ...(entries.vin.trim() && { vin: entries.vin }),
          ...(entries.plate.trim() && { plate: entries.plate.trim() }),
          ...(year !== undefined && { modelYear: year }),
          ...(odometer?.ok && { odometerKm: odometer.value.base }),
          ...(entries.profile ? { profile: entries.profile } : !known && { tpms: { kind } }),
        },
        ...(entries.complaint.trim() && { complaint: entries.complaint.trim() }),
        service: { kind: service, ...(service !== 'none' && hours !== undefined && { hoursAgo: hours }) },
        climate: {
          ...(entries.nowC === '' && outdoors),
          ...(nowC?.ok && { nowC: nowC.value.base }),
        },
        observations: lamp
          ? [
              {
                key: keys.current.lamp,
                observation: {
                  kind: 'lamp',
                  at: new Date().toISOString(),
                  state: lamp,
                  bulbCheck: check === 'yes',
                },
              },
            ]
          : [],
      },
    });
    if (booked.ok) return window.location.assign(`/jobs/${booked.value.id}`);
    setBusy(false);
    const [issue] = booked.problem.issues ?? [];
    setProblem(issue ? `${booked.problem.message} ${issue.path}: ${issue.message}.` : booked.problem.message);
  };

  const advice = vin.trim() === '' ? undefined : vinAdvice(vin);
  return (
    <form
      className={styles.booking}
      onSubmit={(event) => {
        event.preventDefault();
        void bookIn();
      }}
    >
      <h1>Book a car in</h1>
      <div className={styles.group}>
        <div className={styles.row}>
          <Field label="Plate" value={plate} onValue={set('plate')} />
          <Field
            label="VIN"
            value={vin}
            onValue={set('vin')}
            maxLength={40}
            hint={advice ?? (vin ? 'Check digit fits.' : '17 characters, from door or windscreen')}
          />
          <Field
            label="Vehicle"
            value={entries.label}
            onValue={set('label')}
            error={errors.label}
            hint="Make and model, color if it helps"
          />
        </div>
        {known && (
          <Notice tone="right">
            Known here: {known.label}, {known.visits} {known.visits === 1 ? 'visit' : 'visits'} before.
          </Notice>
        )}
        <div className={styles.row}>
          <Select
            label="Kind of vehicle"
            value={entries.profile}
            onValue={set('profile')}
            options={[
              { value: '', label: 'not on file' },
              ...profiles.map(({ name, label, fromYear, toYear }) => ({
                value: name,
                label: `${label} ${fromYear ?? ''}–${toYear ?? 'now'}`,
              })),
            ]}
          />
          <Field
            label="Model year"
            inputMode="numeric"
            value={entries.modelYear}
            onValue={set('modelYear')}
            error={errors.modelYear}
          />
          <Field
            label={`Odometer, ${units.distance}`}
            inputMode="numeric"
            value={entries.odometer}
            onValue={set('odometer')}
            error={errors.odometer}
          />
        </div>
        {entries.profile === '' && !known && (
          <Choice
            label="Tire-pressure monitoring"
            options={optionsFrom(monitoringWords)}
            value={kind}
            onValue={setKind}
          />
        )}
      </div>
      <div className={styles.group}>
        <Choice label="The lamp is" options={lampOptions} value={lamp} onValue={setLamp} />
        {lamp === 'off' && <BulbCheck value={check} onValue={setCheck} />}
        <div>
          <label htmlFor={complaintId}>
            <b>What the customer says</b>
          </label>
          <textarea
            id={complaintId}
            className={styles.textarea}
            maxLength={2000}
            value={entries.complaint}
            onChange={(event) => set('complaint')(event.target.value)}
          />
        </div>
        <div className={styles.row}>
          <Select
            label="Done lately"
            value={service}
            onValue={(value) =>
              setService(services.find((option) => option.value === value)?.value ?? 'none')
            }
            options={services}
          />
          {service !== 'none' && (
            <Field
              label="How many hours ago"
              inputMode="decimal"
              value={entries.hoursAgo}
              onValue={set('hoursAgo')}
              error={errors.hoursAgo}
            />
          )}
          <Field
            label={`Outdoors now, ${units.temperature}`}
            value={entries.nowC}
            hint={
              outdoors &&
              `Left empty, it is ${format(temperature, outdoors.nowC, units.temperature)}, and ${format(temperature, outdoors.overnightLowC, units.temperature)} tonight, by the weather service.`
            }
            onValue={set('nowC')}
            error={errors.nowC}
          />
        </div>
      </div>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <Button weight="main" type="submit" busy={busy ? 'Booking in…' : undefined}>
        Book in
      </Button>
    </form>
  );
}

/** The air of now and of the coldest hour tonight, where the service says both. */
function outdoorsFrom(hours: readonly Hour[], now: number) {
  const nowC = celsiusAt(hours, now);
  const [tonight] = nightsOf(hoursFrom(hours, now));
  return nowC === undefined || !tonight ? undefined : { nowC, overnightLowC: tonight.coldest.celsius };
}
