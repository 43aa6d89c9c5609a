import { z } from 'zod';
import { walkingOrder } from '../../names/wheel';
import { cueMeanings, phases, proofKinds } from '.';
import { relearnMethods } from '../method';

/** The open procedure file. */

const position = z.enum(walkingOrder);
const words = z.string().trim().min(1).max(120);
const seconds = z.number().min(0).max(86_400);
const year = z.int().min(1980).max(2200);

/** What a person does, or waits for; one record per kind, told apart by `do`. */
export const stepSchemas = {
  set: z.looseObject({ do: z.literal('set'), what: words, to: words }),
  press: z.looseObject({
    do: z.literal('press'),
    what: words,
    times: z.int().min(1).max(100).default(1),
    withinS: seconds.optional(),
  }),
  hold: z.looseObject({
    do: z.literal('hold'),
    what: words,
    leastS: seconds.default(0),
    mostS: seconds.optional(),
  }),
  menu: z.looseObject({ do: z.literal('menu'), path: z.array(words).min(1).max(12) }),
  wait: z.looseObject({ do: z.literal('wait'), s: seconds }),
  cue: z.looseObject({
    do: z.literal('cue'),
    means: z.enum(cueMeanings),
    withinS: seconds.optional(),
  }),
  drive: z.looseObject({
    do: z.literal('drive'),
    leastKmh: z.number().min(0).max(300),
    leastS: seconds,
    unbroken: z.boolean().default(false),
  }),
  wake: z.looseObject({ do: z.literal('wake') }),
  air: z.looseObject({ do: z.literal('air') }),
  magnet: z.looseObject({ do: z.literal('magnet') }),
  write: z.looseObject({ do: z.literal('write') }),
};

export const stepSchema = z.discriminatedUnion('do', [
  stepSchemas.set,
  stepSchemas.press,
  stepSchemas.hold,
  stepSchemas.menu,
  stepSchemas.wait,
  stepSchemas.cue,
  stepSchemas.drive,
  stepSchemas.wake,
  stepSchemas.air,
  stepSchemas.magnet,
  stepSchemas.write,
]);
export const cueSchema = z.looseObject({
  /** A word for who gives it and a count, a colour or a text: `horn 1`, `lamp off`. */
  cue: words,
  /** In every phase where it is not said. */
  during: z.enum(phases).optional(),
  means: z.enum(cueMeanings),
});

/** The cars it is for. */
export const forSchema = z.looseObject({
  profiles: z.array(words).max(64).default([]),
  fromYear: year.optional(),
  toYear: year.optional(),
});

/** What the car allows: to be brought to learn, a wheel, and in all. */
export const limitsSchema = z.looseObject({
  enterS: seconds.optional(),
  wheelS: seconds.optional(),
  totalS: seconds.optional(),
});

/** How one kind of vehicle is taught its sensors by one method. */
export const procedureSchema = z.looseObject({
  format: z.literal('hacienda.procedure/1'),
  name: words,
  title: words,
  method: z.enum(relearnMethods),
  for: forSchema.default({ profiles: [] }),
  /** Taught in this order; empty where the car finds them itself. */
  wheels: z.array(position).max(8).default([]),
  /** May be skipped on purpose. */
  optional: z.array(position).max(8).default([]),
  before: z.array(words).max(24).default([]),
  enter: z.array(stepSchema).max(64).default([]),
  each: z.array(stepSchema).max(64).default([]),
  finish: z.array(stepSchema).max(64).default([]),
  proof: z.array(z.enum(proofKinds)),
  limits: limitsSchema.default({}),
  cues: z.array(cueSchema).max(64).default([]),
  /** What it takes, for choosing among methods. */
  minutes: z.number().min(0).max(600).optional(),
  source: z.string().max(400).optional(),
  checkedAt: z.string().max(40).optional(),
});
