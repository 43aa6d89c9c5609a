import { CircleCheck, CircleDashed, OctagonAlert } from 'lucide-react';
import { roadCaution, seatCaution } from '../../../core/visit/cautions';
import type { Proof } from '../../../core/visit/proof';
import { checkWords } from '../../../core/visit/proof/words';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';

const icons = { met: CircleCheck, unmet: OctagonAlert, open: CircleDashed };

export function Checks({ proof }: { proof: Proof }) {
  return (
    <ul className={styles.checks}>
      {proof.checks.map(({ name, state, text }) => {
        const Icon = icons[state];
        return (
          <li key={name} className={styles[state]}>
            <Icon aria-hidden="true" />
            <b>{checkWords[state]}</b>
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
  /** Types what the car says. */
  onType: () => void;
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
  onType,
  onClose,
}: ProveDialogProps) {
  return (
    <Dialog title="Prove it" onClose={onClose}>
      <Checks proof={proof} />
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {hasLead && (
        <p>
          {roadCaution} {seatCaution}
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
        <Button disabled={busy !== undefined} onClick={onType}>
          Type what the car says
        </Button>
        <Button disabled={busy !== undefined} onClick={onLamp}>
          Look at the lamp
        </Button>
      </div>
    </Dialog>
  );
}
