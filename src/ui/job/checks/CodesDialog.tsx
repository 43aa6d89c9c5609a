import { useState } from 'react';
import type { Job, Observation } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { readTroubleCode } from '../../../core/car/trouble-code';
import { aboutWords, meaningOf, type CodeTable } from '../../../core/car/trouble-code/meaning';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field } from '../../kit/Field';
import styles from '../../kit/Forms.module.css';

interface CodesDialogProps {
  job: Job;
  codes: CodeTable;
  onRecord: (observation: Observation) => void;
  onClose: () => void;
}

const states = [
  { value: 'active', label: 'active' },
  { value: 'stored', label: 'stored' },
] as const;

/** The car's trouble codes: what stands, one that another tool showed, and what the maker's codes are about. */
export function CodesDialog({ job, codes, onRecord, onClose }: CodesDialogProps) {
  const [typed, setTyped] = useState('');
  const [status, setStatus] = useState<'active' | 'stored'>('active');
  const [error, setError] = useState<string>();
  const standing = ledgerOf(job).codes;
  const read = readTroubleCode(typed);
  const known = Object.keys(codes).sort();
  const keep = () => {
    if (!read.ok) return setError(read.problem.message);
    const { text } = read.value;
    onRecord({
      kind: 'dtc',
      at: shopTime(),
      code: text,
      status,
      ...meaningOf(codes, text),
    });
    setTyped('');
    setError(undefined);
  };
  /** Nothing is said of its IDs: only its codes were read. */
  const noneRead = (cleared: boolean) => {
    const at = shopTime();
    onRecord({ kind: 'registry', at, entries: [], codes: [], source: 'hand', ...(cleared && { cleared }) });
    onClose();
  };
  return (
    <Dialog title="Trouble codes" wide onClose={onClose}>
      <div className={styles.tables}>
        <form
          className={styles.form}
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <h3>{standing.length > 0 ? 'Stand now' : 'No code is recorded on this job'}</h3>
          {standing.length > 0 && (
            <ul className={styles.checks}>
              {standing.map(({ index, seen }) => (
                <li key={index}>
                  <b className="figures">{seen.code}</b>
                  <span>
                    {seen.status}: {words(seen)}
                  </span>
                </li>
              ))}
            </ul>
          )}
          <Field
            label="A code another tool shows"
            hint={read.ok ? `${read.value.text}: ${words(meaningOf(codes, read.value.text))}` : 'C1B31, say'}
            autoCapitalize="characters"
            spellCheck={false}
            value={typed}
            error={error}
            onValue={setTyped}
          />
          <Choice label="It is" options={states} value={status} onValue={setStatus} />
          <div className={styles.actions}>
            <Button weight="main" type="submit">
              Save the code
            </Button>
            {standing.length === 0 ? (
              <Button onClick={() => noneRead(false)}>Read: there are none</Button>
            ) : (
              <Button onClick={() => noneRead(true)}>Cleared with another tool, read again: none</Button>
            )}
          </div>
        </form>
        {known.length > 0 ? (
          <table className={styles.table}>
            <caption>What the maker’s codes are about, on this vehicle</caption>
            <thead>
              <tr>
                <th scope="col">Code</th>
                <th scope="col">about</th>
              </tr>
            </thead>
            <tbody>
              {known.map((code) => (
                <tr key={code}>
                  <th scope="row" className="figures">
                    {code}
                  </th>
                  <td>{words(meaningOf(codes, code))}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <p>
            The profile of this vehicle has no table of the maker’s codes. A code is kept all the same, and
            counts as one whose meaning is not known.
          </p>
        )}
      </div>
    </Dialog>
  );
}

const words = ({ about, wheel }: ReturnType<typeof meaningOf>): string =>
  about
    ? [aboutWords[about], wheel].filter(Boolean).join(', ')
    : 'meaning not known for this vehicle; kept as it is';
