import { holds } from '../judgement/assessment';
import { isPerWheel, partName, partsOf, type Part } from '../job/repair-outcome';
import { verdictOn, type Experience } from '../judgement/diagnosis';
import { recordOf, type FindingCode } from '../catalogue/finding';
import { changesOf } from '../job/history';
import type { Job } from '../job';

/** A part that was found at fault at some time of the visit, with what it was taken for and how sure that was. */
interface Suspect extends Part {
  code: FindingCode;
  probability: number;
}

/**
 * The parts found at fault during the visit, whether or not they have been put right since: what the engine
 * held before each change of the car, and what it holds now.
 */
export function suspectsOf(job: Job, experience?: Experience): Suspect[] {
  const suspects = new Map<string, Suspect>();
  const moments = [...new Set(changesOf(job).map(({ atMs }) => atMs))].slice(-mostMoments);
  for (const then of [...moments.map((ms) => before(job, ms)), job]) {
    for (const { code, wheels, probability } of verdictOn(then, experience).findings) {
      const { part } = recordOf(code);
      if (!part || probability < holds) continue;
      for (const wheel of isPerWheel(part) ? wheels : [undefined]) {
        const suspect = { part, ...(wheel && { wheel }), code, probability };
        const name = partName(suspect);
        if ((suspects.get(name)?.probability ?? 0) <= probability) suspects.set(name, suspect);
      }
    }
  }
  return partsOf(job).flatMap((part) => suspects.get(partName(part)) ?? []);
}

/** So many changes of one car in one visit are looked back on, the last ones: far more than a visit has (judgement). */
const mostMoments = 40;

/** The job as it stood before a moment. */
function before(job: Job, ms: number): Job {
  return {
    ...job,
    observations: job.observations.filter(({ at }) => Date.parse(at) < ms),
    carWrites: (job.carWrites ?? []).filter(({ askedAt }) => Date.parse(askedAt) < ms),
    repairs: (job.repairs ?? []).filter(({ at }) => Date.parse(at) < ms),
  };
}
