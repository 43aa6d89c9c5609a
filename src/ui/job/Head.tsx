import { ArrowLeft, FileDown, Keyboard } from 'lucide-react';
import { serviceWords } from '../../core/job/words';
import { distance, format } from '../../core/units';
import { notesOf, plateOf } from '../../core/visit/notes';
import { Button } from '../kit/Button';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/** Which car, and what was said of it. */
export function Head({ sheet: { view, job, units, open } }: { sheet: Sheet }) {
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
          {job.vehicle.odometerKm !== undefined &&
            `, ${format(distance, job.vehicle.odometerKm, units.distance)}`}
          {job.service && `, ${serviceWords[job.service.kind]}`}
          {complaint && `. “${complaint}”`}
        </p>
      </div>
      <a className={styles.link} href={`/api/jobs/${view.id}/file`} download>
        <FileDown aria-hidden="true" /> Job file
      </a>
      <a className={styles.link} href={`/jobs/${view.id}/sheet`}>
        Sheet
      </a>
      <Button weight="quiet" aria-label="Keys" onClick={() => open({ dialog: 'keys' })}>
        <Keyboard aria-hidden="true" />
      </Button>
    </div>
  );
}
