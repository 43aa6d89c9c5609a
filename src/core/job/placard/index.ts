import { axleOf, inWalkingOrder, roadWheels, type Position } from '../../names/wheel';
import type { Job, Placard } from '..';
import { isSpareAt, type SpareSeen } from '../spare';
import { pressure, type PressureUnit } from '../../measure/units';

/** A difference up to this, kPa, counts as "at placard": about one psi (contract of the assessment). */
export const placardToleranceKPa = 7;

/** Figures are compared as they are shown: 175 is at 175 (contract of the assessment). */
export const shownInStepsOfKPa = 1;

/** What of a job says how much air a wheel should have. */
export type Placarded = Pick<Job, 'placard' | 'loadCase'> & SpareSeen;

/** The line of the placard that holds for a wheel: the spare's where the small spare stands in for it. */
const lineOf = (job: SpareSeen, wheel: Position) => (isSpareAt(job, wheel) ? 'spare' : axleOf(wheel));

/** The cold pressure in kPa the placard asks for at this wheel, for the load it carries, if the placard says. */
export function placardKPa(job: Placarded, wheel: Position): number | undefined {
  return figureOf(
    job.placard?.find(({ position }) => position === lineOf(job, wheel)),
    job,
  );
}

/** The figure of a line for the load the car carries, kPa. */
const figureOf = (line: Placard[number] | undefined, { loadCase }: Placarded): number | undefined =>
  loadCase === 'full' ? (line?.fullLoadKPa ?? line?.coldKPa) : line?.coldKPa;

/** The maker's own figure for the load it carries, kPa, also where another one is aimed at for other tires. */
export function makerKPa(job: Placarded, wheel: Position): number | undefined {
  const line = job.placard?.find(({ position }) => position === lineOf(job, wheel));
  const full = line?.makerFullLoadKPa ?? line?.fullLoadKPa;
  const partly = line?.makerKPa ?? line?.coldKPa;
  return job.loadCase === 'full' ? (full ?? partly) : partly;
}

/** The placard with another cold pressure aimed at on an axle, kPa, for the load the car carries; the maker's is kept beside it. */
export function aimingAt(
  { placard = [], loadCase }: Placarded,
  position: Placard[number]['position'],
  kPa: number,
): Placard {
  return placard.map((line) => {
    if (line.position !== position) return line;
    return loadCase === 'full' && line.fullLoadKPa !== undefined
      ? { makerFullLoadKPa: line.fullLoadKPa, ...line, fullLoadKPa: kPa }
      : { makerKPa: line.coldKPa, ...line, coldKPa: kPa };
  });
}

/** The tire on this wheel as its sidewall says, where somebody read it. */
export const fittedOn = (job: Pick<Job, 'fitted'> & SpareSeen, wheel: Position) =>
  job.fitted?.find(({ position }) => position === lineOf(job, wheel));

/** The size that is on this wheel: read off the sidewall, else taken to be the placard's. */
export const sizeOn = (
  job: Pick<Job, 'fitted' | 'placard'> & SpareSeen,
  wheel: Position,
): string | undefined => fittedOn(job, wheel)?.size ?? placardSize(job, wheel);

/** The size the placard names for this wheel, if it does. */
export function placardSize(job: Pick<Job, 'placard'> & SpareSeen, wheel: Position): string | undefined {
  return job.placard?.find((line) => line.position === lineOf(job, wheel))?.size;
}

/**
 * A temporary spare is kept far above the road tires (about 420 kPa is usual, common practice), so
 * figures meant for the road wheels do not hold for it.
 */
export function isTemporarySpare(job: Placarded, wheel: Position): boolean {
  if (isSpareAt(job, wheel)) return true;
  if (wheel !== 'SP') return false;
  const spare = placardKPa(job, 'SP');
  const road = (job.placard ?? []).map((line) =>
    line.position === 'spare' ? 0 : (figureOf(line, job) ?? 0),
  );
  return spare !== undefined && spare >= 1.5 * Math.max(0, ...road);
}

/** The wheels to walk round: four on the road, and the spare where placard or sensors speak of one. */
export function wheelsOf(job: Placarded & Pick<Job, 'vehicle'>): Position[] {
  const spare = placardKPa(job, 'SP') !== undefined || monitoredWheels(job).includes('SP');
  return inWalkingOrder(spare ? [...roadWheels, 'SP'] : roadWheels);
}

/** The wheels that should have a sensor: none on an indirect system, nor where the small spare stands in. */
export function monitoredWheels(job: Pick<Job, 'vehicle'> & SpareSeen): Position[] {
  const { tpms } = job.vehicle;
  if (tpms.kind !== 'direct') return [];
  return inWalkingOrder(tpms.positions ?? roadWheels).filter((wheel) => !isSpareAt(job, wheel));
}

/** Cold pressures a placard asks for lie between these, kPa (common practice: 26 to 80 psi, a spare 60). */
const usualPlacardKPa = { least: 160, most: 600 };

/**
 * A placard figure that is possible and hardly right: a unit too few ("42" typed for 42 psi where kPa is
 * meant). Gives what was more likely meant, or nothing where no unit makes sense of it.
 */
export function doubtAboutPlacard(
  kPa: number,
  value: number,
): { meant: { kPa: number; unit: PressureUnit } | undefined } | undefined {
  const usual = (base: number) => base >= usualPlacardKPa.least && base <= usualPlacardKPa.most;
  if (usual(kPa)) return undefined;
  const unit = pressure.units.find(({ toBase }) => usual(toBase(value)));
  return { meant: unit && { kPa: unit.toBase(value), unit: unit.name } };
}
