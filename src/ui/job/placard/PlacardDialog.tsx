import type { Job, LoadCase, Placard } from '../../../core/job';
import { doubtAboutPlacard } from '../../../core/job/placard';
import { format, parse, pressure, unitNamed, type Notation } from '../../../core/measure/units';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import { cells, lines, usePlacardEntry } from './use-placard-entry';

interface PlacardDialogProps {
  job: Job;
  units: Notation;
  busy: string | undefined;
  /** What the shop said to the last try. */
  problem: string | undefined;
  onSave: (placard: Placard, loadCase: LoadCase) => void;
  onClose: () => void;
}

/** The label in the door opening: size and cold pressure per axle and load, and the spare where there is one. */
export function PlacardDialog({ job, units, busy, problem, onSave, onClose }: PlacardDialogProps) {
  const entry = usePlacardEntry(job, units, onSave);
  const { entries, set, sizes, setSize, loadCase, setLoadCase, errors, doubted, save } = entry;
  const anyDoubt = Object.keys(doubted).length > 0;
  return (
    <Dialog title="Placard" onClose={onClose} wide>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        {lines.map((position) => (
          <div key={position} className={styles.row}>
            <Field
              label={`${position[0]?.toUpperCase()}${position.slice(1)}, cold ${units.pressure}`}
              inputMode="decimal"
              value={entries[`${position} usual`].text}
              onValue={(text) => set(`${position} usual`, text)}
              error={errors[`${position} usual`]}
              hint={position === 'spare' ? 'Leave empty where there is none.' : undefined}
            />
            {position !== 'spare' && (
              <Field
                label={`Fully loaded, ${position}`}
                inputMode="decimal"
                value={entries[`${position} full`].text}
                onValue={(text) => set(`${position} full`, text)}
                error={errors[`${position} full`]}
                hint="Where the placard has a second column."
              />
            )}
            <Field
              label={`Size, ${position}`}
              value={sizes[position] ?? ''}
              onValue={(size) => setSize(position, size)}
              error={errors[`${position} size`]}
            />
          </div>
        ))}
        <Choice
          label="The car is set for"
          options={[
            { value: 'usual', label: 'its usual load' },
            { value: 'full', label: 'full load' },
          ]}
          value={loadCase}
          onValue={setLoadCase}
        />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        {anyDoubt && <Doubts entry={entry} units={units} />}
        <Button weight="main" type="submit" busy={busy}>
          {anyDoubt ? 'Save the placard as typed' : 'Save the placard'}
        </Button>
      </form>
    </Dialog>
  );
}

/** What each figure that was asked about would be in the unit it makes sense in. */
function Doubts({
  entry: { entries, set, doubted, setDoubted },
  units,
}: {
  entry: ReturnType<typeof usePlacardEntry>;
  units: Notation;
}) {
  return (
    <div className={styles.actions}>
      {cells
        .filter((cell) => cell in doubted)
        .map((cell) => {
          const parsed = parse(pressure, entries[cell].text, units.pressure);
          const meant = parsed.ok
            ? doubtAboutPlacard(parsed.value.base, parsed.value.value)?.meant
            : undefined;
          return (
            meant &&
            parsed.ok && (
              <Button
                key={cell}
                onClick={() => {
                  const own = unitNamed(pressure, meant.unit);
                  set(
                    cell,
                    format(pressure, own.toBase(parsed.value.value), { ...units, pressure: meant.unit }),
                  );
                  setDoubted({});
                }}
              >
                It is {parsed.value.value} {meant.unit}
              </Button>
            )
          );
        })}
    </div>
  );
}
