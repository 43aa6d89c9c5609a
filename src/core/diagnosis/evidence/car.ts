import { readingAt } from '../../gauge';
import { handledKPa, isFill, isOfRegistration, lastOf, type Change } from '../../history';
import { allOf, atWheel, latest, type Job } from '../../job';
import { lossOf } from '../../leak';
import type { Ledger } from '../../ledger';
import { monitoredWheels, placardKPa, placardToleranceKPa } from '../../placard';
import { canonicalId } from '../../sensor-id';
import { chanceTooHot } from '../../tire-temperature';
import { roadWheels } from '../../wheel';
import { model } from '../model';
import type { CarEvidence } from '.';
import { isAboutWheel, weightOf } from './codes';

/** Of the car as a whole. */
export function carEvidence(job: Job, ledger: Ledger, changes: readonly Change[]): CarEvidence {
  const lamp = ledger.lamp?.seen;
  const lampMs = lamp ? Date.parse(lamp.at) : 0;
  const monitored = monitoredWheels(job);
  const latestById = new Map(
    [...allOf(job, 'reception')]
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
    storedTooSoon: storedTooSoon(job, changes),
    warned: warned(job, ledger),
    reception: [...latestById].flatMap(([id, { expected, received }]) =>
      expected > 0 ? [{ id, expected, received: Math.min(expected, received) }] : [],
    ),
  };
}

/** A tire that is too hot, or that a gauge saw lose air within minutes, lights the lamp of many cars at any pressure. */
function warned(job: Job, { sensor, live }: Ledger): number {
  return Math.max(
    0,
    ...monitoredWheels(job).map((wheel) => {
      const scan = sensor[wheel];
      const hot = chanceTooHot(
        scan?.kind === 'heard' ? scan.reply.tempC : undefined,
        live[wheel]?.seen.tempC,
      );
      const gauged = atWheel(job, 'gauge', wheel).length + (job.history?.length ?? 0);
      const perDay = gauged > 1 ? (lossOf(job, wheel).perDayKPa?.low ?? 0) : 0;
      return model.warned.lights * Math.max(hot, Number(perDay > model.warned.perDayKPa));
    }),
  );
}

/** A reference that was stored before the air was put right is none: it was of other pressures. */
function storedTooSoon(job: Job, changes: readonly Change[]): boolean {
  const stored = allOf(job, 'relearn').findLast(
    ({ seen }) => seen.method === 'reset' && seen.outcome === 'done',
  )?.seen.at;
  if (stored === undefined) return false;
  const ms = Date.parse(stored);
  if (changes.some(({ kind, atMs }) => (kind === 'air' || kind === 'let-out') && atMs > ms)) return true;
  return roadWheels.some((wheel) => {
    const readings = atWheel(job, 'gauge', wheel).filter(({ seen }) => seen.trusted !== false);
    const then = readings.findLast(({ seen }) => Date.parse(seen.at) <= ms) ?? readings[0];
    const cold = placardKPa(job, wheel);
    const kPa = then && readingAt(job, then.seen, job.climate?.nowC ?? model.usualNowC);
    return kPa !== undefined && cold !== undefined && kPa < cold - placardToleranceKPa - handledKPa / 2;
  });
}
