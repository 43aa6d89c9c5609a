import { useRef, useState } from 'react';
import { v7 as newKey } from 'uuid';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import formStyles from '../kit/Forms.module.css';
import { Notice } from '../kit/Notice';

/** The car does something else than its procedure says: what, for whoever keeps the library. */
export function FlagDialog({ runKey, onClose }: { runKey: string; onClose: () => void }) {
  const key = useRef(newKey());
  const [instead, setInstead] = useState('');
  const [busy, setBusy] = useState<string>();
  const [said, setSaid] = useState<{ tone: 'right' | 'wrong'; text: string }>();
  const send = async () => {
    setBusy('Saving…');
    const kept = await ask('flagProcedure', { id: runKey, body: { key: key.current, instead } });
    setBusy(undefined);
    setSaid(
      kept.ok
        ? { tone: 'right', text: 'Saved with the procedure. Whoever follows it next sees it.' }
        : { tone: 'wrong', text: kept.problem.message },
    );
  };
  return (
    <Dialog title="The procedure is wrong for this car" onClose={onClose}>
      <form
        className={formStyles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <label>
          What did the car do instead?
          <textarea
            className={formStyles.textarea}
            maxLength={500}
            value={instead}
            onChange={({ target }) => setInstead(target.value)}
          />
        </label>
        <p className={formStyles.soft}>At which step it was is kept by itself.</p>
        {said && <Notice tone={said.tone}>{said.text}</Notice>}
        <div className={formStyles.actions}>
          {said?.tone === 'right' ? (
            <Button weight="main" onClick={onClose}>
              Go on
            </Button>
          ) : (
            <Button weight="main" type="submit" busy={busy} disabled={instead.trim().length < 3}>
              Save it
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}
