import { useEffect, useState } from 'react';
import type { AnswerOf } from '../../contract';
import { idsMet } from '../../core/sensor/programming';
import { groupedId } from '../../core/names/sensor-id';
import { sharedWords } from '../../core/records/sensor-past/words';
import type { VisitView } from '../../contract/views';
import { ask } from '../api';
import { Notice } from '../kit/Notice';

/** IDs of this job that another vehicle had or has: said as soon as the shop has them, with what explains it. */
export function MetElsewhere({ view: { id: jobId, vehicleId, job } }: { view: VisitView }) {
  const [met, setMet] = useState<AnswerOf<'metElsewhere'>>([]);
  const ids = [...idsMet(job)].sort().join();
  useEffect(() => {
    if (ids === '') return;
    // Without a connection nothing is known of other cars, and nothing is said of them.
    void ask('metElsewhere', { id: jobId }).then((answered) => answered.ok && setMet(answered.value));
  }, [jobId, ids]);
  return met.map(({ sensorId, vehicle, why }) => (
    <Notice
      key={`${sensorId} ${vehicle.id}`}
      tone="note"
      action={<a href={`/sensors/${encodeURIComponent(sensorId)}`}>Its life</a>}
    >
      <b className="figures">{groupedId(sensorId)}</b> was met at {nameOf(vehicle)} too.{' '}
      {sharedWords(why, (id) => (id === vehicleId ? 'this car' : nameOf(vehicle)))}
    </Notice>
  ));
}

const nameOf = ({ label, plate }: { label: string; plate: string }): string =>
  [label, plate].filter(Boolean).join(' ');
