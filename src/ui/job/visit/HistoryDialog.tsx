import { useEffect, useState } from 'react';
import { describe } from '../../../core/visit/observation';
import { fieldName, type HistoryLine } from '../../../core/visit/history';
import { notesOf } from '../../../core/job/header';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';
import { recently } from '../../../core/measure/calendar';

type Recorded = Extract<HistoryLine, { kind: 'recorded' }>;

/** All that was recorded and changed on this job, the newest first; what was recorded by mistake is taken back here. */
export function HistoryDialog({ sheet }: { sheet: Sheet }) {
  const { view, job, units, closed, busy, problem, act, edit, close } = sheet;
  const [lines, setLines] = useState<HistoryLine[]>();
  const [unread, setUnread] = useState<string>();
  const [asked, setAsked] = useState<string>();
  const [reason, setReason] = useState('');
  useEffect(() => {
    void ask('history', { id: view.id }).then((found) =>
      found.ok ? setLines(found.value) : setUnread(found.problem.message),
    );
  }, [view.id, view.revision]);
  const takeBack = (key: string) =>
    void act('Taking it back…', 'takeBack', { observation: key, reason: reason.trim() }).then((done) => {
      if (!done) return;
      setAsked(undefined);
      setReason('');
    });
  const bench = notesOf(job).bench ?? [];
  const recorded = (line: Recorded) => (
    <li key={line.key}>
      <div className={styles.form}>
        <span>
          {line.corrected || line.takenBack ? (
            <s>{describe(line.observation, units)}</s>
          ) : (
            <b>{describe(line.observation, units)}</b>
          )}
          <br />
          <span className={styles.soft}>
            {recently(line.at, units)}, {line.by}
            {line.observation.saidAt &&
              `; the device’s clock said ${recently(line.observation.saidAt, units)}`}
            {line.corrected && '; corrected since'}
            {line.takenBack &&
              `; taken back by ${line.takenBack.by}, ${recently(line.takenBack.at, units)}: ${line.takenBack.reason}`}
          </span>
        </span>
        {asked === line.key && (
          <form
            className={styles.actions}
            onSubmit={(event) => {
              event.preventDefault();
              takeBack(line.key);
            }}
          >
            <Field
              label="Why is it taken back?"
              data-first
              maxLength={500}
              value={reason}
              onValue={setReason}
            />
            <Button weight="main" type="submit" busy={busy} disabled={reason.trim() === ''}>
              Take it back
            </Button>
          </form>
        )}
      </div>
      {!closed && !line.corrected && !line.takenBack && asked !== line.key && (
        <Button
          onClick={() => setAsked(line.key)}
          aria-label={`Take back: ${describe(line.observation, units)}`}
        >
          Take back
        </Button>
      )}
    </li>
  );
  return (
    <Dialog title={`History of job ${view.number}`} wide onClose={close}>
      {unread && <Notice tone="wrong">{unread}</Notice>}
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {!lines && !unread && <p>Loading what was recorded…</p>}
      {lines?.length === 0 && <p>Nothing was recorded yet.</p>}
      {bench.length > 0 && !closed && (
        <ul className={styles.history} aria-label="Notes from the bench">
          {bench.map(({ text, at, by }) => (
            <li key={at}>
              <span>
                <b>{text}</b>
                <br />
                <span className={styles.soft}>
                  {recently(at, units)}, {by}
                </span>
              </span>
              <Button busy={busy} onClick={() => void edit({ notesTakenBack: [at] })}>
                Take back
              </Button>
            </li>
          ))}
        </ul>
      )}
      <ul className={styles.history} aria-label="Recorded and changed">
        {lines?.map((line) =>
          line.kind === 'recorded' ? (
            recorded(line)
          ) : (
            <li key={`${line.at} ${line.by}`}>
              <span>
                {line.changes.map(({ field, from, to }) => (
                  <span key={field}>
                    <b>{fieldName(field)}</b>: {to ?? 'none'}
                    {from !== null && `, before: ${from}`}
                    <br />
                  </span>
                ))}
                <span className={styles.soft}>
                  {recently(line.at, units)}, {line.by}
                </span>
              </span>
            </li>
          ),
        )}
      </ul>
    </Dialog>
  );
}
