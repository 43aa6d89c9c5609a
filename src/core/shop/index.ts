import { z } from 'zod';
import { relearnMethods } from '../relearn/procedure';
import { metric } from '../units';
import { unitChoiceSchema } from '../units/schema';

/** What holds for the whole shop until a job or a person says otherwise. */
export const shopSettingsSchema = z.object({
  units: unitChoiceSchema,
  /** Height of the shop, m. Null: nobody said, so sea level. */
  altitudeM: z.number().min(-500).max(6000).nullable(),
  /** The rule for cars whose own lamp figures are not known. */
  regulation: z.enum(['US', 'UN']),
  /** How warm tires are aimed at placard. */
  fillPolicy: z.enum(['ambient', 'morning']),
  /** The relearn methods this shop likes best, in order: of two ways that are alike the earlier wins. */
  preferredMethods: z.array(z.enum(relearnMethods)).max(relearnMethods.length).default([]),
});

export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** A shop that set nothing yet. */
export const usualSettings: ShopSettings = {
  units: metric,
  altitudeM: null,
  regulation: 'US',
  fillPolicy: 'ambient',
  preferredMethods: [],
};
