import { CircleCheck, CircleDashed, OctagonAlert } from 'lucide-react';
import { useId, useState } from 'react';
import type { Proof } from '../../core/proof';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Notice } from '../kit/Notice';
import styles from './SheetForms.module.css';

const icons = { met: CircleCheck, unmet: OctagonAlert, open: CircleDashed };
const words = { met: 'shown', unmet: 'not so', open: 'open' };

export function Checks({ proof }: { proof: Proof }) {
  return (
    <ul className={styles.checks}>
      {proof.checks.map(({ name, state, text }) => {
        const Icon = icons[state];
        return (
          <li key={name} className={styles[state]}>
            <Icon aria-hidden="true" />
            <b>{words[state]}</b>
            <span>{text}</span>
          </li>
        );
      })}
    </ul>
  );
}

interface ProveDialogProps {
  proof: Proof;
  hasLead: boolean;
  practice: boolean;
  busy: string | undefined;
  problem: string | undefined;
  onClear: () => void;
  onRead: () => void;
  onDrive: () => void;
  onLamp: () => void;
  onClose: () => void;
}

/** What must be shown before a car counts as put right, and the ways to show it. */
export function ProveDialog({
  proof,
  hasLead,
  practice,
  busy,
  problem,
  onClear,
  onRead,
  onDrive,
  onLamp,
  onClose,
}: ProveDialogProps) {
  return (
    <Dialog title="Prove it" onClose={onClose}>
      <Checks proof={proof} />
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {hasLead && (
        <p>
          On the road: a licensed driver drives, a passenger reads. Nobody looks at a screen while driving.
          Someone in the seat does not start the car while another is at a wheel.
        </p>
      )}
      <div className={styles.actions}>
        {hasLead && (
          <>
            <Button busy={busy} onClick={onClear}>
              Clear the codes
            </Button>
            <Button disabled={busy !== undefined} onClick={practice ? onDrive : onRead}>
              {practice ? 'Drive the simulated car, read' : 'Read the car on the road'}
            </Button>
          </>
        )}
        <Button disabled={busy !== undefined} onClick={onLamp}>
          Look at the lamp
        </Button>
      </div>
    </Dialog>
  );
}

interface HandOverDialogProps {
  proof: Proof;
  busy: string | undefined;
  problem: string | undefined;
  sheet: string;
  onHandOver: (unproved: string | undefined) => void;
  onClose: () => void;
}

/** Closing the job: proved, or with the reason why the car leaves as it is. */
export function HandOverDialog({ proof, busy, problem, sheet, onHandOver, onClose }: HandOverDialogProps) {
  const [reason, setReason] = useState('');
  const id = useId();
  return (
    <Dialog title="Hand over" onClose={onClose}>
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
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <div className={styles.actions}>
        <Button
          weight="main"
          busy={busy}
          disabled={!proof.proved && reason.trim().length < 3}
          onClick={() => onHandOver(proof.proved ? undefined : reason.trim())}
        >
          {proof.proved ? 'Hand over, proved' : 'Hand over, not proved'}
        </Button>
        <a href={sheet}>See the sheet first</a>
      </div>
    </Dialog>
  );
}
