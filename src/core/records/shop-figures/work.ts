import type { ObservationKind } from '../../job';
import type { Station } from '../../visit';
import { stationNames } from '../../visit/words';

/** Where the minutes of a visit go. A record tells by its kind at which station somebody just was. */

/** What is recorded of a visit beside what is seen. */
export type RecordKind = ObservationKind | 'write' | 'run' | 'service' | 'handed-over';

/** A station, or the bench where sensors and wheels are worked on. */
type WorkPlace = Extract<Station, 'gauge' | 'scan' | 'car' | 'write' | 'hand-over'> | 'bench';

export const workPlaces = [
  'gauge',
  'scan',
  'car',
  'bench',
  'write',
  'hand-over',
] as const satisfies WorkPlace[];

export const workPlaceNames: Record<WorkPlace, string> = { ...stationNames, bench: 'Sensor service' };

const placeOf: Record<RecordKind, WorkPlace> = {
  visual: 'gauge',
  gauge: 'gauge',
  activation: 'scan',
  lamp: 'car',
  registry: 'car',
  live: 'car',
  display: 'car',
  dtc: 'car',
  reception: 'car',
  wheelspeed: 'car',
  voltage: 'car',
  relearn: 'write',
  write: 'write',
  run: 'write',
  service: 'bench',
  'handed-over': 'hand-over',
};

/** Nobody works so long on one record: the car waited, min (judgement). */
export const longestStepMinutes = 15;

/** What was recorded last took so long since the record before it, over the visits of one person. */
export interface Step {
  kind: RecordKind;
  by: string;
  /** Steps up to `longestStepMinutes`; what is longer counts as waiting. */
  minutes: number;
}

/** Minutes at each place, of all steps. */
export function minutesByPlace(steps: readonly Step[]): Map<WorkPlace, number> {
  const sums = new Map<WorkPlace, number>();
  for (const { kind, minutes } of steps) {
    const place = placeOf[kind];
    sums.set(place, (sums.get(place) ?? 0) + minutes);
  }
  return sums;
}
