import { wasDone, type Job } from '../../../job';
import { ledgerOf, type Ledger } from '../../../job/ledger';
import { monitoredWheels } from '../../../job/placard';
import type { Position } from '../../../names/wheel';

/**
 * What the car should hold after a relearn in which nothing is heard: what the tool heard at each wheel, and where it
 * heard nothing the sensor on file there, as long as no wheel or sensor was moved since.
 */
export function expectedIds(job: Job, { sensor }: Ledger = ledgerOf(job)): Partial<Record<Position, string>> {
  const moved = wasDone(job, 'rotation', 'wheels-swapped', 'sensor-replaced');
  return Object.fromEntries(
    monitoredWheels(job).flatMap((wheel) => {
      const scan = sensor[wheel];
      if (scan?.kind === 'heard') return [[wheel, scan.reply.id]];
      const onFile = scan || moved ? undefined : job.sensors?.find((known) => known.wheel === wheel)?.id;
      return onFile === undefined ? [] : [[wheel, onFile]];
    }),
  );
}
