import { isFill, isOfRegistration, lastOf, type Change } from '../../history';
import { allOf, latest, type Job } from '../../job';
import type { Ledger } from '../../ledger';
import { monitoredWheels } from '../../placard';
import { canonicalId } from '../../sensor-id';
import type { CarEvidence } from '.';
import { isAboutWheel, weightOf } from './codes';

/** Of the car as a whole. */
export function carEvidence(job: Job, ledger: Ledger, changes: readonly Change[]): CarEvidence {
  const lamp = ledger.lamp?.seen;
  const lampMs = lamp ? Date.parse(lamp.at) : 0;
  const monitored = monitoredWheels(job);
  const latestById = new Map(
    allOf(job, 'reception')
      .sort((a, b) => Date.parse(a.seen.at) - Date.parse(b.seen.at))
      .map(({ seen }) => [canonicalId(seen.id), seen] as const),
  );
  return {
    lamp,
    lampStale: {
      registration: lampMs < lastOf(changes.filter(isOfRegistration)),
      air: lampMs < lastOf(changes.filter(isFill)),
    },
    codes: ledger.codes.flatMap(({ seen }) =>
      seen.about && !(isAboutWheel(seen.about) && seen.wheel && monitored.includes(seen.wheel))
        ? [{ about: seen.about, weight: weightOf(seen.status) }]
        : [],
    ),
    relearn: latest(allOf(job, 'relearn'))?.seen,
    reception: [...latestById].flatMap(([id, { expected, received }]) =>
      expected > 0 ? [{ id, expected, received: Math.min(expected, received) }] : [],
    ),
  };
}
