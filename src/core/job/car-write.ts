import { sameId } from '../names/sensor-id';
import type { Position } from '../names/wheel';
import type { CarWrite, Job } from '.';

/** What became of a write to the car. Only a read-back that equals what was asked counts as done. */
export type WriteVerdict = 'worked' | 'failed' | 'refused' | 'unknown';

export function writeVerdict(write: CarWrite): WriteVerdict {
  if (write.readBackAt === undefined) return write.answer === 'no' ? 'refused' : 'unknown';
  switch (write.kind) {
    case 'registry':
      return unequalEntries(write).length === 0 ? 'worked' : 'failed';
    case 'clear-codes':
      return write.readBack?.length === 0 ? 'worked' : 'failed';
    case 'thresholds':
      return sameThresholds(write) ? 'worked' : 'failed';
    case 'sensor':
      return programmingVerdict(write);
  }
}

function sameThresholds({ asked, readBack }: Extract<CarWrite, { kind: 'thresholds' }>): boolean {
  const near = (one: number, other: number | undefined) =>
    other !== undefined && Math.abs(one - other) < 0.05;
  return near(asked.lowOnKPa, readBack?.lowOnKPa) && near(asked.lowOffKPa, readBack?.lowOffKPa);
}

/** The wheels at which the read-back is not what was asked. */
export function unequalEntries(write: Extract<CarWrite, { kind: 'registry' }>): Position[] {
  return write.asked
    .filter(({ wheel, id }) => {
      const held = write.readBack?.find((entry) => entry.wheel === wheel)?.id ?? null;
      return id === null ? held !== null : held === null || !sameId(held, id);
    })
    .map(({ wheel }) => wheel);
}

/** The writes of IDs, the oldest first. */
export const registryWrites = ({
  carWrites = [],
}: Pick<Job, 'carWrites'>): Extract<CarWrite, { kind: 'registry' }>[] =>
  carWrites.flatMap((write) => (write.kind === 'registry' ? [write] : []));

/** A universal sensor that was programmed: it was asked, it answered, and it was read back; only that says what it is. */
export type SensorWrite = Extract<CarWrite, { kind: 'sensor' }>;
export const sensorWrites = ({ carWrites = [] }: Pick<Job, 'carWrites'>): SensorWrite[] =>
  carWrites.flatMap((write) => (write.kind === 'sensor' ? [write] : []));

/** What the sensor was, read back; undefined while nobody knows. A write that was refused changed nothing. */
export function programmingVerdict(write: SensorWrite): 'worked' | 'failed' | 'unknown' | 'refused' {
  const { asked, readBack, answer } = write;
  if (readBack === undefined) return answer === 'no' ? 'refused' : 'unknown';
  const differs =
    !sameId(readBack.id ?? '', asked.id) ||
    (known(readBack.family) && known(asked.family) && !sameWord(readBack.family, asked.family)) ||
    (readBack.frequencyMHz != null &&
      asked.frequencyMHz != null &&
      Math.abs(readBack.frequencyMHz - asked.frequencyMHz) > sameCarrierMHz);
  return differs ? 'failed' : 'worked';
}
const sameCarrierMHz = 1;
const known = (word: string | null | undefined): word is string => word != null;
const sameWord = (one: string, other: string): boolean => one.toLowerCase() === other.toLowerCase();

/** The last sensor that was programmed for a wheel, and read back as it was asked. */
export const programmedFor = (job: Pick<Job, 'carWrites'>, wheel: Position): SensorWrite | undefined =>
  sensorWrites(job).findLast((write) => write.wheel === wheel && programmingVerdict(write) === 'worked');
