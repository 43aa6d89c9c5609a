import { z } from 'zod';
import { walkingOrder } from '../wheel';

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
