import { useId, useState } from 'react';
import { repairOutcomesOf, type RepairOutcome } from '../../../core/job/repair-outcome';
import type { Experience } from '../../../core/judgement/diagnosis';
import type { Job } from '../../../core/job';
import { readable, type DevicesAtHand } from '../../../contract/views';
import { putOffReasons } from '../../../core/visit/put-off/words';
import type { Assessment } from '../../../core/judgement/assessment';
import type { Proof } from '../../../core/visit/proof';
import { standingOf } from '../../../core/visit/proof/standing';
import { standingWords } from '../../../core/visit/proof/words';
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
  devices: DevicesAtHand;
  /** What follows from all that was seen. */
  findings: Assessment['findings'];
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
  const { job, experience, proof, findings, devices, mayConfirm, busy, problem, sheet, onHandOver, onClose } =
    props;
  const [parts, setParts] = useState(() => repairOutcomesOf(job));
  const standing = standingOf(proof, findings);
  const [reason, setReason] = useState(() => (standing === 'done' ? whyNotAll(job, devices) : ''));
  const [strokes, setStrokes] = useState<Strokes>([]);
  const id = useId();
  return (
    <Dialog title="Hand over" wide onClose={onClose}>
      <Checks proof={proof} />
      {!proof.proved && (
        <div>
          <label htmlFor={id}>
            <b>{standingWords(standing, proof)}. Why does the car leave as it is?</b>
          </label>
          <textarea
            id={id}
            className={styles.textarea}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          <p>
            The sheet will say so
            {standing === 'not-right' && ', and that the lamp stays on while a fault stands'}. Monitoring is
            never switched off.
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
          {buttons[standing]}
        </Button>
        <a href={sheet}>See the sheet first</a>
      </div>
    </Dialog>
  );
}

const buttons = {
  proved: 'Hand over, proved',
  done: 'Hand over, not all checked',
  'not-right': 'Hand over, not proved',
};

/** What was put off, and what the shop does not have, is a reason already, and is not asked again: not for what is known to be wrong. */
function whyNotAll({ putOff = [], vehicle }: Job, devices: DevicesAtHand): string {
  const { hasTool, hasLead } = readable(devices);
  const missing = [...(hasTool ? [] : putOffReasons.tool), ...(hasLead ? [] : putOffReasons.lead)];
  const reasons = [...putOff.map(({ reason }) => reason), ...(vehicle.tpms.kind === 'direct' ? missing : [])];
  return [...new Set(reasons)].join('. ');
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
