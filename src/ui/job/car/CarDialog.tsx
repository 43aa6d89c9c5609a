import { useState } from 'react';
import type { Observation } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { monitoredWheels } from '../../../core/job/placard';
import { canonicalId, idsFromText } from '../../../core/names/sensor-id';
import { figure, parse, pressure } from '../../../core/measure/units';
import { positionName, type Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field, Picks } from '../../kit/Field';
import { IdField } from '../../parts/IdField';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';

export type CarPart = 'held' | 'live' | 'lamp' | 'supply';
type ByWheel = Partial<Record<Position, string>>;

/** What the car says of itself, typed: as its menu, its display or another tool shows it. */
export function CarDialog({ sheet, part: asked }: { sheet: Sheet; part: CarPart | undefined }) {
  const { visit, view, job, busy, readCar, close, open, problem } = sheet;
  const hasLead = view.devices.lead && visit.connected;
  const hasSensors = monitoredWheels(job).length > 0;
  const [part, setPart] = useState<CarPart>(asked ?? (hasSensors ? 'held' : 'supply'));
  return (
    <Dialog title="What the car says" wide onClose={close}>
      {hasLead && (
        <div className={styles.actions}>
          <Button weight="main" busy={busy} onClick={() => void readCar().then((done) => done && close())}>
            Read it over the lead
          </Button>
          {problem && <span role="alert">{problem}</span>}
        </div>
      )}
      {!hasSensors && <p>It compares wheel speeds and holds no IDs.</p>}
      {hasSensors && (
        <Choice
          label={hasLead ? 'Or type it' : 'Type what the car or another tool shows'}
          options={[
            { value: 'held', label: 'the IDs it holds' },
            { value: 'live', label: 'pressures it shows on the road' },
            { value: 'lamp', label: 'when its lamp comes on and goes out' },
            { value: 'supply', label: 'its supply' },
          ]}
          value={part}
          onValue={setPart}
        />
      )}
      {part === 'held' && <Held sheet={sheet} />}
      {part === 'live' && <Live sheet={sheet} />}
      {part === 'lamp' && <LampFigures sheet={sheet} />}
      {part === 'supply' && <Supply sheet={sheet} />}
      <div className={styles.actions}>
        <Button onClick={() => open({ dialog: 'codes' })}>Its codes</Button>
      </div>
    </Dialog>
  );
}

const now = () => shopTime();

function Held({ sheet: { job, record, close } }: { sheet: Sheet }) {
  const wheels = monitoredWheels(job);
  const { sensor } = ledgerOf(job);
  const [typed, setTyped] = useState<ByWheel>({});
  const [pasted, setPasted] = useState('');
  const [noCodes, setNoCodes] = useState(false);
  const known = (wheel: Position) => {
    const scan = sensor[wheel];
    return scan?.kind === 'heard' ? scan.reply.id : job.sensors?.find((one) => one.wheel === wheel)?.id;
  };
  const entries = wheels.flatMap((wheel) => {
    const id = (typed[wheel] ?? '').trim();
    return id === '' ? [] : [{ wheel, id: canonicalId(id) === 'NONE' ? null : id }];
  });
  const keep = () => {
    const observation: Observation = {
      kind: 'registry',
      at: now(),
      entries,
      source: 'hand',
      ...(noCodes && { codes: [] }),
    };
    record(observation);
    close();
  };
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <label>
        Paste a list: a wheel and its ID a line, or IDs in walking order
        <textarea
          className={styles.textarea}
          value={pasted}
          onChange={({ target }) => {
            setPasted(target.value);
            setTyped({ ...typed, ...idsFromText(target.value, wheels) });
          }}
        />
      </label>
      <div className={styles.row}>
        {wheels.map((wheel) => (
          <IdField
            key={wheel}
            label={`${wheel}, ${positionName[wheel]}; “none” where it holds none`}
            value={typed[wheel] ?? ''}
            onValue={(id) => setTyped({ ...typed, [wheel]: id })}
            digits={job.vehicle.tpms.idDigits}
            known={known(wheel)}
          />
        ))}
      </div>
      <label>
        <input type="checkbox" checked={noCodes} onChange={({ target }) => setNoCodes(target.checked)} /> Its
        codes were read, and there are none
      </label>
      <p className={styles.soft}>A wheel left empty was not read.</p>
      <div>
        <Button weight="main" type="submit" disabled={entries.length === 0}>
          This is what it holds
        </Button>
      </div>
    </form>
  );
}

