import { type Figures, type SensorSink, figureKinds } from '../likelihoods';
import {
  type Sums,
  causeCount,
  causeIndex,
  emptySums,
  isSound,
  rows,
  sensorRows,
  soundRow,
  tireRows,
  zeros,
} from '../hypotheses';

/**
 * A factor: one wheel, taken to be at one position of the car, while the car is one way and the scans are read
 * one way. Its sums over all states of the wheel, accumulated over the causes from the least to the worst:
 * entry k of a row is the weight of the states with cause k or less.
 */
export type Factor = Sums;

/** Sensor states of one cause, whose figures mean the same to the tire: their weight by row. */
interface Group {
  cause: number;
  sums: number[];
}

/**
 * The states of a sensor summed up, to be joined with those of its tire without listing every pair: states
 * of one group share one set of tire states, and are summed first.
 */
export class SensorSums implements SensorSink {
  /** By the place of their figures in `figureKinds`. */
  private readonly groups: readonly Group[][] = figureKinds.map(() => []);

  add(weight: number, findings: number, cause: number, figures: number): void {
    const { sums } = this.groupOf(cause, figures);
    sums[0] = (sums[0] ?? 0) + weight;
    if (isSound(findings)) sums[soundRow] = (sums[soundRow] ?? 0) + weight;
    for (let rest = findings; rest !== 0; rest &= rest - 1) {
      const row = 32 - Math.clz32(rest & -rest);
      sums[row] = (sums[row] ?? 0) + weight;
    }
  }

  private groupOf(cause: number, figures: number): Group {
    const groups = this.groups[figures] ?? [];
    for (const group of groups) if (group.cause === cause) return group;
    const group = { cause, sums: zeros(rows) };
    groups.push(group);
    return group;
  }

  /** `tire`: the states of the tire, by what the figures of such a sensor are to it. */
  joinedWith(tire: (figures: Figures) => Sums): Sums {
    const factor = emptySums();
    for (const [kind, groups] of this.groups.entries()) {
      const figures = figureKinds[kind];
      if (!figures || groups.length === 0) continue;
      const states = tire(figures);
      for (const group of groups) this.join(factor, group, states);
    }
    return factor;
  }

  private join(factor: Sums, { cause: ofSensor, sums }: Group, tire: Sums): void {
    const total = sums[0] ?? 0;
    for (const cause of tireCauses) {
      const all = tire[cause] ?? 0;
      if (all === 0) continue;
      const worst = Math.max(cause, ofSensor);
      factor[worst] = (factor[worst] ?? 0) + total * all;
      const soundSlot = soundRow * causeCount + worst;
      const sound = (sums[soundRow] ?? 0) * (tire[soundRow * causeCount + cause] ?? 0);
      factor[soundSlot] = (factor[soundSlot] ?? 0) + sound;
      for (const row of tireRows) {
        const slot = row * causeCount + worst;
        factor[slot] = (factor[slot] ?? 0) + total * (tire[row * causeCount + cause] ?? 0);
      }
      for (const row of sensorRows) {
        const slot = row * causeCount + worst;
        factor[slot] = (factor[slot] ?? 0) + all * (sums[row] ?? 0);
      }
    }
  }
}

/** What a tire by itself can give the lamp cause for. */
const tireCauses = [causeIndex.nothing, causeIndex['between-on-and-off'], causeIndex.low];

/** From the weight of each cause to the weight of each cause or a lesser one. */
export function accumulate(sums: Sums): Factor {
  for (let row = 0; row < rows; row += 1) {
    for (let at = row * causeCount + 1; at < (row + 1) * causeCount; at += 1)
      sums[at] = (sums[at] ?? 0) + (sums[at - 1] ?? 0);
  }
  return sums;
}
