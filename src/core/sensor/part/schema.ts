import { z } from 'zod';

const words = z.string().trim().min(1).max(120);
const year = z.int().min(1980).max(2200);
const torqueNm = z.number().min(0).max(50);

/** A sensor as it stands in a catalogue. */
export const partSchema = z.looseObject({
  /** Its article number; a part is known by it. */
  name: words,
  title: words,
  /** `universal`: blank, sends nothing before it is programmed. `ready`: only to be learned. */
  kind: z.enum(['universal', 'ready']),
  /** What it can be programmed for, or what it is. */
  formats: z
    .array(z.looseObject({ family: words, frequencyMHz: z.number().positive() }))
    .min(1)
    .max(64),
  stem: z.enum(['metal', 'rubber']),
  /** Missing: for any car that hears it. */
  for: z
    .looseObject({
      profiles: z.array(words).max(64).default([]),
      fromYear: year.optional(),
      toYear: year.optional(),
    })
    .optional(),
  /** By its maker, never by feel. */
  torque: z
    .looseObject({ nutNm: torqueNm.optional(), screwNm: torqueNm.optional(), coreNm: torqueNm.optional() })
    .default({}),
  /** The article that renews core, cap, seal and nut. */
  kit: words.optional(),
});
