import { holds } from '../assessment';
import { isPerWheel, partName, partsOf, type Part } from '../confirmed';
import { verdictOn, type Experience } from '../diagnosis';
import { recordOf, type FindingCode } from '../finding';
import { allOf, atWheel, type Job, type Seen } from '../job';
import { ledgerOf } from '../ledger';
import { monitoredWheels } from '../placard';
import { sameId } from '../sensor-id';

/** A part that was found at fault at some time of the visit, with what it was taken for and how sure that was. */
export interface Suspect extends Part {
  code: FindingCode;
  probability: number;
}

/**
 * The parts found at fault during the visit, whether or not they have been put right since: what the engine
 * held before each change of the car, and what it holds now.
 */
export function suspectsOf(job: Job, experience?: Experience): Suspect[] {
  const suspects = new Map<string, Suspect>();
  for (const then of [...changesOf(job).map((ms) => before(job, ms)), job]) {
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

/** When the car was changed, ms: a fill, a write, a mended leak, another sensor, a relearn. */
function changesOf(job: Job): number[] {
  const { gaugeHistory } = ledgerOf(job);
  const fills = Object.values(gaugeHistory).flatMap((readings) =>
    readings.slice(1).map(({ seen }) => seen.at),
  );
  const sensors = monitoredWheels(job).flatMap((wheel) => {
    const tries = atWheel(job, 'activation', wheel);
    return tries
      .slice(1)
      .flatMap(({ seen }, place) => (isAnother(tries[place]?.seen, seen) ? [seen.at] : []));
  });
  const times = [
    ...fills,
    ...sensors,
    ...allOf(job, 'relearn').map(({ seen }) => seen.at),
    ...(job.carWrites ?? []).map(({ askedAt }) => askedAt),
    ...(job.repairs ?? []).map(({ at }) => at),
  ];
  return [...new Set(times.map((at) => Date.parse(at)))].sort((a, b) => a - b);
}

/** A sensor answers where none did, or another than before: it was changed in between, or woken at last. */
function isAnother(before: Seen<'activation'> | undefined, now: Seen<'activation'>): boolean {
  const [then] = before?.replies ?? [];
  const [reply] = now.replies;
  return reply !== undefined && (then === undefined || !sameId(reply.id, then.id));
}

/** The job as it stood before a moment. */
function before(job: Job, ms: number): Job {
  return {
    ...job,
    observations: job.observations.filter(({ at }) => Date.parse(at) < ms),
    carWrites: (job.carWrites ?? []).filter(({ askedAt }) => Date.parse(askedAt) < ms),
    repairs: (job.repairs ?? []).filter(({ at }) => Date.parse(at) < ms),
  };
}
