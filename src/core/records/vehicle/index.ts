import { altitudeOf, allOf, type Job } from '../../job';
import { lossOf, type Loss } from '../../tire/leak';
import { ledgerOf } from '../../job/ledger';
import { wheelsOf } from '../../job/placard';
import { atTemperature } from '../../measure/pressure';
import { tireCelsius } from '../../tire/gauge';
import { scannedIds } from '../../car/registration';
import { hasEnded, replay } from '../../relearn/run';
import { canonicalId } from '../../names/sensor-id';
import { declinedWords } from '../../visit/sheet/words';
import { notesOf } from '../../job/header';
import type { JobState } from '../../names/kinds';
import type { Position } from '../../names/wheel';

/** A vehicle over all its visits: what they tell together, and none of them alone. */

/** One visit, its readings as the gauges judge them. */
export interface Visit {
  id: string;
  number: number;
  state: JobState;
  vehicleId: string;
  openedAt: string;
  /** Of its header; a change names the version it was made on. */
  version: number;
  job: Job;
}

/** Visits as they came. */
export const inOrder = (visits: readonly Visit[]): Visit[] =>
  [...visits].sort((a, b) => Date.parse(a.openedAt) - Date.parse(b.openedAt) || a.number - b.number);

/** Pressures of all visits are compared at this temperature, °C. */
export const comparedAtC = 20;

export interface PastReading {
  wheel: Position;
  at: string;
  /** Of the visit. */
  number: number;
  /** As it was read, and at `comparedAtC`: undefined where nobody knows how warm the tire was. */
  readKPa: number;
  kPa: number | undefined;
  trusted: boolean;
}

/** Every gauge reading of every visit, oldest first. */
export const pressuresOf = (visits: readonly Visit[]): PastReading[] =>
  inOrder(visits)
    .flatMap(({ number, job }) =>
      allOf(job, 'gauge').map(({ seen }): PastReading => {
        const celsius = tireCelsius(job, seen);
        return {
          wheel: seen.wheel,
          at: seen.at,
          number,
          readKPa: seen.kPa,
          kPa:
            celsius === undefined
              ? undefined
              : atTemperature({ kPa: seen.kPa, celsius, altitudeM: altitudeOf(job) }, comparedAtC),
          trusted: seen.trusted !== false,
        };
      }),
    )
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));

/** A leak that a visit found, and whether it was mended on it. */
interface PastLeak {
  wheel: Position;
  number: number;
  at: string;
  perDayKPa: Loss['perDayKPa'];
  mended: boolean;
}

/** Leaks as each visit knew them at its end, oldest first. */
export const leaksOf = (visits: readonly Visit[]): PastLeak[] =>
  inOrder(visits).flatMap(({ number, openedAt, job }) =>
    wheelsOf(job).flatMap((wheel): PastLeak[] => {
      const mended = (job.repairs ?? []).some((repair) => repair.wheel === wheel);
      const { verdict, perDayKPa } = lossOf(job, wheel);
      return verdict === 'leaks' || mended ? [{ wheel, number, at: openedAt, perDayKPa, mended }] : [];
    }),
  );

/** A sensor the tool heard at this vehicle, and at which wheel on which visit. */
interface PastSensor {
  id: string;
  places: { number: number; at: string; wheel: Position }[];
  /** As it said of its battery when it was heard last. */
  battery: 'ok' | 'low' | undefined;
  lastHeardAt: string;
}

/** Every sensor that was heard here, with the wheels it was at: those heard last come first, in walking order. */
export function sensorsOf(visits: readonly Visit[]): PastSensor[] {
  const found = new Map<string, PastSensor>();
  for (const { number, openedAt, job } of inOrder(visits)) {
    const ledger = ledgerOf(job);
    for (const { wheel, id } of scannedIds(job, ledger)) {
      const scan = ledger.sensor[wheel];
      const key = canonicalId(id);
      const known = found.get(key);
      found.set(key, {
        id: key,
        places: [...(known?.places ?? []), { number, at: openedAt, wheel }],
        battery: (scan?.kind === 'heard' ? scan.reply.battery : undefined) ?? known?.battery,
        lastHeardAt: openedAt,
      });
    }
  }
  return [...found.values()].sort((a, b) => Date.parse(b.lastHeardAt) - Date.parse(a.lastHeardAt));
}

/** A trouble code, and the visits that read it. */
interface PastCode {
  code: string;
  visits: { number: number; at: string; status: 'active' | 'stored' }[];
}

/** Codes of all visits, the one read last first. */
export function codesOf(visits: readonly Visit[]): PastCode[] {
  const found = new Map<string, PastCode>();
  for (const { number, openedAt, job } of inOrder(visits)) {
    const read = [
      ...allOf(job, 'dtc').map(({ seen }) => seen),
      ...allOf(job, 'registry').flatMap(({ seen }) => seen.codes ?? []),
    ];
    for (const { code, status } of read) {
      const known = found.get(code)?.visits ?? [];
      if (known.some((visit) => visit.number === number)) continue;
      found.set(code, { code, visits: [...known, { number, at: openedAt, status }] });
    }
  }
  return [...found.values()].reverse();
}

/** A way this car was taught, and how often it took. */
interface PastWay {
  title: string;
  worked: number;
  failed: number;
  lastAt: string;
}

/** The relearn procedures that were led through here, those that worked most first. */
export function waysTaughtOf(visits: readonly Visit[]): PastWay[] {
  const found = new Map<string, PastWay>();
  for (const { job } of inOrder(visits)) {
    for (const { procedure, events, startedAt } of job.runs ?? []) {
      const run = replay(procedure, events);
      if (!hasEnded(run)) continue;
      const known = found.get(procedure.title) ?? { worked: 0, failed: 0 };
      const worked = run.state === 'done' ? 1 : 0;
      found.set(procedure.title, {
        title: procedure.title,
        worked: known.worked + worked,
        failed: known.failed + 1 - worked,
        lastAt: startedAt,
      });
    }
  }
  return [...found.values()].sort((a, b) => b.worked - a.worked || a.failed - b.failed);
}

/** What was advised and not done, and on which visit, the last first. */
export const declinedOf = (visits: readonly Visit[]): { number: number; at: string; text: string }[] =>
  inOrder(visits)
    .reverse()
    .flatMap(({ number, openedAt, job }) =>
      declinedWords(job).map((text) => ({ number, at: openedAt, text })),
    );

/** The distance at each visit that somebody read, km, oldest first. */
export const odometersOf = (visits: readonly Visit[]): { number: number; at: string; km: number }[] =>
  inOrder(visits).flatMap(({ number, openedAt, job: { vehicle } }) =>
    vehicle.odometerKm === undefined ? [] : [{ number, at: openedAt, km: vehicle.odometerKm }],
  );

/** Why each visit that left without proof did, the last first. */
export const unprovedOf = (visits: readonly Visit[]): { number: number; at: string; why: string }[] =>
  inOrder(visits)
    .reverse()
    .flatMap(({ number, openedAt, job }) => {
      const why = notesOf(job).unproved;
      return why === undefined ? [] : [{ number, at: openedAt, why }];
    });
