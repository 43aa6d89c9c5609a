import { useState } from 'react';
import type { Observation, Seen } from '../../../core/job';
import { lampWords } from '../../../core/job/words';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import { BulbCheck, type BulbCheckAnswer } from '../../parts/BulbCheck';
import { PracticeDash } from './Practice';
import styles from '../../kit/Forms.module.css';
import { optionsFrom } from '../../kit/options';

type LampState = Seen<'lamp'>['state'];
const lampOptions = optionsFrom(lampWords);

interface LampDialogProps {
  jobId: string;
  practice: boolean;
  onRecord: (observation: Observation) => void;
  onClose: () => void;
}

/** What the lamp does at ignition on, and after. */
export function LampDialog({ jobId, practice, onRecord, onClose }: LampDialogProps) {
  const [state, setState] = useState<LampState>();
  const [check, setCheck] = useState<BulbCheckAnswer>('yes');
  const [others, setOthers] = useState<'none' | 'abs' | 'stability'>();
  const keep = () => {
    if (!state) return;
    onRecord({
      kind: 'lamp',
      at: new Date().toISOString(),
      state,
      bulbCheck: check === 'yes',
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
        <Choice label="After the start the lamp is" options={lampOptions} value={state} onValue={setState} />
        <BulbCheck value={check} onValue={setCheck} />
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
        <Button weight="main" type="submit" disabled={!state}>
          Keep the lamp
        </Button>
      </form>
    </Dialog>
  );
}
