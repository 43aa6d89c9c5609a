import { useState } from 'react';
import { needOfMove, scopeOf, wheelOf, type PutOff, type PutOffScope } from '../../../core/visit/put-off';
import { putOffReasons } from '../../../core/visit/put-off/words';
import { moveWords } from '../../../core/visit/words';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';

const ownWords = 'another reason';

/** The next move is not made on this visit: why, and how far that goes. The next best is offered then. */
export function PutOffDialog({ sheet }: { sheet: Sheet }) {
  const { job, move, units, busy, problem, edit, close } = sheet;
  const need = needOfMove(move);
  const wheel = wheelOf(move);
  const reasons = [...(need ? putOffReasons[need] : []), ...putOffReasons.any, ownWords];
  const [reason, setReason] = useState<string>();
  const [own, setOwn] = useState('');
  const [everywhere, setEverywhere] = useState<'here' | 'all'>('here');
  const words = reason === ownWords ? own.trim() : (reason ?? '');
  const without = need !== undefined && putOffReasons[need].some((one) => one === reason);
  const keep = () => {
    const { move: kind, wheel: at, about } = scopeOf(move);
    const scope: PutOffScope = without
      ? { needs: need }
      : { move: kind, ...(about && { about }), ...(everywhere === 'here' && at && { wheel: at }) };
    const entry: PutOff = { ...scope, reason: words, at: shopTime() };
    void edit({ putOff: [...(job.putOff ?? []), entry] }).then((done) => done && close());
  };
  return (
    <Dialog title={`Not now: ${moveWords(move, units).label}`} onClose={close}>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Choice
          label="Why"
          options={reasons.map((value) => ({ value, label: value }))}
          value={reason}
          onValue={setReason}
        />
        {reason === ownWords && <Field label="In a few words" maxLength={200} value={own} onValue={setOwn} />}
        {wheel && !without && (
          <Choice
            label="Where"
            options={[
              { value: 'here', label: `at ${wheel} only` },
              { value: 'all', label: 'at every wheel' },
            ]}
            value={everywhere}
            onValue={setEverywhere}
          />
        )}
        <p className={styles.soft}>
          The next best is offered then. What this would have shown stays unchecked, on the sheet too. Do it
          later from the stations above, or take this back under “Findings”.
        </p>
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div>
          <Button weight="main" type="submit" busy={busy} disabled={words === ''}>
            Put it off
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
