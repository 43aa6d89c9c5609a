import { tireCelsius } from '../gauge';
import { allOf, altitudeOf, atWheel, latest, type Job, type Placed, type Reply } from '../job';
import { thresholdsFor } from '../lamp';
import { lossOf, type Level } from '../leak';
import type { Ledger } from '../ledger';
import { strongest } from '../ledger';
import { monitoredWheels, placardKPa, placardToleranceKPa, wheelsOf } from '../placard';
import { atmosphericKPa, atTemperature, kelvin } from '../pressure';
import { canonicalId } from '../sensor-id';
import { sdOf } from '../tire-temperature';
import { isAboveWakeSpeed } from '../wake-speed';
import { roadWheels, type Position } from '../wheel';
import { changesIn, fillKPa, type Changes } from './changes';
import { model } from './model';
import { normalDensity } from './normal';
import { bit, causeIndex } from './states';

/** A figure with its standard deviation, kPa at the outdoor temperature of now. */
export interface Measured {
  kPa: number;
  sdKPa: number;
}

/** Where the pressures of a wheel divide, kPa at the outdoor temperature of now; as shown, so half a step up. */
export interface Lines {
  low: number;
  /** The lamp goes out again from here; as `low` where that is not known. */
  off: number;
  short: number;
  over: number;
}

/** A place between two lines: what a pressure there is, in bits of findings, and what it gives the lamp cause for. */
export interface Band {
  upTo: number;
  findings: number;
  cause: number;
}

const unknownLines: Lines = {
  low: Number.NEGATIVE_INFINITY,
  off: Number.NEGATIVE_INFINITY,
  short: Number.NEGATIVE_INFINITY,
  over: Number.POSITIVE_INFINITY,
};

/** What was seen at a wheel itself, wherever the car believes it to be. */
export interface WheelEvidence {
  wheel: Position;
  monitored: boolean;
  placardKPa: number | undefined;
  lines: Lines;
  /** The places between those lines, from the lowest up. */
  bands: Band[];
  gauge: (Measured & { slip: number }) | undefined;
  /** The reading before the scan, where another one followed it: which of the two the sensor speaks of is open. */
  gaugeBeforeScan: Measured | undefined;
  /** What the gauge read before air was last put in, oldest first: older figures of the car speak of that. */
  beforeFill: (Measured & { ms: number })[];
  /** When that was, ms. */
  filledMs: number;
  /** The scan came before any gauge reading. */
  scannedFirst: boolean;
  /** Likelihood of the readings over time and of what the eye saw, if the tire leaks and if it is sound. */
  leak: { leaking: number; sound: number };
  signs: Placed<'visual'>['seen']['sign'][];
  /** Replies of the last try that had any: their IDs in the form for comparing. */
  replies: Reply[];
  /** Silent tries since then. */
  misses: Trigger[];
  ageYears: number | undefined;
  recordedId: string | undefined;
  turns: number | undefined;
}

export type Trigger = Placed<'activation'>['seen']['trigger'];

/** What the car says of a position, whichever wheel is there. */
export interface PositionEvidence {
  position: Position;
  /** The ID held, in the form for comparing; null for none, undefined where it was not read. */
  held: string | null | undefined;
  /** Figures of the sensor there, by the car or its display, each with its time. */
  shown: (Measured & { ms: number })[];
  empty: ('driving' | 'parked' | 'display')[];
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
  /** By wheel: where its pressures divide. */
  lines: Lines[];
  bands: Band[][];
  nowC: number | undefined;
  ambientKPa: number;
  /** Air was put in during this visit. */
  filledNow: boolean;
  /** The car's sensors on record, and all IDs on file, in the form for comparing. */
  records: { id: string; wheel: Position | undefined; ageYears: number | undefined }[];
  filedIds: string[];
}

export interface Evidence {
  context: Context;
  wheels: WheelEvidence[];
  positions: PositionEvidence[];
  car: CarEvidence;
}

export function contextOf(job: Job, changes: Changes): Context {
  const wheels = wheelsOf(job);
  const lines = wheels.map((wheel) => linesFor(job, wheel));
  const records = (job.sensors ?? []).map(({ id, wheel, ageYears }) => ({
    id: canonicalId(id),
    wheel,
    ageYears,
  }));
  const others = (job.otherSets ?? []).flatMap(({ ids }) => ids.map(canonicalId));
  return {
    job,
    records,
    filedIds: [...records.map(({ id }) => id), ...others],
    wheels,
    monitored: monitoredWheels(job),
    placard: wheels.map((wheel) => placardKPa(job, wheel)),
    lines,
    bands: lines.map(bandsBetween),
    filledNow: Number.isFinite(changes.airMs),
    nowC: job.climate?.nowC,
    ambientKPa: atmosphericKPa(altitudeOf(job)),
  };
}

