import { useController } from 'react-hook-form';
import { format, temperature, type Notation } from '../../core/measure/units';
import { vinAdvice } from '../../core/names/vin';
import type { ProfileSummary } from '../../contract/views';
import { CustomerFields } from '../parts/CustomerFields';
import { LampChoice } from '../parts/LampChoice';
import { Monitoring, tpmsOf } from '../parts/Monitoring';
import { WorkDone } from '../parts/WorkDone';
import { Button } from '../kit/Button';
import { Form, SelectIn, TextIn } from '../kit/Form';
import { Notice } from '../kit/Notice';
import styles from './Booking.module.css';
import { useBooking, type Beforehand } from './use-booking';

type BookingProps = Beforehand & { profiles: ProfileSummary[] };

/** Booking in: which vehicle, what the customer says, what was done lately, how cold it is. */
export function Booking({ profiles, ...beforehand }: BookingProps) {
  const { units, followUp, plannedSet } = beforehand;
  const booking = useBooking(beforehand);
  const { form, known, lamp, setLamp, outdoors, problem, busy, bookIn } = booking;
  const { control: of } = form;
  const { field: work } = useController({ control: of, name: 'work' });
  return (
    <Form form={form} className={styles.booking} onRead={bookIn}>
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
        <CustomerFields of={of} />
        <WorkDone value={work.value} onValue={work.onChange} />
        <div className={styles.row}>
          <TextIn
            of={of}
            name="nowC"
            label={`Outdoors now, ${units.temperature}`}
            hint={
              outdoors &&
              `Left empty, it is ${format(temperature, outdoors.nowC, units)}, and ${format(temperature, outdoors.overnightLowC, units)} tonight, by the weather service.`
            }
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
    </Form>
  );
}

/** Which vehicle: looked up as its plate or VIN is typed, and said in full where it is not on file. */
function TheVehicle({
  booking: { form, vin, known, isNewKind },
  profiles,
  units,
}: {
  booking: ReturnType<typeof useBooking>;
  profiles: ProfileSummary[];
  units: Notation;
}) {
  const { control: of } = form;
  const { field: monitoring } = useController({ control: of, name: 'monitoring' });
  const advice = vin.trim() === '' ? undefined : vinAdvice(vin);
  return (
    <div className={styles.group}>
      <div className={styles.row}>
        <TextIn of={of} name="plate" label="Plate" />
        <TextIn
          of={of}
          name="vin"
          label="VIN"
          maxLength={40}
          hint={advice ?? (vin ? 'Check digit fits.' : '17 characters, from door or windscreen')}
        />
        <TextIn of={of} name="label" label="Vehicle" hint="Make and model, color if it helps" />
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
        <SelectIn
          of={of}
          name="profile"
          label="Kind of vehicle"
          options={[
            { value: '', label: 'not on file' },
            ...profiles.map(({ name, label, fromYear, toYear }) => ({
              value: name,
              label: `${label} ${fromYear ?? ''}–${toYear ?? 'now'}`,
            })),
          ]}
        />
        <TextIn of={of} name="modelYear" label="Model year" inputMode="numeric" />
        <TextIn of={of} name="odometer" label={`Odometer, ${units.distance}`} inputMode="numeric" />
      </div>
      {isNewKind && (
        <>
          <Monitoring
            value={monitoring.value}
            onValue={monitoring.onChange}
            errors={tpmsOf(monitoring.value, units).errors}
            units={units}
          />
          <TextIn
            of={of}
            name="keepKindAs"
            label="Keep this kind of vehicle for the next one, as"
            hint="Make, model and years; empty keeps nothing."
            maxLength={120}
          />
        </>
      )}
    </div>
  );
}
