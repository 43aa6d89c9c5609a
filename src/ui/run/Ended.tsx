import { letsAirOut } from '../../core/relearn/procedure/demands';
import { proofWords } from '../../core/relearn/procedure/words';
import { retriesOf, retryOf, whatItMustBe } from '../../core/visit/teaching/retry';
import { differsWords, endedWords, nextAfter, noteWords, stateWords } from '../../core/relearn/run/words';
import { Button } from '../kit/Button';
import { Notice } from '../kit/Notice';
import styles from './Run.module.css';
import { TakeBack } from './TakeBack';
import type { RunOnScreen } from './use-run';
import { useStart } from './use-start';

/** How it ended, what that means, and what to do next. */
export function Ended({ on }: { on: RunOnScreen }) {
  const { procedure, run, view, settled } = on;
  const { starting, problem, start } = useStart(view.jobId, settled);
  const done = run.state === 'done';
  const retry = retryOf(procedure, run);
  const again = retriesOf(procedure) === 0 && !done;
  const must = retry || done ? [] : whatItMustBe(run);
  const notes = [...new Set(run.because)];
  const next = retry ? [] : must.length > 0 ? must : done ? [] : nextAfter(procedure, run);
  return (
    <div className={styles.open}>
      <h2 className={styles.instruction} aria-live="assertive">
        {stateWords[run.state]}
      </h2>
      {done && (
        <Notice tone="right">Seen: {procedure.proof.map((kind) => proofWords[kind]).join('; ')}.</Notice>
      )}
      {letsAirOut(procedure) && (
        <Notice tone="note">Air was let out: fill every tire back to target, then gauge it.</Notice>
      )}
      {notes.map((note) => (
        <p key={note}>{noteWords[note].means}</p>
      ))}
      {differsWords(run) && <p>{differsWords(run)}</p>}
      {endedWords(run) && <p>{endedWords(run)}</p>}
      <TakeBack on={on} />
      {retry && (
        <p>
          The car may not have heard its sensors yet. Before anything is taken apart: wait, ignition off and
          on
          {retry.finish.some(({ do: kind }) => kind === 'drive') && ', drive two or three kilometres'}, look
          again.
        </p>
      )}
      {next.length > 0 && (
        <ol className={styles.next}>
          {next.map((what) => (
            <li key={what}>{what}</li>
          ))}
        </ol>
      )}
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {!view.closed && (
        <div className={styles.actions}>
          {retry && (
            <Button weight="main" data-main busy={starting} onClick={() => start({ retryOf: view.key })}>
              {retry.title}
            </Button>
          )}
          {again && (
            <Button busy={starting} onClick={() => start({ procedure: procedure.name })}>
              Start again
            </Button>
          )}
        </div>
      )}
      <p>
        <a className={styles.back} href={`/jobs/${view.jobId}`}>
          {done ? 'Back to the job' : 'Back to the job, to take another method'}
        </a>
      </p>
    </div>
  );
}
