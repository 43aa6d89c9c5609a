import type { z } from 'zod';
import type { Job, Tpms } from '../../job';
import { isRightType } from '../type';
import { decodeVin } from '../../names/vin/decode';
import { profileOf } from '../../job/header';
import type { partSchema } from './schema';

/** A replacement sensor of the catalogue: what it can be, how it is fitted, and for which cars. Its schema is in `./schema`. */
export type Part = z.infer<typeof partSchema>;
export type Format = Part['formats'][number];

/** The protocol family and carrier in which a part can be heard by a car; undefined where it cannot be. */
export const formatFor = ({ formats }: Part, tpms: Tpms): Format | undefined =>
  formats.find((format) => isRightType(tpms, { id: '', ...format }) !== false);

/**
 * The parts for a car: what it can hear, made for its kind and year; made for its kind alone first, then by name. A year
 * that is not known keeps nothing out.
 */
export function partsFor(parts: readonly Part[], job: Job, year = job.vehicle.modelYear): Part[] {
  const profile = profileOf(job);
  const made = ({ for: cars }: Part) =>
    !cars ||
    ((cars.profiles.length === 0 || (profile !== undefined && cars.profiles.includes(profile))) &&
      (year === undefined || (year >= (cars.fromYear ?? year) && year <= (cars.toYear ?? year))));
  return parts
    .filter((part) => made(part) && formatFor(part, job.vehicle.tpms) !== undefined)
    .sort((a, b) => Number(!a.for) - Number(!b.for) || (a.name < b.name ? -1 : 1));
}

/** What speaks against a part, or makes the choice doubtful, so that both sides of it are shown. */
export type PartDoubt =
  /** By the VIN it is of another year than was entered, and other parts are for that year. */
  | { kind: 'year'; entered: number; byVin: number; parts: Part[] }
  /** The sensor heard at the wheel sends otherwise than the car of this kind hears. */
  | { kind: 'heard'; family: string | undefined; frequencyMHz: number | undefined; parts: Part[] };

export function doubtsAbout(
  parts: readonly Part[],
  job: Job,
  heard?: { family?: string | undefined; frequencyMHz?: number | undefined },
): PartDoubt[] {
  const { modelYear, vin, tpms } = job.vehicle;
  const usual = partsFor(parts, job);
  const byVin = vin && modelYear !== undefined ? decodeVin(vin).modelYears : [];
  const [likelier] = byVin;
  const doubts: PartDoubt[] = [];
  if (modelYear !== undefined && likelier !== undefined && !byVin.includes(modelYear)) {
    const others = partsFor(parts, job, likelier);
    if (names(others) !== names(usual))
      doubts.push({ kind: 'year', entered: modelYear, byVin: likelier, parts: others });
  }
  if (heard && isRightType(tpms, { id: '', ...defined(heard) }) === false) {
    const { family, frequencyMHz } = heard;
    const asHeard = { ...job, vehicle: { ...job.vehicle, tpms: { ...tpms, ...defined(heard) } } };
    doubts.push({ kind: 'heard', family, frequencyMHz, parts: partsFor(parts, asHeard) });
  }
  return doubts;
}

const names = (parts: readonly Part[]): string => parts.map(({ name }) => name).join();

const defined = ({
  family,
  frequencyMHz,
}: {
  family?: string | undefined;
  frequencyMHz?: number | undefined;
}) => ({
  ...(family !== undefined && { family }),
  ...(frequencyMHz !== undefined && { frequencyMHz }),
});
