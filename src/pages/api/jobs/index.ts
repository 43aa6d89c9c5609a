import { z } from 'zod';
import {
  climateSchema,
  observationSchema,
  placardSchema,
  serviceSchema,
  tpmsSchema,
} from '../../../core/job/schema';
import { bookIn } from '../../../services/jobs';
import { key, post } from '../../_http';

const booking = z.object({
  key,
  vehicle: z.object({
    label: z.string().trim().min(1, 'name the vehicle').max(120),
    vin: z.string().max(40).optional(),
    plate: z.string().max(20).optional(),
    modelYear: z.int().min(1950).max(2100).optional(),
    odometerKm: z.number().min(0).max(3_000_000).optional(),
    profile: z.string().max(64).optional(),
    tpms: tpmsSchema.optional(),
  }),
  placard: placardSchema.optional(),
  complaint: z.string().max(2000).optional(),
  service: serviceSchema.optional(),
  climate: climateSchema.optional(),
  observations: z
    .array(z.object({ key, observation: observationSchema }))
    .max(10)
    .optional(),
});

export const POST = post(booking, (asked, who) => bookIn(asked, who));
