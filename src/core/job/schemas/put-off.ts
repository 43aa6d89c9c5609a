import { z } from 'zod';
import { walkingOrder } from '../../names/wheel';

/** What a shop may not have here today. */
export const needs = ['tool', 'lead'] as const;

/** What is put off: everything that needs a device, or one move, at one wheel or wherever it would be made. */
export const putOffScopeSchema = z.looseObject({
  needs: z.enum(needs).optional(),
  /** The kind of move. */
  move: z.string().min(1).max(40).optional(),
  wheel: z.enum(walkingOrder).optional(),
  /** Which check, or the work on which finding. */
  about: z.string().min(1).max(60).optional(),
});

/** A move that somebody decided not to make on this visit, and why. */
export const putOffSchema = putOffScopeSchema.extend({
  reason: z.string().trim().min(1).max(200),
  at: z.iso.datetime({ offset: true }),
  by: z.string().max(200).optional(),
});

export const mostPutOff = 40;
