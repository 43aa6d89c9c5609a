import { z } from 'zod';
import { walkingOrder } from '../../wheel';

/** The events of a run, as they are stored and told. */

const position = z.enum(walkingOrder);
const id = z.string().max(64);
/** Seconds from the start of the run. */
const t = z.number().min(0);
const event = <Name extends string, Shape extends z.core.$ZodLooseShape>(name: Name, shape: Shape) =>
  z.looseObject({ t, event: z.literal(name), ...shape });

/** What happened at the car, in the order of `t`. */
export const eventSchema = z.discriminatedUnion('event', [
  event('expect', { ids: z.partialRecord(position, id) }),
  event('confirm', { what: z.string() }),
  event('set', { what: z.string(), to: z.string() }),
  event('press', { what: z.string() }),
  event('release', { what: z.string() }),
  event('chosen', { path: z.array(z.string()) }),
  event('cue', { cue: z.string() }),
  event('heard', { wheel: position, ids: z.array(id) }),
  event('taught', { wheel: position }),
  event('skip', { wheel: position }),
  event('speed', { kmh: z.number() }),
  event('answer', { answer: z.enum(['yes', 'no', 'lost']) }),
  event('registry', { entries: z.array(z.looseObject({ wheel: position, id: id.nullable() })) }),
  event('lamp', { state: z.string() }),
  event('live', { wheel: position, kPa: z.number().nullable() }),
  event('tick', {}),
  event('stop', {}),
]);
