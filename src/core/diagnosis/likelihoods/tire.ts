import type { Measured, PositionEvidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import { normalBelow, normalDensity } from '../../normal';
import { type Emit, bit, causeIndex, zeros } from '../hypotheses';

/** What was seen of a wheel that its tire's states rest on. */
export type TireSeen = Pick<
  WheelEvidence,
  | 'placardKPa'
  | 'lines'
  | 'bands'
  | 'gauge'
  | 'stopDoubtKPa'
  | 'replyDoubtKPa'
  | 'gaugeBeforeScan'
  | 'beforeFill'
  | 'filledMs'
  | 'scannedFirst'
  | 'leak'
>;
/** What the car says of a tire at a position. */
export type ShownSeen = Pick<PositionEvidence, 'shown' | 'codes' | 'noCodes'>;

/** What is assumed while the states of a tire are worked out. */
export interface TireAssumptions extends FigureAssumptions {
  /** All tires went with the temperature since the last fill. */
  cooled: boolean;
  leakingPrior: number;
}

/** What is assumed of the figures that speak of a tire. */
export interface FigureAssumptions {
  /** The sensor reads as it should, or is off by anything. */
  accuracy: 'sound' | 'off';
  /** About what the tire stands at, kPa, if it went with the temperature since the last fill; undefined: that explains nothing. */
  cooledToKPa: number | undefined;
  /** What the sensor said to the tool, kPa at now. */
  replyKPa: number | undefined;
  /** What the car shows of this sensor. */
  shown: PositionEvidence['shown'];
  /** It does not show figures of long before. */
  noneKept?: boolean;
}

/**
 * The ways a tire can stand, each with its weight: its pressure by where it lies between the lines, whether
 * it leaks, whether it went with the cold. The pressure itself and the sensor's error are normal given how
 * the tire was kept, so they are integrated in closed form. Within one such way the place of the pressure,
 * the error of a sensor that is off, and what the lamp makes of its figure are taken as independent.
 */
export function tireStates(
  wheel: TireSeen,
  assumed: TireAssumptions,
  emit: Emit,
  places: Places = placesOf(wheel, assumed),
): void {
  const isOff = assumed.accuracy === 'off';
  const figures = isOff ? offFigures : 1;
  const sums = zeros(fateFindings.length * wheel.bands.length * figures);
  fatesOf(wheel, assumed).forEach((fates, curve) => {
    const shares = places[curve] ?? [];
    for (let fate = 0; fate < fates.length; fate += 1) {
      const weight = fates[fate] ?? 0;
      if (weight <= 0) continue;
      const from = fate * shares.length;
      for (let at = 0; at < shares.length; at += 1)
        sums[from + at] = (sums[from + at] ?? 0) + weight * (shares[at] ?? 0);
    }
  });
  let at = 0;
  const give: Emit = (weight, findings, cause) => {
    if (weight > 0) emit(weight, findings, cause);
  };
  for (const ofFate of fateFindings) {
    for (const band of wheel.bands) {
      const findings = band.findings | ofFate;
      if (!isOff) give(sums[at++] ?? 0, findings, band.cause);
      else {
        for (const cause of offCauses) {
          give(sums[at++] ?? 0, findings, cause);
          give(sums[at++] ?? 0, findings | bit['sensor-inaccurate'], cause);
        }
      }
    }
  }
}

/**
 * By the curve its pressure follows: how much of the likelihood of the figures lies at each place between the
 * lines, and there at each thing the figure of a sensor that is off comes to.
 */
export type Places = readonly (readonly number[])[];

export function placesOf(wheel: TireSeen, assumed: FigureAssumptions): number[][] {
  const isOff = assumed.accuracy === 'off';
  const offsetVariance = (isOff ? model.inaccuracy.sdKPa : model.noise.sensorKPa) ** 2;
  const readings = readingsOf(wheel, assumed, offsetVariance);
  // Filled anew for each curve and reading: this is gone through more often than anything else.
  const belief: Belief = { mean: 0, variance: 0, evidence: 0, gaugedMean: 0, gaugedVariance: 0 };
  const doubt = wheel.stopDoubtKPa ** 2;
  const off: Off | undefined = isOff ? { outside: 0, low: 0, between: 0 } : undefined;
  return curvesOf(wheel, assumed).map((curve) => {
    const shares = zeros(wheel.bands.length * (isOff ? offFigures : 1));
    for (const reading of readings) {
      combine(curve, reading, offsetVariance, doubt, belief);
      if (belief.evidence <= 0) continue;
      if (off) readOff(wheel, belief, reading, offsetVariance, off);
      spread(wheel, belief, off, shares);
    }
    return shares;
  });
}

/** What became of a tire, in findings: nothing, a leak, or the way of all of them in the cold. */
const fateFindings = [0, bit['tire-leaking'], bit['temperature-drop']] as const;
type Fates = readonly [sound: number, leaking: number, cooled: number];

/** What the figure of a sensor that is off gives the lamp cause for; each within its tolerance, and outside. */
const offCauses = [causeIndex.nothing, causeIndex['between-on-and-off'], causeIndex.low] as const;
const offFigures = 2 * offCauses.length;

/** A normal curve of a tire's pressure. */
interface Curve {
  meanKPa: number;
  variance: number;
}

/** How a tire may have been kept: the mixture of the model. */
function curvesOf({ placardKPa }: TireSeen, { cooledToKPa }: FigureAssumptions): Curve[] {
  const { kept, slack, over, neglected, cooled } = model.standing;
  const placard = placardKPa ?? model.unknownPlacard.usualKPa;
  const doubt = placardKPa === undefined ? model.unknownPlacard.sdKPa ** 2 : 0;
  const about = (meanKPa: number, sdKPa: number) => ({ meanKPa, variance: sdKPa ** 2 + doubt });
  return [
    about(placard + kept.offsetKPa, kept.sdKPa),
    about(placard + slack.offsetKPa, slack.sdKPa),
    about(placard + over.offsetKPa, over.sdKPa),
    about(neglected.ofPlacard * placard, neglected.sdOfPlacard * placard),
    ...(cooledToKPa === undefined ? [] : [about(cooledToKPa + cooled.offsetKPa, cooled.sdKPa)]),
  ];
}

/** The weight of what may have become of a tire, by curve: with what was read over time and seen by eye. */
function fatesOf({ leak }: TireSeen, assumed: TireAssumptions): Fates[] {
  const { kept, slack, over, neglected, cooled } = model.standing;
  const wentWithIt = assumed.cooled && assumed.cooledToKPa !== undefined;
  const leaking = assumed.leakingPrior * leak.leaking;
  const sound = (1 - assumed.leakingPrior) * leak.sound;
  const share = wentWithIt ? 1 - cooled.share : 1;
  const stillFull = leaking * model.faults.tire.leakStillFull;
  return [
    [sound * share * kept.share, stillFull / 2, 0],
    [sound * share * slack.share, stillFull / 2, 0],
    [sound * share * over.share, 0, 0],
    // The neglected and the leaking stand alike: one reading does not tell a leak. The cold spares neither.
    [sound * neglected.share, leaking - stillFull, 0],
    [0, 0, wentWithIt ? sound * cooled.share * (1 - neglected.share) : 0],
  ];
}

/** One way the figures hang together: which of them speak of the tire as it stands now. */
interface Reading {
  weight: number;
  gauge: Measured | undefined;
  sensor: Measured | undefined;
  /** The sensor against an earlier gauge reading, kPa, where that is what it speaks of. */
  earlier: { differenceKPa: number; variance: number } | undefined;
  /** What the sensor says whatever the tire stands at, kPa, where it is stuck. */
  stuckAtKPa?: number;
}

function readingsOf(wheel: TireSeen, assumed: FigureAssumptions, offsetVariance: number): Reading[] {
  const readings: Reading[] = [];
  const gauges = gaugesOf(wheel);
  const scans = scansOf(wheel, assumed.replyKPa, offsetVariance);
  for (const show of showsOf(wheel, assumed, offsetVariance)) {
    const stuck = assumed.accuracy === 'off' ? stuckOf(wheel, assumed.replyKPa, show.all) : undefined;
    const speaks = stuck ? 1 - model.inaccuracy.stuck.share : 1;
    for (const scan of scans) {
      const { figure: sensor, agreement } = joint(scan.reply, show.figures);
      const weight = speaks * scan.weight * show.weight * agreement;
      for (const read of gauges)
        readings.push({ weight: read.weight * weight, gauge: read.gauge, sensor, earlier: scan.earlier });
    }
    if (!stuck) continue;
    const weight = show.ofAny * stuck.weight;
    for (const read of gauges)
      readings.push({
        weight: read.weight * weight,
        gauge: read.gauge,
        sensor: undefined,
        earlier: undefined,
        stuckAtKPa: stuck.kPa,
      });
  }
  return readings;
}

/** A sensor that says the same whatever the tire stands at, and how likely that figure is; undefined where it says none. */
function stuckOf(
  { placardKPa }: TireSeen,
  replyKPa: number | undefined,
  shown: PositionEvidence['shown'],
): { kPa: number; weight: number } | undefined {
  const reply = replyKPa === undefined ? undefined : { kPa: replyKPa, sdKPa: model.noise.replyKPa };
  const { figure, agreement } = joint(reply, shown);
  if (!figure) return undefined;
  const { share, atOldFigure, oldFigureSdKPa, absurdUpToKPa } = model.inaccuracy.stuck;
  const old = figure.kPa - (placardKPa ?? model.unknownPlacard.usualKPa);
  const doubt = placardKPa === undefined ? model.unknownPlacard.sdKPa ** 2 : 0;
  const density =
    atOldFigure * normalDensity(old, oldFigureSdKPa ** 2 + doubt) + (1 - atOldFigure) / absurdUpToKPa;
  return { kPa: figure.kPa, weight: share * agreement * density };
}

/** The gauge read this tire; or its figure has nothing to do with it. */
function gaugesOf({ gauge }: TireSeen): { weight: number; gauge: Measured | undefined }[] {
  if (!gauge) return [{ weight: 1, gauge: undefined }];
  return [
    { weight: 1 - gauge.slip, gauge },
    { weight: gauge.slip / model.noise.anyKPa, gauge: undefined },
  ];
}

/** The tool heard the pressure of now; or that of before a fill, where the gauge was read before and after. */
function scansOf(
  { gaugeBeforeScan, scannedFirst, replyDoubtKPa }: TireSeen,
  replyKPa: number | undefined,
  offsetVariance: number,
): { weight: number; reply: Measured | undefined; earlier: Reading['earlier'] }[] {
  if (replyKPa === undefined) return [{ weight: 1, reply: undefined, earlier: undefined }];
  const reply = { kPa: replyKPa, sdKPa: Math.hypot(model.noise.replyKPa, replyDoubtKPa) };
  if (gaugeBeforeScan) {
    const variance = gaugeBeforeScan.sdKPa ** 2 + reply.sdKPa ** 2;
    const differenceKPa = reply.kPa - gaugeBeforeScan.kPa;
    return [
      { weight: 1 - model.noise.scanBeforeFill, reply, earlier: undefined },
      {
        weight: model.noise.scanBeforeFill * normalDensity(differenceKPa, variance + offsetVariance),
        reply: undefined,
        earlier: { differenceKPa, variance },
      },
    ];
  }
  if (!scannedFirst) return [{ weight: 1, reply, earlier: undefined }];
  const { filledUnseen, anyKPa } = model.noise;
  return [
    { weight: 1 - filledUnseen, reply, earlier: undefined },
    { weight: filledUnseen / anyKPa, reply: undefined, earlier: undefined },
  ];
}

/** One way the car's figures came about. */
interface Show {
  weight: number;
  /** Those that speak of the tire as it stands now. */
  figures: readonly Measured[];
  /** The weight whatever they are, and all that the sensor said: for one that says the same at any pressure. */
  ofAny: number;
  all: PositionEvidence['shown'];
}

/** The car's figures are of now, or of before the last fill; or they were kept from long before. */
function showsOf(
  { beforeFill, filledMs }: TireSeen,
  { shown, noneKept }: FigureAssumptions,
  offsetVariance: number,
): Show[] {
  if (shown.length === 0) return [{ weight: 1, figures: shown, ofAny: 1, all: shown }];
  let then = 1;
  for (const figure of shown) {
    if (figure.ms >= filledMs) continue;
    const read = beforeFill.findLast(({ ms }) => ms <= figure.ms) ?? beforeFill[0];
    then *= read
      ? normalDensity(figure.kPa - read.kPa, figure.sdKPa ** 2 + read.sdKPa ** 2 + offsetVariance)
      : 1 / model.noise.anyKPa;
  }
  const fresh = {
    weight: (1 - model.hearing.stale) * then,
    figures: shown.filter(({ ms }) => ms >= filledMs),
    ofAny: 1 - model.hearing.stale,
    all: shown,
  };
  const kept = keptFactor(shown);
  return noneKept ? [fresh] : [fresh, { weight: kept, figures: [], ofAny: kept, all: [] }];
}

/** Likelihood of these figures if the car kept them from long before: then they say nothing of the tire. */
export const keptFactor = (shown: PositionEvidence['shown']): number =>
  shown.length === 0 ? 1 : model.hearing.stale / model.noise.anyKPa ** shown.length;

/** Several figures of one sensor as one, and how well they agree (the density of their differences). */
function joint(
  reply: Measured | undefined,
  others: readonly Measured[],
): { figure: Measured | undefined; agreement: number } {
  let figure = reply;
  let agreement = 1;
  for (const next of others) {
    if (!figure) {
      figure = next;
      continue;
    }
    const a: number = figure.sdKPa ** 2;
    const b = next.sdKPa ** 2;
    agreement *= normalDensity(next.kPa - figure.kPa, a + b);
    figure = { kPa: (figure.kPa * b + next.kPa * a) / (a + b), sdKPa: Math.sqrt((a * b) / (a + b)) };
  }
  return { figure, agreement };
}

/** The tire's pressure given how it was kept and what was read, and how likely those readings were. */
interface Belief {
  mean: number;
  variance: number;
  evidence: number;
  /** By the gauge alone. */
  gaugedMean: number;
  gaugedVariance: number;
}

/** `doubt`: variance of what the temperature of the stop leaves open. The figures of one stop are held against one another without it. */
function combine(
  curve: Curve,
  { weight, gauge, sensor }: Reading,
  offsetVariance: number,
  doubt: number,
  belief: Belief,
): void {
  let mean = curve.meanKPa;
  const before = curve.variance + doubt;
  let variance = before;
  let evidence = weight;
  if (gauge) {
    const error = gauge.sdKPa ** 2;
    evidence *= normalDensity(gauge.kPa - mean, variance + error);
    mean += (variance / (variance + error)) * (gauge.kPa - mean);
    variance *= error / (variance + error);
  }
  belief.gaugedMean = mean;
  belief.gaugedVariance = variance;
  if (sensor) {
    const error = sensor.sdKPa ** 2 + offsetVariance;
    evidence *= normalDensity(sensor.kPa - mean, variance + error);
    mean += (variance / (variance + error)) * (sensor.kPa - mean);
    variance *= error / (variance + error);
  }
  const tells = curve.variance / before;
  belief.mean = curve.meanKPa + tells * (mean - curve.meanKPa);
  belief.variance = curve.variance * (1 - tells) + tells ** 2 * variance;
  belief.evidence = evidence;
}

/** Of a sensor that is off: the chance that it is off by more than counts, and what the lamp makes of its figure. */
interface Off {
  outside: number;
  low: number;
  between: number;
}

function readOff(
  { lines }: TireSeen,
  { gaugedMean, gaugedVariance }: Belief,
  { sensor, earlier, stuckAtKPa }: Reading,
  offsetVariance: number,
  off: Off,
): void {
  const limit = model.inaccuracy.moreThanKPa + model.noise.showsInStepsOfKPa / 2;
  if (stuckAtKPa !== undefined) {
    const apart = stuckAtKPa - gaugedMean;
    const gaugedSd = Math.sqrt(gaugedVariance);
    off.outside = 1 - normalBelow((limit - apart) / gaugedSd) + normalBelow((-limit - apart) / gaugedSd);
    off.low = stuckAtKPa <= lines.low ? 1 : 0;
    off.between = stuckAtKPa > lines.low && stuckAtKPa <= lines.off ? 1 : 0;
    return;
  }
  const difference = sensor ? sensor.kPa - gaugedMean : (earlier?.differenceKPa ?? 0);
  const error = sensor ? gaugedVariance + sensor.sdKPa ** 2 : (earlier?.variance ?? Number.POSITIVE_INFINITY);
  const gain = offsetVariance / (offsetVariance + error);
  const sd = Math.sqrt(offsetVariance * (1 - gain));
  off.outside =
    1 - normalBelow((limit - gain * difference) / sd) + normalBelow((-limit - gain * difference) / sd);
  // The lamp goes by the sensor's figure, not by the tire.
  const figure = gaugedVariance + offsetVariance;
  const heard = sensor ? figure / (figure + sensor.sdKPa ** 2) : 0;
  const figureMean = gaugedMean + heard * ((sensor?.kPa ?? 0) - gaugedMean);
  const figureSd = Math.sqrt(figure * (1 - heard));
  off.low = belowLine(lines.low, figureMean, figureSd);
  off.between = belowLine(lines.off, figureMean, figureSd) - off.low;
}

/** A line that is not known lies at minus or plus infinity. */
function belowLine(line: number, mean: number, sd: number): number {
  if (line === Number.NEGATIVE_INFINITY) return 0;
  return line === Number.POSITIVE_INFINITY ? 1 : normalBelow((line - mean) / sd);
}

/** Shares the weight out over the places between the lines, and over what the figure of a sensor that is off comes to. */
function spread(
  { bands }: TireSeen,
  { mean, variance, evidence }: Belief,
  off: Off | undefined,
  shares: number[],
): void {
  const sd = Math.sqrt(variance);
  let under = 0;
  for (let place = 0; place < bands.length; place += 1) {
    const below = belowLine(bands[place]?.upTo ?? 0, mean, sd);
    const share = evidence * (below - under);
    under = below;
    if (share <= 0) continue;
    if (off) addOff(shares, place * offFigures, share, off);
    else shares[place] = (shares[place] ?? 0) + share;
  }
}

function addOff(shares: number[], at: number, share: number, { outside, low, between }: Off): void {
  addFigure(shares, at, share * (1 - low - between), outside);
  if (between > 0) addFigure(shares, at + 2, share * between, outside);
  if (low > 0) addFigure(shares, at + 4, share * low, outside);
}

function addFigure(shares: number[], at: number, share: number, outside: number): void {
  shares[at] = (shares[at] ?? 0) + share * (1 - outside);
  shares[at + 1] = (shares[at + 1] ?? 0) + share * outside;
}
