import { useEffect, useState } from 'react';
import type { JobFilter } from '../../contract';
import { stateWords } from '../../core/visit/words';
import type { ListedJob } from '../../core/records/search';
import { jobStates, type JobState } from '../../core/names/kinds';
import { ask } from '../api';
import { day, dayBegins, type Place } from '../../core/measure/calendar';
import { Button } from '../kit/Button';
import { Field, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { Plate } from './Plate';
import styles from './Find.module.css';

interface Narrowed {
  day: string;
  by: string;
  state: JobState | 'unproved' | '';
}

/** The jobs of all years by day, person and state; more of them as one goes on. */
export function JobList({ people, place }: { people: string[]; place: Place }) {
  const [narrowed, setNarrowed] = useState<Narrowed>({ day: '', by: '', state: '' });
  const [jobs, setJobs] = useState<ListedJob[]>();
  const [more, setMore] = useState(false);
  const [problem, setProblem] = useState<string>();
  const set = (change: Partial<Narrowed>) => setNarrowed((now) => ({ ...now, ...change }));

  useEffect(() => {
    let isLate = false;
    void ask('jobs', { query: { ...filterOf(narrowed, place) } }).then((answered) => {
      if (isLate) return;
      if (!answered.ok) return setProblem(answered.problem.message);
      setProblem(undefined);
      setJobs(answered.value.jobs);
      setMore(answered.value.more);
    });
    return () => {
      isLate = true;
    };
  }, [narrowed, place]);

  const goOn = async () => {
    const last = jobs?.at(-1);
    if (!last) return;
    const query = { ...filterOf(narrowed, place), beforeAt: last.openedAt, beforeId: last.id };
    const answered = await ask('jobs', { query });
    if (!answered.ok) return setProblem(answered.problem.message);
    setJobs([...(jobs ?? []), ...answered.value.jobs]);
    setMore(answered.value.more);
  };

  return (
    <section className={styles.jobs} aria-labelledby="all-jobs">
      <h2 id="all-jobs">Jobs of all years</h2>
      <div className={styles.filters}>
        <Field label="Day" type="date" value={narrowed.day} onValue={(value) => set({ day: value })} />
        <Select
          label="Booked in by"
          value={narrowed.by}
          onValue={(by) => set({ by })}
          options={[{ value: '', label: 'anybody' }, ...people.map((name) => ({ value: name, label: name }))]}
        />
        <Select
          label="State"
          value={narrowed.state}
          onValue={(state) => set({ state: state as Narrowed['state'] })}
          options={[
            { value: '', label: 'any' },
            ...jobStates.map((state) => ({ value: state, label: stateWords[state] })),
            { value: 'unproved', label: 'handed over, not proved' },
          ]}
        />
      </div>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <a
        className={styles.csv}
        href={`/api/tables/jobs.csv?${new URLSearchParams({ ...filterOf(narrowed, place) }).toString()}`}
        download
      >
        These jobs as CSV
      </a>
      <ul className={styles.list}>
        {jobs?.map((job) => (
          <li key={job.id}>
            <a
              className={styles.line}
              href={job.state === 'handed-over' ? `/jobs/${job.id}/sheet` : `/jobs/${job.id}`}
            >
              <Plate plate={job.plate} />
              <span>
                <b>{job.label}</b>
                <span className={styles.small}>
                  {[`Job ${job.number}`, job.customer].filter(Boolean).join(', ')}
                </span>
              </span>
              <span>
                {job.unproved ? `not proved: ${job.unproved}` : stateWords[job.state]}
                <span className={styles.small}>
                  {day(job.openedAt, place)} by {job.openedBy}
                </span>
              </span>
            </a>
          </li>
        ))}
        {jobs?.length === 0 && <li className={styles.empty}>No job is like this. Take a filter away.</li>}
        {!jobs && !problem && <li className={styles.empty}>Looking…</li>}
      </ul>
      {more && (
        <div>
          <Button onClick={() => void goOn()}>Show older ones</Button>
        </div>
      )}
    </section>
  );
}

/** Days begin and end where the shop is. */
function filterOf({ day: wanted, by, state }: Narrowed, place: Place): JobFilter {
  return {
    ...(wanted && {
      from: dayBegins(wanted, place).toISOString(),
      to: dayBegins(wanted, place, 1).toISOString(),
    }),
    ...(by && { by }),
    ...(state === 'unproved' ? { unproved: '1' } : state && { state }),
  };
}
