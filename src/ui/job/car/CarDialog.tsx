import { useState } from 'react';
import type { Observation } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { monitoredWheels } from '../../../core/job/placard';
import { canonicalId, idsFromText } from '../../../core/names/sensor-id';
import { positionName, type Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import { IdField } from '../../parts/IdField';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';
import { LampFigures, Live, Supply } from './shown';

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
