import { useState } from 'react';
import type { Observation, Seen } from '../../../core/job';
import { signWords } from '../../../core/job/words';
import type { Column } from '../../../core/visit/column';
import { positionName, type Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Picks } from '../../kit/Field';
import styles from '../../kit/Forms.module.css';

type Sign = Seen<'visual'>['sign'];
type Stem = Extract<Sign, 'stem-metal' | 'stem-rubber'>;

const stems = (['stem-metal', 'stem-rubber'] as const).map((value) => ({ value, label: signWords[value] }));
const marks = (['flat', 'object', 'sidewall', 'stem-damaged', 'odd-size'] as const).map((value) => ({
  value,
  label: signWords[value],
}));

interface LookDialogProps {
  first: Position;
  columns: readonly Column[];
  onRecord: (observation: Observation) => void;
  onClose: () => void;
}

/** What the eye sees of a wheel. The stem is always seen, so that a look that found nothing is on record too. */
export function LookDialog({ first, columns, onRecord, onClose }: LookDialogProps) {
  const [wheel, setWheel] = useState(first);
  const [stem, setStem] = useState<Stem>();
  const [signs, setSigns] = useState<Sign[]>([]);
  const after = columns[columns.findIndex((column) => column.wheel === wheel) + 1]?.wheel;
  const keep = (next: Position | undefined) => {
    if (!stem) return;
    for (const sign of [stem, ...signs]) onRecord({ kind: 'visual', at: shopTime(), wheel, sign });
    if (!next) return onClose();
    setWheel(next);
    setStem(undefined);
    setSigns([]);
  };
  return (
    <Dialog title={`Look at ${wheel}, ${positionName[wheel]}`} onClose={onClose}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          keep(undefined);
        }}
      >
        <Choice label="The stem is a" options={stems} value={stem} onValue={setStem} />
        <Picks label="Also seen" options={marks} values={signs} onValues={setSigns} />
        <div className={styles.actions}>
          <Button weight="main" type="submit" disabled={!stem}>
            Save the look
          </Button>
          {after && (
            <Button disabled={!stem} onClick={() => keep(after)}>
              Save, then {after}
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}
