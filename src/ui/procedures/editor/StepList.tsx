import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { cueMeanings, phases, type Phase, type Step } from '../../../core/relearn/procedure';
import { cueWords, meaningWords, phaseWords } from '../../../core/relearn/procedure/words';
import { Button } from '../../kit/Button';
import { Select } from '../../kit/Field';
import { optionsFrom } from '../../kit/options';
import { at, moved, newSteps, stepFields, stepNames, withAt, type StepField } from './draft';
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
      <ol className={styles.steps}>
        {steps.map((step, place) => {
          const kind = kindOf(step);
          const wrong = wrongAt(writing, [phase, place, 'do']);
          return (
            // Its fields keep what is typed while others are moved: the kind and place name it.
            <li key={`${place} ${kind ?? ''}`}>
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
              <RowButtons
                what={`step ${place + 1}`}
                onUp={() => set(moved(steps, place, place - 1))}
                onDown={() => set(moved(steps, place, place + 1))}
                onRemove={() => set(steps.filter((_, other) => other !== place))}
              />
            </li>
          );
        })}
      </ol>
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
      <ol className={styles.steps}>
        {cues.map((cue, place) => {
          const wrong = wrongAt(writing, ['cues', place]);
          const said = at(cue, ['cue']);
          return (
            <li key={place}>
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
              <RowButtons
                what={`cue ${place + 1}`}
                onUp={() => set(moved(cues, place, place - 1))}
                onDown={() => set(moved(cues, place, place + 1))}
                onRemove={() => set(cues.filter((_, other) => other !== place))}
              />
            </li>
          );
        })}
      </ol>
      <Button onClick={() => set([...cues, { cue: '', means: cueMeanings[0] }])}>Add a cue</Button>
    </fieldset>
  );
}

function RowButtons({
  what,
  onUp,
  onDown,
  onRemove,
}: {
  what: string;
  onUp: () => void;
  onDown: () => void;
  onRemove: () => void;
}) {
  return (
    <div className={styles.rowButtons}>
      <Button weight="quiet" aria-label={`Move ${what} up`} onClick={onUp}>
        <ArrowUp aria-hidden="true" />
      </Button>
      <Button weight="quiet" aria-label={`Move ${what} down`} onClick={onDown}>
        <ArrowDown aria-hidden="true" />
      </Button>
      <Button weight="quiet" aria-label={`Remove ${what}`} onClick={onRemove}>
        <Trash2 aria-hidden="true" />
      </Button>
    </div>
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
