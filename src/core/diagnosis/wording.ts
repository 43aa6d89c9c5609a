import type { Finding, FindingCode } from '../assessment';
import { listWheels } from '../wheel';

/** Findings that blame nothing: they stand behind the others wherever a few are shown. */
const calm: readonly FindingCode[] = ['no-fault', 'sensors-asleep', 'waiting-for-drive'];

export const isCalm = (code: FindingCode): boolean => calm.includes(code);

/** Findings in the order a person should read them: what needs a hand first, each part as sure as it was. */
export const toRead = (findings: readonly Finding[]): Finding[] =>
  [...findings].sort((a, b) => Number(isCalm(a.code)) - Number(isCalm(b.code)));

/** What a finding is called on the sheet, and what to do about it: one plain sentence each. */
export const wording: Record<FindingCode, { title: string; action: string }> = {
  'tire-low': {
    title: 'Tire low',
    action: 'Look for the leak, then fill to placard and read again.',
  },
  'tire-underinflated': {
    title: 'Short of placard',
    action: 'Fill to the figure under "set now" and read again.',
  },
  'tire-overinflated': {
    title: 'Over placard',
    action: 'Let the tire cool to the outdoor temperature, then let out to placard. Never bleed a hot tire.',
  },
  'tire-leaking': {
    title: 'Losing air',
    action: 'Find the leak with soapy water: tread, bead, valve core, stem. Repair before filling.',
  },
  'temperature-drop': {
    title: 'Down with the temperature',
    action: 'No leak: the weather explains it. Fill all tires to placard for the cold.',
  },
  'lamp-latched': {
    title: 'Lamp held on',
    action: 'Above the "on" figure, short of "off": fill to placard, not just over the line.',
  },
  'sensor-silent': {
    title: 'Sensor silent',
    action: "Replace the sensor with one of the car's frequency and family, and register its ID.",
  },
  'sensor-absent': {
    title: 'No sensor in this wheel',
    action: "Offer to fit a sensor of the car's family and register its ID.",
  },
  'sensor-battery-low': {
    title: 'Sensor battery ending',
    action: 'Replace the sensor before it falls silent; ask about the whole set if the others are as old.',
  },
  'sensor-inaccurate': {
    title: 'Sensor reads wrong',
    action: 'Gauge and wake it once more; if it still differs, replace the sensor.',
  },
  'sensor-wrong-type': {
    title: 'Wrong sensor for this car',
    action: "The car cannot hear it: fit a sensor of the car's frequency and family.",
  },
  'sensor-intermittent': {
    title: 'Sensor drops out',
    action: 'Log reception once more on a drive; if it is the same one, replace it.',
  },
  'id-not-registered': {
    title: 'ID unknown to the car',
    action: 'Send the scanned IDs to the car and read them back.',
  },
  'id-mistyped': {
    title: 'ID one slip off',
    action: 'The car holds this ID with a slip: send the scanned IDs and read them back.',
  },
  'id-duplicate': {
    title: 'One ID twice',
    action: 'Wake both wheels again, apart from each other, and send what they answer.',
  },
  'positions-swapped': {
    title: 'Positions swapped',
    action: 'The display blames the wrong wheel: register the IDs where the wheels are now.',
  },
  'cross-read': {
    title: 'Heard a neighbour',
    action:
      'The reading, not the sensor: move the other wheels away or the antenna closer and wake it again.',
  },
  'other-set-registered': {
    title: 'Other wheel set registered',
    action: 'Send the IDs of the set that is on the car.',
  },
  'receiver-fault': {
    title: 'The car hears nothing',
    action: "Check the receiver's supply, fuse and antenna before replacing any sensor.",
  },
  'sensors-asleep': {
    title: 'Sensors asleep',
    action: 'No fault while standing: drive above the wake speed and read again.',
  },
  'system-disabled': {
    title: 'Lamp makes no check',
    action: 'Find out why the lamp stays dark at ignition on: bulb, cluster, or configuration. It must work.',
  },
  'waiting-for-drive': {
    title: 'Waiting for the drive',
    action: 'Drive above the wake speed until the car has heard every wheel, then read it again.',
  },
  'supply-voltage-low': {
    title: 'Supply too low to write',
    action: 'Write nothing yet: connect a charger and measure again.',
  },
  'baseline-not-set': {
    title: 'Reference not stored',
    action: 'Set all tires to placard cold, then store the reference and drive.',
  },
  'wheel-speed-sensor-fault': {
    title: 'Wheel-speed data down',
    action: 'Mend the wheel-speed sensor first; the tire warning lives on its data.',
  },
  'rolling-radius-off': {
    title: 'Rolls on another radius',
    action: 'Compare size and wear of this tire with the others.',
  },
  'no-fault': {
    title: 'All in order',
    action: 'Nothing to do: hand the car over.',
  },
};

/** A finding's title with its wheels: "Tire low: RF and LR". */
export const titleOf = ({ code, wheels }: Pick<Finding, 'code' | 'wheels'>): string =>
  [wording[code].title, listWheels(wheels)].filter(Boolean).join(': ');
