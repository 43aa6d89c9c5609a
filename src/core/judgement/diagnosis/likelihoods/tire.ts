import type { PositionEvidence } from '../evidence';
import { model } from '../model';
import { normalBelow, normalDensity } from '../../../measure/normal';
import { type Emit, bit, causeIndex, zeros } from '../hypotheses';
import { type FigureAssumptions, type Reading, type TireSeen, readingsOf } from './readings';

/** What the car says of a tire at a position. */
export const shownParts = ['shown', 'codes', 'noCodes'] as const satisfies (keyof PositionEvidence)[];

/** What is assumed while the states of a tire are worked out. */
export interface TireAssumptions extends FigureAssumptions {
  /** All tires went with the temperature since the last fill. */
  cooled: boolean;
  leakingPrior: number;
}

/**
 * The ways a tire can stand, each with its weight: its pressure by where it lies between the lines, whether
 * it leaks, whether it went with the cold. The pressure itself and the sensor's error are normal given how
 * the tire was kept, so they are integrated in closed form. Within one such way the place of the pressure,
 * the error of a sensor that is off, and what the lamp makes of its figure are taken as independent.
 */
export function tireStates(wheel: TireSeen, assumed: TireAssumptions, emit: Emit): void {
  const places = placesOf(wheel, assumed);
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
function placesOf(wheel: TireSeen, assumed: FigureAssumptions): number[][] {
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
function fatesOf({ leak, filledNow }: TireSeen, assumed: TireAssumptions): Fates[] {
  const { kept, slack, over, neglected, cooled } = model.standing;
  const wentWithIt = assumed.cooled && assumed.cooledToKPa !== undefined;
  const leaking = assumed.leakingPrior * leak.leaking;
  const sound = (1 - assumed.leakingPrior) * leak.sound;
  const share = wentWithIt ? 1 - cooled.share : 1;
  if (filledNow) {
    // Filled, a tire that leaks stands where any other does.
    return [
      [sound * share * kept.share, leaking * kept.share, 0],
      [sound * share * slack.share, leaking * slack.share, 0],
      [sound * share * over.share, leaking * over.share, 0],
      [sound * neglected.share, leaking * neglected.share, 0],
      [0, 0, wentWithIt ? sound * cooled.share * (1 - neglected.share) : 0],
    ];
  }
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
