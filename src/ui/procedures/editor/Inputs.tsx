import { useState } from 'react';
import { Field, Select } from '../../kit/Field';
import { at, withAt, type Draft, type Path, type Wrong } from './draft';

/** The draft, how it is changed, and what is wrong with it: for every input of the editor. */
export interface Writing {
  draft: Draft;
  change: (draft: Draft) => void;
  wrong: readonly Wrong[];
}

interface At {
  writing: Writing;
  path: Path;
  label: string;
  hint?: string;
}

/** What is wrong right at a place. */
export const wrongAt = ({ wrong }: Writing, path: Path): string | undefined =>
  wrong.find((one) => one.path === path.join('.'))?.message;

const textOf = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value) : '';

export function TextAt({ writing, path, label, hint }: At) {
  const { draft, change } = writing;
  return (
    <Field
      label={label}
      hint={hint}
      value={textOf(at(draft, path))}
      error={wrongAt(writing, path)}
      onValue={(value) => change(withAt(draft, path, value === '' ? undefined : value))}
    />
  );
}

/** A figure; what is none stays as it is typed, and is said to be wrong. */
export function NumberAt({ writing, path, label, hint }: At) {
  const { draft, change } = writing;
  const stored = at(draft, path);
  const [typed, setTyped] = useState(textOf(stored));
  return (
    <Field
      label={label}
      hint={hint}
      inputMode="decimal"
      // As it was typed, "4," too, as long as it still says what is stored: rows move.
      value={figureOf(typed) === stored ? typed : textOf(stored)}
      error={wrongAt(writing, path)}
      onValue={(value) => {
        setTyped(value);
        change(withAt(draft, path, figureOf(value)));
      }}
    />
  );
}

/** Undefined for nothing; what is no figure as it stands. */
function figureOf(typed: string): number | string | undefined {
  if (typed.trim() === '') return undefined;
  const figure = Number(typed.replace(',', '.'));
  return Number.isNaN(figure) ? typed : figure;
}

const wordsOf = (typed: string, between: string): string[] =>
  typed
    .split(between)
    .map((word) => word.trim())
    .filter(Boolean);

/** A list of words, with a sign between them. */
export function ListAt({ writing, path, label, hint, between }: At & { between: string }) {
  const { draft, change } = writing;
  const list = at(draft, path);
  const stored = Array.isArray(list) ? list.join(` ${between} `) : '';
  const [typed, setTyped] = useState(stored);
  return (
    <Field
      label={label}
      hint={hint}
      value={wordsOf(typed, between).join(` ${between} `) === stored ? typed : stored}
      error={wrongAt(writing, path)}
      onValue={(value) => {
        setTyped(value);
        change(withAt(draft, path, wordsOf(value, between)));
      }}
    />
  );
}

export function SelectAt({
  writing,
  path,
  label,
  options,
}: At & { options: readonly { value: string; label: string }[] }) {
  const { draft, change } = writing;
  return (
    <Select
      label={label}
      options={options}
      value={textOf(at(draft, path))}
      onValue={(value) => change(withAt(draft, path, value === '' ? undefined : value))}
    />
  );
}
