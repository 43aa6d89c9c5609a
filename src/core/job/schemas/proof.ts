import { z } from 'zod';

/** What must be shown before a car counts as put right. */
const proofItems = ['pressures', 'damage', 'registration', 'reports', 'reset', 'codes', 'lamp'] as const;

export const proofSchema = z.object({
  proved: z.boolean(),
  checks: z.array(
    z.object({
      name: z.enum(proofItems),
      /** `open`: not looked at since the last change to the car. */
      state: z.enum(['met', 'unmet', 'open']),
      /** The state in words. */
      text: z.string(),
    }),
  ),
});
