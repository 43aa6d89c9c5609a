import { useState } from 'react';
import type { Job, LoadCase, Placard } from '../../../core/job';
import { doubtAboutPlacard } from '../../../core/placard';
import { parseTireSize } from '../../../core/tire-size';
import {
  figure,
  figureAsTyped,
  format,
  parse,
  pressure,
  unitNamed,
  type UnitChoice,
} from '../../../core/units';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';

interface PlacardDialogProps {
  job: Job;
  units: UnitChoice;
  busy: string | undefined;
  /** What the shop said to the last try. */
  problem: string | undefined;
  onSave: (placard: Placard, loadCase: LoadCase) => void;
  onClose: () => void;
}

const lines = ['front', 'rear', 'spare'] as const;
type Line = (typeof lines)[number];
type Column = 'usual' | 'full';
type Cell = `${Line} ${Column}`;
type Asked = Cell | `${Line} size`;

const cells = lines.flatMap((line): Cell[] => [`${line} usual`, `${line} full`]);

interface Entry {
  text: string;
  /** What is stored, as long as nobody touches the field. */
  kept: number | undefined;
  typed: unknown;
}

/** The label in the door opening: size and cold pressure per axle and load, and the spare where there is one. */
export function PlacardDialog({ job, units, busy, problem, onSave, onClose }: PlacardDialogProps) {
  const stored = (position: Line) => job.placard?.find((candidate) => candidate.position === position);
  const [sizes, setSizes] = useState(() =>
    Object.fromEntries(lines.map((position) => [position, stored(position)?.size ?? ''])),
  );
  const [entries, setEntries] = useState(() => {
    const entry = (kPa: number | undefined, typed: unknown): Entry => ({
      text: kPa === undefined ? '' : figureAsTyped(pressure, kPa, units.pressure, typed),
      kept: kPa,
      typed,
    });
    return Object.fromEntries(
      lines.flatMap((position) => {
        const line = stored(position);
        return [
          [`${position} usual`, entry(line?.coldKPa, line?.typed)],
          [`${position} full`, entry(line?.fullLoadKPa, line?.typedFull)],
        ];
      }),
    ) as Record<Cell, Entry>;
  });
  const [loadCase, setLoadCase] = useState<LoadCase>(job.loadCase ?? 'usual');
  const [errors, setErrors] = useState<Partial<Record<Asked, string>>>({});
  /** What was asked about; the same text again is meant. */
  const [doubted, setDoubted] = useState<Partial<Record<Asked, string>>>({});

  const set = (cell: Cell, text: string) => {
    setErrors((before) => ({ ...before, [cell]: undefined }));
    setEntries((before) => ({ ...before, [cell]: { text, kept: undefined, typed: undefined } }));
  };

  const save = () => {
    const wrong: typeof errors = {};
    const asked: typeof doubted = {};
    /** The figure of a cell; undefined where it is empty or something is wrong with it. */
    const read = (cell: Cell): { kPa: number; typed: unknown } | undefined => {
      const { text, kept, typed } = entries[cell];
      if (kept !== undefined) return { kPa: kept, typed };
      if (text.trim() === '') return undefined;
      const parsed = parse(pressure, text, units.pressure);
      if (!parsed.ok) {
        wrong[cell] = parsed.problem.message;
        return undefined;
      }
      const { base, value, typed: written } = parsed.value;
      const doubt = doubtAboutPlacard(base, value);
      if (doubt && doubted[cell] !== text) {
        asked[cell] = text;
        const meant =
          doubt.meant &&
          `${value} ${doubt.meant.unit} would be ${format(pressure, doubt.meant.kPa, units.pressure)}`;
        wrong[cell] =
          `${written} is hardly a placard figure${meant ? `; ${meant}` : ''}. Type its unit, or keep it as it is.`;
      }
      return { kPa: base, typed: written };
    };
    const placard = lines.flatMap((position) => {
      const usual = read(`${position} usual`);
      const full = read(`${position} full`);
      const size = sizes[position]?.trim() ?? '';
      const parsed = size === '' ? undefined : parseTireSize(size);
      if (parsed && !parsed.ok && doubted[`${position} size`] !== size) {
        asked[`${position} size`] = size;
        wrong[`${position} size`] = `${parsed.problem.message} Saved as it is, it is compared with nothing.`;
      }
      if (!usual) {
        if (position !== 'spare' && !wrong[`${position} usual`])
          wrong[`${position} usual`] = 'Read it off the placard.';
        return [];
      }
      // Other keys of the line stay; what can be emptied here is put back only if it is there.
      const before: Partial<Placard[number]> = { ...stored(position) };
      for (const key of ['fullLoadKPa', 'typedFull', 'size']) delete before[key];
      return [
        {
          ...before,
          position,
          coldKPa: usual.kPa,
          typed: usual.typed,
          ...(full && { fullLoadKPa: full.kPa, typedFull: full.typed }),
          ...(size && { size }),
        },
      ];
    });
    setErrors(wrong);
    setDoubted(asked);
    if (Object.keys(wrong).length === 0) onSave(placard, loadCase);
  };
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
              onValue={(size) => {
                setErrors((before) => ({ ...before, [`${position} size`]: undefined }));
                setSizes((before) => ({ ...before, [position]: size }));
              }}
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
        {anyDoubt && (
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
                          `${figure(pressure, own.toBase(parsed.value.value), meant.unit)} ${meant.unit}`,
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
        )}
        <Button weight="main" type="submit" busy={busy}>
          {anyDoubt ? 'Save the placard as typed' : 'Save the placard'}
        </Button>
      </form>
    </Dialog>
  );
}
