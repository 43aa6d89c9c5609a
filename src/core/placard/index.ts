import { axleOf, inWalkingOrder, roadWheels, type Position } from '../wheel';
import type { Job } from '../job';

/** A difference up to this, kPa, counts as "at placard": about one psi (contract of the assessment). */
export const placardToleranceKPa = 7;

/** The cold pressure in kPa the placard asks for at this wheel, if the placard says. */
export function placardKPa(job: Pick<Job, 'placard'>, wheel: Position): number | undefined {
  return job.placard?.find((line) => line.position === axleOf(wheel))?.coldKPa;
}

/** The size the placard names for this wheel, if it does. */
export function placardSize(job: Pick<Job, 'placard'>, wheel: Position): string | undefined {
  return job.placard?.find((line) => line.position === axleOf(wheel))?.size;
}

/**
 * A temporary spare is kept far above the road tires (about 420 kPa is usual, common practice), so
 * figures meant for the road wheels do not hold for it.
 */
export function isTemporarySpare(job: Pick<Job, 'placard'>, wheel: Position): boolean {
  if (wheel !== 'SP') return false;
  const spare = placardKPa(job, 'SP');
  const road = roadWheels.map((position) => placardKPa(job, position) ?? 0);
  return spare !== undefined && spare >= 1.5 * Math.max(...road);
}

/** The wheels to walk round: four on the road, and the spare where placard or sensors speak of one. */
export function wheelsOf(job: Pick<Job, 'placard' | 'vehicle'>): Position[] {
  const spare = placardKPa(job, 'SP') !== undefined || monitoredWheels(job).includes('SP');
  return inWalkingOrder(spare ? [...roadWheels, 'SP'] : roadWheels);
}

/** The wheels that should have a sensor: none on an indirect system. */
export function monitoredWheels(job: Pick<Job, 'vehicle'>): Position[] {
  const { tpms } = job.vehicle;
  return tpms.kind === 'direct' ? inWalkingOrder(tpms.positions ?? roadWheels) : [];
}
