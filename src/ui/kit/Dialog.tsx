import { X } from 'lucide-react';
import { useEffect, useId, useRef, type ReactNode } from 'react';
import { Button } from './Button';
import styles from './Dialog.module.css';

interface DialogProps {
  title: string;
  /** Takes the whole screen: hands are busy, nothing else matters. */
  whole?: boolean;
  /** Holds a chart or two tables side by side. */
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}

const focusable = 'input, select, textarea, button:not(:disabled), a';

/** A native modal dialog: the browser keeps the focus inside and closes it on Escape. */
export function Dialog({ title, whole = false, wide = false, onClose, children }: DialogProps) {
  const ref = useRef<HTMLDialogElement>(null);
  const titleId = useId();
  useEffect(() => {
    const dialog = ref.current;
    if (dialog && !dialog.open) dialog.showModal();
    // The browser would take the first thing there is, which closes the dialog again.
    const first = dialog?.querySelector<HTMLElement>(`.${styles.body} :is(${focusable})`);
    (dialog?.querySelector<HTMLElement>('[data-first]') ?? first)?.focus();
    return () => dialog?.close();
  }, []);
  return (
    <dialog
      ref={ref}
      aria-labelledby={titleId}
      className={[styles.dialog, whole && styles.whole, wide && styles.wide].filter(Boolean).join(' ')}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
    >
      <div className={styles.head}>
        <h2 id={titleId}>{title}</h2>
        <Button weight="quiet" onClick={onClose} aria-label="Close">
          <X aria-hidden="true" />
        </Button>
      </div>
      <div className={styles.body}>{children}</div>
    </dialog>
  );
}
