import { z } from 'zod';
import { findingCodes } from '../assessment';
import { walkingOrder } from '../wheel';

/** The parts of a car that can be at fault by themselves. */
export const partKinds = [
  'tire',
  'sensor',
  'id',
  'order',
  'receiver',
  'lamp',
  'rolling',
  'reference',
  'wheel-speed',
] as const;
export type PartKind = (typeof partKinds)[number];

export const confirmedSchema = z.object({
  part: z.enum(partKinds),
  wheel: z.enum(walkingOrder).optional(),
  was: z.enum(['in-order', ...findingCodes]),
});

export const confirmationSchema = z.looseObject({
  key: z.uuid(),
  at: z.iso.datetime({ offset: true }),
  by: z.string(),
  parts: z.array(confirmedSchema),
});
