import { groupedId } from '../../names/sensor-id';
import type { OldId, ProgrammingMode } from '.';
import { programmingVerdict, type SensorWrite } from '../../job/car-write';

export const modeWords: Record<ProgrammingMode, string> = {
  clone: 'the old sensor’s ID',
  new: 'a new ID',
  typed: 'an ID that is typed',
};

export const oldIdWords: Record<OldId['from'], string> = {
  scan: 'heard at the wheel',
  car: 'held by the car',
  record: 'on file',
};

/** What came of it, as far as it is known. */
export function programmingWords(write: SensorWrite): string {
  const { asked, readBack, reason } = write;
  switch (programmingVerdict(write)) {
    case 'worked':
      return `It is ${groupedId(asked.id)}, read back.`;
    case 'failed':
      return `Asked for ${groupedId(asked.id)}, read back as ${readBack?.id ? groupedId(readBack.id) : 'nothing'}. Program it again, or take another sensor.`;
    case 'unknown':
      return 'Nobody knows what it is now: read it back before it goes into a wheel.';
    case 'refused':
      return `It was not programmed. ${reason ?? ''}`.trim();
  }
}

/** Whether the car must be taught this one. */
export const teachWords = ({ mode }: SensorWrite): string =>
  mode === 'clone' ? 'A clone: the car needs no relearn.' : 'A new ID: the car must be taught.';
