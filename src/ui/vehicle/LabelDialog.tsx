import { useState } from 'react';
import type { LabelTarget } from '../../core/names/label';
import { labelStocks } from '../../core/names/label/sheets';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Field, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from '../kit/Forms.module.css';

/** Labels onto a sheet or a roll: from the browser, or as a PDF. */
export function LabelDialog({ wanted, onClose }: { wanted: LabelTarget[]; onClose: () => void }) {
  const [stock, setStock] = useState(labelStocks[0]?.name ?? '');
  const [used, setUsed] = useState('0');
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const chosen = labelStocks.find(({ name }) => name === stock);
  const perSheet = chosen ? chosen.columns * chosen.rows : 1;
  const print = async () => {
    const left = Number(used);
    if (!Number.isInteger(left) || left < 0 || left >= perSheet)
      return setProblem(`How many labels of the first sheet are gone: 0 to ${perSheet - 1}.`);
    setBusy(true);
    const codes = await ask('label', { body: { targets: wanted } });
    setBusy(false);
    if (!codes.ok) return setProblem(codes.problem.message);
    const query = new URLSearchParams({ codes: codes.value.join(), stock, used: String(left) });
    window.location.assign(`/labels?${query.toString()}`);
  };
  return (
    <Dialog title={wanted.length === 1 ? 'A label' : `${wanted.length} labels`} onClose={onClose}>
      <div className={styles.form}>
        <Select
          label="On"
          value={stock}
          onValue={setStock}
          options={labelStocks.map(({ name, title }) => ({ value: name, label: title }))}
        />
        {perSheet > 1 && (
          <Field
            label="Labels of the first sheet that are gone"
            inputMode="numeric"
            value={used}
            onValue={setUsed}
          />
        )}
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div className={styles.actions}>
          <Button weight="main" busy={busy ? 'Making…' : undefined} onClick={() => void print()}>
            Show them
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
