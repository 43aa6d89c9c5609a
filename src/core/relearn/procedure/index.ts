import type { z } from 'zod';
import type { procedureSchema, stepSchema } from './schema';

export { canonicalCue, legendOf, meaningOf } from './legend';
export { unchecked, withCue } from './change';

/**
 * How one kind of vehicle is taught its sensors, as data. Lists and types only, so that a page can use them without
 * carrying the schemas along: those are in `./schema`, what makes no sense in `./problems`, the instructions in `./words`.
 */
export type Procedure = z.infer<typeof procedureSchema>;
export type Step = z.infer<typeof stepSchema>;
export type StepOf<Kind extends Step['do']> = Extract<Step, { do: Kind }>;

/** The phases of a procedure that have steps. */
export const phases = ['enter', 'each', 'finish'] as const;
export type Phase = (typeof phases)[number];

/** What proves that a relearn worked: what the car holds, its lamp, its live pressures. */
export const proofKinds = ['registry', 'lamp', 'live'] as const;

/** What a car can mean by a cue: of its learning, of this wheel, or of all of it. */
export const cueMeanings = ['entered', 'accepted', 'refused', 'finished', 'failed', 'expired'] as const;
export type CueMeaning = (typeof cueMeanings)[number];
/** A cue of the legend: what the car gives, in which phase, and what it means by it. */
export type LegendCue = Procedure['cues'][number];
