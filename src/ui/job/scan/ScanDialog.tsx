import { triggers, type Trigger } from '../../../core/names/kinds';
import { useState } from 'react';
import type { Observation } from '../../../core/job';
import type { Column } from '../../../core/visit/column';
import { groupedId, spellAloud } from '../../../core/names/sensor-id';
import type { Notation } from '../../../core/measure/units';
import type { Position } from '../../../core/names/wheel';
import { positionName } from '../../../core/names/wheel';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import { PastedScan } from './PastedScan';
import { TypedScan } from './TypedScan';

const labels: Record<Trigger, string> = {
  pulsed: 'pulsed',
  continuous: 'continuous',
  magnet: 'magnet',
  deflation: 'pressure drop',
};
const choices = triggers.map((value) => ({ value, label: labels[value] }));

interface ScanDialogProps {
  columns: readonly Column[];
  wheel: Position;
  busy: string | undefined;
  problem: string | undefined;
  hasTool: boolean;
  units: Notation;
  digits: number | undefined;
  /** What is on file or held for a wheel. */
  known: (wheel: Position) => string | undefined;
  onWake: (wheel: Position, trigger: Trigger) => void;
  onRecord: (observation: Observation) => void;
  /** Several at once, of one list. */
  onRecordAll: (observations: readonly Observation[]) => void;
  onClose: () => void;
}

/** The sensor of a wheel, or of the first that has one. */
export function ScanDialog({ columns, wheel, ...props }: ScanDialogProps) {
  const withSensor = columns.filter(({ sensor }) => sensor);
  const column = withSensor.find((candidate) => candidate.wheel === wheel) ?? withSensor[0];
  if (column) return <Scan column={column} wheels={withSensor.map((one) => one.wheel)} {...props} />;
  return (
    <Dialog title="No sensors to wake" onClose={props.onClose}>
      <p>This car compares wheel speeds; its wheels have no sensors.</p>
    </Dialog>
  );
}

/** One wheel's sensor: wake it again, with another trigger. */
function Scan({
  column,
  busy,
  problem,
  hasTool,
  units,
  digits,
  known,
  onWake,
  onRecord,
  onRecordAll,
  onClose,
  wheels,
}: Omit<ScanDialogProps, 'columns' | 'wheel'> & { column: Column; wheels: readonly Position[] }) {
  const { sensor, wheel } = column;
  // What it was silent to is not tried again first.
  const tried = sensor?.kind === 'silent' ? sensor.tries : 0;
  const [trigger, setTrigger] = useState<Trigger>(() => triggers[tried] ?? 'pulsed');
  return (
    <Dialog title={`Sensor, ${positionName[wheel]}`} onClose={onClose}>
      {sensor?.kind === 'heard' && (
        <p>
          Heard <b className="figures">{groupedId(sensor.reply.id)}</b>. Aloud: {spellAloud(sensor.reply.id)}.
        </p>
      )}
      {sensor?.kind === 'silent' && (
        <p>
          Silent to {sensor.tries} {sensor.tries === 1 ? 'try' : 'tries'}. Move the antenna along the
          sidewall, roll the wheel a quarter turn, change the trigger.
        </p>
      )}
      {sensor?.kind === 'unclear' && (
        <p>Several answered. Move the other wheels half a metre away, or the antenna closer.</p>
      )}
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          onWake(wheel, trigger);
        }}
      >
        <Choice label="Trigger" options={choices} value={trigger} onValue={setTrigger} />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        {hasTool && (
          <Button weight="main" type="submit" busy={busy}>
            Wake {wheel}
          </Button>
        )}
      </form>
      <details open={!hasTool}>
        <summary className={styles.summary}>Woken with another tool: type it</summary>
        <TypedScan {...{ wheel, trigger, units, digits, onRecord }} known={known(wheel)} />
      </details>
      <details>
        <summary className={styles.summary}>All wheels at once: paste the tool’s list</summary>
        <PastedScan {...{ wheels, trigger, onRecordAll }} />
      </details>
    </Dialog>
  );
}
