import { ArrowLeft, Keyboard, Pencil } from 'lucide-react';
import { doneWords, serviceWords } from '../../core/job/words';
import { distance, format } from '../../core/measure/units';
import { notesOf, plateOf } from '../../core/job/header';
import { Button } from '../kit/Button';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/** Which car, and what was said of it. */
export function Head({ sheet: { view, job, units, closed, open } }: { sheet: Sheet }) {
  const plate = plateOf(job);
  const { complaint } = notesOf(job);
  return (
    <div className={styles.head}>
      <a className={styles.back} href="/">
        <ArrowLeft aria-hidden="true" /> Yard
      </a>
      <div className={styles.car}>
        <h1>
          {job.vehicle.label} {plate && <span className={styles.plate}>{plate}</span>}
        </h1>
        <p>
          Job {view.number}
          {job.vehicle.odometerKm !== undefined && `, ${format(distance, job.vehicle.odometerKm, units)}`}
          {`, ${doneWords(job) || serviceWords.none}`}
          {complaint && `. “${complaint}”`}
        </p>
      </div>
      <Button
        weight="quiet"
        aria-label={closed ? 'History of this job' : 'Correct the car and the visit'}
        onClick={() => open({ dialog: closed ? 'history' : 'visit' })}
      >
        {!closed && <Pencil aria-hidden="true" />}
        {closed ? 'History' : 'Correct'}
      </Button>
      <a className={styles.link} href={`/api/jobs/${view.id}/file`} download>
        Job file
      </a>
      <a className={styles.link} href={`/vehicles/${view.vehicleId}`}>
        Vehicle
      </a>
      <a className={styles.link} href={`/jobs/${view.id}/sheet`}>
        Sheet
      </a>
      <Button
        weight="quiet"
        className={styles.keys}
        aria-label="Keys"
        onClick={() => open({ dialog: 'keys' })}
      >
        <Keyboard aria-hidden="true" />
      </Button>
    </div>
  );
}
