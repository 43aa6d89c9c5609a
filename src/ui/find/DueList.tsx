import { useState } from 'react';
import type { Place } from '../../core/measure/calendar';
import { standing, type DueFollowUp } from '../../core/records/follow-up';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Notice } from '../kit/Notice';
import { FollowUpLine } from '../vehicle/FollowUps';
import styles from './Find.module.css';

/** What is to be looked at again, at any car: due first, what is to come on demand. */
export function DueList({ initial, today, place }: { initial: DueFollowUp[]; today: string; place: Place }) {
  const [list, setList] = useState(initial);
  const [all, setAll] = useState(false);
  const [problem, setProblem] = useState<string>();
  const due = list.filter((one) => standing(one, today) !== 'to come');
  const refresh = async () => {
    const fresh = await ask('followUps');
    if (fresh.ok) setList(fresh.value);
    setProblem(fresh.ok ? undefined : fresh.problem.message);
  };
  return (
    <section className={styles.jobs} aria-labelledby="due">
      <h2 id="due">To look at again: {due.length} due</h2>
      <ul>
        {(all ? list : due).map((one) => (
          <FollowUpLine
            key={one.key}
            followUp={one}
            today={today}
            place={place}
            car
            onEnded={() => void refresh()}
          />
        ))}
      </ul>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {list.length > 0 && (
        <a className={styles.csv} href="/api/tables/follow-ups.csv" download>
          All that are open as CSV
        </a>
      )}
      {list.length > due.length && !all && (
        <div>
          <Button onClick={() => setAll(true)}>Show {list.length - due.length} to come</Button>
        </div>
      )}
    </section>
  );
}
