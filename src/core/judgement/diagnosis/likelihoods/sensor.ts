import type { Reply } from '../../../job';
import { isRightType } from '../../../sensor/type';
import type { Context, PositionEvidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import { normalDensity } from '../../../measure/normal';
import type { Priors } from '../learning';
import { bit, causeIndex } from '../hypotheses';
import { heldFactors, type HeldAssumptions } from './held';

/** What was seen of a wheel that its sensor's states rest on. */
export const sensorParts = [
  'signs',
  'misses',
  'missedBefore',
  'replies',
  'ageYears',
  'recordedId',
] as const satisfies (keyof WheelEvidence)[];
type SensorSeen = Pick<WheelEvidence, (typeof sensorParts)[number]>;

/** What the car says of hearing a sensor at a position. */
export const hearingParts = [
  'held',
  'shown',
  'empty',
  'battery',
  'codes',
  'noCodes',
] as const satisfies (keyof PositionEvidence)[];
type HearingSeen = Pick<PositionEvidence, (typeof hearingParts)[number]>;

/** What is assumed of the car while the states of one of its sensors are worked out. */
export interface SensorAssumptions extends HeldAssumptions {
  /** The car hears nothing: its receiver is at fault, or it has not heard the sensors since a relearn. */
  deaf: boolean;
  /** Share of check-ins that get through on this drive, whatever the sensor. */
  driveQuality: number;
  /** Check-ins counted of this sensor over that drive. */
  checkIns: { id: string; expected: number; received: number } | undefined;
}

/** What a sensor's figures are to the tire: none at all, those the tool had, or those the car has too. */
export const figureKinds = ['none', 'tool', 'car'] as const;
export type Figures = (typeof figureKinds)[number];
const [noFigures, toolFigures, carFigures] = [0, 1, 2];

/**
 * Takes one way a sensor can be: its weight, the bits of its findings, the cause it gives the lamp
 * (malfunction, intermittent, or nothing that would outdo what the pressure gives cause to), and the place of
 * its figures in `figureKinds`. Whether it reads as it should is weighed with the tire.
 */
export interface SensorSink {
  add: (weight: number, findings: number, cause: number, figures: number) => void;
}

/** The ways the sensor of a wheel can be, if the car has the wheel at this position. */
export function sensorStates(
  context: Context,
  priors: Priors,
  wheel: SensorSeen,
  position: HearingSeen,
  assumed: SensorAssumptions,
  sink: SensorSink,
  tool: Answers = answersOf(context, priors, wheel, assumed.own),
): void {
  const held = heldFactors(context, wheel, position, assumed);
  const { malfunction } = causeIndex;
  const unheard = unheardFactor(position, assumed);
  const heard = heardFactor(position);
  // A sensor that is gone checks in nowhere.
  const absence = unheard * (assumed.checkIns && assumed.checkIns.received > 0 ? model.hearing.ghost : 1);
  const neverLow = codeFactor(position, 'low-battery', false);
  const dead = tool.dead * Math.max(neverLow, saysLow(position) ? model.codes.lowThenDead : 0);
  const absent = tool.absent * neverLow;
  if (dead > 0) sink.add(dead * held.gone * absence, bit['sensor-silent'], malfunction, noFigures);
  if (absent > 0) sink.add(absent * held.never * absence, bit['sensor-absent'], malfunction, noFigures);

  // Where the car holds another set, none of those on it is registered.
  const unknown = assumed.otherSet ? 1 : priors.of['id-not-registered'];
  const unregistered = unknown * held.unregistered * unheard;
  const mistyped = priors.of['id-mistyped'] * held.mistyped * unheard;
  const registered = (1 - priors.of['id-not-registered'] - priors.of['id-mistyped']) * held.registered;
  for (let kind = 0; kind < 2; kind += 1) {
    const isIntermittent = kind === 1;
    const reception =
      chance(priors.of['sensor-intermittent'], isIntermittent) * checkInFactor(assumed, isIntermittent);
    const usual = isIntermittent ? causeIndex.intermittent : causeIndex.nothing;
    for (const { weight, findings: ofAnswers, isEnding, isWrong } of tool.alive) {
      const base = weight * reception * codeFactor(position, 'low-battery', isEnding);
      if (base === 0) continue;
      const findings = ofAnswers | (isIntermittent ? bit['sensor-intermittent'] : 0);
      if (unregistered > 0)
        sink.add(base * unregistered, findings | bit['id-not-registered'], malfunction, toolFigures);
      if (mistyped > 0) sink.add(base * mistyped, findings | bit['id-mistyped'], malfunction, toolFigures);
      if (registered === 0) continue;
      if (isWrong) {
        sink.add(base * registered * unheard, findings, malfunction, toolFigures);
        continue;
      }
      const { intermittent, ending, sound } = model.hearing;
      const hears = assumed.deaf ? 0 : isIntermittent ? intermittent : isEnding ? ending : sound;
      const byCar = base * registered * hears * heard * flagFactor(position, isEnding);
      const byTool = base * registered * (1 - hears) * unheard;
      const asFault = isEnding ? model.endingIsMalfunction : 0;
      if (asFault > 0) {
        sink.add(byCar * asFault, findings, malfunction, carFigures);
        sink.add(byTool * asFault, findings, malfunction, toolFigures);
      }
      sink.add(byCar * (1 - asFault), findings, usual, carFigures);
      sink.add(byTool * (1 - asFault), findings, usual, toolFigures);
    }
  }
}

const saysLow = ({ codes }: HearingSeen): boolean => codes.some(({ about }) => about === 'low-battery');

const chance = (prior: number, is: boolean): number => (is ? prior : 1 - prior);

/** What the tool and the eye say of the sensor in a wheel, wherever the car has it. */
export interface Answers {
  dead: number;
  absent: number;
  alive: { isEnding: boolean; isWrong: boolean; findings: number; weight: number }[];
}

/** Prior times likelihood of the tries, the reply and the stem, by condition. */
export function answersOf(
  context: Context,
  priors: Priors,
  wheel: SensorSeen,
  own: Reply | undefined,
): Answers {
  const { dead, ending } = priors.battery(wheel.ageYears);
  const absent =
    wheel.recordedId === undefined
      ? priors.of['sensor-absent']
      : priors.of['sensor-absent'] * model.held.recordDoubted;
  const alive = Math.max(0, 1 - dead - absent);
  const stems = stemFactors(wheel);
  // A sensor that answered once and has not since may have died in between.
  const died = wheel.misses.length > 0 ? model.answers.diedSince : 0;
  return {
    dead: dead * stems.dead * (own ? died : 1),
    absent: own ? 0 : absent * stems.absent,
    alive: [false, true].flatMap((isEnding) =>
      [false, true].map((isWrong) => ({
        isEnding,
        isWrong,
        findings: (isEnding ? bit['sensor-battery-low'] : 0) | (isWrong ? bit['sensor-wrong-type'] : 0),
        weight:
          alive *
          chance(ending, isEnding) *
          chance(priors.of['sensor-wrong-type'], isWrong) *
          stems.alive *
          missFactor(missesOf(wheel, own), isEnding, isWrong) *
          replyFactor(context, wheel, own, isEnding, isWrong),
      })),
    ),
  };
}

/** How each kind of stem speaks for a living, a dead and no sensor. */
function stemFactors({ signs }: SensorSeen): { alive: number; dead: number; absent: number } {
  const { rubber, metal, damaged } = model.stems;
  const factors = { alive: 1, dead: 1, absent: 1 };
  const times = (alive: number, dead: number, absent: number) => {
    factors.alive *= alive;
    factors.dead *= dead;
    factors.absent *= absent;
  };
  if (signs.includes('stem-rubber')) times(rubber.withSensor, rubber.withSensor, rubber.without);
  if (signs.includes('stem-metal')) times(metal.withSensor, metal.withSensor, metal.without);
  if (signs.includes('stem-damaged')) times(damaged.alive, damaged.dead, damaged.alive);
  return factors;
}

/** The tries it was silent to: also those before another wheel's sensor was heard in its place. */
const missesOf = ({ misses, missedBefore }: SensorSeen, own: Reply | undefined): SensorSeen['misses'] =>
  own ? misses : [...missedBefore, ...misses];

/** Likelihood of the silent tries of a living sensor. */
function missFactor(misses: SensorSeen['misses'], isEnding: boolean, isWrong: boolean): number {
  const { answers } = model;
  let factor = 1;
  misses.forEach((trigger, place) => {
    const first = answers[trigger];
    const before = misses.indexOf(trigger);
    const answer =
      place === 0 ? first : Math.min(first, before < place ? answers.againSame : answers.againOther);
    factor *= 1 - answer * (isEnding ? answers.endingBattery : 1) * (isWrong ? answers.wrongType : 1);
  });
  return factor;
}

/** Likelihood of what the sensor's own reply says of itself. Its pressure belongs to the tire. */
function replyFactor(
  { job }: Context,
  wheel: SensorSeen,
  own: Reply | undefined,
  isEnding: boolean,
  isWrong: boolean,
): number {
  const { replies, answers } = model;
  if (!own) {
    // Replies came, all from elsewhere: this one missed its try.
    return wheel.replies.length > 0 ? 1 - answers.pulsed * (isEnding ? answers.endingBattery : 1) : 1;
  }
  let factor = answers.pulsed * (isEnding ? answers.endingBattery : 1) * (isWrong ? answers.wrongType : 1);
  if (own.battery) {
    const flagged = isEnding ? replies.lowFlagEnding : replies.lowFlagSound;
    factor *= own.battery === 'low' ? flagged : 1 - flagged;
  }
  if (own.rssiDbm !== undefined) {
    const { strengthDbm, endingDbm, badPlace } = replies;
    const sound = normalDensity(own.rssiDbm - strengthDbm.sound, strengthDbm.sd ** 2);
    const weak = normalDensity(own.rssiDbm - endingDbm.mean, endingDbm.sd ** 2);
    const weakShare = isEnding ? replies.endingIsWeak : badPlace;
    factor *= (1 - weakShare) * sound + weakShare * weak;
  }
  const isRight = isRightType(job.vehicle.tpms, own);
  if (isRight !== undefined) {
    const other = isWrong ? replies.otherCarrierWrong : replies.otherCarrierRight;
    factor *= isRight ? 1 - other : other;
  }
  return factor;
}

/** Likelihood of what the car has of the battery of a sensor it hears. */
function flagFactor({ battery }: HearingSeen, isEnding: boolean): number {
  if (battery === undefined) return 1;
  const flagged = isEnding ? model.replies.lowFlagEnding : model.replies.lowFlagSound;
  return battery === 'low' ? flagged : 1 - flagged;
}

/** Likelihood of the empty figures and codes of a position whose sensor the car hears. Its figures belong to the tire. */
function heardFactor(position: HearingSeen): number {
  const there = position.shown.length > 0 ? 1 - model.hearing.emptyDriving.heard : 1;
  return there * emptyFactor(position, 'heard') * codeFactor(position, 'no-signal', false);
}

/** Likelihood of what is seen of a position whose sensor the car does not hear: a figure that is there all the same is an old one. */
function unheardFactor(position: HearingSeen, { deaf }: Pick<SensorAssumptions, 'deaf'>): number {
  const figures =
    (model.hearing.stale / model.noise.anyKPa) ** position.shown.length *
    (position.battery === undefined ? 1 : model.hearing.stale);
  const blamed = deaf
    ? codeChance(position, 'no-signal', model.codes.deafBlamesSensor)
    : codeFactor(position, 'no-signal', true);
  return emptyFactor(position, 'unheard') * figures * blamed;
}

function emptyFactor({ empty }: HearingSeen, heard: 'heard' | 'unheard'): number {
  const { emptyDriving, emptyParked, emptyDisplay, blankDisplay } = model.hearing;
  let factor = 1;
  for (const where of empty) {
    factor *= { driving: emptyDriving, parked: emptyParked, display: emptyDisplay, blank: blankDisplay }[
      where
    ][heard];
  }
  return factor;
}

/** Likelihood of the codes about this, or of there being none, if its cause is there and if it is not. */
export const codeFactor = (
  position: HearingSeen,
  about: PositionEvidence['codes'][number]['about'],
  cause: boolean,
): number => codeChance(position, about, cause ? model.codes[about].cause : model.codes[about].none);

function codeChance(
  { codes, noCodes }: HearingSeen,
  about: PositionEvidence['codes'][number]['about'],
  present: number,
): number {
  if (codes.length === 0 && !noCodes) return 1;
  const code = codes.find((candidate) => candidate.about === about);
  if (code) return present ** code.weight;
  return noCodes ? 1 - present : 1;
}

/** Likelihood of the check-ins counted: beta-binomial, by what gets through on this drive. */
function checkInFactor({ checkIns, driveQuality }: SensorAssumptions, isIntermittent: boolean): number {
  if (!checkIns) return 1;
  const { a, b } = isIntermittent ? model.reception.intermittent : model.reception.sound;
  const size = a + b;
  const share = (a / size) * driveQuality;
  // Beyond so many the counts say no more about a sensor than the spread between sensors leaves open.
  const scale = Math.min(1, mostCounted / checkIns.expected);
  const expected = Math.round(checkIns.expected * scale);
  const received = Math.min(expected, Math.round(checkIns.received * scale));
  let likelihood = 1;
  for (let n = 0; n < expected; n += 1) {
    const got = n < received;
    likelihood *= (got ? share * size + n : (1 - share) * size + n - received) / (size + n);
    if (got) likelihood *= (expected - n) / (received - n);
  }
  return likelihood;
}

const mostCounted = 200;
