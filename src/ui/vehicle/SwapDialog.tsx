import { useState } from 'react';
import type { Tpms } from '../../core/job';
import { monitoredWheels } from '../../core/job/placard';
import { groupedId } from '../../core/names/sensor-id';
import { listWheels } from '../../core/names/wheel';
import {
  afterSwap,
  inOrderOfWalk,
  places,
  wheelsWithoutId,
  type Place,
  type WheelSet,
} from '../../core/records/wheel-set';
import { afterSwapWords, placeWords } from '../../core/records/wheel-set/words';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Choice, Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from '../kit/Forms.module.css';

/** The job a set goes onto the car in. */
export interface OpenJob {
  id: string;
  number: number;
  version: number;
  tpms: Tpms;
}

const offPlaces = places.flatMap((value) => (value === 'car' ? [] : [{ value, label: placeWords[value] }]));

/** Another set onto the car, in one step: what comes off goes to its place, and what has to follow is said before. */
export function SwapDialog({
  set,
  onCar,
  job,
  onClose,
}: {
  set: WheelSet;
  onCar: WheelSet | undefined;
  job: OpenJob;
  onClose: () => void;
}) {
  const [place, setPlace] = useState<Exclude<Place, 'car'>>(set.place === 'shop' ? 'shop' : 'customer');
  const [rack, setRack] = useState(set.rack ?? '');
  const { once, busy, problem } = useDeeds();
  const unknown = wheelsWithoutId(set, monitoredWheels({ vehicle: { tpms: job.tpms } }));
  const swap = async () => {
    const off = { place, rack: place === 'shop' && rack.trim() ? rack.trim() : null };
    const swapped = await once(
      'swap',
      (key) => ask('swapSets', { id: job.id, body: { key, version: job.version, set: set.id, off } }),
      'Storing…',
    );
    if (swapped?.ok) window.location.assign(`/jobs/${job.id}`);
  };
  return (
    <Dialog title={`Put ${set.label} on the car`} onClose={onClose}>
      <div className={styles.form}>
        <ul>
          {inOrderOfWalk(set.wheels).map(({ wheel, sensorId }, at) => (
            <li key={wheel ?? at}>
              <b>{wheel ?? '–'}</b>{' '}
              <span className="figures">{sensorId ? groupedId(sensorId) : 'no ID on file'}</span>
            </li>
          ))}
        </ul>
        <p className={styles.lead}>{afterSwapWords(afterSwap(set, job.tpms))}</p>
        {job.tpms.kind === 'direct' && unknown.length > 0 && (
          <p>Wake {listWheels(unknown)} first: no ID is on file there.</p>
        )}
        {onCar && (
          <>
            <Choice
              label={`Where does ${onCar.label} go?`}
              options={offPlaces}
              value={place}
              onValue={setPlace}
            />
            {place === 'shop' && (
              <Field label="Place in the store" value={rack} onValue={setRack} maxLength={40} figures />
            )}
          </>
        )}
        <p>Wheel nuts to the maker’s torque, checked again after about 100 km.</p>
        {problem && <Notice tone="wrong">{problem.message}</Notice>}
        <div className={styles.actions}>
          <Button weight="main" busy={busy} onClick={() => void swap()}>
            The wheels are on: go on with job {job.number}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
