import { fillingCaution } from '../../../core/visit/cautions';
import {
  corrected,
  calibrationStatusOf,
  calibrationStatusWords,
  type Instrument,
} from '../../../core/tire/gauge';
import { placardToleranceKPa } from '../../../core/job/placard';
import type { Column } from '../../../core/visit/column';
import {
  figure,
  format,
  formatDifference,
  pressure,
  temperature,
  type Notation,
} from '../../../core/measure/units';
import { positionName, type Position } from '../../../core/names/wheel';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field, Select } from '../../kit/Field';
import { Keypad } from '../../kit/Keypad';
import { Notice } from '../../kit/Notice';
import styles from './GaugeDialog.module.css';
import { PracticeAir } from './PracticeAir';
import { useGauging, type Gauging } from './use-gauging';
import { WarmTire } from './WarmTire';

type Gauged = ReturnType<typeof useGauging>;

interface GaugeDialogProps extends Gauging {
  jobId: string;
  practice: boolean;
  onLosses: (wheel: Position) => void;
}

/** Readings in walking order: type, Enter, next wheel. */
export function GaugeDialog({ jobId, practice, onLosses, ...asked }: GaugeDialogProps) {
  const { job, columns, gauges, units, onClose } = asked;
  const gauging = useGauging(asked);
  const { opened, wheel, column, typed, tire, warmth, warmthError, aim, target, instrument, gaugeId } =
    gauging;
  const before = column?.gauge;
  return (
    <Dialog title={`Gauge, ${positionName[wheel]}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          gauging.keep();
        }}
        className={styles.side}
      >
        <Wheels gauging={gauging} columns={columns} units={units} />
        <Entry gauging={gauging} units={units} outdoorC={job.climate?.nowC} />
        {tire === 'warm' && (
          <WarmTire
            warmth={warmth}
            outdoorC={job.climate?.nowC}
            units={units}
            error={warmthError}
            onWarmth={gauging.warm}
          />
        )}
        {gauges.length > 0 && (
          <Select
            label="Gauge"
            value={gaugeId}
            onValue={gauging.chooseGauge}
            hint={
              instrument
                ? calibrationStatusWords[calibrationStatusOf(instrument, opened).kind]
                : 'Not on the register: its error is not known.'
            }
            options={[
              ...gauges.map(({ id, name }) => ({ value: id, label: name })),
              { value: '', label: 'another gauge' },
            ]}
          />
        )}
        {before?.key && (
          <Choice
            label={`There is a reading of ${figure(pressure, before.kPa, units)}`}
            options={[
              { value: 'no', label: 'this is a new one' },
              { value: 'yes', label: 'that was wrong' },
            ]}
            value={gauging.correcting}
            onValue={gauging.setCorrecting}
          />
        )}
        {practice && target !== undefined && (
          <PracticeAir jobId={jobId} wheel={wheel} targetKPa={target} units={units} />
        )}
        {aim?.cappedAtKPa !== undefined && (
          <Notice tone="note">
            The sidewall's maximum of {format(pressure, aim.cappedAtKPa, units)} limits the target.
          </Notice>
        )}
        {column?.target?.advice === 'let-cool' && (
          <Notice tone="note">
            Do not bleed it: the tire is hot, and short of air once it is cold. Let it cool and read it again.
          </Notice>
        )}
        {before && <p className={styles.caution}>{fillingCaution}</p>}
        <div className={styles.actions}>
          <Button weight="main" type="submit" disabled={typed === ''}>
            Save {wheel}
          </Button>
          <Button onClick={() => onLosses(wheel)}>Losses at {wheel}</Button>
        </div>
      </form>
    </Dialog>
  );
}

/** The wheels, each with what stands of it; a tap goes there. */
function Wheels({ gauging, columns, units }: { gauging: Gauged; columns: Column[]; units: Notation }) {
  return (
    <div className={styles.wheels} role="group" aria-label="Wheel">
      {columns.map((candidate) => (
        <button
          key={candidate.wheel}
          type="button"
          className={styles.wheel}
          aria-pressed={candidate.wheel === gauging.wheel}
          onClick={() => gauging.choose(candidate.wheel)}
        >
          <b>{candidate.wheel}</b>
          <span className="figures">
            {candidate.gauge ? figure(pressure, candidate.gauge.kPa, units) : '–'}
          </span>
        </button>
      ))}
    </div>
  );
}

const byTouch = (): boolean => matchMedia('(pointer: coarse)').matches;

/** The figure itself, what it is held against while it is typed, and how the tire stands. */
function Entry({
  gauging,
  units,
  outdoorC,
}: {
  gauging: Gauged;
  units: Notation;
  outdoorC: number | undefined;
}) {
  const { opened, wheel, typed, entry, error, tire, chooseTire, coldTyped, typeCold } = gauging;
  const { warmthError, cold, target, instrument, type } = gauging;
  return (
    <div className={styles.entry}>
      <div className={styles.side}>
        <Field
          key={wheel}
          label={`Reading, ${units.pressure}`}
          // By touch the keys beside it are there; the device's own would cover them.
          inputMode={byTouch() ? 'none' : 'decimal'}
          value={typed}
          onValue={type}
          error={error}
          data-first
          autoFocus // eslint-disable-line jsx-a11y/no-autofocus -- the dialog was opened to type this
        />
        <div className={styles.difference} aria-live="polite">
          {entry?.ok && target !== undefined && (
            <Difference
              kPa={
                (instrument ? corrected(instrument, entry.value.base, opened).kPa : entry.value.base) - target
              }
              aim={Math.abs(target - (cold ?? 0)) < 0.05 ? 'placard' : format(pressure, target, units)}
              units={units}
            />
          )}
          {target !== undefined && !entry?.ok && `Aim for ${format(pressure, target, units)}`}
          {entry?.ok && instrument && (
            <Corrected instrument={instrument} readKPa={entry.value.base} moment={opened} units={units} />
          )}
        </div>
        <Choice
          label="The tire is"
          options={[
            { value: 'cold', label: 'cold' },
            { value: 'warm', label: 'warm' },
          ]}
          value={tire}
          onValue={chooseTire}
        />
        {!tire && warmthError && (
          <p role="alert" className={styles.ask}>
            {warmthError}
          </p>
        )}
        {tire === 'cold' && (
          <Field
            label={`Tire temperature, ${units.temperature}, if measured`}
            value={coldTyped}
            onValue={typeCold}
            error={warmthError}
            placeholder={outdoorC === undefined ? undefined : figure(temperature, outdoorC, units)}
          />
        )}
      </div>
      <Keypad value={typed} onValue={type} />
    </div>
  );
}

function Difference({ kPa, aim, units }: { kPa: number; aim: string; units: Notation }) {
  const where = Math.abs(kPa) <= placardToleranceKPa ? 'at' : kPa < 0 ? 'below' : 'above';
  return (
    <>
      <span className="figures">{formatDifference(pressure, kPa, units)}</span> {where} {aim}
    </>
  );
}

/** What the reading is once the gauge's own error is out of it. */
function Corrected({
  instrument,
  readKPa,
  moment,
  units,
}: {
  instrument: Instrument;
  readKPa: number;
  moment: number;
  units: Notation;
}) {
  const { kPa, uncertaintyKPa } = corrected(instrument, readKPa, moment);
  const same = figure(pressure, kPa, units) === figure(pressure, readKPa, units);
  return (
    <span className={styles.corrected}>
      {same ? '' : `corrected ${format(pressure, kPa, units)} `}
      {formatDifference(pressure, uncertaintyKPa, units).replace('+', '± ')}
    </span>
  );
}
