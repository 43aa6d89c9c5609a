import { useState } from 'react';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';

/** The car left, or was booked in twice: nothing more is done on this job. It can be opened again. */
export function CancelDialog({ sheet: { view, busy, problem, act, close } }: { sheet: Sheet }) {
  const [reason, setReason] = useState('');
  return (
    <Dialog title={`Cancel job ${view.number}`} onClose={close}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void act('Cancelling…', 'cancelJob', { version: view.version, reason: reason.trim() }).then(
            (done) => done && close(),
          );
        }}
      >
        <Field
          label="Why"
          hint="The car left, or was booked in twice, say."
          maxLength={500}
          value={reason}
          onValue={setReason}
        />
        <p>All that was recorded stays, and the job can be opened again.</p>
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div className={styles.actions}>
          <Button weight="main" type="submit" busy={busy} disabled={reason.trim().length < 3}>
            Cancel the job
          </Button>
          <Button onClick={close}>Go on with it</Button>
        </div>
      </form>
    </Dialog>
  );
}
