import type { Service } from '../../core/job';
import { serviceWords } from '../../core/job/words';
import { Field, Picks } from '../kit/Field';
import { optionsFrom } from '../kit/options';
import styles from '../kit/Forms.module.css';

type WorkKind = Exclude<Service['kind'], 'none'>;

const { none, ...worked } = serviceWords;
const options = optionsFrom<WorkKind>(worked);

/** Work as it is entered: each kind, and for all how long ago. */
export interface WorkEntry {
  kinds: WorkKind[];
  hoursAgo: string;
}

export const noWork: WorkEntry = { kinds: [], hoursAgo: '' };

/** What stands on a job, to be corrected. */
export const workFrom = (service: Service | undefined): WorkEntry => ({
  kinds: [service, ...(service?.also ?? [])].flatMap((one) => (one && one.kind !== 'none' ? [one.kind] : [])),
  hoursAgo: service?.hoursAgo === undefined ? '' : String(service.hoursAgo),
});

/** As it is stored; undefined where the hours are no figure. */
export function serviceOf({ kinds, hoursAgo }: WorkEntry): Service | undefined {
  const hours = hoursAgo.trim() === '' ? undefined : Number(hoursAgo.replace(',', '.'));
  if (hours !== undefined && !(hours >= 0)) return undefined;
  const [first, ...others] = kinds;
  if (!first) return { kind: 'none' };
  const ago = hours === undefined ? {} : { hoursAgo: hours };
  return {
    kind: first,
    ...ago,
    ...(others.length > 0 && { also: others.map((kind) => ({ kind, ...ago })) }),
  };
}

/** What was done to the car lately: none of it, or several things at once. */
export function WorkDone({ value, onValue }: { value: WorkEntry; onValue: (value: WorkEntry) => void }) {
  return (
    <div className={styles.form}>
      <Picks
        label={`Done lately (leave all empty where it was ${none.replace(' lately', '')})`}
        options={options}
        values={value.kinds}
        onValues={(kinds) => onValue({ ...value, kinds })}
      />
      {value.kinds.length > 0 && (
        <Field
          label="How many hours ago"
          inputMode="decimal"
          value={value.hoursAgo}
          onValue={(hoursAgo) => onValue({ ...value, hoursAgo })}
          error={serviceOf(value) ? undefined : 'Hours, as a figure.'}
        />
      )}
    </div>
  );
}
