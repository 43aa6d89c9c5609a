import { holds } from '../../assessment';
import { findingCodes, recordOf, type FindingCode, type WheelFinding } from '../../../catalogue/finding';
import type { GaugeOff } from '../../../tire/gauge-off';
import { unexplainedDamage } from '../../../tire/damage';
import type { Ledger } from '../../../job/ledger';
import type { Standing } from '../../../tire/standing';
import { doublyRegistered, isWhollyRead } from '../../../car/registration';
import { spareOn } from '../../../job/spare';
import { chanceTooHot } from '../../../tire/temperature';
import { inWalkingOrder, roadWheels, type Position } from '../../../names/wheel';
import type { Evidence, WheelEvidence } from '../evidence';
import { model } from '../model';
import { normalBelow } from '../../../measure/normal';
import type { CarFact, Posterior } from '../inference';

/** Something that may be said of a wheel, or of the car where no wheel is named, with its chance. */
export interface Claim {
  code: FindingCode;
  wheel: Position | undefined;
  chance: number;
}

/** A judgement to ask about: what was seen, and what it comes to. */
export interface Judgement {
  evidence: Evidence;
  ledger: Ledger;
  posterior: Posterior;
  /** What was read with an instrument that is off is not among the evidence. */
  gaugeOff: GaugeOff | undefined;
}

/** Everything that may be said, in the order of the vocabulary and of the walk. */
export function claimsFrom(judgement: Judgement): Claim[] {
  const wheels = judgement.evidence.context.wheels;
  return findingCodes.flatMap((code) => {
    // The spare need not have gone with the cold.
    const of = code === 'temperature-drop' ? inWalkingOrder(roadWheels) : wheels;
    return (recordOf(code).scope === 'car' ? [undefined] : of).map((wheel) => ({
      code,
      wheel,
      chance: chanceOf(judgement, code, wheel),
    }));
  });
}

/** The chance that a finding is true at a wheel; of the car where it is about the car. */
export function chanceOf(judgement: Judgement, code: FindingCode, wheel?: Position): number {
  const { context, wheels } = judgement.evidence;
  const place = wheel ? context.wheels.indexOf(wheel) : -1;
  const { monitored = false, gaugesDisagree = false, standing } = wheels[place] ?? {};
  const chance = byStanding(code, standing, chances[code](judgement, place, monitored, wheel));
  return gaugesDisagree && restsOnGauge(code) ? Math.min(chance, sureOfTwoGauges) : chance;
}

/**
 * On which side of a line a tire stands is said by the gauge, and how surely by all that was seen: a cell that says "good"
 * and a finding that says "under placard" never stand side by side.
 */
function byStanding(code: FindingCode, standing: Standing | undefined, chance: number): number {
  const said = saidBy[code];
  if (!standing || !said) return chance;
  return said === standing ? Math.max(chance, holds) : Math.min(chance, justUnder);
}

const saidBy: Partial<Record<FindingCode, Standing>> = {
  'tire-low': 'low',
  'tire-underinflated': 'short',
  'tire-overinflated': 'too-high',
};

/** Told as possible, no more. */
const justUnder = holds - 0.01;

const restsOnGauge = (code: FindingCode): boolean =>
  recordOf(code).summedWith === 'tire' && code !== 'rolling-radius-off';

/** As long as two trusted gauges do not agree nothing of the tire is surer (judgement). */
const sureOfTwoGauges = 0.8;

/** Reads a chance off a judgement, at the wheel of this place in the evidence; -1 where it is about the car. */
type Chance = (
  judgement: Judgement,
  place: number,
  monitored: boolean,
  wheel: Position | undefined,
) => number;

const ofWheel =
  (code: WheelFinding): Chance =>
  ({ posterior }, place) =>
    place >= 0 ? posterior.wheel(code, place) : 0;
const ofCar =
  (fact: CarFact): Chance =>
  ({ posterior }) =>
    posterior.car(fact);
const whereMonitored =
  (chance: Chance): Chance =>
  (judgement, place, monitored, wheel) =>
    monitored ? chance(judgement, place, monitored, wheel) : 0;

