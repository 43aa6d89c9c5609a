import { z } from 'zod';
import { metric } from '../units';
import { unitChoiceSchema } from '../units/schema';

/** What holds for the whole shop until a job or a person says otherwise. */
export const shopSettingsSchema = z.object({
  units: unitChoiceSchema.default(metric),
  /** Height of the shop, m. Null: nobody said, so sea level. */
  altitudeM: z.number().min(-500).max(6000).nullable().default(null),
  /** The rule for cars whose own lamp figures are not known. */
  regulation: z.enum(['US', 'UN']).default('US'),
  /** How warm tires are aimed at placard. */
  fillPolicy: z.enum(['ambient', 'morning']).default('ambient'),
});

export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** A shop that set nothing yet. */
export const usualSettings: ShopSettings = shopSettingsSchema.parse({});
