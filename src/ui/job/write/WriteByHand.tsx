import { useState } from 'react';
import { ledgerOf } from '../../../core/job/ledger';
import { groupedId, spellAloud } from '../../../core/names/sensor-id';
import { idsToWrite } from '../../../core/visit';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import styles from './WriteRun.module.css';
import type { Sheet } from '../use-sheet';

const ways = [
  { value: 'write', label: 'sent with another tool' },
  { value: 'typed', label: 'typed into the car’s menu' },
] as const;

/**
 * The IDs are sent with a tool that is not connected, or typed into the car's own menu. That it was done is noted;
 * whether it worked, only reading it back tells.
 */
export function WriteByHand({ sheet }: { sheet: Sheet }) {
  const { job, record, open, close } = sheet;
  const [method, setMethod] = useState<(typeof ways)[number]['value']>('write');
  const { registered, voltage } = ledgerOf(job);
  const planned = idsToWrite(job);
  const note = (outcome: 'done' | 'failed') =>
    record({ kind: 'relearn', at: shopTime(), method, outcome, source: 'hand' });
  return (
    <Dialog title="Register the IDs by hand" whole onClose={close}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Wheel</th>
            <th scope="col">Car holds</th>
            <th scope="col">To be registered</th>
            <th scope="col">Read it aloud</th>
          </tr>
        </thead>
        <tbody>
          {planned.map(({ wheel, id, from }) => (
            <tr key={wheel}>
              <th scope="row">{wheel}</th>
              <td>
                <span className={styles.id}>
                  {registered[wheel] === undefined ? 'not read' : shown(registered[wheel])}
                </span>
              </td>
              <td>
                <span className={styles.id}>{shown(id)}</span>
                {from === 'car' && <span className={styles.note}>not heard: leave it as it is</span>}
              </td>
              <td>{id === null ? '–' : spellAloud(id)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        {voltage ? `Supply ${voltage.seen.volts.toFixed(1)} V, engine ${voltage.seen.engine}. ` : ''}
        Ignition on, engine off, parking brake set. Under 12.2 V support the supply first.
      </p>
      <Choice label="How" options={ways} value={method} onValue={setMethod} />
      <div>
        <Button
          weight="main"
          onClick={() => {
            note('done');
            open({ dialog: 'car', part: 'held' });
          }}
        >
          Done: now read it back
        </Button>{' '}
        <Button
          onClick={() => {
            note('failed');
            close();
          }}
        >
          It did not work
        </Button>
      </div>
    </Dialog>
  );
}

const shown = (id: string | null) => (id === null ? 'none' : groupedId(id));
