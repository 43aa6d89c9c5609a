import { CircleCheck, CircleDashed, CircleX, Hourglass } from 'lucide-react';
import { useState } from 'react';
import {
  calibrationOf,
  checkEveryDays,
  calibrationStatusOf,
  type Calibration,
  type Instrument,
  type CalibrationStatus,
} from '../../core/tire/gauge';
import { z } from 'zod';
import { instrumentKinds } from '../../core/job/schemas/instrument';
import { typedAs } from '../../core/measure/units/schema';
import { day, type Place } from '../../core/measure/calendar';
import { format, formatDifference, pressure, type Notation } from '../../core/measure/units';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import buttonStyles from '../kit/Button.module.css';
import { ChoiceIn, Form, TextIn, useFilled } from '../kit/Form';
import { Notice } from '../kit/Notice';
import { ErrorChart } from './ErrorChart';
import styles from './Gauges.module.css';

const kinds = [
  { value: 'digital', label: 'digital' },
  { value: 'dial', label: 'dial' },
  { value: 'stick', label: 'stick' },
  { value: 'air-line', label: 'on the air line' },
] as const;

const calibrationStatuses: Record<
  CalibrationStatus['kind'],
  { word: string; icon: typeof CircleCheck; bad: boolean }
> = {
  good: { word: 'good', icon: CircleCheck, bad: false },
  overdue: { word: 'overdue', icon: Hourglass, bad: true },
  'out-of-tolerance': { word: 'out of tolerance', icon: CircleX, bad: true },
  'never-checked': { word: 'never checked', icon: CircleDashed, bad: true },
  retired: { word: 'out of use', icon: CircleDashed, bad: false },
};

/** The shop's gauges as instruments: how far off each is, how well that is known, when it is due. */
export function Gauges({
  initial,
  units,
  mayChange,
  now,
}: {
  initial: Instrument[];
  units: Notation;
  mayChange: boolean;
  now: number;
}) {
  const [gauges, setGauges] = useState(initial);
  const [problem, setProblem] = useState<string>();
  const retire = async (id: string, retired: boolean) => {
    const changed = await ask('retireGauge', { id, body: { retired } });
    if (changed.ok) setGauges(changed.value);
    setProblem(changed.ok ? undefined : changed.problem.message);
  };
  return (
    <main className={styles.gauges}>
      <h1>Gauges</h1>
      <p className={styles.soft}>
        A reading is worth what its gauge is worth. Each is compared with a reference every {checkEveryDays}{' '}
        days; what it is off is taken out of its readings, and what is left stands beside them.
      </p>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <ul className={styles.list}>
        {gauges.map((gauge) => (
          <GaugeLine
            key={gauge.id}
            {...{ gauge, units, mayChange, now }}
            onRetire={(retired) => void retire(gauge.id, retired)}
          />
        ))}
        {gauges.length === 0 && (
          <li className={styles.empty}>No gauge is on the register. Add the one you trust, then check it.</li>
        )}
      </ul>
      {mayChange && <NewGauge units={units} onAdded={setGauges} />}
    </main>
  );
}

