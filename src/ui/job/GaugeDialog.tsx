import { useEffect, useState } from 'react';
import type { Job, Observation } from '../../core/job';
import { fillingCaution } from '../../core/cautions';
import { placardKPa, placardToleranceKPa } from '../../core/placard';
import type { Column } from '../../core/ledger/column';
import {
  figure,
  format,
  formatDifference,
  parse,
  pressure,
  temperature,
  type UnitChoice,
} from '../../core/units';
import type { PracticeCar } from '../../core/visit/view';
import { positionName, type Position } from '../../core/wheel';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Choice, Field } from '../kit/Field';
import { Keypad } from '../kit/Keypad';
import styles from './GaugeDialog.module.css';

interface GaugeDialogProps {
  jobId: string;
  job: Job;
  columns: Column[];
  first: Position;
  units: UnitChoice;
  practice: boolean;
  onRecord: (observation: Observation, replaces?: string) => void;
  onClose: () => void;
}

/** A placard figure this far off, as a share, is asked about: a wrong unit or a digit too many. */
const doubtful = { least: 0.4, most: 1.8 };

/** Readings in walking order: type, Enter, next wheel. */
export function GaugeDialog({
  jobId,
  job,
  columns,
  first,
  units,
  practice,
  onRecord,
  onClose,
}: GaugeDialogProps) {
  const [wheel, setWheel] = useState(first);
  const [typed, setTyped] = useState('');
  const [tire, setTire] = useState<'cold' | 'warm'>('cold');
  const [tireTyped, setTireTyped] = useState('');
  const [correcting, setCorrecting] = useState<'no' | 'yes'>('no');
  const [doubted, setDoubted] = useState(false);
  const [error, setError] = useState<string>();

  const column = columns.find((candidate) => candidate.wheel === wheel);
  const before = column?.gauge;
  const cold = placardKPa(job, wheel);
  const target = column?.target?.setNowKPa ?? cold;
  const entry = typed === '' ? undefined : parse(pressure, typed, units.pressure);
  const choose = (next: Position) => {
    setWheel(next);
    setTyped('');
    setCorrecting('no');
    setDoubted(false);
    setError(undefined);
  };

  const keep = () => {
    const read = parse(pressure, typed, units.pressure);
    if (!read.ok) return setError(read.problem.message);
    const warmth =
      tire === 'warm' && tireTyped !== '' ? parse(temperature, tireTyped, units.temperature) : undefined;
    if (warmth && !warmth.ok) return setError(warmth.problem.message);
    const share = cold === undefined ? 1 : read.value.base / cold;
    if (!doubted && read.value.base > 0 && (share < doubtful.least || share > doubtful.most)) {
      setDoubted(true);
      return setError(
        `${typed} is far from the placard's ${format(pressure, cold ?? 0, units.pressure)}. Right unit? Enter again keeps it.`,
      );
    }
    const at = new Date().toISOString();
    const observation: Observation = {
      kind: 'gauge',
      at,
      wheel,
      kPa: read.value.base,
      tire,
      trusted: true,
      typed: read.value.typed,
      ...(warmth?.ok && { tireC: warmth.value.base }),
    };
    onRecord(observation, correcting === 'yes' ? before?.key : undefined);
    const next = columns.find((candidate) => !candidate.gauge && candidate.wheel !== wheel);
    if (next && !before) choose(next.wheel);
    else onClose();
  };

  return (
    <Dialog title={`Gauge, ${positionName[wheel]}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
        className={styles.side}
      >
        <div className={styles.wheels} role="group" aria-label="Wheel">
          {columns.map((candidate) => (
            <button
              key={candidate.wheel}
              type="button"
              className={styles.wheel}
              aria-pressed={candidate.wheel === wheel}
              onClick={() => choose(candidate.wheel)}
            >
              <b>{candidate.wheel}</b>
              <span className="figures">
                {candidate.gauge ? figure(pressure, candidate.gauge.kPa, units.pressure) : '–'}
              </span>
            </button>
          ))}
        </div>
        <div className={styles.entry}>
          <div className={styles.side}>
            <Field
              key={wheel}
              label={`Reading, ${units.pressure}`}
              inputMode="decimal"
              value={typed}
              onValue={(value) => {
                setTyped(value);
                setError(undefined);
                setDoubted(false);
              }}
              error={error}
              data-first
              autoFocus // eslint-disable-line jsx-a11y/no-autofocus -- the dialog was opened to type this
            />
            <div className={styles.difference} aria-live="polite">
              {entry?.ok && cold !== undefined && <Difference kPa={entry.value.base - cold} units={units} />}
              {target !== undefined && !entry?.ok && `Aim for ${format(pressure, target, units.pressure)}`}
            </div>
            <Choice
              label="The tire is"
              options={[
                { value: 'cold', label: 'cold' },
                { value: 'warm', label: 'warm' },
              ]}
              value={tire}
              onValue={setTire}
            />
            {tire === 'warm' && (
              <Field
                label={`Tire temperature, ${units.temperature}`}
                hint="Leave empty if nobody measured it."
                inputMode="text"
                value={tireTyped}
                onValue={setTireTyped}
              />
            )}
            {before?.key && (
              <Choice
                label={`There is a reading of ${figure(pressure, before.kPa, units.pressure)}`}
                options={[
                  { value: 'no', label: 'this is a new one' },
                  { value: 'yes', label: 'that was wrong' },
                ]}
                value={correcting}
                onValue={setCorrecting}
              />
            )}
          </div>
          <Keypad
            value={typed}
            onValue={(value) => {
              setTyped(value);
              setError(undefined);
              setDoubted(false);
            }}
          />
        </div>
        {practice && target !== undefined && (
          <PracticeAir jobId={jobId} wheel={wheel} targetKPa={target} units={units} />
        )}
        {before && <p className={styles.caution}>{fillingCaution}</p>}
        <Button weight="main" type="submit" disabled={typed === ''}>
          Keep {wheel}
        </Button>
      </form>
    </Dialog>
  );
}

function Difference({ kPa, units }: { kPa: number; units: UnitChoice }) {
  const words =
    Math.abs(kPa) <= placardToleranceKPa ? 'at placard' : kPa < 0 ? 'below placard' : 'above placard';
  return (
    <>
      <span className="figures">{formatDifference(pressure, kPa, units.pressure)}</span> {words}
    </>
  );
}

/** The simulated tire's own pressure, and an air hose for it. */
function PracticeAir({
  jobId,
  wheel,
  targetKPa,
  units,
}: {
  jobId: string;
  wheel: Position;
  targetKPa: number;
  units: UnitChoice;
}) {
  const [car, setCar] = useState<PracticeCar>();
  useEffect(() => {
    void ask<PracticeCar>('GET', `/api/practice/${jobId}`).then((seen) => seen.ok && setCar(seen.value));
  }, [jobId]);
  const stands = car?.kPa[wheel];
  const fill = async () => {
    const kPa = Math.round(targetKPa);
    const filled = await ask<PracticeCar>('POST', `/api/practice/${jobId}`, { do: 'air', wheel, kPa });
    if (filled.ok) setCar(filled.value);
  };
  return (
    <div className={styles.practice}>
      <span>
        Simulated gauge:{' '}
        <b className="figures">{stands === undefined ? '…' : format(pressure, stands, units.pressure)}</b>
      </span>
      <Button onClick={() => void fill()}>Let air to {figure(pressure, targetKPa, units.pressure)}</Button>
    </div>
  );
}
