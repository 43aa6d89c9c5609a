import type { Reply } from '../../job';
import { strongest } from '../../job/ledger';
import { canonicalId } from '../../names/sensor-id';
import type { Position } from '../../names/wheel';

/** What waking one wheel of a set on the bench tells of it. */
export type BenchReading =
  | { kind: 'heard'; reply: Reply }
  /** Several answered, none clearly nearest: a fault of the reading, not of a wheel. */
  | { kind: 'cross-read'; answers: number }
  /** The same sensor as at another wheel of the set: one of the two readings was of its neighbour. */
  | { kind: 'heard-before'; at: Position }
  | { kind: 'silent' };

/** `others`: the IDs that were read at the other wheels. */
export function benchReading(
  replies: readonly Reply[],
  others: Partial<Record<Position, string>>,
): BenchReading {
  if (replies.length === 0) return { kind: 'silent' };
  const reply = strongest(replies);
  if (!reply) return { kind: 'cross-read', answers: replies.length };
  const id = canonicalId(reply.id);
  const at = (Object.entries(others) as [Position, string][]).find(([, other]) => canonicalId(other) === id);
  return at ? { kind: 'heard-before', at: at[0] } : { kind: 'heard', reply };
}

/** What was read, and what to do where that settles nothing. */
export function benchWords(reading: BenchReading): string {
  switch (reading.kind) {
    case 'heard':
      return [
        `heard ${reading.reply.id}`,
        reading.reply.battery === 'low' && 'battery low: replace it while the wheel is here',
      ]
        .filter(Boolean)
        .join(', ');
    case 'cross-read':
      return `${reading.answers} sensors answered: carry the wheel half a metre away from the others, wake it again`;
    case 'heard-before':
      return `the same sensor as at ${reading.at}: carry both away from the others, wake each again`;
    case 'silent':
      return 'nothing answered: move the antenna along the sidewall, or try another trigger';
  }
}
