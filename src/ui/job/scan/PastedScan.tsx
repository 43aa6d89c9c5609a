import { useState } from 'react';
import type { Observation, Seen } from '../../../core/job';
import { groupedId, idsFromText } from '../../../core/names/sensor-id';
import type { Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import styles from '../../kit/Forms.module.css';

/** The list another tool made of a walk round the car: each line a wheel and its ID, or IDs in walking order. */
export function PastedScan({
  wheels,
  trigger,
  onRecordAll,
}: {
  wheels: readonly Position[];
  trigger: Seen<'activation'>['trigger'];
  onRecordAll: (observations: readonly Observation[]) => void;
}) {
  const [text, setText] = useState('');
  const found = idsFromText(text, wheels);
  const scans = wheels.flatMap((wheel) => {
    const id = found[wheel];
    return id === undefined ? [] : [{ wheel, id }];
  });
  const save = () => {
    const at = shopTime();
    onRecordAll(
      scans.map(({ wheel, id }) => ({
        kind: 'activation',
        at,
        wheel,
        trigger,
        replies: [{ id }],
        source: 'hand',
      })),
    );
  };
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <label>
        A wheel and its ID a line, or IDs in walking order
        <textarea className={styles.textarea} value={text} onChange={({ target }) => setText(target.value)} />
      </label>
      <ul className={styles.checks} aria-label="Read from the list">
        {scans.map(({ wheel, id }) => (
          <li key={wheel}>
            <b>{wheel}</b>
            <span className="figures">{groupedId(id)}</span>
          </li>
        ))}
      </ul>
      <div>
        <Button type="submit" disabled={scans.length === 0}>
          Save {scans.length} {scans.length === 1 ? 'sensor' : 'sensors'}
        </Button>
      </div>
    </form>
  );
}
