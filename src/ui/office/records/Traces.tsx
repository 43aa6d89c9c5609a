import { useEffect, useState } from 'react';
import type { Table } from '../../../core/records/table';
import { ask } from '../../api';
import { DataTable } from '../../kit/DataTable';
import { Field, Picks, Select } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from './Records.module.css';

/** Who saw and changed what: of one vehicle, of one person, or all. */
export function Traces({ people }: { people: string[] }) {
  const [plate, setPlate] = useState('');
  const [by, setBy] = useState('');
  const [changes, setChanges] = useState(false);
  const [table, setTable] = useState<Table>();
  const [problem, setProblem] = useState<string>();
  const address = new URLSearchParams({
    ...(plate.trim() && { plate: plate.trim() }),
    ...(by && { by }),
    ...(changes && { changes: '1' }),
  }).toString();
  useEffect(() => {
    let isLate = false;
    const timer = setTimeout(() => {
      void ask('traces', { query: Object.fromEntries(new URLSearchParams(address)) }).then((found) => {
        if (isLate) return;
        setProblem(found.ok ? undefined : found.problem.message);
        if (found.ok) setTable(found.value);
      });
    }, afterTypingMs);
    return () => {
      isLate = true;
      clearTimeout(timer);
    };
  }, [address]);
  return (
    <section className={styles.group} aria-labelledby="traces">
      <h2 id="traces">Who saw and changed what</h2>
      <p>The last 200, and of looks those of the last 400 days.</p>
      <div className={styles.row}>
        <Field label="Plate or VIN" value={plate} onValue={setPlate} maxLength={40} />
        <Select
          label="Person"
          value={by}
          onValue={setBy}
          options={[{ value: '', label: 'anybody' }, ...people.map((name) => ({ value: name, label: name }))]}
        />
        <Picks
          label="Show"
          options={[{ value: 'changes', label: 'changes alone' }]}
          values={changes ? ['changes'] : []}
          onValues={(values) => setChanges(values.length > 0)}
        />
      </div>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {!table && !problem && <p role="status">Looking…</p>}
      {table && (
        <DataTable
          table={{ ...table, title: 'The last first' }}
          csv={`/api/tables/traces.csv?${address}`}
          empty="Nothing of that kind."
        />
      )}
    </section>
  );
}

const afterTypingMs = 250;
