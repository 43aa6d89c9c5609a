import { useMemo, useState } from 'react';
import { partName, partsOf, samePart, type RepairOutcome, type Part } from '../../../core/job/repair-outcome';
import type { Experience } from '../../../core/judgement/diagnosis';
import { faultsOf, recordOf } from '../../../core/catalogue/finding';
import type { Job } from '../../../core/job';
import { percent } from '../../../core/judgement/assessment/words';
import { suspectsOf } from '../../../core/visit/suspects';
import { Picks, Select } from '../../kit/Field';
import styles from '../../kit/Forms.module.css';

interface TurnedOutProps {
  job: Job;
  experience: Experience | undefined;
  parts: readonly RepairOutcome[];
  onParts: (parts: RepairOutcome[]) => void;
}

/**
 * What the parts turned out to be, once somebody had them in hand. What was found stands first, but is not
 * taken for said: only a person who has seen the part knows.
 */
export function TurnedOut({ job, experience, parts, onParts }: TurnedOutProps) {
  const all = useMemo(() => partsOf(job), [job]);
  const suspects = useMemo(() => suspectsOf(job, experience), [job, experience]);
  const [added, setAdded] = useState<Part[]>(() => parts.filter(({ was }) => was !== 'in-order'));
  const listed = all.filter((part) => [...suspects, ...added].some((other) => samePart(part, other)));
  const others = all.filter((part) => !listed.includes(part));
  const saidOf = (part: Part) => parts.find((other) => samePart(part, other))?.was;
  const say = (those: readonly Part[], was: RepairOutcome['was'] | undefined) =>
    onParts([
      ...parts.filter((part) => !those.some((other) => samePart(part, other))),
      ...(was ? those.map((part) => ({ ...part, was })) : []),
    ]);
  return (
    <section className={styles.form} aria-labelledby="turned-out">
      <h3 id="turned-out">What it turned out to be</h3>
      <p className={styles.soft}>
        Say it of the parts you had in hand. The shop’s own outcomes make the next findings surer.
      </p>
      <div className={styles.row}>
        {listed.map((part) => {
          const suspect = suspects.find((other) => samePart(part, other));
          return (
            <Select
              key={partName(part)}
              label={partName(part)}
              hint={suspect && `Found: ${recordOf(suspect.code).title}, ${percent(suspect.probability)}`}
              value={saidOf(part) ?? ''}
              options={optionsOf(part)}
              onValue={(was) =>
                say([withoutMore(part)], was === '' ? undefined : (was as RepairOutcome['was']))
              }
            />
          );
        })}
        {others.length > 0 && (
          <Select
            label="Another part"
            value=""
            options={[
              { value: '', label: 'choose it' },
              ...others.map((part) => ({ value: partName(part), label: partName(part) })),
            ]}
            onValue={(name) => setAdded([...added, ...others.filter((part) => partName(part) === name)])}
          />
        )}
      </div>
      {others.length > 0 && (
        <Picks
          label="The rest"
          options={[{ value: 'rest', label: 'All other parts turned out in order' }]}
          values={others.every((part) => saidOf(part) === 'in-order') ? ['rest'] : []}
          onValues={(values) => say(others, values.length > 0 ? 'in-order' : undefined)}
        />
      )}
    </section>
  );
}

const withoutMore = ({ part, wheel }: Part): Part => ({ part, ...(wheel && { wheel }) });

const optionsOf = ({ part }: Part) => [
  { value: '', label: 'not said' },
  ...faultsOf(part).map((code) => ({ value: code, label: recordOf(code).title })),
  { value: 'in-order', label: 'in order' },
];