function GaugeLine({
  gauge,
  units,
  mayChange,
  now,
  onRetire,
}: {
  gauge: Instrument;
  units: Notation;
  mayChange: boolean;
  now: number;
  onRetire: (retired: boolean) => void;
}) {
  const [open, setOpen] = useState(false);
  const standing = calibrationStatusOf(gauge, now);
  const check = gauge.checks.at(-1);
  const calibration = check && calibrationOf(check, gauge.resolutionKPa);
  const { word, icon: Icon, bad } = calibrationStatuses[standing.kind];
  return (
    <li className={styles.gauge}>
      <div className={styles.head}>
        <div>
          <b className={styles.name}>{gauge.name}</b>
          <span className={styles.soft}>
            {kinds.find(({ value }) => value === gauge.kind)?.label}, shows steps of{' '}
            {formatDifference(pressure, gauge.resolutionKPa, units, 1).slice(1)}
          </span>
        </div>
        <span className={`${styles.standing} ${bad ? styles.bad : styles.good}`}>
          <Icon aria-hidden="true" /> {word}
        </span>
        <span className={styles.soft}>{dates(standing, units)}</span>
        <div className={styles.actions}>
          {calibration && (
            <Button aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Hide the error' : 'Show the error'}
            </Button>
          )}
          {mayChange && !gauge.retired && (
            <a className={buttonStyles.button} href={`/gauges/${gauge.id}/check`}>
              Check it
            </a>
          )}
          {mayChange && (
            <Button weight="quiet" onClick={() => onRetire(!gauge.retired)}>
              {gauge.retired ? 'Back into use' : 'Out of use'}
            </Button>
          )}
        </div>
      </div>
      {calibration && <p>{calibrationWords(calibration, units)}</p>}
      {open && check && calibration && (
        <>
          <ErrorChart name={gauge.name} points={check.points} calibration={calibration} units={units} />
          <p className={styles.soft}>
            Checked {day(check.at, units)} by {check.by} against {check.reference} (
            {formatDifference(pressure, check.referenceUncertaintyKPa, units, 1).replace('+', '± ')}
            ).
          </p>
        </>
      )}
    </li>
  );
}

/** The outcome of a check in one line of figures. */
export function calibrationWords(calibration: Calibration, units: Notation): string {
  const by = (kPa: number) => formatDifference(pressure, kPa, units, 1);
  const { meanErrorKPa, spreadKPa, worst, hysteresisKPa, uncertaintyKPa } = calibration;
  return [
    `Reads ${by(meanErrorKPa)} on average`,
    `spread ${by(spreadKPa).slice(1)}`,
    `at worst ${by(worst.errorKPa)} at ${format(pressure, worst.atKPa, units)}`,
    `up and down differ by ${by(hysteresisKPa).slice(1)}`,
    `corrected readings are good to ${by(uncertaintyKPa).replace('+', '± ')}`,
  ]
    .join(', ')
    .concat('.');
}

function dates(standing: CalibrationStatus, place: Place): string {
  switch (standing.kind) {
    case 'good':
      return `due ${day(standing.dueAt, place)}`;
    case 'overdue':
      return `was due ${day(standing.dueAt, place)}`;
    case 'out-of-tolerance':
      return `since ${day(standing.checkedAt, place)}: read with another`;
    case 'never-checked':
      return 'its readings are not trusted';
    case 'retired':
      return '';
  }
}

const newGaugeIn = (units: Notation) => {
  const needed = 'The smallest step it shows, as a figure above 0.';
  return z.object({
    name: z.string().trim().min(1, 'What it is called, so that a reading can name it.'),
    kind: z.enum(instrumentKinds),
    step: typedAs(pressure, units, needed).refine(({ base }) => base > 0, needed),
  });
};

function NewGauge({ units, onAdded }: { units: Notation; onAdded: (gauges: Instrument[]) => void }) {
  const form = useFilled(newGaugeIn(units), { name: '', kind: 'digital', step: '' });
  const { control: of } = form;
  const { once, busy, problem } = useDeeds();
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={async ({ step, ...read }) => {
        const body = { ...read, resolutionKPa: step.base };
        const added = await once('new gauge', (key) => ask('addGauge', { body: { key, ...body } }));
        if (!added?.ok) return;
        form.reset();
        onAdded(added.value);
      }}
    >
      <h2>Add a gauge</h2>
      <div className={styles.row}>
        <TextIn of={of} name="name" label="Name" hint="As it is called, and where it hangs" />
        <TextIn of={of} name="step" label={`Smallest step, ${units.pressure}`} />
      </div>
      <ChoiceIn of={of} name="kind" label="Kind" options={kinds} />
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      <div>
        <Button type="submit" busy={busy}>
          Add this gauge
        </Button>
      </div>
    </Form>
  );
}
