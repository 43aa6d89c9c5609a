import type { Control, FieldPathByValue } from 'react-hook-form';
import { z } from 'zod';
import type { Job, Observation } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { monitoredWheels } from '../../../core/job/placard';
import { groupedId } from '../../../core/names/sensor-id';
import { pressure, type Notation } from '../../../core/measure/units';
import { typedAs, typedAsOrEmpty } from '../../../core/measure/units/schema';
import type { CheckedByHand } from '../../../core/visit';
import { positionName, roadWheels, walkingOrder, type Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { ChoiceIn, Form, TextIn, useFilled } from '../../kit/Form';
import { figureOrEmpty, figureTyped } from '../../kit/typed';
import { byWheel, nothingByWheel } from '../../parts/by-wheel';
import { checkWords } from '../../../core/visit/words';
import styles from '../../kit/Forms.module.css';

/** A reset has steps of its own, and is no form. */
export type FormCheck = Exclude<CheckedByHand, 'baseline'>;

interface CheckDialogProps {
  test: FormCheck;
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
      <CheckForm {...props} />
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

function CheckForm(props: CheckDialogProps) {
  switch (props.test) {
    case 'display':
      return <DisplayForm {...props} />;
    case 'shift':
      return <ShiftForm {...props} />;
    case 'reception':
      return <ReceptionForm {...props} />;
    case 'wheelspeed':
      return <WheelSpeedForm {...props} />;
  }
}

const wholeCount = (count: number): boolean => Number.isInteger(count) && count >= 0 && count <= 99_999;
const counted = 'A whole number, as the log counts it.';

const displayIn = (units: Notation) => z.object({ display: byWheel(typedAsOrEmpty(pressure, units)) });

const shiftIn = (units: Notation) =>
  displayIn(units).extend({
    changed: z.enum(walkingOrder, 'At which wheel air was taken off.'),
    gauge: typedAs(pressure, units, 'What the gauge says after it.'),
  });

/** What the display shows for each wheel. */
function DisplayForm({ job, units, onRecord, onClose }: CheckDialogProps) {
  const form = useFilled(displayIn(units), { display: nothingByWheel });
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={({ display }) => {
        for (const seen of displayed(job, display)) onRecord(seen);
        onClose();
      }}
    >
      <DisplayFields of={form.control} job={job} units={units} />
      <Button weight="main" type="submit">
        Save what it shows
      </Button>
    </Form>
  );
}

/** The same after 25 kPa were taken off one of them. */
function ShiftForm({ job, units, onRecord, onClose }: CheckDialogProps) {
  const form = useFilled(shiftIn(units), { display: nothingByWheel, gauge: '' });
  const { control: of } = form;
  const changed = form.watch('changed') as Position | undefined;
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={(read) => {
        const { changed: wheel, gauge } = read;
        onRecord({ kind: 'gauge', at: shopTime(), wheel, kPa: gauge.base, tire: 'cold' });
        for (const seen of displayed(job, read.display)) onRecord(seen);
        onClose();
      }}
    >
      <ChoiceIn
        of={of}
        name="changed"
        label="Air was taken off"
        options={monitoredWheels(job).map((value) => ({ value, label: value }))}
      />
      {changed && (
        <TextIn
          of={of}
          name="gauge"
          label={`${changed} by the gauge, after it`}
          hint={units.pressure}
          inputMode="decimal"
        />
      )}
      <DisplayFields of={of} job={job} units={units} />
      <Button weight="main" type="submit" disabled={!changed}>
        Save what it shows
      </Button>
    </Form>
  );
}

type Display = z.infer<ReturnType<typeof displayIn>>['display'];

/** Where nothing is typed the display shows nothing. */
const displayed = (job: Job, display: Display): Observation[] =>
  monitoredWheels(job).map((wheel) => ({
    kind: 'display',
    at: shopTime(),
    wheel,
    kPa: display[wheel]?.base ?? null,
  }));

function DisplayFields<Typed extends { display: Record<Position, string> }, Read>({
  of,
  job,
  units,
}: {
  of: Control<Typed, unknown, Read>;
  job: Job;
  units: Notation;
}) {
  return (
    <div className={styles.row}>
      {monitoredWheels(job).map((wheel) => (
        <TextIn
          key={wheel}
          of={of}
          name={`display.${wheel}` as FieldPathByValue<Typed, string>}
          label={`Display, ${wheel}`}
          hint={`${units.pressure}; empty where it shows nothing`}
          inputMode="decimal"
        />
      ))}
    </div>
  );
}

