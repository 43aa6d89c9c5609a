import { groupedId } from '../../names/sensor-id';
import { format, pressure, temperature, type Notation } from '../../measure/units';
import type { Meeting, Shared } from '.';

/** A sensor's life in words. */

/** One time it was met. */
export function meetingWords(meeting: Meeting, units: Notation): string {
  switch (meeting.how) {
    case 'heard': {
      const { kPa, tempC, battery } = meeting.reply;
      return [
        `Heard at ${meeting.wheel}`,
        kPa != null && format(pressure, kPa, units),
        tempC != null && format(temperature, tempC, units),
        battery === 'low' && 'battery low',
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'held':
      return `Held by the car for ${meeting.wheel}`;
    case 'programmed':
      return [
        `${programmedAs[meeting.mode]}${meeting.wheel ? ` for ${meeting.wheel}` : ''}`,
        meeting.part && `part ${meeting.part}`,
        tookWords[meeting.took],
      ]
        .filter(Boolean)
        .join(', ');
    case 'printed':
      return [`Fitted at ${meeting.wheel}, printed so`, meeting.part && `part ${meeting.part}`]
        .filter(Boolean)
        .join(', ');
  }
}

const programmedAs = {
  clone: 'A sensor was programmed as its clone',
  new: 'A sensor was programmed with it as a new ID',
  typed: 'A sensor was programmed with it, as typed',
} as const;

const tookWords = {
  worked: 'read back and right',
  failed: 'read back and wrong',
  unknown: 'not read back',
  refused: 'refused',
} as const;

/** What explains that it was met at two vehicles, and what to do. `nameOf`: what a vehicle is called. */
export function sharedWords(shared: Shared, nameOf: (vehicleId: string) => string): string {
  switch (shared.why) {
    case 'set-moved':
      return `The wheels moved: ${shared.companions.length} other sensors were heard at both. Put the set on file where it is now.`;
    case 'sensor-moved':
      return `The sensor moved: it was heard at ${nameOf(shared.to)} only after it was last heard at ${nameOf(shared.from)}, which may lack one since.`;
    case 'clone':
      return 'It was cloned: two sensors may send this ID. With both cars in the shop, wake each wheel away from the other car; a new ID for one of them ends it.';
    case 'slip':
      return `Probably a slip: ${nameOf(shared.holder)} holds it, and its own sensor sends ${groupedId(shared.ownId)}, one slip away. Compare digit by digit and register what is heard.`;
    case 'held-only':
      return `${nameOf(shared.holder)} holds it, and nobody heard it there: left over from other wheels, or typed wrongly. Read the sensors and register what is heard.`;
    case 'two-send-it':
      return 'It was heard at both in turn: the wheel goes to and fro, or two sensors send one ID. With both cars in the shop, wake each wheel away from the other car.';
  }
}
