import { findingCodes, type FindingCode } from '../assessment';
import type { Ledger } from '../ledger';
import { doublyRegistered } from '../registration';
import { inWalkingOrder, roadWheels, type Position } from '../wheel';
import type { Evidence } from './evidence';
import { model } from './model';
import { normalBelow } from './normal';
import type { Posterior } from './posterior';
import { wheelFindings, type WheelFinding } from './states';

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
}

/** Everything that may be said, in the order of the vocabulary and of the walk. */
export function claimsFrom(judgement: Judgement): Claim[] {
  const wheels = judgement.evidence.context.wheels;
  return findingCodes.flatMap((code) => {
    const of = ofCar.has(code)
      ? [undefined]
      : code === 'temperature-drop'
        ? inWalkingOrder(roadWheels)
        : wheels;
    return of.map((wheel) => ({ code, wheel, chance: chanceOf(judgement, code, wheel) }));
  });
}

/** Findings about the car, not about one of its wheels. */
const ofCar: ReadonlySet<FindingCode> = new Set([
  'other-set-registered',
  'receiver-fault',
  'system-disabled',
  'waiting-for-drive',
  'supply-voltage-low',
  'baseline-not-set',
  'wheel-speed-sensor-fault',
  'no-fault',
]);

const isOfWheel = (code: FindingCode): code is WheelFinding =>
  (wheelFindings as readonly string[]).includes(code);

/** The chance that a finding is true at a wheel; of the car where it is about the car. */
export function chanceOf(
  { evidence, ledger, posterior }: Judgement,
  code: FindingCode,
  wheel?: Position,
): number {
  const { context, car } = evidence;
  const { kind } = context.job.vehicle.tpms;
  const place = wheel ? context.wheels.indexOf(wheel) : -1;
  const monitored = evidence.wheels[place]?.monitored ?? false;
  switch (code) {
    case 'temperature-drop':
      return posterior.car('cooled');
    case 'lamp-latched':
      return car.lamp?.state === 'steady' ? posterior.wheel(code, place) : 0;
    case 'positions-swapped':
      return posterior.moved(place);
    case 'cross-read':
      return monitored ? posterior.misheard(place) : 0;
    case 'id-duplicate': {
      const held = wheel && doublyRegistered(ledger).some((wheels) => wheels.includes(wheel));
      return monitored ? Math.max(posterior.twin(place), held ? model.faults.asRead : 0) : 0;
    }
    case 'sensors-asleep':
      return monitored ? asleep(posterior, evidence, place) : 0;
    case 'other-set-registered':
      return posterior.car('otherSet');
    case 'receiver-fault':
      return posterior.car('receiverFault');
    case 'waiting-for-drive':
      return posterior.car('pending');
    case 'system-disabled':
      return kind === 'none' ? 0 : posterior.car('lampDark');
    case 'baseline-not-set':
      return posterior.car('baselineNotSet');
    case 'wheel-speed-sensor-fault':
      return posterior.car('wheelSpeedFault');
    case 'supply-voltage-low':
      return supplyLow(ledger);
    case 'no-fault':
      return allLookedAt(evidence, ledger) ? posterior.car('sound') * (1 - supplyLow(ledger)) : 0;
    default:
      return isOfWheel(code) && place >= 0 ? posterior.wheel(code, place) : 0;
  }
}

/** Nothing came from a wheel while the car stood, and nobody drove it since: the sensor sleeps, unless it is gone. */
function asleep({ wheel }: Posterior, { positions, wheels }: Evidence, place: number): number {
  const position = positions.find((candidate) => candidate.position === wheels[place]?.wheel);
  if (!position?.empty.includes('parked') || position.empty.includes('driving') || position.heardDriving)
    return 0;
  return model.faults.asRead * (1 - wheel('sensor-silent', place) - wheel('sensor-absent', place));
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
  const read = context.monitored.length === 0 || ledger.registry !== undefined;
  return gauged && woken && read && positions.every(({ empty }) => empty.length === 0);
}
