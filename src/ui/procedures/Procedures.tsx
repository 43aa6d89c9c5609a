import { CircleCheck, CircleDashed } from 'lucide-react';
import { useRef, useState } from 'react';
import type { AnswerOf, StoredProcedure } from '../../contract';
import { day, type Place } from '../../core/measure/calendar';
import type { Procedure } from '../../core/relearn/procedure';
import { cueWords, meaningWords, methodWords, phaseWords } from '../../core/relearn/procedure/words';
import type { ProfileSummary } from '../../contract/views';
import { ask } from '../api';
import { Button } from '../kit/Button';
import buttonStyles from '../kit/Button.module.css';
import { FilePick } from '../kit/FilePick';
import { Notice } from '../kit/Notice';
import { ProcedureBody } from '../parts/ProcedureBody';
import styles from './Procedures.module.css';

type Flag = AnswerOf<'procedureFlags'>[number];

interface ProceduresProps {
  initial: StoredProcedure[];
  profiles: ProfileSummary[];
  mayChange: boolean;
  place: Place;
  flags: readonly Flag[];
  /** The name of the one that is shown first. */
  chosen: string | undefined;
}

/** The relearn library: how each kind of vehicle on file is taught its sensors, and by which cues it answers. */
export function Procedures({
  initial,
  profiles,
  mayChange,
  place,
  chosen: first,
  ...given
}: ProceduresProps) {
  const [flags, setFlags] = useState(given.flags);
  const [library, setLibrary] = useState(initial);
  const byCar = [...library].sort(
    (a, b) =>
      carsOf(a.procedure, profiles).localeCompare(carsOf(b.procedure, profiles)) ||
      methodWords[a.procedure.method].localeCompare(methodWords[b.procedure.method]),
  );
  const [chosen, setChosen] = useState(first ?? byCar[0]?.procedure.name);
  const [said, setSaid] = useState<{ tone: 'right' | 'wrong'; text: string[] }>();
  const sheet = useRef<HTMLDivElement>(null);
  const stored = library.find(({ procedure }) => procedure.name === chosen);
  const take = async (document: unknown) => {
    const isList = Array.isArray(document);
    const saved = await ask('saveProcedures', { file: isList ? document : [document] });
    if (!saved.ok) {
      const { message, issues = [] } = saved.problem;
      return setSaid({
        tone: 'wrong',
        text: [
          message,
          ...issues.map(({ path, message: what }) => `${isList ? path : path.replace(/^0\./, '')}: ${what}`),
        ],
      });
    }
    const before = new Map(library.map(({ procedure, version }) => [procedure.name, version]));
    const fresh = saved.value.filter(({ procedure, version }) => before.get(procedure.name) !== version);
    setLibrary(saved.value);
    const [taken] = fresh;
    if (taken) setChosen(taken.procedure.name);
    const titles = fresh.map(({ procedure, version }) => `${procedure.title}, version ${version}`);
    setSaid({
      tone: 'right',
      text: taken ? [`Imported: ${titles.join('; ')}.`] : ['All of it is on file already.'],
    });
  };
  const answer = async (flag: Flag, isTaken: boolean) => {
    const answered = await ask('answerFlag', { id: flag.key, body: { take: isTaken } });
    if (!answered.ok) {
      const { message, issues = [] } = answered.problem;
      return setSaid({ tone: 'wrong', text: [message, ...issues.map((issue) => issue.message)] });
    }
    setFlags(answered.value);
    const fresh = await ask('procedures');
    if (fresh.ok) setLibrary(fresh.value);
  };
  return (
    <main className={styles.procedures}>
      <div className={styles.head}>
        <h1>Procedures</h1>
        {mayChange && (
          <a className={buttonStyles.button} href="/procedures/edit">
            Write a new one
          </a>
        )}
        {mayChange && (
          <FilePick
            label="Import procedures"
            onDocument={(document) => void take(document)}
            onProblem={(text) => setSaid({ tone: 'wrong', text: [text] })}
          />
        )}
      </div>
      {said && (
        <Notice tone={said.tone}>
          {said.text.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </Notice>
      )}
      {library.length === 0 && (
        <p>No procedure is on file. A manager imports procedure files here; the format is open.</p>
      )}
      <div className={styles.columns} hidden={library.length === 0}>
        <ul className={styles.list} id="library" aria-label="Procedures on file">
          {byCar.map(({ procedure }) => (
            <li key={procedure.name}>
              <button
                type="button"
                className={styles.entry}
                aria-pressed={procedure.name === chosen}
                onClick={() => {
                  setChosen(procedure.name);
                  if (matchMedia('(max-width: 48rem)').matches) sheet.current?.scrollIntoView();
                }}
              >
                <b>{carsOf(procedure, profiles)}</b>
                <span>{methodWords[procedure.method]}</span>
                <span className={styles.soft}>
                  {procedure.minutes === undefined ? 'minutes not known' : `about ${procedure.minutes} min`}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <div ref={sheet}>
          {stored && (
            <ProcedureSheet
              {...{ stored, profiles, mayChange }}
              place={place}
              flags={flags.filter(({ name }) => name === stored.procedure.name)}
              onAnswer={answer}
            />
          )}
        </div>
      </div>
    </main>
  );
}

/** What it is for, as people call those cars; by its years where it names them. */
function carsOf(
  { for: { profiles: names, fromYear, toYear } }: Procedure,
  profiles: ProfileSummary[],
): string {
  const labels = names.map((name) => profiles.find((profile) => profile.name === name)?.label ?? name);
  const years =
    fromYear === undefined && toYear === undefined ? '' : `, ${fromYear ?? ''}–${toYear ?? 'now'}`;
  return `${labels.length > 0 ? labels.join(', ') : 'Any car'}${years}`;
}

function ProcedureSheet({
  stored,
  profiles,
  mayChange,
  place,
  flags,
  onAnswer,
}: {
  flags: readonly Flag[];
  onAnswer: (flag: Flag, isTaken: boolean) => Promise<void>;
  place: Place;
  stored: StoredProcedure;
  profiles: ProfileSummary[];
  mayChange: boolean;
}) {
  const { procedure, version, at, by } = stored;
  const file = `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(procedure, undefined, 2))}`;
  return (
    <article className={styles.sheet} aria-labelledby="procedure">
      <header>
        <a className={styles.back} href="#library">
          Back to the list
        </a>
        <h2 id="procedure">{procedure.title}</h2>
        <p className={styles.soft}>
          {carsOf(procedure, profiles)}: {methodWords[procedure.method]}. Version {version}, imported{' '}
          {day(at, place)} by {by}.
        </p>
        <Checked at={procedure.checkedAt} place={place} />
      </header>
      <Flags {...{ flags, version, place }} onAnswer={mayChange ? onAnswer : undefined} />
      <ProcedureBody procedure={procedure} />
      {procedure.source && <p className={styles.soft}>Source: {procedure.source}.</p>}
      <div className={styles.actions}>
        {mayChange && (
          <a
            className={buttonStyles.button}
            href={`/procedures/edit?name=${encodeURIComponent(procedure.name)}`}
          >
            Change it
          </a>
        )}
        <a className={buttonStyles.button} href={file} download={`${procedure.name}.json`}>
          Save as a file
        </a>
      </div>
    </article>
  );
}

/** What cars did instead; of a version that is not the latest, it may be mended. */
function Flags({
  flags,
  version,
  place,
  onAnswer,
}: {
  flags: readonly Flag[];
  version: number;
  place: Place;
  onAnswer: ((flag: Flag, isTaken: boolean) => Promise<void>) | undefined;
}) {
  if (flags.length === 0) return null;
  return (
    <Notice tone="note">
      {flags.map((flag) => (
        <div key={flag.key} className={styles.flag}>
          <b>Found wrong at a car</b> on {day(flag.at, place)} by {flag.by}
          {flag.version !== null && flag.version !== version && `, in version ${flag.version}`}, at “
          {flag.step}
          ”: {flag.instead} <a href={`/runs/${flag.runKey}`}>That relearn</a>
          {flag.proposes && (
            <p>
              Proposed for the next version: <b>{cueWords(flag.proposes.cue)}</b>
              {flag.proposes.during && `, ${phaseWords[flag.proposes.during].toLowerCase()}`}:{' '}
              {meaningWords[flag.proposes.means]}.
            </p>
          )}
          {flag.answer ? (
            <p>
              {flag.answer.takenAs === null ? 'Left' : `Taken, as version ${flag.answer.takenAs},`} by{' '}
              {flag.answer.by} on {day(flag.answer.at, place)}.
            </p>
          ) : (
            onAnswer && (
              <p className={styles.actions}>
                {flag.proposes && <Button onClick={() => void onAnswer(flag, true)}>Take it in</Button>}
                <Button onClick={() => void onAnswer(flag, false)}>Leave it</Button>
              </p>
            )
          )}
        </div>
      ))}
    </Notice>
  );
}

function Checked({ at, place }: { at: string | undefined; place: Place }) {
  return at ? (
    <p className={styles.good}>
      <CircleCheck aria-hidden /> Checked on a car on {day(at, place)}
    </p>
  ) : (
    <p className={styles.bad}>
      <CircleDashed aria-hidden /> Nobody has checked it on a car
    </p>
  );
}
