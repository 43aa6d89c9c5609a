import type { Trigger } from '../../../names/kinds';
import { changesOf } from '../../../job/history';
import type { Job, Placed, Reply } from '../../../job';
import type { Ledger } from '../../../job/ledger';
import type { Standing } from '../../../tire/standing';
import type { Lines } from '../../../tire/thresholds/lines';
import type { Position } from '../../../names/wheel';
import { carEvidence } from './car';
import type { Said } from './course';
import { contextOf } from './context';
import { positionEvidence } from './position';
import { wheelEvidence } from './wheel';

/**
 * What was seen, in the shape the model speaks of. In goes a job with its ledger; out comes what is known of the
 * car beforehand, of each wheel, of each position the car knows, and of the car as a whole.
 */
export { carEvidence } from './car';
export { contextOf, isWatched } from './context';
export { positionEvidence } from './position';
export { wheelEvidence } from './wheel';

/** A figure with its standard deviation, kPa at the outdoor temperature of now. */
export interface Measured {
  kPa: number;
  sdKPa: number;
}

/** A place between two lines: what a pressure there is, in bits of findings, and what it gives the lamp cause for. */
export interface Band {
  upTo: number;
  findings: number;
  cause: number;
}

/** What was seen at a wheel itself, wherever the car believes it to be. */
export interface WheelEvidence {
  wheel: Position;
  monitored: boolean;
  placardKPa: number | undefined;
  lines: Lines;
  /** The places between those lines, from the lowest up. */
  bands: Band[];
  gauge: (Measured & { slip: number }) | undefined;
  /** What the temperature of that stop leaves open, kPa: the gauge and the sensor share it. */
  stopDoubtKPa: number;
  /** What time leaves open of a sensor that was heard at another stop, before the gauge was read, kPa. */
  replyDoubtKPa: number;
  /** Where the gauge puts the tire, as long as nothing else was seen of it since. */
  standing: Standing | undefined;
  /** Its sensor spoke at a later stop than the gauge: air may have been put in between. */
  gaugeIsOld: boolean;
  /** What its sensor said over the visit. */
  course: readonly Said[];
  /** It asks to be read once more before anything is done for it. */
  gaugeAgain: boolean;
  /** Two trusted gauges read it at one stop and do not agree, and its sensor goes with neither or with the first. */
  gaugesDisagree: boolean;
  /** So many times a sensor answered here. */
  scans: number;
  /** The last one by a gauge that is trusted, whatever was read since. */
  trustedGauge: Measured | undefined;
  /** The reading before the scan, where another one followed it: which of the two the sensor speaks of is open. */
  gaugeBeforeScan: Measured | undefined;
  /** What the gauge read before air was last put in, oldest first: older figures of the car speak of that. */
  beforeFill: (Measured & { ms: number })[];
  /** When that was, ms. */
  filledMs: number;
  /** It was read last within the visit in which it was filled: where it stands says nothing of a leak. */
  filledNow: boolean;
  /** The scan came before any gauge reading. */
  scannedFirst: boolean;
  /** Likelihood of the readings over time and of what the eye saw, if the tire leaks and if it is sound. */
  leak: { leaking: number; sound: number };
  signs: Placed<'visual'>['seen']['sign'][];
  /** Replies of the last try that had any: their IDs in the form for comparing. */
  replies: Reply[];
  /** Silent tries since then. */
  misses: Trigger[];
  /** Silent tries before it: they count where that was another wheel's sensor. */
  missedBefore: Trigger[];
  ageYears: number | undefined;
  recordedId: string | undefined;
  turns: number | undefined;
}

/** What the car says of a position, whichever wheel is there. */
export interface PositionEvidence {
  position: Position;
  /** The ID held, in the form for comparing; null for none, undefined where it was not read. */
  held: string | null | undefined;
  /** Figures of the sensor there, by the car or its display, each with its time. */
  shown: (Measured & { ms: number })[];
  empty: ('driving' | 'parked' | 'display' | 'blank')[];
  /** What the car has of the battery of the sensor it hears there. */
  battery: 'ok' | 'low' | undefined;
  /** It heard this sensor at some time of the visit while it was driven. */
  heardDriving: boolean;
  codes: { about: CodeAbout; weight: number }[];
  /** Codes were read, and none is there for this position. */
  noCodes: boolean;
}

export type CodeAbout = 'no-signal' | 'low-battery' | 'low-pressure';

/** What was seen of the car as a whole. */
export interface CarEvidence {
  lamp: Placed<'lamp'>['seen'] | undefined;
  /** The lamp spoke of a state of the car that has been changed since. */
  lampStale: { registration: boolean; air: boolean };
  codes: { about: NonNullable<Placed<'dtc'>['seen']['about']>; weight: number }[];
  relearn: Placed<'relearn'>['seen'] | undefined;
  /** It is of another day: the car was driven since, and has heard its sensors. */
  relearnIsOld: boolean;
  /** The reference of an indirect system was stored while a tire was not at its pressure, or air was changed since. */
  storedTooSoon: boolean;
  /** How likely a hot tire, or one that loses air fast, is what lit the lamp, by itself. */
  warned: number;
  /** Counts of check-ins over a drive, by canonical ID. */
  reception: { id: string; expected: number; received: number }[];
}

/** What is known before anything is seen: the car, its records, the work done, the weather. */
export interface Context {
  job: Job;
  wheels: Position[];
  monitored: Position[];
  /** By wheel, kPa. */
  placard: (number | undefined)[];
  /** By wheel: what a road tire filled to placard at the last fill stands at now, kPa, where that is noticeably less. */
  cooledToKPa: (number | undefined)[];
  /** By wheel: where its pressures divide. */
  lines: Lines[];
  bands: Band[][];
  nowC: number | undefined;
  ambientKPa: number;
  /** Air was put in during this visit. */
  filledNow: boolean;
  /** The car was taught its sensors during this visit; and what it holds was not read since. */
  taught: 'no' | 'and-read' | 'unread';
  /** The car's sensors on record, and all IDs on file, in the form for comparing. */
  records: { id: string; wheel: Position | undefined; ageYears: number | undefined }[];
  filedIds: ReadonlySet<string>;
  /** IDs that were to be written into new sensors as clones, likewise. */
  cloned: ReadonlySet<string>;
  /** The IDs of each of the vehicle's other sets on file, likewise. */
  otherSets: string[][];
}

export interface Evidence {
  context: Context;
  wheels: WheelEvidence[];
  positions: PositionEvidence[];
  car: CarEvidence;
}

export function evidenceOf(job: Job, ledger: Ledger): Evidence {
  const changes = changesOf(job);
  const context = contextOf(job, changes);
  return {
    context,
    wheels: context.wheels.map((wheel) => wheelEvidence(context, job, ledger, wheel)),
    positions: context.monitored.map((position) => positionEvidence(context, job, ledger, changes, position)),
    car: carEvidence(job, ledger, changes),
  };
}
