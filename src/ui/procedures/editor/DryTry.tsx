import { useState } from 'react';
import type { Procedure } from '../../../core/relearn/procedure';
import { cueWords } from '../../../core/relearn/procedure/words';
import { hasEnded, phaseOf } from '../../../core/relearn/run';
import { noteWords, stateWords } from '../../../core/relearn/run/words';
import { metric } from '../../../core/measure/units';
import type { YardLine } from '../../../contract/views';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Select } from '../../kit/Field';
import { Before } from '../../run/Before';
import { Legend } from '../../run/Cues';
import { Prove } from '../../run/Prove';
import { OpenStep } from '../../run/steps';
import { TakeBack } from '../../run/TakeBack';
import { Where } from '../../run/Where';
import styles from './Editor.module.css';
import { useDryRun } from './use-dry-run';

/** A procedure tried on a simulated car before anybody follows it: nothing of it is recorded. */
export function DryTry({
  procedure,
  cars,
  onClose,
}: {
  procedure: Procedure;
  cars: YardLine[];
  onClose: () => void;
}) {
  const [jobId, setJobId] = useState(cars[0]?.id ?? '');
  const [attempt, setAttempt] = useState(0);
  return (
    <Dialog title={`Dry try: ${procedure.title}`} whole onClose={onClose}>
      <Select
        label="On the simulated car"
        value={jobId}
        options={cars.map(({ id, label, plate }) => ({ value: id, label: `${label} ${plate}` }))}
        onValue={setJobId}
      />
      <Try
        key={`${jobId} ${attempt}`}
        procedure={procedure}
        jobId={jobId}
        onAgain={() => setAttempt(attempt + 1)}
      />
    </Dialog>
  );
}

function Try({ procedure, jobId, onAgain }: { procedure: Procedure; jobId: string; onAgain: () => void }) {
  const { on, said, problem } = useDryRun(procedure, jobId);
  const { run, events } = on;
  const ended = hasEnded(run);
  return (
    <div className={styles.dry}>
      <Where procedure={procedure} run={run} />
      <div>
        {run.notes.map((note) => (
          <p key={note}>
            <b>{noteWords[note].means}</b> {noteWords[note].next}
          </p>
        ))}
        {problem && <p role="alert">{problem}</p>}
        {run.state === 'before' && <Before on={on} units={metric} />}
        {phaseOf(run) && <OpenStep on={on} />}
        {run.state === 'prove' && <Prove on={on} units={metric} />}
        {ended && (
          <>
            <h2>{stateWords[run.state]}</h2>
            <Button weight="main" onClick={onAgain}>
              Try it again
            </Button>
          </>
        )}
        <TakeBack on={on} />
      </div>
      <div>
        <p role="status">
          Simulated car: {said.length > 0 ? <b>{said.map(cueWords).join(', ')}</b> : 'says nothing yet.'}
        </p>
        <Legend procedure={procedure} run={run} />
        <ol className={styles.log} aria-label="What happened">
          {events.map(({ t, event }, place) => (
            <li key={place}>
              {t.toFixed(1)} s: {event}
            </li>
          ))}
        </ol>
      </div>
    </div>
  );
}
