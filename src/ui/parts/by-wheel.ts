import { z } from 'zod';
import { walkingOrder, type Position } from '../../core/names/wheel';

/** A field for each wheel: a form shows those that the car has. */
export const byWheel = <Field extends z.ZodType>(field: Field) => z.record(z.enum(walkingOrder), field);

export const nothingByWheel = Object.fromEntries(walkingOrder.map((wheel) => [wheel, ''])) as Record<
  Position,
  string
>;