function Live({ sheet: { job, units, record, close } }: { sheet: Sheet }) {
  const wheels = monitoredWheels(job);
  const [typed, setTyped] = useState<ByWheel>({});
  const [speed, setSpeed] = useState('');
  const [low, setLow] = useState<Position[]>([]);
  const [batteries, setBatteries] = useState<'not-shown' | 'shown'>('not-shown');
  const kmh = Number(speed.replace(',', '.'));
  const read = wheels.flatMap((wheel) => {
    const text = typed[wheel] ?? '';
    return text.trim() === '' ? [] : [{ wheel, figure: parse(pressure, text, units.pressure) }];
  });
  const keep = () => {
    const at = now();
    for (const { wheel, figure } of read)
      if (figure.ok)
        record({
          kind: 'live',
          at,
          wheel,
          kPa: figure.value.base,
          speedKmh: kmh,
          ...(batteries === 'shown' && { battery: low.includes(wheel) ? ('low' as const) : ('ok' as const) }),
          source: 'hand',
        });
    close();
  };
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Field
        label="At, km/h"
        hint="A passenger reads. Standing, most sensors sleep, and what is shown may be old."
        inputMode="decimal"
        value={speed}
        onValue={setSpeed}
      />
      <div className={styles.row}>
        {wheels.map((wheel) => {
          const figure = read.find((one) => one.wheel === wheel)?.figure;
          return (
            <Field
              key={wheel}
              label={`${wheel}, ${units.pressure}`}
              inputMode="decimal"
              value={typed[wheel] ?? ''}
              error={figure && !figure.ok ? figure.problem.message : undefined}
              onValue={(text) => setTyped({ ...typed, [wheel]: text })}
            />
          );
        })}
      </div>
      <Choice
        label="The batteries of the sensors"
        options={[
          { value: 'not-shown', label: 'not shown' },
          { value: 'shown', label: 'it says which are low' },
        ]}
        value={batteries}
        onValue={setBatteries}
      />
      {batteries === 'shown' && (
        <Picks
          label="Low at (none where all are ok)"
          options={wheels.map((value) => ({ value, label: value }))}
          values={low}
          onValues={setLow}
        />
      )}
      <div>
        <Button
          weight="main"
          type="submit"
          disabled={read.length === 0 || read.some(({ figure }) => !figure.ok) || !(speed !== '' && kmh >= 0)}
        >
          It shows these
        </Button>
      </div>
    </form>
  );
}

/** At which pressures the car itself says its lamp comes on and goes out. */
function LampFigures({ sheet: { job, units, busy, edit, close } }: { sheet: Sheet }) {
  const { tpms } = job.vehicle;
  const shown = (kPa: number | undefined) => (kPa === undefined ? '' : figure(pressure, kPa, units));
  const [on, setOn] = useState(() => shown(tpms.lowOnKPa));
  const [off, setOff] = useState(() => shown(tpms.lowOffKPa));
  const read = { on: parse(pressure, on, units.pressure), off: parse(pressure, off, units.pressure) };
  const wrongOrder =
    read.on.ok && read.off.ok && read.off.value.base < read.on.value.base
      ? 'It goes out at or above the figure at which it comes on.'
      : undefined;
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        if (!read.on.ok) return;
        const figures = {
          lowOnKPa: read.on.value.base,
          ...(read.off.ok && { lowOffKPa: read.off.value.base }),
        };
        void edit({ vehicle: { tpms: { ...tpms, ...figures } } }).then((done) => done && close());
      }}
    >
      <div className={styles.row}>
        <Field
          label={`Lamp on at, ${units.pressure}`}
          inputMode="decimal"
          value={on}
          onValue={setOn}
          error={on.trim() === '' || read.on.ok ? undefined : read.on.problem.message}
        />
        <Field
          label={`Lamp off at, ${units.pressure} (may be empty)`}
          inputMode="decimal"
          value={off}
          onValue={setOff}
          error={wrongOrder ?? (off.trim() === '' || read.off.ok ? undefined : read.off.problem.message)}
        />
      </div>
      <div>
        <Button
          weight="main"
          type="submit"
          busy={busy}
          disabled={!read.on.ok || wrongOrder !== undefined || (off.trim() !== '' && !read.off.ok)}
        >
          The car says these
        </Button>
      </div>
    </form>
  );
}

function Supply({ sheet: { record, close } }: { sheet: Sheet }) {
  const [typed, setTyped] = useState('');
  const [engine, setEngine] = useState<'on' | 'off'>('off');
  const volts = Number(typed.replace(',', '.'));
  const possible = typed.trim() !== '' && volts > 0 && volts <= 60;
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        record({ kind: 'voltage', at: now(), volts, engine, source: 'hand' });
        close();
      }}
    >
      <Field
        label="Volts"
        inputMode="decimal"
        value={typed}
        onValue={setTyped}
        error={typed.trim() === '' || possible ? undefined : 'Between 0 and 60 V.'}
      />
      <Choice
        label="Engine"
        options={[
          { value: 'off', label: 'off' },
          { value: 'on', label: 'on' },
        ]}
        value={engine}
        onValue={setEngine}
      />
      <div>
        <Button weight="main" type="submit" disabled={!possible}>
          Save the voltage
        </Button>
      </div>
    </form>
  );
}