const receptionOf = (wheels: readonly Position[]) =>
  z
    .object({
      expected: figureTyped(counted, wholeCount),
      received: byWheel(figureOrEmpty(counted, wholeCount)),
    })
    .superRefine(({ expected, received }, context) => {
      for (const wheel of wheels) {
        const count = received[wheel];
        const message =
          count === undefined ? counted : count > expected ? 'More received than expected: count again.' : '';
        if (message) context.addIssue({ code: 'custom', path: ['received', wheel], message });
      }
    });

/** Check-ins counted over a drive, sensor by sensor. */
function ReceptionForm({ job, onRecord, onClose }: CheckDialogProps) {
  const ledger = ledgerOf(job);
  const sensors = monitoredWheels(job).flatMap((wheel) => {
    const scan = ledger.sensor[wheel];
    const id = scan?.kind === 'heard' ? scan.reply.id : (ledger.registered[wheel] ?? undefined);
    return id ? [{ wheel, id }] : [];
  });
  const form = useFilled(receptionOf(sensors.map(({ wheel }) => wheel)), {
    expected: '',
    received: nothingByWheel,
  });
  const { control: of } = form;
  if (sensors.length === 0)
    return <p>Wake the sensors or read the car first: their IDs are what the log counts.</p>;
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={({ expected, received }) => {
        for (const { wheel, id } of sensors)
          onRecord({ kind: 'reception', at: shopTime(), id, expected, received: received[wheel] ?? 0 });
        onClose();
      }}
    >
      <TextIn of={of} name="expected" label="Check-ins expected of each" inputMode="numeric" />
      <div className={styles.row}>
        {sensors.map(({ wheel, id }) => (
          <TextIn
            key={wheel}
            of={of}
            name={`received.${wheel}`}
            label={`${wheel}, ${groupedId(id)}`}
            hint="received"
            inputMode="numeric"
          />
        ))}
      </div>
      <Button weight="main" type="submit">
        Save the counts
      </Button>
    </Form>
  );
}

const speedWays = [
  { value: 'speed', label: 'as speeds' },
  { value: 'percent', label: 'as % faster than the mean' },
] as const;

const say = {
  speed: 'The speed of this wheel, as the tool shows it: 61.24',
  percent: 'Percent faster than the mean, or slower with a minus: 0.4',
};

const wheelSpeeds = z
  .object({
    way: z.enum(['speed', 'percent']),
    speeds: byWheel(figureOrEmpty('A figure.', Number.isFinite)),
  })
  .superRefine(({ way, speeds }, context) => {
    for (const wheel of roadWheels) {
      const figure = speeds[wheel];
      const fits =
        figure !== undefined && (way === 'speed' ? figure > 0 && figure < 400 : Math.abs(figure) <= 20);
      if (!fits) context.addIssue({ code: 'custom', path: ['speeds', wheel], message: say[way] });
    }
  });

/** Each wheel's speed against the mean of the four: the speeds themselves, or how much faster than the mean. */
function WheelSpeedForm({ onRecord, onClose }: CheckDialogProps) {
  const form = useFilled(wheelSpeeds, { way: 'speed', speeds: nothingByWheel });
  const { control: of } = form;
  const isSpeed = form.watch('way') === 'speed';
  return (
    <Form
      form={form}
      className={styles.form}
      onRead={({ way, speeds }) => {
        const figures = roadWheels.map((wheel) => ({ wheel, figure: speeds[wheel] ?? 0 }));
        const mean = figures.reduce((sum, { figure }) => sum + figure, 0) / figures.length;
        for (const { wheel, figure } of figures) {
          const ratio = way === 'speed' ? figure / mean : 1 + figure / 100;
          onRecord({ kind: 'wheelspeed', at: shopTime(), wheel, ratio });
        }
        onClose();
      }}
    >
      <ChoiceIn of={of} name="way" label="Typed" options={speedWays} />
      <div className={styles.row}>
        {roadWheels.map((wheel) => (
          <TextIn
            key={wheel}
            of={of}
            name={`speeds.${wheel}`}
            label={`${wheel}, ${positionName[wheel]}`}
            hint={isSpeed ? 'at one moment, in one unit for all' : '% faster than the mean'}
            inputMode="decimal"
          />
        ))}
      </div>
      <Button weight="main" type="submit">
        Save the speeds
      </Button>
    </Form>
  );
}
