import { z } from 'zod';
import { byFileSchema } from '../by-file/schema';
import { findingCodes, partKinds } from '../finding';
import { walkingOrder } from '../wheel';

export const repairOutcomeSchema = z.object({
  part: z.enum(partKinds),
  wheel: z.enum(walkingOrder).optional(),
  was: z.enum(['in-order', ...findingCodes]),
});

export const confirmationSchema = z.looseObject({
  key: z.string().min(1).max(64),
  at: z.iso.datetime({ offset: true }),
  by: z.string(),
  byFile: byFileSchema.optional(),
  parts: z.array(repairOutcomeSchema),
});
