import type { DamageSign } from '../../names/kinds';
import { recordOf, type FindingCode } from '.';

/** A finding that holds, as advice goes by it. */
interface Holding {
  code: FindingCode;
  wheels: readonly string[];
}

/** What was seen at the wheels a finding is about, of all that should be where it names none. */
export interface SeenThere {
  /** The sensors have answered, so that there are IDs to send. */
  isHeard: boolean;
  /** Somebody tried to wake them. */
  isWoken: boolean;
  isGauged: boolean;
  /** One of the tires stood nearly flat, and nobody has looked into it since. */
  isNearFlat: boolean;
  /** What was seen of the tires that nobody has said anything of since. */
  signs: readonly DamageSign[];
}
const all: SeenThere = { isHeard: true, isWoken: true, isGauged: true, isNearFlat: false, signs: [] };

/**
 * What to do about a finding, beside what else holds: one piece of advice never speaks against another, and none asks for
 * what was done. `holding`: all that holds; of the same wheels, or of the car.
 */
export function adviceOn(
  { code, wheels }: Holding,
  holding: readonly Holding[],
  seen: SeenThere = all,
): string {
  const { action, remedy } = recordOf(code);
  const holds = (other: FindingCode) =>
    holding.some(
      (found) =>
        found.code === other &&
        (found.wheels.length === 0 ||
          wheels.length === 0 ||
          wheels.every((wheel) => found.wheels.includes(wheel))),
    );
  if (code === 'tire-low' || code === 'tire-leaking') {
    if (holds('tire-hot') && (code === 'tire-low' || holds('tire-low'))) return hotAndLow;
    if (seen.isNearFlat) return nearFlat;
    const [sign] = code === 'tire-leaking' ? seen.signs : [];
    if (sign && !holds('tire-hot')) return ofSign[sign];
  }
  for (const [other, instead] of Object.entries(beside[code] ?? {}))
    if (holds(other as FindingCode)) return instead;
  const gauging = gaugeFirst[code];
  if (gauging !== undefined && !seen.isGauged) return gauging;
  if (remedy === 'write' && !seen.isHeard) return seen.isWoken ? silentFirst : wakeFirst;
  // Nothing is sent to a module whose supply may give way under it.
  return remedy === 'write' && holds('supply-voltage-low')
    ? `With the supply put right first. ${action}`
    : action;
}

const wakeFirst = 'Wake the wheels first: what they answer is what the car is taught.';
const silentFirst = 'Put right first what does not answer clearly; then register what the wheels answer.';
const hotAndLow =
  'Let it cool. Rolled low and hot it comes off the rim and is looked at inside before air goes in; then find out why it was low.';
const nearFlat =
  'Off the rim and looked at inside before air goes in: it stood nearly flat. Then find the leak, repair it and fill to placard.';

/** Where to look first, by what was seen. */
const ofSign: Record<DamageSign, string> = {
  flat: nearFlat,
  object:
    'Soapy water on what sits in the tread first: where it leaks, draw it out and repair, then fill to placard.',
  sidewall: 'A hurt sidewall is not repaired: replace the tire.',
  'stem-damaged': 'Renew the stem, then fill to placard and look for bubbles.',
};

/** Of a tire that nobody gauged. */
const gaugeFirst: Partial<Record<FindingCode, string>> = {
  'tire-low': 'Gauge it, look for the leak, then fill to placard.',
  'tire-underinflated': 'Gauge it, then fill to the figure under "set now".',
  'tire-overinflated': 'Gauge it, cold, before anything is let out.',
};

/** What is said instead, where the other one holds too; the first that does. */
const beside: Partial<Record<FindingCode, Partial<Record<FindingCode, string>>>> = {
  'tire-low': {
    'tire-leaking': 'Fill it to find the leak. Repair, then fill to placard.',
    'temperature-drop': 'The cold explains it: fill to placard and read again.',
  },
  'tire-underinflated': {
    'tire-hot': 'Let it cool, read it again cold, then fill to placard.',
    'tire-leaking': 'Fill to placard, find the leak and repair it before the car leaves.',
  },
  'tire-overinflated': {
    'tire-hot': 'It reads high because it is hot: let it cool and read again. Let nothing out.',
  },
  'tire-leaking': {
    'tire-hot':
      'Let it cool before anything is done to it. Then fill it and find the leak: tread, bead, valve core, stem.',
  },
  'id-not-registered': {
    'sensor-wrong-type':
      'Register nothing: the car cannot hear this sensor. Fit one of its family, and register that.',
    'other-set-registered': 'Register the IDs of the set that is on the car.',
    'cross-read': 'Wake the wheel again first: what was heard may be another wheel’s.',
  },
  'id-mistyped': {
    'sensor-wrong-type':
      'Register nothing: the car cannot hear this sensor. Fit one of its family, and register that.',
  },
  'positions-swapped': {
    'other-set-registered': 'Register the IDs of the set that is on the car, each at its wheel.',
  },
  'sensor-silent': {
    'cross-read': 'Wake it once more with the other wheels away; if nothing answers, replace the sensor.',
    'receiver-fault': 'Check the receiver first, then wake the sensor once more.',
  },
  'sensor-battery-low': {
    'sensor-wrong-type': 'It is the wrong sensor as well: fit one of the car’s frequency and family.',
  },
  'sensor-inaccurate': {
    'sensor-wrong-type': 'It is the wrong sensor as well: fit one of the car’s frequency and family.',
  },
  'lamp-latched': {
    'tire-low': 'Fill all tires to placard, not just over the line.',
  },
  'baseline-not-set': {
    'wheel-speed-sensor-fault':
      'Mend the wheel-speed sensor first. Then set all tires to placard cold, reset the system and drive.',
  },
};
