import type { Measured, PositionEvidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import { normalDensity } from '../../../measure/normal';

/** The figures that speak of a tire: which of them do as it stands now, and how likely they are if so. */

/** What was seen of a wheel that its tire's states rest on. */
export const tireParts = [
  'wheel',
  'gauge',
  'stopDoubtKPa',
  'replyDoubtKPa',
  'gaugeBeforeScan',
  'beforeFill',
  'filledMs',
  'filledNow',
  'gaugeIsOld',
  'scannedFirst',
  'leak',
  'replies',
] as const satisfies (keyof WheelEvidence)[];
/** Its placard and its lines are the car's, whatever was seen. */
export type TireSeen = Pick<WheelEvidence, (typeof tireParts)[number] | 'placardKPa' | 'lines' | 'bands'>;

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
}

/** One way the figures hang together: which of them speak of the tire as it stands now. */
export interface Reading {
  weight: number;
  gauge: Measured | undefined;
  sensor: Measured | undefined;
  /** The sensor against an earlier gauge reading, kPa, where that is what it speaks of. */
  earlier: { differenceKPa: number; variance: number } | undefined;
  /** What the sensor says whatever the tire stands at, kPa, where it is stuck. */
  stuckAtKPa?: number;
}

/** Every way they may. `offsetVariance`: of what a sensor is off by. */
export function readingsOf(wheel: TireSeen, assumed: FigureAssumptions, offsetVariance: number): Reading[] {
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

/** The gauge read this tire; or its figure has nothing to do with it, or is of before a fill that nobody wrote down. */
function gaugesOf({ gauge, gaugeIsOld }: TireSeen): { weight: number; gauge: Measured | undefined }[] {
  if (!gauge) return [{ weight: 1, gauge: undefined }];
  const filled = gaugeIsOld ? model.noise.filledBetweenStops : 0;
  return [
    { weight: 1 - gauge.slip - filled, gauge },
    { weight: (gauge.slip + filled) / model.noise.anyKPa, gauge: undefined },
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
  { shown }: FigureAssumptions,
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
  return [fresh, { weight: kept, figures: [], ofAny: kept, all: [] }];
}

/** Likelihood of these figures if the car kept them from long before: then they say nothing of the tire. */
const keptFactor = (shown: PositionEvidence['shown']): number =>
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
