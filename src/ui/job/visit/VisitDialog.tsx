import { useEffect, useState } from 'react';
import type { HeaderChanges } from '../../../contract';
import type { Job } from '../../../core/job';
import { distance, figure, parse, type Notation } from '../../../core/measure/units';
import { vinAdvice } from '../../../core/names/vin';
import { notesOf, plateOf, profileOf } from '../../../core/job/header';
import type { ProfileSummary } from '../../../contract/views';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Field, Select } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import { CustomerFields } from '../../parts/CustomerFields';
import { Monitoring, monitoringFrom, tpmsOf } from '../../parts/Monitoring';
import { serviceOf, WorkDone, workFrom } from '../../parts/WorkDone';
import type { Sheet } from '../use-sheet';

/** What stands on the job, as it is typed. */
const entriesFrom = (job: Job, units: Notation) => ({
  label: job.vehicle.label ?? '',
  plate: plateOf(job),
  vin: job.vehicle.vin ?? '',
  modelYear: job.vehicle.modelYear === undefined ? '' : String(job.vehicle.modelYear),
  odometer: job.vehicle.odometerKm === undefined ? '' : figure(distance, job.vehicle.odometerKm, units),
  profile: profileOf(job) ?? '',
  complaint: notesOf(job).complaint ?? '',
  customer: notesOf(job).customer ?? '',
  orderNumber: notesOf(job).orderNumber ?? '',
});

/** What was said when the car was booked in, to be corrected; what stood before stays in the history. */
export function VisitDialog({ sheet }: { sheet: Sheet }) {
  const { job, units, busy, problem, edit, open, close } = sheet;
  const { vehicle } = job;
  const [entries, setEntries] = useState(() => entriesFrom(job, units));
  const [work, setWork] = useState(() => workFrom(job.service));
  const [monitoring, setMonitoring] = useState(() => monitoringFrom(vehicle.tpms, units));
  const [profiles, setProfiles] = useState<ProfileSummary[]>([]);
  useEffect(() => {
    void ask('profiles').then((found) => found.ok && setProfiles(found.value));
  }, []);
  const set = (name: keyof typeof entries) => (value: string) =>
    setEntries((now) => ({ ...now, [name]: value }));

  const year = entries.modelYear.trim() === '' ? null : Number(entries.modelYear);
  const wrongYear =
    year !== null && !(Number.isInteger(year) && year >= 1950 && year <= 2100)
      ? 'A year, as 2019.'
      : undefined;
  const odometer =
    entries.odometer.trim() === '' ? undefined : parse(distance, entries.odometer, units.distance);
  const own = tpmsOf(monitoring, units);
  const service = serviceOf(work);
  const fits =
    entries.label.trim() !== '' &&
    wrongYear === undefined &&
    odometer?.ok !== false &&
    service !== undefined &&
    (entries.profile !== '' || own.tpms !== undefined);
  const keep = () => {
    const changes: HeaderChanges = {
      vehicle: {
        label: entries.label.trim(),
        plate: entries.plate.trim(),
        vin: entries.vin.trim(),
        modelYear: year,
        ...(entries.profile !== (profileOf(job) ?? '') && { profile: entries.profile }),
        ...(entries.profile === '' && own.tpms && { tpms: own.tpms }),
      },
      ...(odometer?.ok && { odometerKm: odometer.value.base }),
      complaint: entries.complaint.trim(),
      customer: entries.customer.trim(),
      orderNumber: entries.orderNumber.trim(),
      ...(service && { service }),
    };
    void edit(changes).then((done) => done && close());
  };
  const advice = entries.vin.trim() === '' ? undefined : vinAdvice(entries.vin);
  return (
    <Dialog title="The car and the visit" wide onClose={close}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          if (fits) keep();
        }}
      >
        <div className={styles.row}>
          <Field
            label="Vehicle"
            value={entries.label}
            onValue={set('label')}
            error={entries.label.trim() === '' ? 'Say which vehicle it is.' : undefined}
          />
          <Field label="Plate" maxLength={20} value={entries.plate} onValue={set('plate')} />
          <Field label="VIN" maxLength={40} value={entries.vin} hint={advice} onValue={set('vin')} />
        </div>
        <div className={styles.row}>
          <Field
            label="Model year"
            inputMode="numeric"
            value={entries.modelYear}
            error={wrongYear}
            onValue={set('modelYear')}
          />
          <Field
            label={`Odometer, ${units.distance}`}
            inputMode="numeric"
            value={entries.odometer}
            error={odometer?.ok === false ? odometer.problem.message : undefined}
            onValue={set('odometer')}
          />
          <Select
            label="Kind of vehicle"
            value={entries.profile}
            onValue={set('profile')}
            options={[
              { value: '', label: 'not on file' },
              ...profiles.map(({ name, label }) => ({ value: name, label })),
              // Until the list is there, what stands on the job.
              ...(entries.profile !== '' && profiles.every(({ name }) => name !== entries.profile)
                ? [{ value: entries.profile, label: 'as booked in' }]
                : []),
            ]}
          />
        </div>
        {entries.profile === '' && (
          <Monitoring value={monitoring} onValue={setMonitoring} errors={own.errors} units={units} />
        )}
        <WorkDone value={work} onValue={setWork} />
        <CustomerFields value={entries} onValue={set} />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div className={styles.actions}>
          <Button weight="main" type="submit" busy={busy} disabled={!fits}>
            Save
          </Button>
          <Button onClick={() => open({ dialog: 'history' })}>History of this job</Button>
          <Button onClick={() => open({ dialog: 'cancel' })}>Cancel this job</Button>
        </div>
      </form>
    </Dialog>
  );
}
