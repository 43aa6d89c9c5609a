import { z } from 'zod';
import { confirmedSchema } from '../../../../core/confirmed/schema';
import { handOver } from '../../../../services/jobs';
import { key, postToJob } from '../../../_http';

export const POST = postToJob(
  z.object({
    key,
    version: z.int().min(1),
    unproved: z.string().trim().min(3).max(500).optional(),
    parts: z.array(confirmedSchema).max(40).optional(),
  }),
  handOver,
);
