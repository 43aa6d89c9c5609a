import { readingAt } from '../../../tire/gauge';
import { handledKPa, isFill, isOfRegistration, lastOf, type Change } from '../../../job/history';
import { allOf, atWheel, doneLately, latest, trustedAt, type Job } from '../../../job';
import { oneVisitMs } from '../../../job/together';
import { lossOf } from '../../../tire/leak';
import type { Ledger } from '../../../job/ledger';
import { monitoredWheels, placardKPa, placardToleranceKPa } from '../../../job/placard';
import { canonicalId } from '../../../names/sensor-id';
import { chanceTooHot } from '../../../tire/temperature';
import { roadWheels } from '../../../names/wheel';
import { model } from '../model';
import type { CarEvidence } from '.';
import { isAboutWheel, weightOf } from './codes';
import { dayMs } from '../../../measure/calendar/spans';

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
    relearnIsOld: isOfAnotherDay(job),
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

/** The last relearn was a day and more before the last look: the car was driven since. */
function isOfAnotherDay(job: Job): boolean {
  const done = latest(allOf(job, 'relearn'))?.seen.at;
  const last = job.observations.reduce(
    (ms, { at }) => Math.max(ms, Date.parse(at)),
    Number.NEGATIVE_INFINITY,
  );
  return done !== undefined && last - Date.parse(done) > dayMs;
}

const wasOver = (job: Job, change: Change): boolean =>
  change.kind === 'air' && change.fromKPa > (placardKPa(job, change.wheel) ?? 0) + placardToleranceKPa;

/** When tires or wheels were worked on, as it was said at booking in, ms; minus infinity where nobody said. */
function workedOnMs(job: Job): number {
  const seen = job.observations.map(({ at }) => Date.parse(at));
  const last = seen.reduce((latest, one) => Math.max(latest, one), Number.NEGATIVE_INFINITY);
  const bookedIn = seen.reduce((first, one) => (one >= last - visitMs ? Math.min(first, one) : first), last);
  const done = doneLately(job).flatMap(({ kind, hoursAgo }) =>
    kind === 'sensor-replaced' || hoursAgo === undefined ? [] : [bookedIn - hoursAgo * 3_600_000],
  );
  return Math.max(Number.NEGATIVE_INFINITY, ...done);
}

/** A visit begins at most a day before its last reading, and what is older is of another day (judgement). */
const visitMs = dayMs;

/** A reference that was stored before the air was put right is none: it was of other pressures. */
function storedTooSoon(job: Job, changes: readonly Change[]): boolean {
  const stored = allOf(job, 'relearn').findLast(
    ({ seen }) => seen.method === 'reset' && seen.outcome === 'done',
  )?.seen.at;
  if (stored === undefined) return false;
  const ms = Date.parse(stored);
  if (ms < workedOnMs(job)) return true;
  // A tire that fell since was not let down by hand.
  if (
    changes.some(
      (change) => change.atMs > ms && (isFill(change) || change.kind === 'let-out' || wasOver(job, change)),
    )
  )
    return true;
  return roadWheels.some((wheel) => {
    const readings = trustedAt(job, wheel);
    // What is read days later says nothing of how the tires stood when it was stored.
    const then =
      readings.findLast(({ seen }) => Date.parse(seen.at) <= ms) ??
      readings.find(({ seen }) => Date.parse(seen.at) - ms < oneVisitMs);
    const cold = placardKPa(job, wheel);
    const kPa = then && readingAt(job, then.seen, job.climate?.nowC ?? model.usualNowC);
    return kPa !== undefined && cold !== undefined && kPa < cold - placardToleranceKPa - handledKPa / 2;
  });
}
