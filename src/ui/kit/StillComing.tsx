import { useEffect, useState } from 'react';
import { Button } from './Button';
import { Notice } from './Notice';
import styles from './StillComing.module.css';

/** A part that is there within this is not worth a word, ms. */
const patienceMs = 700;

/** Stands where a dialog will, for as long as it has not come: a press that shows nothing looks like one that was lost. */
export function StillComing({ onClose }: { onClose: () => void }) {
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), patienceMs);
    return () => clearTimeout(timer);
  }, []);
  if (!isLate) return null;
  return (
    <div className={styles.over}>
      <Notice tone="note" action={<Button onClick={onClose}>Close</Button>}>
        This is not on the device yet. It opens as soon as the connection brings it; nothing was lost.
      </Notice>
    </div>
  );
}
