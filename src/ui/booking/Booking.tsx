import { format, temperature, type Notation } from '../../core/measure/units';
import { vinAdvice } from '../../core/names/vin';
import type { ProfileSummary } from '../../contract/views';
import { CustomerFields } from '../parts/CustomerFields';
import { LampChoice } from '../parts/LampChoice';
import { Monitoring, tpmsOf } from '../parts/Monitoring';
import { WorkDone } from '../parts/WorkDone';
import { Button } from '../kit/Button';
import { Field, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './Booking.module.css';
import { useBooking, type Beforehand } from './use-booking';

type BookingProps = Beforehand & { profiles: ProfileSummary[] };

/** Booking in: which vehicle, what the customer says, what was done lately, how cold it is. */
export function Booking({ profiles, ...beforehand }: BookingProps) {
  const { units, followUp, plannedSet } = beforehand;
  const booking = useBooking(beforehand);
  const { form, entries, set, errors, known, lamp, setLamp, work, setWork, outdoors, problem, busy, bookIn } =
    booking;
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
      <TheVehicle booking={booking} profiles={profiles} units={units} />
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
              `Left empty, it is ${format(temperature, outdoors.nowC, units)}, and ${format(temperature, outdoors.overnightLowC, units)} tonight, by the weather service.`
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

/** Which vehicle: looked up as its plate or VIN is typed, and said in full where it is not on file. */
function TheVehicle({
  booking: { entries, set, errors, known, isNewKind, monitoring, setMonitoring },
  profiles,
  units,
}: {
  booking: ReturnType<typeof useBooking>;
  profiles: ProfileSummary[];
  units: Notation;
}) {
  const { plate, vin } = entries;
  const advice = vin.trim() === '' ? undefined : vinAdvice(vin);
  return (
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
  );
}
