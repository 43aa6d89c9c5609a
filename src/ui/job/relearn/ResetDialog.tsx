import { CircleCheck, CircleDashed } from 'lucide-react';
import { useState } from 'react';
import { roadCaution, seatCaution } from '../../../core/visit/cautions';
import { format, pressure } from '../../../core/measure/units';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import type { Sheet } from '../use-sheet';

/** A system without sensors stores the pressures of now: first they are right, then it is reset, then the car is driven. */
export function ResetDialog({ sheet }: { sheet: Sheet }) {
  const { job, columns, units, record, open, close } = sheet;
  const [said, setSaid] = useState<'done' | 'failed'>();
  const road = columns.filter(({ wheel }) => wheel !== 'SP');
  const off = road.filter(({ gauge }) => gauge?.state !== 'good');
  const note = (outcome: 'done' | 'failed') => {
    record({ kind: 'relearn', at: shopTime(), method: 'reset', outcome, source: 'hand' });
    setSaid(outcome);
  };
  return (
    <Dialog title="Reset the system" wide onClose={close}>
      <h3>1. Every tire at its pressure, cold</h3>
      <ul className={styles.checks}>
        {road.map(({ wheel, gauge, placardKPa }) => (
          <li key={wheel} className={gauge?.state === 'good' ? styles.met : styles.open}>
            {gauge?.state === 'good' ? (
              <CircleCheck aria-hidden="true" />
            ) : (
              <CircleDashed aria-hidden="true" />
            )}
            <b>{wheel}</b>
            <span>
              {gauge ? format(pressure, gauge.kPa, units) : 'not read'}
              {placardKPa !== undefined && `, placard ${format(pressure, placardKPa, units)}`}
            </span>
            {gauge?.state !== 'good' && (
              <Button onClick={() => open({ dialog: 'gauge', wheel })}>Gauge {wheel}</Button>
            )}
          </li>
        ))}
      </ul>
      {off.length > 0 && (
        <Notice tone="note">
          Set these first: a reset stores the pressures of now, right or wrong, as the ones to compare with.
        </Notice>
      )}
      <h3>2. Reset it, the car standing, ignition on</h3>
      <p>
        Hold the button, or choose the entry in the menu, as the owner’s manual of this car says: hold it
        until the car confirms, by the lamp, a tone or a message.{' '}
        {job.vehicle.tpms.kind === 'direct' && 'This car has sensors: it is taught by a relearn instead.'}
      </p>
      <div className={styles.actions}>
        <Button weight={said ? 'plain' : 'main'} disabled={off.length > 0} onClick={() => note('done')}>
          The car confirmed it
        </Button>
        <Button onClick={() => note('failed')}>No confirmation</Button>
        <Button onClick={() => open({ dialog: 'relearn' })}>Procedures on file</Button>
      </div>
      {said === 'failed' && (
        <Notice tone="wrong">
          Noted. Ignition off and on, then hold it again, neither shorter nor longer than the manual says.
        </Notice>
      )}
      {said === 'done' && (
        <>
          <Notice tone="right">The reset is noted.</Notice>
          <h3>3. Drive, then look at the lamp</h3>
          <p>
            Ten to twenty minutes at mixed speeds, or as the manual says: the system learns on the road.{' '}
            {roadCaution} {seatCaution}
          </p>
          <div className={styles.actions}>
            <Button weight="main" onClick={() => open({ dialog: 'lamp' })}>
              Driven: look at the lamp
            </Button>
            <Button onClick={close}>Later</Button>
          </div>
        </>
      )}
    </Dialog>
  );
}
