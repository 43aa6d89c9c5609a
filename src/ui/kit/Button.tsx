import type { ComponentProps } from 'react';
import styles from './Button.module.css';

interface ButtonProps extends ComponentProps<'button'> {
  /** `main`: the one thing to do here. `quiet`: there if needed. */
  weight?: 'main' | 'plain' | 'quiet';
  /** What is going on, while it is: shown instead of the label. */
  busy?: string | undefined;
}

export function Button({ weight = 'plain', busy, children, className, disabled, ...rest }: ButtonProps) {
  const classes = [styles.button, styles[weight], busy && styles.busy, className].filter(Boolean).join(' ');
  return (
    <button
      type="button"
      {...rest}
      className={classes}
      disabled={disabled || busy !== undefined}
      aria-busy={busy !== undefined}
    >
      {busy ?? children}
    </button>
  );
}
