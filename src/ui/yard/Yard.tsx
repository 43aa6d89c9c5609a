import { CircleCheck, CircleDashed, CircleOff, Lightbulb, TriangleAlert, Zap } from 'lucide-react';
import { useEffect, useState } from 'react';
import { lampWords } from '../../core/job/words';
import type { Notation } from '../../core/measure/units';
import type { YardLine } from '../../contract/views';
import { ask } from '../api';
import { moveWords } from '../../core/visit/words';
import buttonStyles from '../kit/Button.module.css';
import { FilePick } from '../kit/FilePick';
import { Notice } from '../kit/Notice';
import styles from './Yard.module.css';

const lampIcons = {
  off: CircleOff,
  steady: Lightbulb,
  'flash-then-steady': Zap,
  'flash-while-driving': TriangleAlert,
  'not-seen': CircleDashed,
};
const standingIcons = { proved: CircleCheck, done: CircleDashed, 'not-right': TriangleAlert };
const standingWords = { proved: 'proved', done: 'not all checked', 'not-right': 'not right' };
const refreshMs = 15_000;

/** Today's vehicles: lamp, state, next move; then what was handed over this week. */
export function Yard({
  initial,
  trouble,
  units,
  now: renderedAt,
}: {
  initial: YardLine[];
  /** Of the shop's own records, for whoever can see to it. */
  trouble?: string | undefined;
  units: Notation;
  now: number;
}) {
  const [lines, setLines] = useState(initial);
  const [now, setNow] = useState(renderedAt);
  const [problem, setProblem] = useState<string>();

  useEffect(() => {
    const timer = setInterval(() => {
      void ask('yard').then((fresh) => {
        if (fresh.ok) setLines(fresh.value);
        setNow(Date.now());
      });
    }, refreshMs);
    return () => clearInterval(timer);
  }, []);

  const takeIn = async (document: unknown, name: string) => {
    setProblem(undefined);
    const taken = await ask('importJob', { file: document });
    if (taken.ok) return window.location.assign(`/jobs/${taken.value.id}`);
    const [issue] = taken.problem.issues ?? [];
    setProblem(`${name}: ${taken.problem.message}${issue ? ` ${issue.path}: ${issue.message}.` : ''}`);
  };

  const open = lines.filter(({ state }) => state === 'open');
  const done = lines.filter(({ state }) => state !== 'open');
  const line = (entry: YardLine) => <Line key={entry.id} line={entry} units={units} now={now} />;
  return (
    <main className={styles.yard}>
      <div className={styles.top}>
        <h1>Yard</h1>
        <div className={styles.actions}>
          <FilePick
            label="Import a job file"
            onDocument={(document, name) => void takeIn(document, name)}
            onProblem={setProblem}
          />
          <a className={`${buttonStyles.button} ${buttonStyles.main}`} href="/book-in">
            Book a car in
          </a>
        </div>
      </div>
      {trouble && <Notice tone="wrong">{trouble}</Notice>}
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <section aria-label="In the shop">
        <ul className={styles.list}>
          {open.map(line)}
          {open.length === 0 && <li className={styles.empty}>No car is in the shop. Book one in.</li>}
        </ul>
      </section>
      <section aria-labelledby="handed-over">
        <h2 id="handed-over">Handed over or cancelled this week</h2>
        <ul className={styles.list}>
          {done.map(line)}
          {done.length === 0 && (
            <li className={styles.empty}>None yet. A car appears here once it is handed over.</li>
          )}
        </ul>
      </section>
    </main>
  );
}

function Line({ line, units, now }: { line: YardLine; units: Notation; now: number }) {
  const Icon = lampIcons[line.lamp];
  const lit = line.lamp !== 'off' && line.lamp !== 'not-seen';
  const { state, standing } = line;
  const StandingIcon = standingIcons[standing];
  const closed = state === 'handed-over';
  return (
    <li>
      <a className={styles.line} href={closed ? `/jobs/${line.id}/sheet` : `/jobs/${line.id}`}>
        <span className={styles.plate}>{line.plate || 'no plate'}</span>
        <span>
          <b>{line.label}</b>
          <span className={styles.small}>Job {line.number}</span>
        </span>
        <span className={`${styles.lamp} ${lit ? styles.lit : ''}`}>
          <Icon aria-hidden="true" />
          <span>
            Lamp{' '}
            {line.unreadable
              ? 'not known'
              : line.lamp === 'not-seen'
                ? 'not looked at'
                : lampWords[line.lamp]}
          </span>
        </span>
        <span>
          {state === 'cancelled' ? (
            <span className={styles.lamp}>
              <CircleOff aria-hidden="true" /> cancelled
            </span>
          ) : closed ? (
            <span className={`${styles.lamp} ${standing === 'proved' ? styles.closed : ''}`}>
              <StandingIcon aria-hidden="true" />
              handed over, {standingWords[standing]}
            </span>
          ) : (
            <span className={styles.next}>
              {line.unreadable ? `Cannot be read: ${line.unreadable}` : moveWords(line.move, units).label}
            </span>
          )}
          <span className={styles.small}>{line.headline}</span>
        </span>
        <span className={styles.time}>
          {ago(line.handedOverAt ?? line.openedAt, now)}
          <span className={styles.small}>by {line.openedBy}</span>
        </span>
      </a>
    </li>
  );
}

function ago(at: string, now: number): string {
  const minutes = Math.max(0, Math.round((now - Date.parse(at)) / 60_000));
  if (minutes < 60) return `${minutes} min ago`;
  const hours = Math.round(minutes / 60);
  return hours < 24 ? `${hours} h ago` : `${Math.round(hours / 24)} d ago`;
}