export function evidenceOf(job: Job, ledger: Ledger): Evidence {
  const changes = changesIn(job, ledger);
  const context = contextOf(job, changes);
  return {
    context,
    wheels: context.wheels.map((wheel) => wheelEvidence(context, job, wheel)),
    positions: context.monitored.map((position) => positionEvidence(context, job, ledger, changes, position)),
    car: carEvidence(job, ledger, changes),
  };
}

/** Of one wheel: its gauge, its sensor as the tool heard it, and what the eye saw. */
export function wheelEvidence(context: Context, job: Job, wheel: Position): WheelEvidence {
  const gauges = atWheel(job, 'gauge', wheel);
  const tries = atWheel(job, 'activation', wheel);
  const lastAnswered = tries.findLastIndex(({ seen }) => seen.replies.length > 0);
  const answered = tries[lastAnswered];
  const last = gauges.at(-1);
  const scanMs = answered ? Date.parse(answered.seen.at) : undefined;
  const before =
    scanMs === undefined ? undefined : gauges.findLast(({ seen }) => Date.parse(seen.at) <= scanMs);
  const place = context.wheels.indexOf(wheel);
  const signs = atWheel(job, 'visual', wheel).map(({ seen }) => seen.sign);
  const record = context.records.find((sensor) => sensor.wheel === wheel);
  const replies = repliesAt(context, answered, last);
  const heardId = strongest(replies)?.id;
  const byId = context.records.find(({ id }) => id === heardId);
  return {
    wheel,
    monitored: context.monitored.includes(wheel),
    placardKPa: context.placard[place],
    lines: context.lines[place] ?? unknownLines,
    bands: context.bands[place] ?? [],
    gauge: last && { ...gaugeNow(context, last), slip: slipOf(last) },
    gaugeBeforeScan: before && before !== last ? gaugeNow(context, before) : undefined,
    ...beforeFill(context, gauges),
    scannedFirst: scanMs !== undefined && before === undefined && last !== undefined,
    leak: leakLikelihood(job, wheel, gauges.length, signs),
    signs,
    replies,
    misses: tries.slice(lastAnswered + 1).map(({ seen }) => seen.trigger),
    ageYears: (byId ?? record)?.ageYears,
    recordedId: record?.id,
    turns: turnsOf(job, wheel),
  };
}

function beforeFill(
  context: Context,
  gauges: Placed<'gauge'>[],
): Pick<WheelEvidence, 'beforeFill' | 'filledMs'> {
  const filled = gauges.findLastIndex(
    ({ seen }, at) => seen.kPa - (gauges[at - 1]?.seen.kPa ?? seen.kPa) > fillKPa,
  );
  const fill = gauges[filled];
  if (!fill) return { beforeFill: [], filledMs: Number.NEGATIVE_INFINITY };
  return {
    beforeFill: gauges
      .slice(0, filled)
      .map((placed) => ({ ...gaugeNow(context, placed), ms: Date.parse(placed.seen.at) })),
    filledMs: Date.parse(fill.seen.at),
  };
}

/**
 * How fast the wheel turns against the others. One odd wheel shifts the mean of four, so where three or more
 * were measured each is taken against the middle of them.
 */
function turnsOf(job: Job, wheel: Position): number | undefined {
  const ratioAt = (at: Position) => atWheel(job, 'wheelspeed', at).at(-1)?.seen.ratio;
  const own = ratioAt(wheel);
  if (own === undefined) return undefined;
  const measured = roadWheels.flatMap((at) => ratioAt(at) ?? []).sort((a, b) => a - b);
  if (measured.length < 3) return own;
  const middle =
    ((measured[Math.floor((measured.length - 1) / 2)] ?? 1) +
      (measured[Math.ceil((measured.length - 1) / 2)] ?? 1)) /
    2;
  return own / middle;
}

