import { useState } from 'react';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import formStyles from '../kit/Forms.module.css';
import { Notice } from '../kit/Notice';

/** The car does something else than its procedure says: what, for whoever keeps the library. */
export function FlagDialog({ runKey, onClose }: { runKey: string; onClose: () => void }) {
  const [instead, setInstead] = useState('');
  const { once, busy, problem } = useDeeds();
  const [isSaved, setSaved] = useState(false);
  const send = async () => {
    const kept = await once('flag', (key) => ask('flagProcedure', { id: runKey, body: { key, instead } }));
    setSaved(kept?.ok ?? false);
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
        {isSaved && <Notice tone="right">Saved with the procedure. Whoever follows it next sees it.</Notice>}
        {problem && <Notice tone="wrong">{problem.message}</Notice>}
        <div className={formStyles.actions}>
          {isSaved ? (
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