/** How each finding is read off the judgement. */
const chances: Record<FindingCode, Chance> = {
  'tire-low': ofWheel('tire-low'),
  'tire-underinflated': ofWheel('tire-underinflated'),
  'tire-overinflated': ofWheel('tire-overinflated'),
  'tire-hot': ({ ledger }, _, __, wheel) => hot(ledger, wheel),
  'tire-leaking': ofWheel('tire-leaking'),
  'spare-in-use': ({ evidence }, _, __, wheel) => spareAt(evidence, wheel),
  'temperature-drop': ofCar('cooled'),
  'lamp-latched': ({ posterior, evidence }, place) =>
    evidence.car.lamp?.state === 'steady' && place >= 0 ? posterior.wheel('lamp-latched', place) : 0,
  'rolling-radius-off': ofWheel('rolling-radius-off'),
  'sensor-silent': ofWheel('sensor-silent'),
  'sensor-absent': ofWheel('sensor-absent'),
  'sensor-battery-low': ofWheel('sensor-battery-low'),
  'sensor-inaccurate': ofWheel('sensor-inaccurate'),
  'sensor-wrong-type': ofWheel('sensor-wrong-type'),
  'sensor-intermittent': ofWheel('sensor-intermittent'),
  'cross-read': whereMonitored(({ posterior }, place) => posterior.misheard(place)),
  'sensors-asleep': whereMonitored(asleep),
  'id-not-registered': ofWheel('id-not-registered'),
  'id-mistyped': ofWheel('id-mistyped'),
  'id-duplicate': whereMonitored(({ posterior, ledger }, place, _, wheel) => {
    const held = wheel && doublyRegistered(ledger).some((wheels) => wheels.includes(wheel));
    return Math.max(posterior.twin(place), held ? model.faults.asRead : 0);
  }),
  'positions-swapped': ({ posterior }, place) => posterior.moved(place),
  'other-set-registered': ofCar('otherSet'),
  'receiver-fault': ofCar('receiverFault'),
  'system-disabled': ({ posterior, evidence }) =>
    evidence.context.job.vehicle.tpms.kind === 'none' ? 0 : posterior.car('lampDark'),
  'gauge-off': ({ gaugeOff }) => gaugeOff?.chance ?? 0,
  'waiting-for-drive': ofCar('pending'),
  'supply-voltage-low': ({ ledger }) => supplyLow(ledger),
  'baseline-not-set': ofCar('baselineNotSet'),
  'wheel-speed-sensor-fault': ofCar('wheelSpeedFault'),
  'no-fault': ({ posterior, evidence, ledger, gaugeOff }) =>
    allLookedAt(evidence, ledger) && unexplainedDamage(evidence.context.job).length === 0
      ? Math.min(
          posterior.car('sound') *
            (1 - supplyLow(ledger)) *
            (1 - Math.max(...evidence.context.wheels.map((wheel) => hot(ledger, wheel)))) *
            (1 - (spareOn(evidence.context.job)?.chance ?? 0)) *
            (1 - (gaugeOff?.chance ?? 0)),
          1 - Math.max(...evidence.wheels.map(gaugedOutside)),
        )
      : 0,
};

function spareAt({ context }: Evidence, wheel: Position | undefined): number {
  const spare = spareOn(context.job);
  return spare?.wheel === wheel ? (spare?.chance ?? 0) : 0;
}

/** What a trusted gauge read last speaks against "in order", whatever else speaks for it. */
function gaugedOutside({ trustedGauge, lines }: WheelEvidence): number {
  if (!trustedGauge) return 0;
  const { kPa, sdKPa } = trustedGauge;
  const under = Math.max(lines.low, lines.short);
  return normalBelow((under - kPa) / sdKPa) + normalBelow((kPa - lines.over) / sdKPa);
}

/** Nothing came from a wheel while the car stood, and nobody drove it since: the sensor sleeps, unless it is gone. */
function asleep({ posterior: { wheel }, evidence: { positions, wheels } }: Judgement, place: number): number {
  const position = positions.find((candidate) => candidate.position === wheels[place]?.wheel);
  if (!position?.empty.includes('parked') || position.empty.includes('driving') || position.heardDriving)
    return 0;
  return model.faults.asRead * (1 - wheel('sensor-silent', place) - wheel('sensor-absent', place));
}

/** A sensor, as the tool or the car heard it last, says that its tire is too hot. */
function hot({ sensor, live }: Ledger, wheel: Position | undefined): number {
  const scan = wheel && sensor[wheel];
  return chanceTooHot(
    scan?.kind === 'heard' ? scan.reply.tempC : undefined,
    wheel && live[wheel]?.seen.tempC,
  );
}

function supplyLow({ voltage }: Ledger): number {
  if (voltage?.seen.engine !== 'off') return 0;
  const { leastVolts, meterVolts } = model.supply;
  return normalBelow((leastVolts - voltageStep / 2 - voltage.seen.volts) / meterVolts);
}

/** Meters show hundredths; 12.20 is not under 12.2. */
const voltageStep = 0.01;

/** "In order" is an answer only where everything was looked at, and nothing of it was left unheard. */
function allLookedAt({ context, wheels, positions, car }: Evidence, ledger: Ledger): boolean {
  if (car.lamp?.state !== 'off' || car.lamp.bulbCheck === false || ledger.codes.length > 0) return false;
  const gauged = wheels.every(({ gauge, placardKPa }) => gauge && placardKPa !== undefined);
  const woken = wheels.every(({ monitored, replies }) => !monitored || replies.length > 0);
  const read = isWhollyRead(context.job, ledger);
  return gauged && woken && read && positions.every(({ empty }) => empty.length === 0);
}
