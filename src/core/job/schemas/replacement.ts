import { z } from 'zod';
import { walkingOrder } from '../../names/wheel';

const wheels = z.array(z.enum(walkingOrder)).max(walkingOrder.length);

/** Which sensors the customer wants replaced, and which not though it was advised. */
export const replacementSchema = z.looseObject({
  at: z.iso.datetime({ offset: true }),
  by: z.string().max(200).optional(),
  wheels,
  declined: wheels.default([]),
  /** In the customer's words or ours. */
  note: z.string().max(500).optional(),
});

const price = z.number().min(0).max(100_000);

export const pricesSchema = z.object({
  currency: z.string().trim().min(1).max(8),
  /** A sensor with its kit. */
  sensor: price,
  /** A tire taken off its wheel, put on again, balanced. */
  tireWork: price,
  /** Another visit for a sensor that ended: looking for it, teaching it, the customer's way. */
  visit: price,
});
