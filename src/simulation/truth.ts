import { findingCodes, type FindingCode } from '../core/catalogue/finding';
import { placardToleranceKPa } from '../core/job/placard';
import { wrongKPa } from '../core/sensor/agreement';
import { highLine, lowLine, saidBy, type TrueCar, type TrueWheel } from './car';
import type { Position } from '../core/names/wheel';

/**
 * What is true of a car, finding by finding, by what each is defined to be; and how the engine is scored on it.
 */
interface Truth {
  is: (car: TrueCar) => boolean | TrueWheel[];
  /** `fault`: a car that has it is not in order. `claim`: counts as right or wrong, but may be left. */
  scored: 'fault' | 'claim' | 'not';
}

/** A fact of a reading or a state of the visit: no claim about the car. */
const notSimulated: Truth = { is: () => false, scored: 'not' };

const direct =
  (is: (wheel: TrueWheel, car: TrueCar) => boolean): Truth['is'] =>
  (car) =>
    car.kind === 'direct' ? car.wheels.filter((wheel) => is(wheel, car)) : [];
const indirect =
  (is: (wheel: TrueWheel) => boolean): Truth['is'] =>
  (car) =>
    car.kind === 'indirect' ? car.wheels.filter(is) : [];
const tire =
  (is: (wheel: TrueWheel, car: TrueCar) => boolean): Truth['is'] =>
  (car) =>
    car.wheels.filter((wheel) => is(wheel, car));
const alive = (is: (wheel: TrueWheel) => boolean) => direct((wheel) => wheel.sensor === 'alive' && is(wheel));

const truths: Record<FindingCode, Truth> = {
  'tire-low': { is: tire((wheel, car) => wheel.kPa <= lowLine(wheel, car)), scored: 'fault' },
  'tire-underinflated': {
    is: tire(
      (wheel, car) => wheel.kPa > lowLine(wheel, car) && wheel.kPa < wheel.placardKPa - placardToleranceKPa,
    ),
    scored: 'claim',
  },
  'tire-overinflated': {
    is: tire((wheel, car) => wheel.kPa > highLine(wheel, car) && !wheel.spare),
    scored: 'fault',
  },
  'tire-hot': notSimulated,
  'tire-leaking': { is: tire(({ leaking }) => leaking), scored: 'claim' },
  'spare-in-use': { is: direct(({ spare }) => spare === true), scored: 'claim' },
  'temperature-drop': { is: direct((_, { cooled }) => cooled), scored: 'not' },
  'lamp-latched': notSimulated,
  'rolling-radius-off': { is: indirect(({ oddRadius }) => oddRadius), scored: 'claim' },
  'sensor-silent': { is: direct(({ sensor }) => sensor === 'dead'), scored: 'fault' },
  'sensor-absent': { is: direct(({ sensor, spare }) => sensor === 'absent' && !spare), scored: 'fault' },
  'sensor-battery-low': { is: alive(({ ending }) => ending), scored: 'claim' },
  'sensor-inaccurate': {
    is: alive((wheel) => Math.abs(saidBy(wheel) - wheel.kPa) > wrongKPa),
    scored: 'claim',
  },
  'sensor-wrong-type': { is: alive(({ wrongType }) => wrongType), scored: 'fault' },
  'sensor-intermittent': { is: alive(({ intermittent }) => intermittent), scored: 'claim' },
  'cross-read': notSimulated,
  'sensors-asleep': notSimulated,
  'id-not-registered': { is: alive(({ registration }) => registration === 'unregistered'), scored: 'fault' },
  'id-mistyped': { is: alive(({ registration }) => registration === 'mistyped'), scored: 'fault' },
  'id-duplicate': notSimulated,
  'positions-swapped': {
    is: direct((wheel, { wheelAt }) =>
      [...wheelAt].some(([position, there]) => there === wheel && position !== wheel.wheel),
    ),
    scored: 'fault',
  },
  'other-set-registered': { is: ({ otherSetHeld }) => otherSetHeld, scored: 'fault' },
  'receiver-fault': { is: ({ receiverFault }) => receiverFault, scored: 'fault' },
  'system-disabled': { is: ({ lampDark }) => lampDark, scored: 'fault' },
  'gauge-off': { is: ({ gaugeOffKPa }) => gaugeOffKPa !== undefined, scored: 'claim' },
  'waiting-for-drive': notSimulated,
  'supply-voltage-low': { is: () => false, scored: 'claim' },
  'baseline-not-set': { is: ({ baselineNotSet }) => baselineNotSet, scored: 'fault' },
  'wheel-speed-sensor-fault': { is: ({ wheelSpeedFault }) => wheelSpeedFault, scored: 'fault' },
  'no-fault': notSimulated,
};

/** The findings that are true of the car, each with its wheel where it has one. */
export function truthOf(car: TrueCar): { code: FindingCode; wheel?: Position }[] {
  return findingCodes.flatMap((code): { code: FindingCode; wheel?: Position }[] => {
    const is = truths[code].is(car);
    if (typeof is === 'boolean') return is ? [{ code }] : [];
    return is.map(({ wheel }) => ({ code, wheel }));
  });
}

/** Whether saying it counts, right or wrong. */
export const isClaim = (code: FindingCode): boolean => truths[code].scored !== 'not';

/** What must not be left: a car with one of these is not in order. A tire a little short may be. */
export const isWorthFinding = (code: FindingCode): boolean => truths[code].scored === 'fault';
