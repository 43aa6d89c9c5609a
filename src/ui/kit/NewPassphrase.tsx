import { Eye, EyeOff } from 'lucide-react';
import { useState } from 'react';
import { passphraseWords } from '../../core/records/passphrase';
import { Button } from './Button';
import { Field } from './Field';
import styles from './NewPassphrase.module.css';

/** A passphrase somebody makes up: says how it stands while it is typed, and can be looked at. */
export function NewPassphrase({
  label,
  name,
  value,
  error,
  onValue,
}: {
  label: string;
  /** Whose it is to be: it may not be hardly more than that. */
  name: string;
  value: string;
  error?: string | undefined;
  onValue: (value: string) => void;
}) {
  const [isShown, setIsShown] = useState(false);
  return (
    <div className={styles.row}>
      <Field
        label={label}
        type={isShown ? 'text' : 'password'}
        autoComplete="new-password"
        maxLength={128}
        hint={passphraseWords(value, name)}
        value={value}
        error={error}
        onValue={onValue}
      />
      <Button aria-pressed={isShown} onClick={() => setIsShown(!isShown)}>
        {isShown ? <EyeOff aria-hidden="true" /> : <Eye aria-hidden="true" />} {isShown ? 'Hide' : 'Show'}
      </Button>
    </div>
  );
}
