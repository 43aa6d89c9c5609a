import { useId, useState } from 'react';
import { repairOutcomesOf, type RepairOutcome } from '../../../core/job/repair-outcome';
import type { Experience } from '../../../core/judgement/diagnosis';
import type { Job } from '../../../core/job';
import type { Proof } from '../../../core/visit/proof';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import { SignaturePad, type Strokes } from '../../parts/SignaturePad';
import { Checks } from '../prove/ProveDialog';
import styles from '../../kit/Forms.module.css';
import { TurnedOut } from './TurnedOut';

interface HandOverDialogProps {
  job: Job;
  experience: Experience | undefined;
  proof: Proof;
  /** Whether this person may say what the parts turned out to be. */
  mayConfirm: boolean;
  busy: string | undefined;
  problem: string | undefined;
  sheet: string;
  onHandOver: (unproved: string | undefined, parts: RepairOutcome[], strokes: Strokes) => void;
  onClose: () => void;
}

/** Closing the job: proved, or with the reason why the car leaves as it is. */
export function HandOverDialog(props: HandOverDialogProps) {
  const { job, experience, proof, mayConfirm, busy, problem, sheet, onHandOver, onClose } = props;
  const [parts, setParts] = useState(() => repairOutcomesOf(job));
  const [reason, setReason] = useState('');
  const [strokes, setStrokes] = useState<Strokes>([]);
  const id = useId();
  return (
    <Dialog title="Hand over" wide onClose={onClose}>
      <Checks proof={proof} />
      {!proof.proved && (
        <div>
          <label htmlFor={id}>
            <b>Not proved. Why does the car leave as it is?</b>
          </label>
          <textarea
            id={id}
            className={styles.textarea}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          <p>
            The sheet will say so, and that the lamp stays on while a fault stands. Monitoring is never
            switched off.
          </p>
        </div>
      )}
      {mayConfirm && <TurnedOut {...{ job, experience, parts }} onParts={setParts} />}
      <details>
        <summary className={styles.summary}>The customer signs here, or on the paper</summary>
        <SignaturePad value={strokes} onValue={setStrokes} />
      </details>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <div className={styles.actions}>
        <Button
          weight="main"
          busy={busy}
          disabled={!proof.proved && reason.trim().length < 3}
          onClick={() => onHandOver(proof.proved ? undefined : reason.trim(), parts, strokes)}
        >
          {proof.proved ? 'Hand over, proved' : 'Hand over, not proved'}
        </Button>
        <a href={sheet}>See the sheet first</a>
      </div>
    </Dialog>
  );
}

interface TurnedOutDialogProps {
  job: Job;
  experience: Experience | undefined;
  busy: string | undefined;
  problem: string | undefined;
  onConfirm: (parts: RepairOutcome[]) => void;
  onClose: () => void;
}

/** The same after the car has left: what comes out later is worth as much. */
export function TurnedOutDialog(props: TurnedOutDialogProps) {
  const { job, experience, busy, problem, onConfirm, onClose } = props;
  const [parts, setParts] = useState(() => repairOutcomesOf(job));
  return (
    <Dialog title="What it was" wide onClose={onClose}>
      <TurnedOut {...{ job, experience, parts }} onParts={setParts} />
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <div className={styles.actions}>
        <Button weight="main" busy={busy} onClick={() => onConfirm(parts)}>
          Save what it was
        </Button>
      </div>
    </Dialog>
  );
}
