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

/** What the eye sees of a wheel: in order with its kind of stem in one touch, or whatever was seen. */
export function LookDialog({ first, columns, onRecord, onClose }: LookDialogProps) {
  const [wheel, setWheel] = useState(first);
  const [stem, setStem] = useState<Stem>();
  const [marked, setMarked] = useState<Sign[]>([]);
  const after = columns[columns.findIndex((column) => column.wheel === wheel) + 1]?.wheel;
  const seen = [...(stem ? [stem] : []), ...marked];
  const keep = (signs: readonly Sign[], next: Position | undefined) => {
    for (const sign of signs) onRecord({ kind: 'visual', at: shopTime(), wheel, sign });
    if (!next) return onClose();
    setWheel(next);
    setStem(undefined);
    setMarked([]);
  };
  return (
    <Dialog title={`Look at ${wheel}, ${positionName[wheel]}`} onClose={onClose}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          keep(seen, undefined);
        }}
      >
        <div className={styles.actions}>
          {stems.map(({ value, label }) => (
            <Button key={value} disabled={seen.length > 0} onClick={() => keep([value], after)}>
              All in order, {label}
            </Button>
          ))}
        </div>
        <Picks label="Seen" options={marks} values={marked} onValues={setMarked} />
        <Choice label="The stem is a" options={stems} value={stem} onValue={setStem} />
        <div className={styles.actions}>
          <Button weight="main" type="submit" disabled={seen.length === 0}>
            Save the look
          </Button>
          {after && (
            <Button disabled={seen.length === 0} onClick={() => keep(seen, after)}>
              Save, then {after}
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}
