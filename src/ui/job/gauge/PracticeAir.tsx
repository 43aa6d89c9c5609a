import { useEffect, useState } from 'react';
import { figure, format, pressure, temperature, type Notation } from '../../../core/measure/units';
import type { PracticeCar } from '../../../contract/views';
import { type Position } from '../../../core/names/wheel';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import styles from './GaugeDialog.module.css';

/** The simulated tire's own pressure, and an air hose for it. */
export function PracticeAir({
  jobId,
  wheel,
  targetKPa,
  units,
}: {
  jobId: string;
  wheel: Position;
  targetKPa: number;
  units: Notation;
}) {
  const [car, setCar] = useState<PracticeCar>();
  useEffect(() => {
    void ask('practiceCar', { id: jobId }).then((seen) => seen.ok && setCar(seen.value));
  }, [jobId]);
  const stands = car?.kPa[wheel];
  const tireC = car?.tireC[wheel];
  const fill = async () => {
    const kPa = Math.round(targetKPa);
    const filled = await ask('practise', { id: jobId, body: { do: 'air', wheel, kPa } });
    if (filled.ok && 'lamp' in filled.value) setCar(filled.value);
  };
  return (
    <div className={styles.practice}>
      <span>
        Simulated gauge:{' '}
        <b className="figures">{stands === undefined ? '…' : format(pressure, stands, units)}</b>
        {tireC !== undefined && `, tire at ${format(temperature, tireC, units)}`}
      </span>
      <Button onClick={() => void fill()}>Set air to {figure(pressure, targetKPa, units)}</Button>
    </div>
  );
}
