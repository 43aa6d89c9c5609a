import { z } from 'zod';

/** Says of a fact that it came by a file: when it was taken in, and by whom. The shop that has it never saw it. */
export const byFileSchema = z.looseObject({
  at: z.iso.datetime({ offset: true }),
  by: z.string().max(200),
});
