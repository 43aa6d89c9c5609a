import { useEffect, useState } from 'react';
import { lampWords } from '../../../core/job/words';
import type { PracticeCar } from '../../../contract/views';
import { ask } from '../../api';
import { Notice } from '../../kit/Notice';

/** The simulated car's dash: what somebody in the seat would see. */
export function PracticeDash({ jobId }: { jobId: string }) {
  const [car, setCar] = useState<PracticeCar>();
  useEffect(() => {
    void ask('practiceCar', { id: jobId }).then((seen) => seen.ok && setCar(seen.value));
  }, [jobId]);
  return (
    <Notice tone="note">
      Simulated car. On its dash the lamp is <b>{car ? lampWords[car.lamp] : '…'}</b>; it lights for its
      check.
    </Notice>
  );
}
