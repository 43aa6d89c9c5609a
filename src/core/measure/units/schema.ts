import { z } from 'zod';
import { regionCodes } from '../region';
import { distanceUnits, heightUnits, parse, pressureUnits, temperatureUnits, type Quantity } from '.';

/** The units somebody reads in. One chosen before heights had a unit is completed. */
export const unitChoiceSchema = z.object({
  pressure: z.enum(pressureUnits),
  temperature: z.enum(temperatureUnits),
  distance: z.enum(distanceUnits),
  height: z.enum(heightUnits).default('m'),
});

/** How somebody reads: those units, and figures and days as they are written where the shop is. */
export const notationSchema = unitChoiceSchema.extend({ region: z.enum(regionCodes), timeZone: z.string() });

/**
 * Text of a form, read as a quantity: in the unit typed behind it, or in the one somebody reads in; nothing typed is nothing
 * known. Its issue is the sentence of `parse`.
 */
export const typedAsOrEmpty = <Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  read: Record<Noun, Name>,
) =>
  z.string().transform((text, context) => {
    if (text.trim() === '') return undefined;
    const entry = parse(quantity, text, read[quantity.noun]);
    if (entry.ok) return entry.value;
    context.addIssue({ code: 'custom', message: entry.problem.message });
    return z.NEVER;
  });

/** The same, where something must be typed; `needed`: what is said where nothing is. */
export const typedAs = <Name extends string, Noun extends string>(
  quantity: Quantity<Name, Noun>,
  read: Record<Noun, Name>,
  needed: string,
) =>
  typedAsOrEmpty(quantity, read).transform((entry, context) => {
    if (entry) return entry;
    context.addIssue({ code: 'custom', message: needed });
    return z.NEVER;
  });
