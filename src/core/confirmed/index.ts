import type { z } from 'zod';
import type { FindingCode } from '../assessment';
import type { Job } from '../job';
import { monitoredWheels, wheelsOf } from '../placard';
import { listWheels, roadWheels, type Position } from '../wheel';
import type { confirmationSchema, confirmedSchema, PartKind } from './schema';

export { partKinds, type PartKind } from './schema';

/** A part of a car that can be at fault by itself. */
export interface Part {
  part: PartKind;
  /** None where the car has only one of it. */
  wheel?: Position;
}

/** What a part turned out to be, once somebody had it in hand. */
export type Confirmed = z.infer<typeof confirmedSchema>;
/** What somebody said of a car's parts. The latest of a job holds; without parts it takes back what was said. */
export type Confirmation = z.infer<typeof confirmationSchema>;

/** The faults each part can have. Pressures are no faults: they are measured. */
export const faultsOf: Record<PartKind, readonly FindingCode[]> = {
  tire: ['tire-leaking'],
  sensor: [
    'sensor-silent',
    'sensor-absent',
    'sensor-battery-low',
    'sensor-inaccurate',
    'sensor-wrong-type',
    'sensor-intermittent',
  ],
  id: ['id-not-registered', 'id-mistyped'],
  order: ['positions-swapped', 'other-set-registered'],
  receiver: ['receiver-fault'],
  lamp: ['system-disabled'],
  rolling: ['rolling-radius-off'],
  reference: ['baseline-not-set'],
  'wheel-speed': ['wheel-speed-sensor-fault'],
};

const partWords: Record<PartKind, string> = {
  tire: 'Tire',
  sensor: 'Sensor',
  id: 'ID in the car',
  order: 'Order of the wheels',
  receiver: 'Receiver',
  lamp: 'Lamp',
  rolling: 'Size and wear',
  reference: 'Stored reference',
  'wheel-speed': 'Wheel-speed sensors',
};

/** "Sensor, LR". */
export const partName = ({ part, wheel }: Part): string =>
  [partWords[part], wheel && listWheels([wheel])].filter(Boolean).join(', ');

export const samePart = (one: Part, other: Part): boolean =>
  one.part === other.part && one.wheel === other.wheel;

/** The parts of this car, in the order of `partKinds` and of the walk. */
export function partsOf(job: Job): Part[] {
  const monitored = monitoredWheels(job);
  const at = (part: PartKind, wheels: readonly Position[]) => wheels.map((wheel): Part => ({ part, wheel }));
  const tires = at('tire', wheelsOf(job));
  switch (job.vehicle.tpms.kind) {
    case 'direct':
      return [
        ...tires,
        ...at('sensor', monitored),
        ...at('id', monitored),
        { part: 'order' },
        { part: 'receiver' },
        { part: 'lamp' },
      ];
    case 'indirect':
      return [
        ...tires,
        { part: 'lamp' },
        ...at('rolling', roadWheels),
        { part: 'reference' },
        { part: 'wheel-speed' },
      ];
    case 'none':
      return tires;
  }
}

/** What holds of a job: the latest that was said, unless it was taken back. */
export const confirmedOf = (job: Pick<Job, 'confirmations'>): Confirmed[] =>
  job.confirmations?.at(-1)?.parts ?? [];
