import { z } from 'zod';
import type { Contract } from './contract';

/**
 * How it stands with the nightly backups: none are asked for, the first is to come, the last one is good, it failed, or
 * none was even tried when one was due.
 */
const backupStates = ['off', 'to-come', 'good', 'failed', 'overdue'] as const;
export type BackupState = (typeof backupStates)[number];

/** Whether the app can serve, told to whoever watches it; open to strangers, so it says nothing more. */
const healthSchema = z.object({
  /** Its database answers. */
  ok: z.boolean(),
  /** How late the event loop was since this was asked last, in the worst of a hundred turns, ms. */
  eventLoopP99Ms: z.number(),
  /** Not known while the database is away. */
  backup: z.enum(backupStates).optional(),
});
export type Health = z.infer<typeof healthSchema>;

export const healthContract = {
  at: ['GET', '/api/health'],
  right: 'anybody',
  notes: 'nothing',
  summary: 'Whether the server and its database answer, how promptly, and how the nightly backups stand',
  answer: healthSchema,
  problems: [],
} as const satisfies Contract;
