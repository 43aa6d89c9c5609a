import { QrCode } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { stateWords } from '../../core/visit/words';
import type { DueFollowUp } from '../../core/records/follow-up';
import { groupedCode } from '../../core/names/label';
import { leastCharacters, mostCharacters, type Found, type FoundVehicle } from '../../core/records/search';
import { groupedId } from '../../core/names/sensor-id';
import { ask } from '../api';
import { day, type Place } from '../../core/measure/calendar';
import { Button } from '../kit/Button';
import { Later, part } from '../kit/Later';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { StillComing } from '../kit/StillComing';
import { DueList } from './DueList';
import { JobList } from './JobList';
import { Plate } from './Plate';
import styles from './Find.module.css';

/** The camera and its reader are fetched when a label is read. */
const ReadLabel = part(() => import('./ReadLabel').then((found) => found.ReadLabel));

/** So long after the last key it is looked for, ms. */
const pauseMs = 150;

/** One box for all the shop remembers; below it, until something is typed, the jobs of all years. */
export function Find({
  asked,
  people,
  due,
  today,
  place,
}: {
  asked: string;
  people: string[];
  due: DueFollowUp[];
  /** The day it is in the shop. */
  today: string;
  place: Place;
}) {
  const [text, setText] = useState(asked);
  const { found, problem } = useFound(text);
  const results = useRef<HTMLUListElement>(null);
  const form = useRef<HTMLFormElement>(null);
  const [isReading, setReading] = useState(false);
  const isAsking = text.trim().length >= leastCharacters;
  useEffect(() => {
    const box = form.current?.querySelector('input');
    box?.focus();
    /** Arrows go through what was found, and back into the box. */
    const walk = (event: KeyboardEvent) => {
      const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
      const stops = [box, ...(results.current?.querySelectorAll<HTMLElement>('a') ?? [])];
      const at = stops.indexOf(document.activeElement as HTMLElement);
      if (step === 0 || at < 0) return;
      event.preventDefault();
      stops[Math.min(stops.length - 1, Math.max(0, at + step))]?.focus();
    };
    document.addEventListener('keydown', walk);
    return () => document.removeEventListener('keydown', walk);
  }, []);
  return (
    <main className={styles.find}>
      <div className={styles.top}>
        <h1>Find</h1>
        <Button onClick={() => setReading(true)}>
          <QrCode aria-hidden="true" /> Read a label
        </Button>
      </div>
      <form
        ref={form}
        role="search"
        onSubmit={(event) => {
          event.preventDefault();
          results.current?.querySelector('a')?.click();
        }}
      >
        <div className={styles.box}>
          <Field
            type="search"
            label="Plate, VIN or its end, customer, sensor ID or a part of it, job number"
            hint="Over all years. Arrow keys go through what is found, Enter opens it."
            maxLength={mostCharacters}
            value={text}
            onValue={setText}
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
                <Line found={one} place={place} />
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
      {!isAsking && due.length > 0 && <DueList initial={due} today={today} place={place} />}
      {!isAsking && <JobList people={people} place={place} />}
      <Later fallback={isReading && <StillComing onClose={() => setReading(false)} />}>
        {isReading && <ReadLabel onClose={() => setReading(false)} />}
      </Later>
    </main>
  );
}

function keyOf(found: Found): string {
  if (found.kind === 'sensor') return found.sensorId;
  return found.kind === 'label' ? found.code : found.kind + found.id;
}

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

function Line({ found, place }: { found: Found; place: Place }) {
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
          <span>{visitsOf(found, place)}</span>
        </a>
      );
    case 'label':
      return (
        <a className={styles.line} href={found.path}>
          <span className={styles.id}>{groupedCode(found.code)}</span>
          <b>Label</b>
          <span>{found.of}</span>
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
            {found.lastAt && <span className={styles.small}>last {day(found.lastAt, place)}</span>}
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
            <span className={styles.small}>{day(found.openedAt, place)}</span>
          </span>
        </a>
      );
  }
}

const visitsOf = ({ visits, lastVisitAt }: FoundVehicle, place: Place): string =>
  [`${visits} ${visits === 1 ? 'visit' : 'visits'}`, lastVisitAt && `last ${day(lastVisitAt, place)}`]
    .filter(Boolean)
    .join(', ');