function linesFor(job: Job, wheel: Position): Lines {
  const { lowOnKPa, lowOffKPa, highOnKPa } = thresholdsFor(job, wheel);
  const cold = placardKPa(job, wheel);
  const half = model.noise.showsInStepsOfKPa / 2;
  const low = lowOnKPa === undefined ? Number.NEGATIVE_INFINITY : lowOnKPa + half;
  return {
    low,
    off: lowOffKPa === undefined ? low : Math.max(low, lowOffKPa - half),
    short: cold === undefined ? Number.NEGATIVE_INFINITY : cold - placardToleranceKPa - half,
    over: highOnKPa === undefined ? Number.POSITIVE_INFINITY : highOnKPa + half,
  };
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

const slipOf = ({ seen }: Placed<'gauge'>): number =>
  seen.trusted === false ? model.noise.untrustedSlip : model.noise.gaugeSlip;

/** A gauge reading brought to the outdoor temperature of now; a warm one nobody measured, by what is usual. */
function gaugeNow({ job, nowC, ambientKPa }: Context, { seen }: Placed<'gauge'>): Measured {
  const { noise } = model;
  const own =
    seen.plusMinusKPa === undefined ? noise.gaugeKPa : Math.max(noise.bestGaugeKPa, sdOf(seen.plusMinusKPa));
  const gaugeSd = seen.trusted === false ? Math.max(own, noise.untrustedGaugeKPa) : own;
  const tireC = tireCelsius(job, seen);
  const now = nowC ?? tireC ?? model.usualNowC;
  const estimatedC = tireC ?? (seen.tire === 'warm' ? now + noise.unknownWarmK.rise : now);
  const doubtK =
    tireC === undefined
      ? seen.tire === 'warm'
        ? noise.unknownWarmK.sd
        : 0
      : estimatedC === now
        ? 0
        : seen.tireCPlusMinusK === undefined
          ? noise.temperatureK
          : sdOf(seen.tireCPlusMinusK);
  const perK = (seen.kPa + ambientKPa) / kelvin(estimatedC);
  return {
    kPa: atTemperature({ kPa: seen.kPa, celsius: estimatedC, altitudeM: altitudeOf(job) }, now),
    sdKPa: Math.hypot(gaugeSd, perK * doubtK),
  };
}

/**
 * What the sensor said, brought to now by the temperature of the gauge reading of the same stop, so that
 * both are compared as they were read; else by its own.
 */
function repliesAt(
  context: Context,
  answered: Placed<'activation'> | undefined,
  gauge: Placed<'gauge'> | undefined,
): Reply[] {
  const { job, nowC } = context;
  if (!answered) return [];
  const minutes = gauge && Math.abs(Date.parse(gauge.seen.at) - Date.parse(answered.seen.at)) / 60_000;
  const together = gauge && minutes !== undefined && minutes <= model.noise.oneStopMinutes;
  return answered.seen.replies.map((heard): Reply => {
    const reply = { ...heard, id: canonicalId(heard.id) };
    if (reply.kPa == null) return reply;
    if (together) return { ...reply, kPa: reply.kPa + gaugeNow(context, gauge).kPa - gauge.seen.kPa };
    if (reply.tempC == null || nowC === undefined) return reply;
    const air = { kPa: reply.kPa, celsius: reply.tempC, altitudeM: altitudeOf(job) };
    return { ...reply, kPa: atTemperature(air, nowC) };
  });
}

/** How well a leak, and a sound tire, explain what was read of the wheel over time and seen by eye. */
function leakLikelihood(
  job: Job,
  wheel: Position,
  readings: number,
  seen: WheelEvidence['signs'],
): WheelEvidence['leak'] {
  const series =
    readings + (job.history?.length ?? 0) > 1 ? lossLikelihood(job, wheel) : { leaking: 1, sound: 1 };
  for (const sign of seen) {
    if (!isLeakSign(sign)) continue;
    series.leaking *= model.signs[sign].leaking;
    series.sound *= model.signs[sign].sound;
  }
  return series;
}

const isLeakSign = (sign: string): sign is keyof typeof model.signs => sign in model.signs;

function lossLikelihood(job: Job, wheel: Position): WheelEvidence['leak'] {
  const { line, levels } = lossOf(job, wheel);
  if (!line || !(line.slopeError > 0)) return { leaking: 1, sound: 1 };
  const { perDayKPa, relativeWidth, seepPerDayKPa, seepSdPerDayKPa, together, togetherKPaSquaredPerDay } =
    model.leakRates;
  const rate = -line.slope;
  const error = line.slopeError ** 2;
  const others = wheelsOf(job).flatMap((other) => {
    const slope = other === wheel ? undefined : lossOf(job, other).line?.slope;
    return slope === undefined ? [] : [-slope];
  });
  const byHand = handledDensity(job, wheel, levels, rate, error);
  // All wheels alike: another gauge, or another day's hand, and no leak in each of them.
  const alike =
    others.length === 0
      ? 0
      : together *
        normalDensity(
          rate - median(others),
          error * (1 + ofMedian(others.length)) + togetherKPaSquaredPerDay,
        );
  const leaking = perDayKPa.reduce(
    (sum, loss) => sum + normalDensity(rate - loss, (relativeWidth * loss) ** 2 + error),
    0,
  );
  return {
    leaking: leaking / perDayKPa.length + byHand,
    sound: normalDensity(rate - seepPerDayKPa, seepSdPerDayKPa ** 2 + error) + byHand + alike,
  };
}

/** The variance of the median of so many, of the variance of one (the mean of two; beyond, as for many). */
const ofMedian = (count: number): number => (count < 3 ? 1 / count : Math.PI / 2 / count);

/** Somebody let air out between these readings: in one visit hardly of a tire that was not over placard, and then at once. */
function handledDensity(
  job: Job,
  wheel: Position,
  levels: readonly Level[],
  rate: number,
  error: number,
): number {
  const { handled, handledShort, visitDays, handledSdPerDayKPa, handledSdKPa } = model.leakRates;
  const first = levels[0];
  const placard = placardKPa(job, wheel);
  const days = (levels.at(-1)?.days ?? 0) - (first?.days ?? 0);
  const hadReason = !first || placard === undefined || first.readKPa > placard + placardToleranceKPa;
  const sd = Math.max(handledSdPerDayKPa, handledSdKPa / days);
  return (hadReason || days >= visitDays ? handled : handledShort) * normalDensity(rate, sd ** 2 + error);
}

const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** Of one position: what the car holds for it, hears from it and shows for it, since it was last changed. */
export function positionEvidence(
  context: Context,
  job: Job,
  ledger: Ledger,
  changes: Changes,
  position: Position,
): PositionEvidence {
  const since = ({ seen }: { seen: { at: string } }) => Date.parse(seen.at) >= changes.registrationMs;
  const lives = atWheel(job, 'live', position).filter(since);
  const driving = lives.filter(({ seen }) => isAboveWakeSpeed(job, seen.speedKmh)).at(-1);
  const parked = lives.filter(({ seen }) => !isAboveWakeSpeed(job, seen.speedKmh)).at(-1);
  const display = atWheel(job, 'display', position).filter(since).at(-1);
  const shown: PositionEvidence['shown'] = [];
  const empty: PositionEvidence['empty'] = [];
  const { noise } = model;
  const timed = (figure: Measured, { seen }: { seen: { at: string } }) => ({
    ...figure,
    ms: Date.parse(seen.at),
  });
  if (driving && !driving.seen.kPa) empty.push('driving');
  else if (driving?.seen.kPa) shown.push(timed(liveNow(context, driving, true), driving));
  if (parked && !parked.seen.kPa) empty.push('parked');
  else if (parked?.seen.kPa) shown.push(timed(liveNow(context, parked, false), parked));
  if (display && !display.seen.kPa) empty.push('display');
  else if (display?.seen.kPa) shown.push(timed({ kPa: display.seen.kPa, sdKPa: noise.displayKPa }, display));
  const codes = ledger.codes.flatMap(({ seen }): PositionEvidence['codes'] =>
    seen.wheel === position && isAboutWheel(seen.about)
      ? [{ about: seen.about, weight: weightOf(seen.status) }]
      : [],
  );
  return {
    position,
    held: heldAt(ledger, position),
    shown,
    empty,
    heardDriving: atWheel(job, 'live', position).some(
      ({ seen }) => (seen.kPa ?? 0) > 0 && isAboveWakeSpeed(job, seen.speedKmh),
    ),
    codes,
    noCodes: codes.length === 0 && ledger.registry?.seen.codes?.length === 0,
  };
}

function heldAt({ registry }: Ledger, position: Position): string | null | undefined {
  const id = registry?.seen.entries.find(({ wheel }) => wheel === position)?.id;
  return id == null ? id : canonicalId(id);
}

const isAboutWheel = (about: string | undefined): about is CodeAbout =>
  about === 'no-signal' || about === 'low-battery' || about === 'low-pressure';

const weightOf = (status: 'active' | 'stored'): number =>
  status === 'active' ? 1 : model.codes.storedWeighs;

function liveNow({ job, nowC }: Context, { seen }: Placed<'live'>, driving: boolean): Measured {
  const { noise } = model;
  const kPa = seen.kPa ?? 0;
  if (seen.tempC != null && nowC !== undefined) {
    const air = { kPa, celsius: seen.tempC, altitudeM: altitudeOf(job) };
    return { kPa: atTemperature(air, nowC), sdKPa: noise.liveParkedKPa };
  }
  return driving
    ? { kPa: kPa - noise.liveDrivingKPa.rise, sdKPa: noise.liveDrivingKPa.sd }
    : { kPa, sdKPa: noise.liveParkedKPa };
}

/** Of the car as a whole. */
export function carEvidence(job: Job, ledger: Ledger, changes: Changes): CarEvidence {
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
    lampStale: { registration: lampMs < changes.registrationMs, air: lampMs < changes.airMs },
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
