import { Delete } from 'lucide-react';
import styles from './Keypad.module.css';

const keys = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0'] as const;

/** Big keys for gloves. A keyboard types into the field beside it instead. */
export function Keypad({ value, onValue }: { value: string; onValue: (value: string) => void }) {
  return (
    <div className={styles.keypad} role="group" aria-label="Keypad">
      {keys.map((key) => (
        <button key={key} type="button" className={styles.key} onClick={() => onValue(value + key)}>
          {key}
        </button>
      ))}
      <button
        type="button"
        className={styles.key}
        aria-label="Delete the last digit"
        onClick={() => onValue(value.slice(0, -1))}
      >
        <Delete aria-hidden="true" />
      </button>
    </div>
  );
}
