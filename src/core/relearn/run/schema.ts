import { z } from 'zod';
import { byFileSchema } from '../../names/by-file';
import { walkingOrder } from '../../names/wheel';
import { procedureSchema } from '../procedure/schema';

/** What happens in a run, and the run as it is kept. */

const position = z.enum(walkingOrder);
const id = z.string().max(64);
const words = z.string().max(500);
const happening = <Name extends string, Shape extends z.core.$ZodLooseShape>(name: Name, shape: Shape) =>
  z.looseObject({ event: z.literal(name), ...shape });

/** What happened at the car. */
export const seenOrDoneSchema = z.discriminatedUnion('event', [
  happening('expect', { ids: z.partialRecord(position, id) }),
  happening('confirm', { what: words }),
  happening('set', { what: words, to: words }),
  happening('press', { what: words }),
  happening('release', { what: words }),
  happening('chosen', { path: z.array(words).max(24) }),
  happening('cue', { cue: words }),
  happening('heard', { wheel: position, ids: z.array(id).max(32) }),
  happening('taught', { wheel: position }),
  happening('skip', { wheel: position }),
  happening('speed', { kmh: z.number() }),
  happening('answer', { answer: z.enum(['yes', 'no', 'lost']) }),
  happening('registry', { entries: z.array(z.looseObject({ wheel: position, id: id.nullable() })).max(32) }),
  happening('lamp', { state: words }),
  happening('live', { wheel: position, kPa: z.number().nullable() }),
  happening('tick', {}),
  happening('stop', {}),
]);

/** The same, or that the last of it was a slip: it is taken back, with `instead` in its place where that is said. */
export const happeningSchema = z.discriminatedUnion('event', [
  seenOrDoneSchema,
  happening('back', { instead: seenOrDoneSchema.optional() }),
]);

/** The same with its time: seconds from the start of the run. A run has them in the order of `t`. */
export const eventSchema = happeningSchema.and(z.looseObject({ t: z.number().min(0) }));

/** A procedure has a fraction of this, and a drive some hundred speeds; more is no run of one car (judgement). */
export const mostEvents = 4000;

/** One execution as it is kept in a job: the procedure as it was then, and what happened. Where it stands follows. */
export const runRecordSchema = z.looseObject({
  key: z.string().min(1).max(64),
  procedure: procedureSchema,
  startedAt: z.iso.datetime({ offset: true }),
  by: z.string().max(200).optional(),
  byFile: byFileSchema.optional(),
  events: z.array(eventSchema).max(mostEvents),
});
