import { recordOf, wheelFindings, type WheelFinding } from '../../../catalogue/finding';

/** The findings of a wheel as bits, in the order of the catalogue: a state of a wheel carries them in one number. */
export const bit = Object.fromEntries(wheelFindings.map((code, place) => [code, 1 << place])) as Record<
  WheelFinding,
  number
>;

/** What a wheel gives the lamp cause to show, the worst last; the lamp shows the worst of all wheels. */
export const causes = ['nothing', 'between-on-and-off', 'intermittent', 'low', 'malfunction'] as const;
export type Cause = (typeof causes)[number];
export const causeCount = causes.length;
export const causeIndex = Object.fromEntries(causes.map((cause, place) => [cause, place])) as Record<
  Cause,
  number
>;

/**
 * Takes one way a wheel can be: its weight (prior times likelihood of what was seen, not normalised), the
 * bits of its findings, and the cause it gives the lamp.
 */
export type Emit = (weight: number, findings: number, cause: number) => void;

/**
 * The states of a wheel summed up: for each finding, and in row 0 for all of them together, the weight by
 * cause. Row `soundRow` holds the states with no finding at all.
 */
export type Sums = number[];
export const soundRow = wheelFindings.length + 1;
export const rows = wheelFindings.length + 2;

/** The states that blame nothing. A pressure between the lamp's two figures is no fault where the lamp is dark. */
const faults = ~bit['lamp-latched'];
export const isSound = (findings: number): boolean => (findings & faults) === 0;

/**
 * So many noughts. Copied from a list that has held a fraction: such a list is made, and then written to, many
 * times faster than one that is filled, or than a typed one as short as these.
 */
export function zeros(length: number): number[] {
  let noughts = noughtsByLength.get(length);
  if (!noughts) {
    noughts = [];
    for (let at = 0; at < length; at += 1) noughts.push(0.5);
    noughtsByLength.set(length, noughts.fill(0));
  }
  return noughts.slice();
}

const noughtsByLength = new Map<number, number[]>();

export const emptySums = (): Sums => zeros(rows * causeCount);

/** Adds states up. */
export class Adder {
  readonly sums = emptySums();

  readonly take: Emit = (weight, findings, cause) => {
    const { sums } = this;
    sums[cause] = (sums[cause] ?? 0) + weight;
    if (isSound(findings)) {
      const sound = soundRow * causeCount + cause;
      sums[sound] = (sums[sound] ?? 0) + weight;
    }
    for (let rest = findings; rest !== 0; rest &= rest - 1) {
      const at = (32 - Math.clz32(rest & -rest)) * causeCount + cause;
      sums[at] = (sums[at] ?? 0) + weight;
    }
  };
}

const rowsWith = (part: 'tire' | 'sensor'): readonly number[] =>
  wheelFindings.flatMap((code, at) => (recordOf(code).summedWith === part ? [at + 1] : []));

/** The rows of the findings that go with the tire's states, and of those that go with the sensor's. */
export const tireRows = rowsWith('tire');
export const sensorRows = rowsWith('sensor');
