import { z } from 'zod';
import { byFileSchema } from '../names/by-file';
import { proofSchema } from './schemas/proof';

const at = z.iso.datetime({ offset: true });

/** Where something was worked out: a path of this app, never an address elsewhere or a script. */
export const benchLinkSchema = z
  .string()
  .max(1000)
  .regex(/^\/bench(\?|$)/, 'expected a path of the bench');

/** A stroke: x and y in turn, in thousandths of the width of the field it was drawn in. */
const strokeSchema = z.array(z.int().min(0).max(1000)).min(2).max(600);

export const signatureSchema = z.looseObject({
  strokes: z.array(strokeSchema).min(1).max(80),
  at: at.optional(),
});
export type Signature = z.infer<typeof signatureSchema>;

/** What a job file of ours says of the visit beside what was seen. */
export const visitNotesSchema = z.looseObject({
  /** The key the job was opened with: the same file again is the same job. */
  key: z.string().min(1).max(64).optional(),
  complaint: z.string().optional(),
  /** Whose car it is, and the shop's own number for the order. */
  customer: z.string().max(120).optional(),
  orderNumber: z.string().max(40).optional(),
  /** Drawn by the customer at the end. */
  signature: signatureSchema.optional(),
  /** The job was made of a file. */
  byFile: byFileSchema.optional(),
  openedAt: at.optional(),
  openedBy: z.string().optional(),
  handedOverAt: at.optional(),
  handedOverBy: z.string().optional(),
  /** The car left, or was booked in twice: nothing more is done on this job. */
  cancelled: z.looseObject({ at, by: z.string().optional(), reason: z.string() }).optional(),
  /** The job this one follows up, and the one that follows this one up. */
  followUpOf: z.looseObject({ id: z.string(), number: z.int() }).optional(),
  followedUpBy: z.looseObject({ id: z.string(), number: z.int() }).optional(),
  /** The wheel set that is to go on when the car comes: the job was made ready beforehand. */
  plannedSet: z.looseObject({ id: z.string(), label: z.string(), rack: z.string().nullable() }).optional(),
  /** What was proved when it was handed over. */
  proof: proofSchema.optional(),
  /** Why the car left though not all was proved. */
  unproved: z.string().optional(),
  /** What was worked out on the bench for this visit. */
  bench: z
    .array(z.looseObject({ text: z.string(), link: benchLinkSchema, at, by: z.string() }))
    .max(200)
    .optional(),
});
export type VisitNotes = z.infer<typeof visitNotesSchema>;
