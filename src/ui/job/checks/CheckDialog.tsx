import { useState, type ReactNode } from 'react';
import type { Job, Observation } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { monitoredWheels } from '../../../core/job/placard';
import { groupedId } from '../../../core/names/sensor-id';
import { parse, pressure, type Notation } from '../../../core/measure/units';
import type { CheckedByHand } from '../../../core/visit';
import { positionName, roadWheels, type Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field } from '../../kit/Field';
import { checkWords } from '../../../core/visit/words';
import styles from '../../kit/Forms.module.css';

/** A reset has steps of its own, and is no form. */
export type CheckForm = Exclude<CheckedByHand, 'baseline'>;

interface CheckDialogProps {
  test: CheckForm;
  job: Job;
  units: Notation;
  onRecord: (observation: Observation) => void;
  onClose: () => void;
}

/** A check that is done by hand: how, and what came of it. */
export function CheckDialog(props: CheckDialogProps) {
  const { test, onClose } = props;
  return (
    <Dialog title={checkWords[test].label} onClose={onClose}>
      <p>{checkWords[test].why}</p>
      <Form {...props} />
    </Dialog>
  );
}

/** Every check there is for this kind of car, whether the job asks for it now or not. */
export function ChecksDialog(props: {
  kind: Job['vehicle']['tpms']['kind'];
  onLook: () => void;
  onCheck: (test: CheckedByHand) => void;
  onCodes: () => void;
  onClose: () => void;
}) {
  return (
    <Dialog title="Other checks" onClose={props.onClose}>
      <div className={styles.form}>
        <Button onClick={props.onLook}>Look at the wheels</Button>
        {checksFor[props.kind].map((test) => (
          <Button key={test} onClick={() => props.onCheck(test)}>
            {checkWords[test].label}
          </Button>
        ))}
        {props.kind !== 'none' && <Button onClick={props.onCodes}>Trouble codes</Button>}
      </div>
    </Dialog>
  );
}

const checksFor: Record<Job['vehicle']['tpms']['kind'], CheckedByHand[]> = {
  direct: ['display', 'shift', 'reception'],
  indirect: ['wheelspeed', 'baseline'],
  none: [],
};

function Form(props: CheckDialogProps) {
  switch (props.test) {
    case 'display':
    case 'shift':
      return <DisplayForm {...props} />;
    case 'reception':
      return <ReceptionForm {...props} />;
    case 'wheelspeed':
      return <WheelSpeedForm {...props} />;
  }
}

const now = () => shopTime();

/** One text per wheel, and what is wrong with it. */
function useTexts() {
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [errors, setErrors] = useState<Record<string, string>>({});
  const field = (name: string) => ({
    value: texts[name] ?? '',
    error: errors[name],
    onValue: (value: string) => setTexts((before) => ({ ...before, [name]: value })),
  });
  return { texts, field, setErrors };
}

/** Fields, and the one button that keeps them. */
function KeepForm(props: { label: string; disabled?: boolean; onKeep: () => void; children: ReactNode }) {
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        props.onKeep();
      }}
    >
      {props.children}
      <Button weight="main" type="submit" disabled={props.disabled}>
        {props.label}
      </Button>
    </form>
  );
}

/** What the display shows for each wheel; with `shift`, after 25 kPa were taken off one of them. */
function DisplayForm({ test, job, units, onRecord, onClose }: CheckDialogProps) {
  const wheels = monitoredWheels(job);
  const { texts, field, setErrors } = useTexts();
  const [changed, setChanged] = useState<Position>();
  const keep = () => {
    const wrong: Record<string, string> = {};
    const found: Observation[] = [];
    if (test === 'shift' && changed) {
      const read = parse(pressure, texts.changed ?? '', units.pressure);
      if (read.ok)
        found.push({ kind: 'gauge', at: now(), wheel: changed, kPa: read.value.base, tire: 'cold' });
      else wrong.changed = read.problem.message;
    }
    for (const wheel of wheels) {
      const text = texts[wheel]?.trim() ?? '';
      const read = text === '' ? undefined : parse(pressure, text, units.pressure);
      if (read && !read.ok) wrong[wheel] = read.problem.message;
      else found.push({ kind: 'display', at: now(), wheel, kPa: read?.ok ? read.value.base : null });
    }
    setErrors(wrong);
    if (Object.keys(wrong).length > 0) return;
    for (const seen of found) onRecord(seen);
    onClose();
  };
  return (
    <KeepForm label="Save what it shows" disabled={test === 'shift' && !changed} onKeep={keep}>
      {test === 'shift' && (
        <>
          <Choice
            label="Air was taken off"
            options={wheels.map((value) => ({ value, label: value }))}
            value={changed}
            onValue={setChanged}
          />
          {changed && (
            <Field
              label={`${changed} by the gauge, after it`}
              hint={units.pressure}
              inputMode="decimal"
              {...field('changed')}
            />
          )}
        </>
      )}
      <div className={styles.row}>
        {wheels.map((wheel) => (
          <Field
            key={wheel}
            label={`Display, ${wheel}`}
            hint={`${units.pressure}; empty where it shows nothing`}
            inputMode="decimal"
            {...field(wheel)}
          />
        ))}
      </div>
    </KeepForm>
  );
}

