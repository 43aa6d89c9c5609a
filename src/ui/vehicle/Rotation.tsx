import { useState } from 'react';
import type { WheelSet } from '../../core/records/wheel-set';
import {
  rotationPlan,
  wearAcrossAxles,
  wearsAlike,
  type Rotatable,
} from '../../core/records/wheel-set/rotation';
import { walkingOrder } from '../../core/names/wheel';
import { Choice, Picks } from '../kit/Field';
import styles from './Vehicle.module.css';

const drives = [
  { value: 'front', label: 'front wheels' },
  { value: 'rear', label: 'rear wheels' },
  { value: 'all', label: 'all wheels' },
] as const;
const limits = [
  { value: 'directional', label: 'turn one way only' },
  { value: 'staggered', label: 'other sizes in the rear' },
] as const;

/** Which wheel goes where next. What the drive is, nobody has said yet: it is asked here, and kept nowhere. */
export function Rotation({ set }: { set: WheelSet }) {
  const [drive, setDrive] = useState<Rotatable['drive']>('front');
  const [limit, setLimit] = useState<(typeof limits)[number]['value'][]>([]);
  const plan = rotationPlan({
    drive,
    directional: limit.includes('directional'),
    staggered: limit.includes('staggered'),
  });
  const wear = wearAcrossAxles(set);
  const moves = walkingOrder.flatMap((from) => {
    const to = plan[from];
    return to === undefined ? [] : [{ from, to }];
  });
  return (
    <details className={styles.rotation}>
      <summary>
        Rotation plan
        {wear !== undefined &&
          (!wearsAlike(wear)
            ? `: the ${wear > 0 ? 'rear' : 'front'} is ${Math.abs(wear).toFixed(1)} mm lower`
            : ': both axles wear alike')}
      </summary>
      <Choice label="The engine drives" options={drives} value={drive} onValue={setDrive} />
      <Picks label="The tires" options={limits} values={limit} onValues={setLimit} />
      {moves.length > 0 ? (
        <ul className={styles.moves}>
          {moves.map(({ from, to }) => (
            <li key={from}>
              <b>{from}</b> goes to <b>{to}</b>
            </li>
          ))}
        </ul>
      ) : (
        <p>These tires stay where they are: they turn one way, and each axle has its own size.</p>
      )}
      <p>
        Afterwards set each axle to its own placard figure, and have a car that ties IDs to positions taught
        again. The maker’s plan comes first.
      </p>
    </details>
  );
}
