import type { Reply } from '../../../job';
import { numericDistance, slipChance } from '../../../names/sensor-id/channel';
import type { Context, PositionEvidence, WheelEvidence } from '../evidence';
import { confusable, model } from '../model';

/** The ID the car holds at a position: how well it goes with what became of the sensor of the wheel there. */

/** What is assumed of the IDs. */
export interface HeldAssumptions {
  /** The reply that is the wheel's own sensor; undefined: none of them, or it never answered. */
  own: Reply | undefined;
  /** The ID held at the position is that of another wheel's sensor. */
  heldIsElsewhere: boolean;
  /** The car holds the IDs of this set, which is not on the car. */
  otherSet: readonly string[] | undefined;
  /** A set on file is the one on the car. */
  mounted: readonly string[] | undefined;
}

type Recorded = Pick<WheelEvidence, 'recordedId'>;

/** Random IDs of so many digits: what a match is worth against chance. IDs are weighed against this measure. */
const chanceOfId = (id: string): number => 16 ** -Math.min(12, id.length);

/** Likelihood of the ID held at the position, against a random one, by what became of the wheel's sensor. */
interface Held {
  gone: number;
  never: number;
  registered: number;
  mistyped: number;
  unregistered: number;
}

const notRead: Held = { gone: 1, never: 1, registered: 1, mistyped: 1, unregistered: 1 };

export function heldFactors(
  context: Context,
  wheel: Recorded,
  { held }: Pick<PositionEvidence, 'held'>,
  { own, heldIsElsewhere, otherSet, mounted }: HeldAssumptions,
): Held {
  const { empty, doubled, goneAndEmpty, neverAndEmpty } = model.held;
  if (otherSet) {
    const ofSet = held === undefined ? 1 : otherSetFactor(held, otherSet);
    return { gone: ofSet, never: ofSet, registered: 0, mistyped: 0, unregistered: ofSet };
  }
  if (held === undefined) return notRead;
  if (held === null) {
    return { gone: goneAndEmpty, never: neverAndEmpty, registered: 0, mistyped: 0, unregistered: empty };
  }
  const byChance = chanceOfId(held);
  const isOwn = own?.id === held;
  const ofAnyone = heldIsElsewhere
    ? doubled / byChance
    : ownIdFactor(context, wheel, held, byChance, mounted);
  const ofUnknown = heldIsElsewhere ? 0 : ofAnyone;
  return {
    gone: (1 - goneAndEmpty) * (own ? (isOwn ? 1 / byChance : 0) : ofAnyone),
    never: (1 - neverAndEmpty) * ofAnyone,
    registered: own ? (isOwn ? 1 / byChance : 0) : ofUnknown,
    mistyped: own
      ? slipChance(own.id, held, model.slips, confusable) / byChance +
        (heldIsElsewhere ? 0 : clonedFactor(context, wheel, own.id, held, byChance))
      : heldIsElsewhere
        ? 0
        : 1,
    unregistered: isOwn
      ? 0
      : (1 - empty) *
        (heldIsElsewhere
          ? doubled / byChance
          : own
            ? otherIdFactor(context, own.id, held, byChance)
            : earlierIdFactor(wheel, held, byChance)),
  };
}

/** How likely an ID is that of a wheel of this set, against a random one. */
function setFactor(id: string, set: readonly string[]): number {
  const { setComplete } = model.held;
  return set.includes(id) ? setComplete / set.length / chanceOfId(id) : 1 - setComplete;
}

/** How likely a set that is on the car has these IDs, against random ones: of two that send one ID the file speaks once. */
export const mountedFactor = (heard: readonly string[], mounted: readonly string[] | undefined): number =>
  mounted ? heard.reduce((product, id) => product * setFactor(id, mounted), 1) : 1;

function otherSetFactor(held: string | null, set: readonly string[]): number {
  const { setComplete } = model.held;
  return held !== null && set.includes(held) ? setComplete / set.length / chanceOfId(held) : 1 - setComplete;
}

/** How likely an ID is that of a wheel whose sensor was not heard, against a random one: by what is on file. */
function ownIdFactor(
  { records }: Context,
  { recordedId }: Recorded,
  id: string,
  byChance: number,
  mounted: readonly string[] | undefined,
): number {
  const { recordHolds, recordMoved } = model.held;
  if (mounted) return setFactor(id, mounted);
  if (recordedId === id) return recordHolds / byChance;
  const filed = records.some((sensor) => sensor.id === id);
  return (filed ? recordMoved / byChance : 0) + (recordedId === undefined ? 1 : 1 - recordHolds);
}

/** An ID that is held where another sensor is on the wheel: one on file, a neighbour of its batch, or any. */
function otherIdFactor({ filedIds }: Context, own: string, held: string, byChance: number): number {
  const { onFile, batchSpan, sameBatch } = model.held;
  const filed = filedIds.has(held) ? onFile / filedIds.size / byChance : 0;
  const distance = numericDistance(own, held);
  const batch = distance !== undefined && distance <= batchSpan ? sameBatch / (2 * batchSpan) / byChance : 0;
  return filed + batch + 1;
}

/**
 * The slip was made the other way: the ID of the wheel's old sensor, which the car holds rightly, was written into the new
 * one. By chance a new sensor is as near only if both are of one box, where nobody wrote a clone.
 */
function clonedFactor(
  { filedIds, cloned }: Context,
  { recordedId }: Recorded,
  own: string,
  held: string,
  byChance: number,
): number {
  const isCloned = cloned.has(held);
  if (recordedId !== held && !isCloned) return 0;
  const { onFile, batchSpan, likeNumber, clonedSlip } = model.held;
  const distance = numericDistance(own, held) ?? Number.POSITIVE_INFINITY;
  const near = isCloned || distance >= batchSpan ? chanceOfId(own) : likeNumber / (2 * batchSpan);
  const written = (clonedSlip * slipChance(held, own, model.slips, confusable)) / near;
  return ((onFile / Math.max(1, filedIds.size)) * written) / byChance;
}

/** An ID that is held where an unheard sensor was never learned: that of the one before it, where the record still names that, or any. */
const earlierIdFactor = ({ recordedId }: Recorded, held: string, byChance: number): number =>
  (recordedId === held ? model.held.onFile / byChance : 0) + 1;
