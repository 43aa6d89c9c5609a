import { useId, type ComponentProps } from 'react';
import styles from './Field.module.css';

export interface FieldProps extends Omit<ComponentProps<'input'>, 'onChange'> {
  label: string;
  hint?: string | undefined;
  /** What is wrong with it, in one sentence. */
  error?: string | undefined;
  /** In the face that keeps B and 8, 0 and O, 1 and I apart. */
  figures?: boolean;
  onValue: (value: string) => void;
}

export function Field({ label, hint, error, figures = false, onValue, className, ...input }: FieldProps) {
  const id = useId();
  const described = [hint && `${id}-hint`, error && `${id}-error`].filter(Boolean).join(' ');
  return (
    <div className={className ? `${styles.field} ${className}` : styles.field}>
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <input
        autoComplete="off"
        {...input}
        id={id}
        className={figures ? `${styles.input} figures` : styles.input}
        aria-invalid={error !== undefined}
        aria-describedby={described || undefined}
        onChange={(event) => onValue(event.target.value)}
      />
      {hint && (
        <span id={`${id}-hint`} className={styles.hint}>
          {hint}
        </span>
      )}
      {error && (
        <span id={`${id}-error`} className={styles.error} role="alert">
          {error}
        </span>
      )}
    </div>
  );
}

export interface ChoiceProps<Value extends string> {
  label: string;
  options: readonly { value: Value; label: string }[];
  value: Value | undefined;
  onValue: (value: Value) => void;
}

/** One of a few, all in sight: no list to open with a glove. */
export function Choice<Value extends string>({ label, options, value, onValue }: ChoiceProps<Value>) {
  return (
    <Options
      type="radio"
      {...{ label, options }}
      isChosen={(option) => option === value}
      onChoose={(option) => onValue(option)}
    />
  );
}

export interface SelectProps<Value extends string> extends Omit<
  ComponentProps<'select'>,
  'onChange' | 'value'
> {
  label: string;
  hint?: string | undefined;
  options: readonly { value: Value; label: string }[];
  value: Value | undefined;
  onValue: (value: Value) => void;
}

export function Select<Value extends string>({
  label,
  hint,
  options,
  onValue,
  ...select
}: SelectProps<Value>) {
  const id = useId();
  return (
    <div className={styles.field}>
      <label className={styles.label} htmlFor={id}>
        {label}
      </label>
      <select
        {...select}
        id={id}
        className={styles.input}
        onChange={({ target }) => {
          const chosen = options[target.selectedIndex];
          if (chosen) onValue(chosen.value);
        }}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
      {hint && <span className={styles.hint}>{hint}</span>}
    </div>
  );
}

export interface PicksProps<Value extends string> {
  label: string;
  options: readonly { value: Value; label: string }[];
  values: readonly Value[];
  onValues: (values: Value[]) => void;
}

/** Any of a few, all in sight. */
export function Picks<Value extends string>({ label, options, values, onValues }: PicksProps<Value>) {
  return (
    <Options
      type="checkbox"
      {...{ label, options }}
      isChosen={(option) => values.includes(option)}
      onChoose={(option, is) =>
        onValues(is ? [...values, option] : values.filter((value) => value !== option))
      }
    />
  );
}

interface OptionsProps<Value extends string> {
  type: 'radio' | 'checkbox';
  label: string;
  options: readonly { value: Value; label: string }[];
  isChosen: (option: Value) => boolean;
  onChoose: (option: Value, is: boolean) => void;
}

function Options<Value extends string>({ type, label, options, isChosen, onChoose }: OptionsProps<Value>) {
  const name = useId();
  return (
    <fieldset className={styles.choice}>
      <legend className={styles.label}>{label}</legend>
      <div className={styles.options}>
        {options.map((option) => (
          <label key={option.value} className={styles.option}>
            <input
              type={type}
              name={name}
              checked={isChosen(option.value)}
              onChange={({ target }) => onChoose(option.value, target.checked)}
            />
            {option.label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
