import type { JobState } from '../names/kinds';
import { workOn } from '../catalogue/finding';
import { formatDifference, pressure, type Notation } from '../measure/units';
import type { CheckedByHand, Move, Station } from '.';
import { positionName } from '../names/wheel';

/** How a job stands. */
export const stateWords: Record<JobState, string> = {
  open: 'in the shop',
  'handed-over': 'handed over',
  cancelled: 'cancelled',
};

export const stationNames: Record<Station, string> = {
  placard: 'Placard',
  gauge: 'Gauge',
  scan: 'Scan',
  car: 'Car',
  follows: 'Findings',
  write: 'Register',
  prove: 'Prove',
  'hand-over': 'Hand over',
};

/** A move as the button says it, and why it is the next. */
export function moveWords(move: Move, units: Notation): { label: string; why: string } {
  switch (move.kind) {
    case 'placard':
      return { label: 'Enter the placard', why: move.asked ?? 'Everything is measured against it.' };
    case 'gauge':
      return {
        label: `Gauge ${move.wheel}`,
        why: move.asked ?? `Read the ${positionName[move.wheel]} tire, cold if it can be.`,
      };
    case 'fill': {
      const add = formatDifference(pressure, move.addKPa, units);
      return { label: `Fill ${move.wheel}, read again`, why: `${add} to the target at ${move.wheel}.` };
    }
    case 'wake':
      return move.tries === 0
        ? {
            label: `Wake ${move.wheel}`,
            why: `Antenna to the sidewall by the valve, ${positionName[move.wheel]}.`,
          }
        : {
            label: `Wake ${move.wheel} ${move.tries === 1 ? 'again' : 'once more'}`,
            why: `Silent ${times(move.tries)}. Move the antenna, roll the wheel a quarter turn, other trigger.`,
          };
    case 'read-car':
      return { label: 'Read the car', why: 'Lead in, ignition on: registered IDs, codes, live pressures.' };
    case 'support-supply':
      return { label: 'Read the car again', why: `Supply too low to write. First ${move.how}.` };
    case 'write-ids':
      return { label: 'Register the IDs', why: 'What the car holds is not what was heard at the wheels.' };
    case 'read-back':
      return { label: 'Read back', why: 'Whether the write worked is not known until it is read back.' };
    case 'clear-codes':
      return {
        label: 'Clear the codes',
        why:
          move.tries > 0
            ? `Cleared ${times(move.tries)}, and they came back. After the drive, once more.`
            : 'Cleared, and not back after the drive, is the proof.',
      };
    case 'drive':
      return {
        label: 'Drive and read',
        why:
          move.tries > 0
            ? `Driven ${times(move.tries)}, and not every wheel was heard. Some cars need longer: once more.`
            : 'Above the wake speed the car must hear every wheel.',
      };
    case 'look-at-lamp':
      return {
        label: 'Look at the lamp',
        why: 'Ignition off and on: it must light for its check, then go out.',
      };
    case 'look':
      return {
        label: `Look at ${move.wheel}`,
        why: `Tread, sidewall and stem of the ${positionName[move.wheel]} wheel.`,
      };
    case 'check':
      return checkWords[move.test];
    case 'program':
      return {
        label: `Program the sensor for ${move.wheel}`,
        why: 'It lies alone in the cradle, and is read back before it goes into the wheel.',
      };
    case 'service':
      return {
        label: `Fit the sensor at ${move.wheel}`,
        why: 'By the list: stem, sensor, kit, torque; the printed ID before the tire goes on.',
      };
    case 'explain':
      return {
        label: `Say what it was at ${move.wheel}`,
        why: 'What was seen there, or how low it was found, stands until it is repaired, or somebody says what it was.',
      };
    case 'relearn':
      return {
        label: 'Relearn',
        why:
          move.failed > 0
            ? `Registering the IDs failed ${times(move.failed)}: teach the car another way.`
            : 'The car must be taught its sensors: see in which ways it can be.',
      };
    case 'act':
      return {
        label: workOn(move.finding),
        why: move.finding.action,
      };
    case 'hand-over':
      return { label: 'Hand over', why: 'See what is proved, print the sheet, close the job.' };
    case 'done':
      return { label: 'Open the sheet', why: 'This job is handed over.' };
  }
}

/** Checks that are done by hand and typed in. */
export const checkWords: Record<CheckedByHand, { label: string; why: string }> = {
  display: {
    label: 'Note the display',
    why: 'What the driver sees for each wheel, held against the gauge, tells whether wheels changed places.',
  },
  reception: {
    label: 'Log a drive',
    why: 'A longer drive with the log running: the sensor that misses check-ins the others make is the one.',
  },
  shift: {
    label: 'Change one tire',
    why: 'Take 25 kPa off one tire, wait for the display, and see which figure moves.',
  },
  wheelspeed: {
    label: 'Compare wheel speeds',
    why: 'A straight, steady drive with the lead in: each wheel against the mean of the four.',
  },
  baseline: {
    label: 'Reset the system',
    why: 'With all tires cold at placard, reset the system and drive.',
  },
};

const times = (count: number): string => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`);
