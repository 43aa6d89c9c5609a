import { allOf, type Job } from '../job';
import type { Ledger } from '../ledger';
import { canonicalId } from '../sensor-id';

/** When the car was last changed in what the lamp speaks of: what was seen before speaks of another car. */
export interface Changes {
  /** Last time the car's registered IDs or its relearn state changed, ms; -Infinity where they did not. */
  registrationMs: number;
  /** Last time air was put into a tire, ms. */
  airMs: number;
}

/** A rise between two readings of one wheel that is a fill, kPa: more than both may be off (practice). */
export const fillKPa = 6;

export function changesIn(job: Job, ledger: Ledger): Changes {
  const writes = (job.carWrites ?? []).flatMap((write) =>
    write.kind === 'registry' && write.answer !== 'no' ? [Date.parse(write.askedAt)] : [],
  );
  const relearns = allOf(job, 'relearn').flatMap(({ seen }) =>
    seen.outcome === 'failed' ? [] : [Date.parse(seen.at)],
  );
  const registries = allOf(job, 'registry').sort((a, b) => Date.parse(a.seen.at) - Date.parse(b.seen.at));
  const rewritten = registries.slice(1).flatMap(({ seen }, place) => {
    const before = registries[place]?.seen.entries ?? [];
    return asText(before) === asText(seen.entries) ? [] : [Date.parse(seen.at)];
  });
  const fills = Object.values(ledger.gaugeHistory).flatMap((readings) =>
    readings.slice(1).flatMap(({ seen }, place) => {
      const before = readings[place]?.seen.kPa ?? seen.kPa;
      return seen.kPa - before > fillKPa ? [Date.parse(seen.at)] : [];
    }),
  );
  return {
    registrationMs: Math.max(Number.NEGATIVE_INFINITY, ...writes, ...relearns, ...rewritten),
    airMs: Math.max(Number.NEGATIVE_INFINITY, ...fills),
  };
}

const asText = (entries: readonly { wheel: string; id: string | null }[]): string =>
  entries
    .map(({ wheel, id }) => `${wheel} ${id === null ? '' : canonicalId(id)}`)
    .sort()
    .join();
