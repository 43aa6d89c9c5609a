import type { Job } from '../../../job';
import { ledgerOf } from '../../../job/ledger';
import { wheelsOffTarget } from '../../../tire/filling';
import { softSince } from '../../../job/history';
import { supplyIsLow, supportWords } from '../../../car/supply';
import { profileOf } from '../../../job/header';
import { inWalkingOrder, type Position } from '../../../names/wheel';
import { phases, type Procedure } from '../../../relearn/procedure';
import { methodOf, type RelearnMethod } from '../../../relearn/method';

/** What a procedure is done with, beside hands. */
export type Means = 'tool' | 'lead' | 'road';

/** A procedure that teaches this car, with what stands in its way here and now. */
export interface Way {
  procedure: Procedure;
  /** What it needs that is not here. */
  missing: Means[];
  /** So many times it was tried on this visit and failed. */
  failed: number;
  /** How the supply is held up, where it is too low to write to a module. */
  waitsForSupply: string | undefined;
  /** It rests on pressures that were set, and these tires are not, or nobody gauged them. */
  waitsForPressures: readonly Position[];
}

/**
 * The ways to teach a car, the best first: those that can be done here and now, then those that did not fail yet, then
 * by minutes; of two alike the shop's preference, its methods in order, wins.
 */
export function waysFor(
  procedures: readonly Procedure[],
  job: Job,
  here: Readonly<Record<Means, boolean>>,
  preferred: readonly RelearnMethod[] = [],
): Way[] {
  const ledger = ledgerOf(job);
  const low = supplyIsLow(ledger);
  const unset = inWalkingOrder([...softSince(job), ...wheelsOffTarget(job, ledger)]);
  const failed = (method: RelearnMethod) =>
    job.observations.filter(
      (seen) => seen.kind === 'relearn' && seen.method === method && seen.outcome === 'failed',
    ).length;
  const rank = (method: RelearnMethod) => {
    const at = preferred.indexOf(method);
    return at < 0 ? preferred.length : at;
  };
  return procedures
    .filter((procedure) => isFor(procedure, job))
    .map((procedure): Way => {
      const means = meansOf(procedure);
      return {
        procedure,
        missing: means.filter((one) => !here[one]),
        failed: failed(procedure.method),
        waitsForSupply: low && means.includes('lead') ? supportWords(job.vehicle.tpms) : undefined,
        waitsForPressures: procedure.before.includes('pressures-set')
          ? // A spare that is not taught has no say in it.
            unset.filter((wheel) => wheel !== 'SP' || procedure.wheels.includes('SP'))
          : [],
      };
    })
    .sort(
      (a, b) =>
        Number(!canBeDone(a)) - Number(!canBeDone(b)) ||
        a.failed - b.failed ||
        minutesOf(a) - minutesOf(b) ||
        rank(a.procedure.method) - rank(b.procedure.method),
    );
}

export const canBeDone = ({ missing, waitsForSupply, waitsForPressures }: Way): boolean =>
  missing.length === 0 && waitsForSupply === undefined && waitsForPressures.length === 0;

const minutesOf = ({ procedure }: Way): number => procedure.minutes ?? Number.POSITIVE_INFINITY;

/**
 * For this kind of vehicle and its year; a year that is not known keeps nothing out. Storing a reference is for a car
 * that compares wheel speeds, everything else for one with sensors.
 */
function isFor({ method, for: { profiles, fromYear, toYear } }: Procedure, job: Job): boolean {
  if (methodOf(method).of !== (job.vehicle.tpms.kind === 'indirect' ? 'indirect' : 'direct')) return false;
  const year = job.vehicle.modelYear;
  const profile = profileOf(job);
  if (profiles.length > 0 && (profile === undefined || !profiles.includes(profile))) return false;
  if (year === undefined) return true;
  return year >= (fromYear ?? year) && year <= (toYear ?? year);
}

/** By its steps: waking takes the tool, writing the lead, driving the road. */
export function meansOf(procedure: Procedure): Means[] {
  const steps = new Set(phases.flatMap((phase) => procedure[phase].map(({ do: kind }) => kind)));
  return [
    ...(steps.has('wake') ? (['tool'] as const) : []),
    ...(steps.has('write') ? (['lead'] as const) : []),
    ...(steps.has('drive') ? (['road'] as const) : []),
  ];
}