/** Check-ins counted over a drive, sensor by sensor. */
function ReceptionForm({ job, onRecord, onClose }: CheckDialogProps) {
  const ledger = ledgerOf(job);
  const sensors = monitoredWheels(job).flatMap((wheel) => {
    const scan = ledger.sensor[wheel];
    const id = scan?.kind === 'heard' ? scan.reply.id : (ledger.registered[wheel] ?? undefined);
    return id ? [{ wheel, id }] : [];
  });
  const { texts, field, setErrors } = useTexts();
  const keep = () => {
    const wrong: Record<string, string> = {};
    const count = (name: string): number | undefined => {
      const text = texts[name]?.trim() ?? '';
      const number = /^\d{1,5}$/.test(text) ? Number(text) : undefined;
      if (number === undefined) wrong[name] = 'A whole number, as the log counts it.';
      return number;
    };
    const expected = count('expected');
    const found = sensors.flatMap(({ wheel, id }): Observation[] => {
      const received = count(wheel);
      if (expected === undefined || received === undefined) return [];
      if (received > expected) wrong[wheel] = 'More received than expected: count again.';
      return [{ kind: 'reception', at: now(), id, expected, received }];
    });
    setErrors(wrong);
    if (Object.keys(wrong).length > 0) return;
    for (const seen of found) onRecord(seen);
    onClose();
  };
  if (sensors.length === 0)
    return <p>Wake the sensors or read the car first: their IDs are what the log counts.</p>;
  return (
    <KeepForm label="Save the counts" onKeep={keep}>
      <Field label="Check-ins expected of each" inputMode="numeric" {...field('expected')} />
      <div className={styles.row}>
        {sensors.map(({ wheel, id }) => (
          <Field
            key={wheel}
            label={`${wheel}, ${groupedId(id)}`}
            hint="received"
            inputMode="numeric"
            {...field(wheel)}
          />
        ))}
      </div>
    </KeepForm>
  );
}

const speedWays = [
  { value: 'speed', label: 'as speeds' },
  { value: 'percent', label: 'as % faster than the mean' },
] as const;

/** Each wheel's speed against the mean of the four: the speeds themselves, or how much faster than the mean. */
function WheelSpeedForm({ onRecord, onClose }: CheckDialogProps) {
  const [way, setWay] = useState<(typeof speedWays)[number]['value']>('speed');
  const { texts, field, setErrors } = useTexts();
  const numberOf = (wheel: Position): number | undefined => {
    const text = (texts[wheel] ?? '').trim().replace(',', '.').replace('−', '-');
    const number = Number(text);
    if (text === '' || !Number.isFinite(number)) return undefined;
    return (way === 'speed' ? number > 0 && number < 400 : Math.abs(number) <= 20) ? number : undefined;
  };
  const keep = () => {
    const figures = roadWheels.map((wheel) => ({ wheel, number: numberOf(wheel) }));
    const wrong = figures.flatMap(({ wheel, number }) => (number === undefined ? [[wheel, say[way]]] : []));
    setErrors(Object.fromEntries(wrong) as Record<string, string>);
    if (wrong.length > 0) return;
    const mean = figures.reduce((sum, { number = 0 }) => sum + number, 0) / figures.length;
    for (const { wheel, number = 0 } of figures) {
      const ratio = way === 'speed' ? number / mean : 1 + number / 100;
      onRecord({ kind: 'wheelspeed', at: now(), wheel, ratio });
    }
    onClose();
  };
  return (
    <KeepForm label="Save the speeds" onKeep={keep}>
      <Choice label="Typed" options={speedWays} value={way} onValue={setWay} />
      <div className={styles.row}>
        {roadWheels.map((wheel) => (
          <Field
            key={wheel}
            label={`${wheel}, ${positionName[wheel]}`}
            hint={way === 'speed' ? 'at one moment, in one unit for all' : '% faster than the mean'}
            inputMode="decimal"
            {...field(wheel)}
          />
        ))}
      </div>
    </KeepForm>
  );
}

const say = {
  speed: 'The speed of this wheel, as the tool shows it: 61.24',
  percent: 'Percent faster than the mean, or slower with a minus: 0.4',
};
