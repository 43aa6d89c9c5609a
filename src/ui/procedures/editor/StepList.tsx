import { arrayMove } from '@dnd-kit/sortable';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { cueMeanings, phases, type Phase, type Step } from '../../../core/relearn/procedure';
import { cueWords, meaningWords, phaseWords } from '../../../core/relearn/procedure/words';
import { Button } from '../../kit/Button';
import { Select } from '../../kit/Field';
import { optionsFrom } from '../../kit/options';
import { Sortable, SortableItem } from '../../kit/Sortable';
import { at, newSteps, stepFields, stepNames, withAt, type StepField } from './draft';
import styles from './Editor.module.css';
import { ListAt, NumberAt, SelectAt, TextAt, wrongAt, type Writing } from './Inputs';

const meanings = optionsFrom(meaningWords);

/** The steps of one phase, in order; what each asks beside it. */
export function StepList({ writing, phase }: { writing: Writing; phase: Phase }) {
  const { draft, change } = writing;
  const steps = listAt(draft, phase);
  const set = (next: unknown[]) => change(withAt(draft, [phase], next));
  return (
    <fieldset className={styles.part}>
      <legend>{phaseWords[phase]}</legend>
      <Rows
        noun="step"
        rows={steps}
        keyOf={(step, place) => `${place} ${kindOf(step) ?? ''}`}
        onRows={set}
        show={(step, place) => {
          const kind = kindOf(step);
          const wrong = wrongAt(writing, [phase, place, 'do']);
          return (
            <>
              <b>{kind ? stepNames[kind] : 'Unknown'}</b>
              <div className={styles.fields}>
                {kind &&
                  stepFields[kind].map((field) => (
                    <StepInput
                      key={field.key}
                      writing={writing}
                      field={field}
                      path={[phase, place, field.key]}
                    />
                  ))}
              </div>
              {wrong && <p className={styles.wrong}>{wrong}</p>}
            </>
          );
        }}
      />
      <Select
        label="Add a step"
        value=""
        options={[{ value: '', label: 'choose one' }, ...optionsFrom(stepNames)]}
        onValue={(kind) => kind !== '' && set([...steps, newSteps[kind as Step['do']]])}
      />
    </fieldset>
  );
}

function StepInput({
  writing,
  field,
  path,
}: {
  writing: Writing;
  field: StepField;
  path: (string | number)[];
}) {
  const { label } = field;
  switch (field.type) {
    case 'text':
      return <TextAt {...{ writing, path, label }} />;
    case 'number':
      return <NumberAt {...{ writing, path, label }} {...(field.optional && { hint: 'may be empty' })} />;
    case 'path':
      return <ListAt {...{ writing, path, label }} between=">" />;
    case 'meaning':
      return <SelectAt {...{ writing, path, label }} options={meanings} />;
    case 'flag':
      return (
        <label className={styles.flag}>
          <input
            type="checkbox"
            checked={at(writing.draft, path) === true}
            onChange={({ target }) => writing.change(withAt(writing.draft, path, target.checked))}
          />
          {label}
        </label>
      );
  }
}

/** What the car says, when, and what it means by it. */
export function CueList({ writing }: { writing: Writing }) {
  const { draft, change } = writing;
  const cues = listAt(draft, 'cues');
  const set = (next: unknown[]) => change(withAt(draft, ['cues'], next));
  return (
    <fieldset className={styles.part}>
      <legend>What this car’s cues mean</legend>
      <Rows
        noun="cue"
        rows={cues}
        keyOf={(_, place) => String(place)}
        onRows={set}
        show={(cue, place) => {
          const wrong = wrongAt(writing, ['cues', place]);
          const said = at(cue, ['cue']);
          return (
            <>
              <b>{typeof said === 'string' && said !== '' ? cueWords(said) : 'A cue'}</b>
              <div className={styles.fields}>
                <TextAt
                  writing={writing}
                  path={['cues', place, 'cue']}
                  label="Cue"
                  hint="who and how often: horn 2, hazards 3, lamp off"
                />
                <SelectAt
                  writing={writing}
                  path={['cues', place, 'during']}
                  label="During"
                  options={[
                    { value: '', label: 'any phase' },
                    ...phases.map((phase) => ({ value: phase, label: phaseWords[phase] })),
                  ]}
                />
                <SelectAt
                  writing={writing}
                  path={['cues', place, 'means']}
                  label="Means"
                  options={meanings}
                />
              </div>
              {wrong && <p className={styles.wrong}>{wrong}</p>}
            </>
          );
        }}
      />
      <Button onClick={() => set([...cues, { cue: '', means: cueMeanings[0] }])}>Add a cue</Button>
    </fieldset>
  );
}

/** Rows in an order that is chosen by hand. */
function Rows({
  noun,
  rows,
  keyOf,
  onRows,
  show,
}: {
  /** What one is called: "step". */
  noun: string;
  rows: readonly unknown[];
  /** Names a row: its fields keep what is typed while others are moved. */
  keyOf: (row: unknown, place: number) => string;
  onRows: (rows: unknown[]) => void;
  show: (row: unknown, place: number) => ReactNode;
}) {
  const nameAt = (id: string) => `${noun} ${Number(id) + 1}`;
  return (
    <Sortable
      ids={rows.map((_, place) => String(place))}
      nameOf={nameAt}
      way="order"
      onMoved={(from, to) => onRows(arrayMove([...rows], Number(from), Number(to)))}
    >
      <ol className={styles.steps}>
        {rows.map((row, place) => (
          <SortableItem key={keyOf(row, place)} as="li" id={String(place)} name={nameAt(String(place))}>
            {(handle) => (
              <>
                {show(row, place)}
                <div className={styles.rowButtons}>
                  {handle}
                  <Button
                    weight="quiet"
                    aria-label={`Remove ${noun} ${place + 1}`}
                    onClick={() => onRows(rows.filter((_, other) => other !== place))}
                  >
                    <Trash2 aria-hidden="true" />
                  </Button>
                </div>
              </>
            )}
          </SortableItem>
        ))}
      </ol>
    </Sortable>
  );
}

const listAt = (draft: unknown, key: string): unknown[] => {
  const list = at(draft, [key]);
  return Array.isArray(list) ? (list as unknown[]) : [];
};

const kindOf = (step: unknown): Step['do'] | undefined => {
  const kind = at(step, ['do']);
  return typeof kind === 'string' && Object.hasOwn(stepNames, kind) ? (kind as Step['do']) : undefined;
};
