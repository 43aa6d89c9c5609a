import type { Job } from '../../../core/job';
import { fittedOn, makerKPa, placardKPa, placardSize } from '../../../core/job/placard';
import { compareSizes, parseTireSize } from '../../../core/names/tire-size';
import { fitWords } from '../../../core/names/tire-size/words';
import { axleOf } from '../../../core/names/wheel';
import styles from './Follows.module.css';

/** Tires on the car that are not what the placard asks for. */
export function UnfitTires({ job }: { job: Job }) {
  return unfitTires(job).map((words) => (
    <p key={words} className={styles.unfit}>
      {words}
    </p>
  ));
}

/** The axles whose tires are not what the placard asks for, each in a few words. */
function unfitTires(job: Job): string[] {
  return (['LF', 'RR', 'SP'] as const).flatMap((wheel) => {
    const fitted = parseTireSize(fittedOn(job, wheel)?.size ?? '');
    const asked = parseTireSize(placardSize(job, wheel) ?? '');
    if (!fitted.ok || !asked.ok) return [];
    const { verdict, good } = fitWords(
      compareSizes(asked.value, fitted.value, makerKPa(job, wheel), placardKPa(job, wheel)),
    );
    return good ? [] : [`${fitted.value.text} at the ${axleOf(wheel)}: ${verdict}`];
  });
}
