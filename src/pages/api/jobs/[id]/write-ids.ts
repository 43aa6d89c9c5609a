import { z } from 'zod';
import { walkingOrder } from '../../../../core/wheel';
import { writeIds } from '../../../../services/car';
import { key, postToJob } from '../../../_http';

const hexId = z.string().regex(/^[0-9A-Fa-f]{1,16}$/, 'an ID has hexadecimal digits only');
const entries = z
  .array(z.object({ wheel: z.enum(walkingOrder), id: hexId.nullable() }))
  .min(1)
  .max(5);

export const POST = postToJob(z.object({ key, entries }), writeIds);
