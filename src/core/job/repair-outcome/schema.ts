import { z } from 'zod';
import { byFileSchema } from '../../names/by-file';
import { faultsOf, findingCodes, partKinds } from '../../catalogue/finding';
import { walkingOrder } from '../../names/wheel';
import { isPerWheel } from './per-wheel';

/** A part can be in order, or have one of its own faults: a lamp does not leak. */
export const repairOutcomeSchema = z
  .object({
    part: z.enum(partKinds),
    wheel: z.enum(walkingOrder).optional(),
    was: z.enum(['in-order', ...findingCodes]),
  })
  .refine(({ part, was }) => was === 'in-order' || faultsOf(part).includes(was), {
    path: ['was'],
    message: 'no fault of that part',
  })
  .refine(({ part, wheel }) => isPerWheel(part) === (wheel !== undefined), {
    path: ['wheel'],
    message: 'a part that every wheel has needs one; others have none',
  });

export const confirmationSchema = z.looseObject({
  key: z.string().min(1).max(64),
  at: z.iso.datetime({ offset: true }),
  by: z.string(),
  byFile: byFileSchema.optional(),
  parts: z.array(repairOutcomeSchema).max(64),
});
