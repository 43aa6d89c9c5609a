import { useState } from 'react';
import type { Found } from '../../core/records/search';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { day, type Place } from '../../core/measure/calendar';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './Vehicle.module.css';

/** What was put together with this record, and can be taken apart. */
interface PastMerge {
  key: string;
  at: string;
  by: string;
  /** What the record that went was found by. */
  name: string;
}

type Vehicle = Extract<Found, { kind: 'vehicle' }>;

/** One car that was booked in under two plates, or with and without a VIN: put together, and apart again. */
export function Merges({
  vehicleId,
  merges,
  place,
}: {
  vehicleId: string;
  merges: PastMerge[];
  place: Place;
}) {
  const [text, setText] = useState('');
  const [found, setFound] = useState<Vehicle[]>();
  const { once, problem } = useDeeds();
  const look = async () => {
    const answered = await once(text, () => ask('find', { query: { q: text } }));
    if (!answered?.ok) return;
    setFound(answered.value.flatMap((one) => (one.kind === 'vehicle' && one.id !== vehicleId ? [one] : [])));
  };
  const merge = async (gone: string) => {
    const merged = await once(gone, (key) => ask('mergeVehicles', { id: vehicleId, body: { key, gone } }));
    if (merged?.ok) window.location.reload();
  };
  const undo = async (key: string) => {
    const undone = await once(key, () => ask('undoMerge', { id: key, body: {} }));
    if (undone?.ok) window.location.reload();
  };
  return (
    <div className={styles.merges}>
      <ul>
        {merges.map(({ key, at, by, name }) => (
          <li key={key} className={styles.line}>
            <span>
              {name || 'A record without plate and VIN'} was put together with this one on {day(at, place)} by{' '}
              {by}.
            </span>
            <Button onClick={() => void undo(key)}>Take apart again</Button>
          </li>
        ))}
      </ul>
      <form
        className={styles.look}
        onSubmit={(event) => {
          event.preventDefault();
          void look();
        }}
      >
        <Field
          label="The other record: plate, VIN or customer"
          hint="Its visits and wheel sets come here; it can be undone."
          value={text}
          onValue={setText}
          maxLength={80}
        />
        <Button type="submit" disabled={text.trim().length < 2}>
          Look for it
        </Button>
      </form>
      <ul>
        {found?.map((one) => (
          <li key={one.id} className={styles.line}>
            <span>
              <b>{[one.plate, one.label].filter(Boolean).join(', ')}</b>{' '}
              {[one.customer, one.vin].filter(Boolean).join(', ')}, {one.visits}{' '}
              {one.visits === 1 ? 'visit' : 'visits'}
            </span>
            <Button onClick={() => void merge(one.id)}>Put together with this one</Button>
          </li>
        ))}
        {found?.length === 0 && <li>No other record is called so.</li>}
      </ul>
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
    </div>
  );
}
