import { useState } from 'react';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Notice } from '../kit/Notice';
import styles from '../kit/Forms.module.css';

/** Deletes what is known of a customer at their wish; what their wheels had stays, as facts of nobody. */
export function DeleteCustomer({ id, name }: { id: string; name: string }) {
  const [isOpen, setOpen] = useState(false);
  const { once, busy, problem } = useDeeds();
  const erase = async () => {
    const erased = await once('delete', (key) => ask('eraseCustomer', { id, body: { key } }), 'Deleting…');
    if (erased?.ok) window.location.assign('/find');
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>Delete the customer’s data</Button>
      {isOpen && (
        <Dialog title={`Delete ${name}`} onClose={() => setOpen(false)}>
          <p>
            Name, phone and e-mail go, and of all their vehicles the plates, VINs, complaints, order numbers
            and signatures. What wheels and sensors had stays, of a vehicle that is nobody’s. It cannot be
            undone.
          </p>
          <p>Backups made before still hold it, until they are removed.</p>
          {problem && <Notice tone="wrong">{problem.message}</Notice>}
          <div className={styles.actions}>
            <Button weight="main" busy={busy} onClick={() => void erase()}>
              Delete it for good
            </Button>
            <Button onClick={() => setOpen(false)}>Do not delete</Button>
          </div>
        </Dialog>
      )}
    </>
  );
}
