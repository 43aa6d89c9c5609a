import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { stateWords } from '../../core/visit/words';
import { leastCharacters, mostCharacters, type Found, type FoundVehicle } from '../../core/search';
import { groupedId } from '../../core/sensor-id';
import { ask } from '../api';
import { day } from '../days';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { JobList } from './JobList';
import styles from './Find.module.css';

/** So long after the last key it is looked for, ms. */
const pauseMs = 150;

/** One box for all the shop remembers; below it, until something is typed, the jobs of all years. */
export function Find({ asked, people }: { asked: string; people: string[] }) {
  const [text, setText] = useState(asked);
  const { found, problem } = useFound(text);
  const results = useRef<HTMLUListElement>(null);
  const id = useId();
  const isAsking = text.trim().length >= leastCharacters;
  /** Arrows go through what was found, and back into the box. */
  const walk = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step === 0) return;
    const box = document.getElementById(`${id}-box`);
    const stops = [box, ...(results.current?.querySelectorAll<HTMLElement>('a') ?? [])];
    const at = stops.indexOf(document.activeElement as HTMLElement);
    if (at < 0) return;
    event.preventDefault();
    stops[Math.min(stops.length - 1, Math.max(0, at + step))]?.focus();
  };
  return (
    <main className={styles.find} onKeyDown={walk}>
      <h1>Find</h1>
      <form
        role="search"
        onSubmit={(event) => {
          event.preventDefault();
          results.current?.querySelector('a')?.click();
        }}
      >
        <div className={styles.box}>
          <Field
            id={`${id}-box`}
            type="search"
            label="Plate, VIN or its end, customer, sensor ID or a part of it, job number"
            hint="Over all years. Arrow keys go through what is found, Enter opens it."
            maxLength={mostCharacters}
            value={text}
            onValue={setText}
            autoFocus
            spellCheck={false}
          />
        </div>
      </form>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {isAsking && found && (
        <section aria-label="Found">
          <ul ref={results} className={styles.list}>
            {found.map((one) => (
              <li key={keyOf(one)}>
                <Line found={one} />
              </li>
            ))}
            {found.length === 0 && (
              <li className={styles.empty}>
                Nothing in all years is called or numbered so. Try a part of it: three characters of a plate,
                the last six of a VIN, five digits of an ID.
              </li>
            )}
          </ul>
        </section>
      )}
      {!isAsking && <JobList people={people} />}
    </main>
  );
}

const keyOf = (found: Found): string => (found.kind === 'sensor' ? found.sensorId : found.kind + found.id);

/** What was found for the last text; older answers that come late are left out. */
function useFound(text: string): { found: Found[] | undefined; problem: string | undefined } {
  const [answer, setAnswer] = useState<{ found?: Found[]; problem?: string }>({});
  useEffect(() => {
    if (text.trim().length < leastCharacters) return undefined;
    let isLate = false;
    const timer = setTimeout(() => {
      void ask('find', { query: { q: text } }).then((answered) => {
        if (isLate) return;
        setAnswer(answered.ok ? { found: answered.value } : { problem: answered.problem.message });
        window.history.replaceState(null, '', `/find?${new URLSearchParams({ q: text }).toString()}`);
      });
    }, pauseMs);
    return () => {
      isLate = true;
      clearTimeout(timer);
    };
  }, [text]);
  return { found: answer.found, problem: answer.problem };
}

function Line({ found }: { found: Found }) {
  switch (found.kind) {
    case 'vehicle':
      return (
        <a className={styles.line} href={`/vehicles/${found.id}`}>
          <Plate plate={found.plate} />
          <span>
            <b>{found.label}</b>
            <span className={styles.small}>
              {[found.customer, found.vin, found.modelYear].filter(Boolean).join(', ')}
            </span>
          </span>
          <span>{visitsOf(found)}</span>
        </a>
      );
    case 'sensor':
      return (
        <a className={styles.line} href={`/sensors/${encodeURIComponent(found.sensorId)}`}>
          <span className={styles.id}>{groupedId(found.sensorId)}</span>
          <span>
            <b>{found.slip ? 'Sensor, one slip away' : 'Sensor'}</b>
            <span className={styles.small}>
              {found.vehicles
                .map(({ label, plate }) => [label, plate].filter(Boolean).join(' '))
                .join('; ') || 'in no job yet'}
            </span>
          </span>
          <span>
            {found.vehicles.length > 1 && <b className={styles.twice}>At {found.vehicles.length} vehicles</b>}
            {found.lastAt && <span className={styles.small}>last {day(found.lastAt)}</span>}
          </span>
        </a>
      );
    case 'job':
      return (
        <a className={styles.line} href={`/jobs/${found.id}`}>
          <Plate plate={found.plate} />
          <span>
            <b>Job {found.number}</b>
            <span className={styles.small}>{found.label}</span>
          </span>
          <span>
            {stateWords[found.state]}
            <span className={styles.small}>{day(found.openedAt)}</span>
          </span>
        </a>
      );
  }
}

export const Plate = ({ plate }: { plate: string }) => (
  <span className={styles.plate}>{plate || 'no plate'}</span>
);

const visitsOf = ({ visits, lastVisitAt }: FoundVehicle): string =>
  [`${visits} ${visits === 1 ? 'visit' : 'visits'}`, lastVisitAt && `last ${day(lastVisitAt)}`]
    .filter(Boolean)
    .join(', ');
