import { z } from 'zod';

const at = z.iso.datetime({ offset: true });

/** What a job file of ours says of the visit beside what was seen. */
export const visitNotesSchema = z.looseObject({
  /** The key the job was opened with: the same file again is the same job. */
  key: z.string().min(1).max(64).optional(),
  complaint: z.string().optional(),
  openedAt: at.optional(),
  openedBy: z.string().optional(),
  handedOverAt: at.optional(),
  handedOverBy: z.string().optional(),
  /** Why the car left though not all was proved. */
  unproved: z.string().optional(),
  /** What was worked out on the bench for this visit. */
  bench: z.array(z.looseObject({ text: z.string(), link: z.string(), at, by: z.string() })).optional(),
});
export type VisitNotes = z.infer<typeof visitNotesSchema>;
