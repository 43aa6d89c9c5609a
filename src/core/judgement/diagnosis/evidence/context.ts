import { isAsTaught, isFill, taughtMs, type Change } from '../../../job/history';
import { allOf, altitudeOf, type Job } from '../../../job';
import { linesAt, type Lines } from '../../../tire/thresholds/lines';
import { monitoredWheels, placardKPa, wheelsOf } from '../../../job/placard';
import { atmosphericKPa, atTemperature } from '../../../measure/pressure';
import { canonicalId } from '../../../names/sensor-id';
import { sensorWrites } from '../../../job/car-write';
import type { Position } from '../../../names/wheel';
import { bit, causeIndex } from '../hypotheses';
import { model } from '../model';
import type { Band, Context } from '.';

/** What is known before anything is seen; of what was changed, only whether air was put in. */
export function contextOf(job: Job, changes: readonly Change[]): Context {
  const wheels = wheelsOf(job);
  const lines = wheels.map((wheel) => linesAt(job, wheel));
  const records = (job.sensors ?? []).map(({ id, wheel, ageYears }) => ({
    id: canonicalId(id),
    wheel,
    ageYears,
  }));
  const placard = wheels.map((wheel) => placardKPa(job, wheel));
  const otherSets = (job.otherSets ?? []).map(({ ids }) => ids.map(canonicalId));
  return {
    job,
    records,
    otherSets,
    filedIds: new Set([...records.map(({ id }) => id), ...otherSets.flat()]),
    cloned: new Set(
      sensorWrites(job).flatMap(({ mode, asked }) => (mode === 'clone' ? [canonicalId(asked.id)] : [])),
    ),
    wheels,
    monitored: monitoredWheels(job),
    placard,
    cooledToKPa: wheels.map((wheel, place) => (wheel === 'SP' ? undefined : cooledTo(job, placard[place]))),
    lines,
    bands: lines.map(bandsBetween),
    filledNow: changes.some(isFill),
    taught: taughtIn(job),
    nowC: job.climate?.nowC,
    ambientKPa: atmosphericKPa(altitudeOf(job)),
  };
}

function cooledTo(job: Job, cold: number | undefined): number | undefined {
  const { nowC, lastFillC } = job.climate ?? {};
  if (nowC === undefined || lastFillC === undefined || cold === undefined) return undefined;
  const now = atTemperature({ kPa: cold, celsius: lastFillC, altitudeM: altitudeOf(job) }, nowC);
  return cold - now >= model.standing.cooled.noticeableKPa ? now : undefined;
}

function taughtIn(job: Job): Context['taught'] {
  const taught = taughtMs(job);
  if (!Number.isFinite(taught)) return 'no';
  return allOf(job, 'registry').some(({ seen }) => isAsTaught(seen.at, taught)) ? 'and-read' : 'unread';
}

function bandsBetween({ low, off, short, over }: Lines): Band[] {
  const cuts = [low, off, short, over, Number.POSITIVE_INFINITY].sort((a, b) => a - b);
  return cuts.flatMap((upTo, place): Band[] => {
    if (upTo === (cuts[place - 1] ?? Number.NEGATIVE_INFINITY)) return [];
    const isLow = upTo <= low;
    const isBetween = !isLow && upTo <= off;
    return [
      {
        upTo,
        findings:
          (isLow ? bit['tire-low'] : 0) |
          (isBetween ? bit['lamp-latched'] : 0) |
          (!isLow && upTo <= short ? bit['tire-underinflated'] : 0) |
          (upTo > over ? bit['tire-overinflated'] : 0),
        cause: isLow ? causeIndex.low : isBetween ? causeIndex['between-on-and-off'] : causeIndex.nothing,
      },
    ];
  });
}

/** The lamp watches this wheel: it has a sensor, or the system compares all four. A temporary spare is not watched. */
export function isWatched({ job, monitored }: Context, wheel: Position): boolean {
  switch (job.vehicle.tpms.kind) {
    case 'direct':
      return monitored.includes(wheel);
    case 'indirect':
      return wheel !== 'SP';
    case 'none':
      return false;
  }
}
