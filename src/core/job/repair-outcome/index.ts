import type { z } from 'zod';
import type { PartKind } from '../../catalogue/finding';
import type { Job } from '..';
import { monitoredWheels, wheelsOf } from '../placard';
import { listWheels, roadWheels, type Position } from '../../names/wheel';
import { parts } from './per-wheel';
import type { confirmationSchema, repairOutcomeSchema } from './schema';

export { isPerWheel } from './per-wheel';

/** A part of a car that can be at fault by itself. */
export interface Part {
  part: PartKind;
  /** None where the car has only one of it. */
  wheel?: Position;
}

/** What a part turned out to be, once somebody had it in hand. */
export type RepairOutcome = z.infer<typeof repairOutcomeSchema>;
/** What somebody said of a car's parts. The latest of a job holds; without parts it takes back what was said. */
export type Confirmation = z.infer<typeof confirmationSchema>;

/** "Sensor, LR". */
export const partName = ({ part, wheel }: Part): string =>
  [parts[part].name, wheel && listWheels([wheel])].filter(Boolean).join(', ');

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
export const repairOutcomesOf = (job: Pick<Job, 'confirmations'>): RepairOutcome[] =>
  job.confirmations?.at(-1)?.parts ?? [];
