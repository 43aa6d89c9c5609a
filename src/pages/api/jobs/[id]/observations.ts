import { z } from 'zod';
import { observationSchema } from '../../../../core/job/schema';
import { record } from '../../../../services/jobs';
import { key, postToJob } from '../../../_http';

export const POST = postToJob(
  z.object({ key, observation: observationSchema, replaces: key.optional() }),
  (id, entry, who) => record(id, entry, who),
);
