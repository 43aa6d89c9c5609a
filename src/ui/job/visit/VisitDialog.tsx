import { useEffect, useState } from 'react';
import { useController, useWatch } from 'react-hook-form';
import type { HeaderChanges } from '../../../contract';
import type { Job } from '../../../core/job';
import { distance, figure, type Notation } from '../../../core/measure/units';
import { vinAdvice } from '../../../core/names/vin';
import { notesOf, plateOf, profileOf } from '../../../core/job/header';
import type { ProfileSummary } from '../../../contract/views';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Form, SelectIn, TextIn, useFilled } from '../../kit/Form';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import { carEntryIn, monitoringReads } from '../../parts/car-entry';
import { CustomerFields } from '../../parts/CustomerFields';
import { Monitoring, monitoringFrom, tpmsOf } from '../../parts/Monitoring';
import { WorkDone, workFrom } from '../../parts/WorkDone';
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
  work: workFrom(job.service),
  monitoring: monitoringFrom(job.vehicle.tpms, units),
});

/** What was said when the car was booked in, to be corrected; what stood before stays in the history. */
export function VisitDialog({ sheet }: { sheet: Sheet }) {
  const { job, units, busy, problem, edit, open, close } = sheet;
  const form = useFilled(
    carEntryIn(units).superRefine(monitoringReads(({ profile }) => profile === '')),
    entriesFrom(job, units),
  );
  const { control: of } = form;
  const entries = useWatch({ control: of });
  const { field: work } = useController({ control: of, name: 'work' });
  const { field: monitoring } = useController({ control: of, name: 'monitoring' });
  const [profiles, setProfiles] = useState<ProfileSummary[]>([]);
  useEffect(() => {
    void ask('profiles').then((found) => found.ok && setProfiles(found.value));
  }, []);
  const { vin = '', profile = '' } = entries;
  return (
    <Dialog title="The car and the visit" wide onClose={close}>
      <Form
        form={form}
        className={styles.form}
        onRead={async (read) => {
          const { tpms } = read.monitoring;
          const changes: HeaderChanges = {
            vehicle: {
              label: read.label,
              plate: read.plate,
              vin: read.vin,
              modelYear: read.modelYear ?? null,
              ...(read.profile !== (profileOf(job) ?? '') && { profile: read.profile }),
              ...(read.profile === '' && tpms && { tpms }),
            },
            ...(read.odometer && { odometerKm: read.odometer.base }),
            complaint: read.complaint,
            customer: read.customer,
            orderNumber: read.orderNumber,
            service: read.work,
          };
          if (await edit(changes)) close();
        }}
      >
        <div className={styles.row}>
          <TextIn of={of} name="label" label="Vehicle" />
          <TextIn of={of} name="plate" label="Plate" maxLength={20} />
          <TextIn
            of={of}
            name="vin"
            label="VIN"
            maxLength={40}
            hint={vin.trim() === '' ? undefined : vinAdvice(vin)}
          />
        </div>
        <div className={styles.row}>
          <TextIn of={of} name="modelYear" label="Model year" inputMode="numeric" />
          <TextIn of={of} name="odometer" label={`Odometer, ${units.distance}`} inputMode="numeric" />
          <SelectIn
            of={of}
            name="profile"
            label="Kind of vehicle"
            options={[
              { value: '', label: 'not on file' },
              ...profiles.map(({ name, label }) => ({ value: name, label })),
              // Until the list is there, what stands on the job.
              ...(profile !== '' && profiles.every(({ name }) => name !== profile)
                ? [{ value: profile, label: 'as booked in' }]
                : []),
            ]}
          />
        </div>
        {profile === '' && (
          <Monitoring
            value={monitoring.value}
            onValue={monitoring.onChange}
            errors={tpmsOf(monitoring.value, units).errors}
            units={units}
          />
        )}
        <WorkDone value={work.value} onValue={work.onChange} />
        <CustomerFields of={of} />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div className={styles.actions}>
          <Button weight="main" type="submit" busy={busy}>
            Save
          </Button>
          <Button onClick={() => open({ dialog: 'history' })}>History of this job</Button>
          <Button onClick={() => open({ dialog: 'cancel' })}>Cancel this job</Button>
        </div>
      </Form>
    </Dialog>
  );
}
