import { z } from 'zod';
import { regionCodes } from '../region';
import { distanceUnits, heightUnits, pressureUnits, temperatureUnits } from '.';

/** The units somebody reads in. One chosen before heights had a unit is completed. */
export const unitChoiceSchema = z.object({
  pressure: z.enum(pressureUnits),
  temperature: z.enum(temperatureUnits),
  distance: z.enum(distanceUnits),
  height: z.enum(heightUnits).default('m'),
});

/** How somebody reads: those units, and figures and days as they are written where the shop is. */
export const notationSchema = unitChoiceSchema.extend({ region: z.enum(regionCodes), timeZone: z.string() });
