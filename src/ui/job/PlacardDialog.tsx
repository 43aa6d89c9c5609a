import { useState } from 'react';
import type { Job, Placard } from '../../core/job';
import { figure, parse, pressure, type UnitChoice } from '../../core/units';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './SheetForms.module.css';

interface PlacardDialogProps {
  job: Job;
  units: UnitChoice;
  busy: string | undefined;
  /** What the shop said to the last try. */
  problem: string | undefined;
  onSave: (placard: Placard) => void;
  onClose: () => void;
}

const lines = ['front', 'rear', 'spare'] as const;
type Line = (typeof lines)[number];

/** The label in the door opening: size and cold pressure per axle, and the spare where there is one. */
export function PlacardDialog({ job, units, busy, problem, onSave, onClose }: PlacardDialogProps) {
  const [entries, setEntries] = useState(() =>
    Object.fromEntries(
      lines.map((position) => {
        const line = job.placard?.find((candidate) => candidate.position === position);
        return [
          position,
          {
            size: line?.size ?? '',
            typed: line ? figure(pressure, line.coldKPa, units.pressure) : '',
            kept: line?.coldKPa,
          },
        ];
      }),
    ),
  );
  const [errors, setErrors] = useState<Partial<Record<Line, string>>>({});
  const change = (position: Line, part: { size?: string; typed?: string }) =>
    setEntries((now) => {
      const before = now[position] ?? { size: '', typed: '', kept: undefined };
      const kept = part.typed === undefined ? before.kept : undefined;
      return { ...now, [position]: { ...before, ...part, kept } };
    });

  const save = () => {
    const wrong: typeof errors = {};
    const placard = lines.flatMap((position) => {
      const { size = '', typed = '', kept } = entries[position] ?? {};
      if (typed.trim() === '') {
        if (position !== 'spare') wrong[position] = 'Read it off the placard.';
        return [];
      }
      const read = parse(pressure, typed, units.pressure);
      if (!read.ok) wrong[position] = read.problem.message;
      // A figure nobody touched stays what it was, whatever it rounds to on the screen.
      const coldKPa = kept ?? (read.ok ? read.value.base : 0);
      const before = job.placard?.find((candidate) => candidate.position === position);
      return [{ ...before, position, coldKPa, ...(size.trim() && { size: size.trim() }) }];
    });
    setErrors(wrong);
    if (Object.keys(wrong).length === 0) onSave(placard);
  };

  return (
    <Dialog title="Placard" onClose={onClose}>
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
              value={entries[position]?.typed ?? ''}
              onValue={(typed) => change(position, { typed })}
              error={errors[position]}
              hint={position === 'spare' ? 'Leave empty where there is none.' : undefined}
            />
            <Field
              label={`Size, ${position}`}
              value={entries[position]?.size ?? ''}
              onValue={(size) => change(position, { size })}
            />
          </div>
        ))}
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <Button weight="main" type="submit" busy={busy}>
          Keep the placard
        </Button>
      </form>
    </Dialog>
  );
}
