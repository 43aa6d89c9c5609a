import { useState } from 'react';
import type { Observation } from '../../../core/job';
import { lampSeen, type LampWay } from '../../../core/car/lamp/ways';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import { LampChoice } from '../../parts/LampChoice';
import { PracticeDash } from './Practice';
import styles from '../../kit/Forms.module.css';

interface LampDialogProps {
  jobId: string;
  practice: boolean;
  onRecord: (observation: Observation) => void;
  onClose: () => void;
}

/** What the lamp does at ignition on, and after. */
export function LampDialog({ jobId, practice, onRecord, onClose }: LampDialogProps) {
  const [way, setWay] = useState<LampWay>();
  const [others, setOthers] = useState<'none' | 'abs' | 'stability'>();
  const keep = () => {
    if (!way) return;
    onRecord({
      ...lampSeen(way),
      at: shopTime(),
      ...(others && { otherLamps: others === 'none' ? [] : [others] }),
    });
    onClose();
  };
  return (
    <Dialog title="The lamp" onClose={onClose}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        {practice && <PracticeDash jobId={jobId} />}
        <LampChoice label="After the start the lamp is" value={way} onValue={setWay} />
        <Choice
          label="Other lamps with it"
          options={[
            { value: 'none', label: 'none' },
            { value: 'abs', label: 'ABS' },
            { value: 'stability', label: 'stability' },
          ]}
          value={others}
          onValue={setOthers}
        />
        <Button weight="main" type="submit" disabled={!way}>
          Save the lamp
        </Button>
      </form>
    </Dialog>
  );
}
