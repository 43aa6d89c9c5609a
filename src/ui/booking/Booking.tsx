import { useEffect, useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import { lampSeen, type LampWay } from '../../core/lamp/ways';
import { distance, format, parse, temperature, type UnitChoice } from '../../core/units';
import { vinAdvice } from '../../core/vin';
import { celsiusAt, hoursFrom, nightsOf, type Hour } from '../../core/weather';
import type { KnownVehicle, ProfileSummary } from '../../core/visit/view';
import { ask } from '../api';
import { shopNow, shopTime } from '../clock';
import { CustomerFields } from '../parts/CustomerFields';
import { LampChoice } from '../parts/LampChoice';
import { Monitoring, monitoringFrom, tpmsOf } from '../parts/Monitoring';
import { noWork, serviceOf, WorkDone } from '../parts/WorkDone';
import { useWeather } from '../parts/use-weather';
import { Button } from '../kit/Button';
import { Field, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './Booking.module.css';

const lookUpMs = 300;
const blank = {
  plate: '',
  vin: '',
  label: '',
  modelYear: '',
  odometer: '',
  profile: '',
  complaint: '',
  customer: '',
  orderNumber: '',
  nowC: '',
  keepKindAs: '',
};
type Entries = typeof blank;

/** The job a booking follows up, and which car that was. */
export interface FollowedUp {
  id: string;
  number: number;
  vehicle: Pick<Entries, 'plate' | 'vin' | 'label' | 'modelYear' | 'profile'>;
}

/** Booking in: which vehicle, what the customer says, what was done lately, how cold it is. */
export function Booking({
  profiles,
  units,
  followUp,
  vehicle,
  plannedSet,
}: {
  profiles: ProfileSummary[];
  units: UnitChoice;
  followUp: FollowedUp | undefined;
  /** A vehicle on file, where it is known which. */
  vehicle: Partial<Entries> | undefined;
  /** The wheel set that is to go on when the car comes. */
  plannedSet: { id: string; label: string } | undefined;
}) {
  const [entries, setEntries] = useState(() => ({ ...blank, ...vehicle, ...followUp?.vehicle }));
  const [lamp, setLamp] = useState<LampWay>();
  const [work, setWork] = useState(noWork);
  const [known, setKnown] = useState<KnownVehicle>();
  const [monitoring, setMonitoring] = useState(() => monitoringFrom(undefined, units));
  const [errors, setErrors] = useState<Partial<Record<keyof Entries, string>>>({});
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  /** One booking has one key, however often the button is pressed. */
  const keys = useRef({ job: '', lamp: '' });
  const set = (name: keyof Entries) => (value: string) => {
    setEntries((now) => ({ ...now, [name]: value }));
    setErrors((now) => ({ ...now, [name]: undefined }));
  };

  const weather = useWeather();
  const [opened] = useState(shopNow);
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
    setErrors(wrong);
    const service = serviceOf(work);
    const own = tpmsOf(monitoring, units);
    if (Object.keys(wrong).length > 0 || !service || (isNewKind && !own.tpms)) {
      // On a phone what is wrong may stand far above the button.
      requestAnimationFrame(() => form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus());
      return;
    }

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
          ...(entries.profile ? { profile: entries.profile } : isNewKind && own.tpms && { tpms: own.tpms }),
        },
        ...(entries.complaint.trim() && { complaint: entries.complaint.trim() }),
        ...(entries.customer.trim() && { customer: entries.customer.trim() }),
        ...(entries.orderNumber.trim() && { orderNumber: entries.orderNumber.trim() }),
        service,
        ...(isNewKind && entries.keepKindAs.trim() && { keepKindAs: entries.keepKindAs.trim() }),
        ...(followUp && { followUpOf: followUp.id }),
        ...(plannedSet && { plannedSet: plannedSet.id }),
        climate: {
          ...(entries.nowC === '' && outdoors),
          ...(nowC?.ok && { nowC: nowC.value.base }),
        },
        observations: lamp
          ? [
              {
                key: keys.current.lamp,
                observation: { ...lampSeen(lamp), at: shopTime() },
              },
            ]
          : [],
      },
    });
    if (booked.ok) return window.location.assign(`/jobs/${booked.value.id}`);
    setBusy(false);
    setProblem(booked.problem.message);
    // Somebody else booked it in meanwhile: that job is where to go on.
    const there = booked.problem.code === 'already-open' ? booked.problem.issues?.[0]?.message : undefined;
    if (there) window.location.assign(`/jobs/${there}`);
  };

  const isNewKind = entries.profile === '' && !known;
  const advice = vin.trim() === '' ? undefined : vinAdvice(vin);
  return (
    <form
      ref={form}
      className={styles.booking}
      onSubmit={(event) => {
        event.preventDefault();
        void bookIn();
      }}
    >
      <h1>Book a car in</h1>
      {plannedSet && (
        <Notice tone="note">Made ready for the set “{plannedSet.label}”, which is to go on.</Notice>
      )}
      {followUp && (
        <Notice tone="note">
          Follows up <a href={`/jobs/${followUp.id}/sheet`}>job {followUp.number}</a>.
        </Notice>
      )}
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
        {known?.openJob && (
          <Notice
            tone="note"
            action={<a href={`/jobs/${known.openJob.id}`}>Go on with job {known.openJob.number}</a>}
          >
            This car is here already: {known.label}, job {known.openJob.number} is open.
          </Notice>
        )}
        {known && !known.openJob && (
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
        {isNewKind && (
          <>
            <Monitoring
              value={monitoring}
              onValue={setMonitoring}
              errors={tpmsOf(monitoring, units).errors}
              units={units}
            />
            <Field
              label="Keep this kind of vehicle for the next one, as"
              hint="Make, model and years; empty keeps nothing."
              maxLength={120}
              value={entries.keepKindAs}
              onValue={set('keepKindAs')}
            />
          </>
        )}
      </div>
      <div className={styles.group}>
        <LampChoice label="The lamp is" value={lamp} onValue={setLamp} />
        <CustomerFields value={entries} onValue={set} />
        <WorkDone value={work} onValue={setWork} />
        <div className={styles.row}>
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
      <Button
        weight="main"
        type="submit"
        disabled={known?.openJob != null}
        busy={busy ? 'Booking in…' : undefined}
      >
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
