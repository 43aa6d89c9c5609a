import type { z } from 'zod';
import type { eventSchema, happeningSchema, runRecordSchema } from './schema';

/** What happened at the car during a run; types only, the schemas are in `./schema`. */
export type Happening = z.infer<typeof happeningSchema>;
/** The same with its time, in seconds from the start of the run. */
export type RunEvent = z.infer<typeof eventSchema>;
export type EventOf<Kind extends RunEvent['event']> = Extract<RunEvent, { event: Kind }>;
/** A run as it is kept in a job. */
export type RunRecord = z.infer<typeof runRecordSchema>;
