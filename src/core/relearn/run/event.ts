import type { z } from 'zod';
import type { eventSchema } from './schema';

/** What happened at the car during a run, with its time. Types only: the schema is in `./schema`. */
export type RunEvent = z.infer<typeof eventSchema>;
export type EventOf<Kind extends RunEvent['event']> = Extract<RunEvent, { event: Kind }>;
